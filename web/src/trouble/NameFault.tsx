import { type FormEvent, useId, useState } from 'react'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useReturnToRun } from '../test-run/queries'
import { Button } from '../ui/Button'
import { Failed, Loading } from '../ui/States'
import { count, when } from '../ui/text'
import { faultsOf, sourceOf } from './faults'
import { type FaultRequest, type Search, type Suspects, useBegin, useSuspects } from './queries'
import { reasonWords } from './words'

type Run = Schema['RunDetail']
const FIELD = 'h-7 rounded-md border border-line-2 bg-card px-1.5 text-ink'

type Way = 'shown' | 'value' | 'slow' | 'words' | 'steps'

/** What is wrong: one of what the last run shows, a value of its report, or in words. */
export function NameFault(props: { workspace: number; run: Run | undefined; onBegun: (s: Search) => void }) {
  const { workspace, run } = props
  const offered = run ? faultsOf(run) : []
  const reports = run?.reports ?? []
  const [way, setWay] = useState<Way>(offered.length > 0 ? 'shown' : 'words')
  const [shown, setShown] = useState(0)
  const [report, setReport] = useState(reports[0]?.name ?? '')
  const [isSo, setIsSo] = useState(true)
  const [value, setValue] = useState(reports[0]?.value ?? '')
  const [seconds, setSeconds] = useState('60')
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
      return ms > 0 && ms < 1e9 ? { kind: 'SLOWER', name: '', value: String(ms) } : null
    }
    const from = reports.findLast((r) => r.name === report)?.from
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
            : 'The game was not started yet, so nothing can be read from a run. Say it in words, and judge each try yourself.'}
        </p>
        {offered.length > 0 && (
          <>
            {choice('shown', 'What the run shows')}
            {way === 'shown' && (
              <ul className="mb-1 ml-6">
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
          </>
        )}
        {reports.length > 0 && (
          <>
            {choice('value', 'A value of its report')}
            {way === 'value' && (
              <div className="mb-1.5 ml-6 flex flex-wrap items-center gap-2">
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
          </>
        )}
        {choice('slow', 'It takes too long')}
        {way === 'slow' && (
          <label className="mb-1.5 ml-6 flex items-center gap-2">
            longer than
            <input
              aria-label="Seconds"
              inputMode="decimal"
              className={`${FIELD} w-20`}
              value={seconds}
              onChange={(e) => setSeconds(e.target.value)}
            />
            seconds until the game ends
          </label>
        )}
        {choice('steps', 'Nothing yet: build the set up in steps, and stop at the first that fails')}
        {choice('words', 'Something that only you can see')}
        {way === 'words' && (
          <input
            aria-label="What is wrong, in words"
            placeholder="The water is black"
            maxLength={500}
            className={`${FIELD} mt-1 ml-6 w-[min(460px,80%)]`}
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
          <Begin workspace={workspace} fault={fault} inSteps={way === 'steps'} onBegun={props.onBegun} />
        </>
      )}
    </div>
  )
}

const SHOWN = 12

function SuspectList({ workspace, suspects: s }: { workspace: number; suspects: Suspects }) {
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const back = useReturnToRun(workspace, () =>
    say('Arranged as it was when it worked; deploy to play with it.', { label: 'Undo', run: undo }),
  )
  return (
    <section aria-label="Suspects" className="card shrink-0 px-4 py-3">
      <h2>Suspects</h2>
      <p className="text-ink-2">
        {s.suspects.length === 0
          ? 'Nothing speaks against one mod more than against another.'
          : `The most suspicious first; the other ${count(s.others, 'mod')} that are on come after them.`}
      </p>
      <ol className="mt-1">
        {s.suspects.slice(0, SHOWN).map((m) => (
          <li key={m.mod} className="flex items-baseline gap-3 border-line border-t py-1 first:border-t-0">
            <span className="w-56 shrink-0 truncate font-medium" title={m.name}>
              {m.name}
            </span>
            <span className="min-w-0 flex-1 text-ink-2">{reasonWords(m.reasons)}</span>
          </li>
        ))}
      </ol>
      {s.suspects.length > SHOWN && (
        <p className="text-ink-2">and {count(s.suspects.length - SHOWN, 'mod')} more</p>
      )}
      {s.earlier.length > 0 && (
        <p className="mt-1.5">This fault was searched for before, and found: see the searches beside.</p>
      )}
      {s.worked !== undefined && s.workedAt && (
        <p className="mt-2 flex flex-wrap items-center gap-3">
          <span>It did not show in the run of {when(s.workedAt)}.</span>
          <Button disabled={back.isPending} onClick={() => back.mutate(s.worked as number)}>
            Go back to what worked then
          </Button>
        </p>
      )}
    </section>
  )
}

function Begin(props: {
  workspace: number
  fault: FaultRequest
  inSteps: boolean
  onBegun: (s: Search) => void
}) {
  const told = props.fault.kind !== 'WORDS'
  const [byItself, setByItself] = useState(true)
  const [mends, setMends] = useState(true)
  const [limit, setLimit] = useState('300')
  const begin = useBegin(props.workspace, props.onBegun)
  const name = useId()
  const automatic = told && byItself
  const submit = (e: FormEvent) => {
    e.preventDefault()
    begin.mutate({
      fault: props.fault,
      automatic,
      limitSeconds: Math.max(1, Math.round(Number(limit) || 300)),
      mends,
      inSteps: props.inSteps,
    })
  }
  return (
    <form aria-label="How to search" className="card shrink-0 px-4 py-3" onSubmit={submit}>
      <h2>{props.inSteps ? 'Steps' : 'Search'}</h2>
      {props.inSteps && (
        <p className="mb-1 text-ink-2">
          Groundwork first, then what needs only that, then the large ones, then the rest; the game is started
          after each. Where a step fails, the search goes on in what it added.
        </p>
      )}
      <label className="flex min-h-[27px] items-center gap-2 py-0.5">
        <input
          type="radio"
          className="accent-(--woad)"
          name={name}
          disabled={!told}
          checked={automatic}
          onChange={() => setByItself(true)}
        />
        <span>
          By itself: it deploys a set, starts the game, sees whether the fault shows, and goes on
          {!told && <span className="text-ink-2"> (not for what only you can see)</span>}
        </span>
      </label>
      <label className="flex min-h-[27px] items-center gap-2 py-0.5">
        <input
          type="radio"
          name={name}
          className="accent-(--woad)"
          checked={!automatic}
          onChange={() => setByItself(false)}
        />
        <span>By hand: you play each set and say how it went; you may stop for days</span>
      </label>
      <label className="mt-1 flex min-h-[27px] items-center gap-2 py-0.5">
        <input
          type="checkbox"
          className="accent-(--woad)"
          checked={mends}
          onChange={(e) => setMends(e.target.checked)}
        />
        <span>
          Keep mends (patches, merges) where all that they were made from is on; else they are left out
        </span>
      </label>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button look="strong" type="submit" disabled={begin.isPending}>
          {begin.isPending ? 'Beginning …' : props.inSteps ? 'Build it up' : 'Search for what causes it'}
        </Button>
        {automatic && (
          <label className="flex items-center gap-2 text-ink-2">
            end a run after
            <input
              aria-label="Seconds a run may take"
              inputMode="numeric"
              className={`${FIELD} w-20`}
              value={limit}
              onChange={(e) => setLimit(e.target.value)}
            />
            s
          </label>
        )}
      </div>
    </form>
  )
}
