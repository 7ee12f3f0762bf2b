import { useId, useState } from 'react'
import type { Schema } from '../api/client'
import { Failed, Loading } from '../ui/States'
import { when } from '../ui/text'
import { Begin } from './Begin'
import { faultsOf, type Offered, sourceOf } from './faults'
import { MeasureCost } from './MeasureCost'
import { type FaultRequest, type Search, useSuspects } from './queries'
import { SuspectList } from './SuspectList'

type Run = Schema['RunDetail']
const FIELD = 'h-7 rounded-md border border-line-2 bg-card px-1.5 text-ink'

type Way = 'shown' | 'value' | 'unread' | 'slow' | 'memory' | 'words' | 'steps'

/** What is wrong: one of what the last run shows, a value of its report, what it costs, or in words. */
export function NameFault(props: {
  workspace: number
  run: Run | undefined
  /** Whether Ironing can start the game. */
  startable: boolean
  /** What another screen has named; it is offered first. */
  named: Offered | undefined
  onBegun: (s: Search) => void
}) {
  const { workspace, run, named } = props
  const offered = [...(named ? [named] : []), ...(run ? faultsOf(run) : [])]
  const reports = run?.reports ?? []
  const [way, setWay] = useState<Way>(offered.length > 0 ? 'shown' : 'words')
  const [shown, setShown] = useState(0)
  const [report, setReport] = useState(reports[0]?.name ?? '')
  const [isSo, setIsSo] = useState(true)
  const [value, setValue] = useState(reports[0]?.value ?? '')
  const [seconds, setSeconds] = useState('60')
  const [until, setUntil] = useState<'SLOWER' | 'LOADS_SLOWER'>('SLOWER')
  const [memory, setMemory] = useState('2000')
  const [file, setFile] = useState('')
  const [words, setWords] = useState('')
  const name = useId()
  const fault = faultFrom()
  const suspects = useSuspects(workspace, fault)

  function faultFrom(): FaultRequest | null {
    if (way === 'steps') return { kind: 'ANY' }
    if (way === 'shown') return offered[shown]?.fault ?? null
    if (way === 'words') return words.trim() ? { kind: 'WORDS', name: words.trim() } : null
    if (way === 'slow') {
      const ms = Math.round(Number(seconds) * 1000)
      return ms > 0 && ms < 1e9 ? { kind: until, name: '', value: String(ms) } : null
    }
    if (way === 'memory') {
      const most = Math.round(Number(memory))
      return most > 0 && most < 1e7 ? { kind: 'OVER_MEMORY', name: '', value: String(most) } : null
    }
    if (way === 'unread') {
      const path = file.trim()
      return path ? { kind: 'NOT_READ', name: path, path } : null
    }
    const from = reports.findLast((r) => r.name === report)?.from
    // without a value, that it is not reported at all
    if (!report || (!value && isSo)) return null
    return { kind: isSo ? 'REPORTS' : 'REPORTS_NOT', name: report, value, ...(from ? sourceOf(from) : {}) }
  }

  const choice = (of: Way, label: string) => (
    <label className="flex min-h-[27px] items-center gap-2 py-0.5">
      <input
        type="radio"
        name={name}
        className="accent-(--woad)"
        checked={way === of}
        onChange={() => setWay(of)}
      />
      <span>{label}</span>
    </label>
  )
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto">
      <section aria-label="What is wrong" className="card shrink-0 px-4 py-3">
        <h2>What is wrong?</h2>
        <p className="mb-1.5 text-ink-2">
          {run
            ? `By the run of ${when(run.startedAt)}. What a run can tell can be searched for without you.`
            : props.startable
              ? 'The game was not started yet, so nothing can be read from a run.'
              : 'This game cannot be started from here: start it yourself with each set, and say how it went.'}
        </p>
        <div className="grid gap-x-4 sm:grid-cols-2">
          {offered.length > 0 && choice('shown', 'What the run shows')}
          {reports.length > 0 && choice('value', 'A value of its report')}
          {run?.told && choice('unread', 'It does not read a file that it should')}
          {choice('slow', 'It takes too long')}
          {choice('memory', 'It has too much memory')}
          {choice('words', 'Something that only you can see')}
          {choice('steps', 'Nothing yet: build the set up in steps')}
        </div>
        {way === 'shown' && (
          <ul className="mt-1.5 ml-1">
            {offered.map((o, i) => (
              <li key={o.says}>
                <label className="flex min-h-[27px] items-center gap-2 py-0.5">
                  <input
                    type="radio"
                    className="accent-(--woad)"
                    name={`${name} shown`}
                    checked={shown === i}
                    onChange={() => setShown(i)}
                  />
                  <span className="min-w-0 break-words">{o.says}</span>
                </label>
              </li>
            ))}
          </ul>
        )}
        {way === 'value' && (
          <div className="mt-1.5 ml-1 flex flex-wrap items-center gap-2">
            <select
              aria-label="The reported value"
              className={`${FIELD} max-w-[340px]`}
              value={report}
              onChange={(e) => {
                setReport(e.target.value)
                setValue(reports.findLast((r) => r.name === e.target.value)?.value ?? '')
              }}
            >
              {[...new Set(reports.map((r) => r.name))].map((n) => (
                <option key={n}>{n}</option>
              ))}
            </select>
            <select
              aria-label="Whether it is so"
              className={FIELD}
              value={isSo ? 'is' : 'is not'}
              onChange={(e) => setIsSo(e.target.value === 'is')}
            >
              <option value="is">is wrongly</option>
              <option value="is not">should be, and is not</option>
            </select>
            <input
              aria-label="The value"
              className={`${FIELD} w-56`}
              value={value}
              onChange={(e) => setValue(e.target.value)}
            />
          </div>
        )}
        {way === 'unread' && (
          <input
            aria-label="Path of the file in the game folder"
            placeholder="data/music/quay.ogg"
            className={`${FIELD} mt-1.5 ml-1 w-[min(460px,80%)]`}
            value={file}
            onChange={(e) => setFile(e.target.value)}
          />
        )}
        {way === 'slow' && (
          <label className="mt-1.5 ml-1 flex items-center gap-2">
            longer than
            <input
              aria-label="Seconds"
              inputMode="decimal"
              className={`${FIELD} w-20`}
              value={seconds}
              onChange={(e) => setSeconds(e.target.value)}
            />
            seconds until the game
            <select
              aria-label="Until when"
              className={FIELD}
              value={until}
              onChange={(e) => setUntil(e.target.value as 'SLOWER' | 'LOADS_SLOWER')}
            >
              <option value="SLOWER">ends</option>
              <option value="LOADS_SLOWER">has loaded</option>
            </select>
          </label>
        )}
        {way === 'memory' && (
          <label className="mt-1.5 ml-1 flex items-center gap-2">
            more than
            <input
              aria-label="MiB of memory"
              inputMode="numeric"
              className={`${FIELD} w-20`}
              value={memory}
              onChange={(e) => setMemory(e.target.value)}
            />
            MiB at a time
          </label>
        )}
        {way === 'words' && (
          <input
            aria-label="What is wrong, in words"
            placeholder="The water is black"
            maxLength={500}
            className={`${FIELD} mt-1 ml-1 w-[min(460px,80%)]`}
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
        )}
      </section>
      {fault && (
        <>
          {way === 'steps' ? null : suspects.isPending ? (
            <div className="card">
              <Loading what="who is suspected" />
            </div>
          ) : suspects.isError ? (
            <Failed error={suspects.error} retry={() => suspects.refetch()} />
          ) : (
            <SuspectList workspace={workspace} suspects={suspects.data} />
          )}
          <Begin
            workspace={workspace}
            fault={fault}
            startable={props.startable}
            inSteps={way === 'steps'}
            onBegun={props.onBegun}
          />
        </>
      )}
      {props.startable && <MeasureCost workspace={workspace} onBegun={props.onBegun} />}
    </div>
  )
}
