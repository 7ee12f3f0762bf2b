import clsx from 'clsx'
import { X } from 'lucide-react'
import type { Schema } from '../api/client'
import { number } from '../ui/text'
import type { RecordState, WhichRecords } from './queries'
import { ALL_STATES, STATES } from './states'

const FIELD = 'h-[28px] max-w-[116px] rounded-[7px] border border-line-2 bg-card px-1.5 outline-offset-1'

/** Which records are in the list: by how they stand, by type and by plugin. */
export function RecordFilters({
  view,
  which,
  plugins,
  onStates,
  onSet,
  onDecided,
}: {
  view: Schema['RecordsView']
  which: WhichRecords
  plugins: readonly string[]
  onStates: (states: RecordState[]) => void
  onSet: (key: 'type' | 'plugin' | 'losesOf' | 'refersTo', value: string) => void
  onDecided: (on: boolean) => void
}) {
  const counts: Record<RecordState, number> = {
    NEEDS_YOU: view.states.needYou,
    COMBINES: view.states.combine,
    SETTLED: view.states.settled,
    ONE_CHANGES: view.states.oneChanges,
    SAME: view.states.same,
    ODD: view.states.odd,
  }
  const all = which.state.length === 0
  return (
    <>
      <fieldset className="flex flex-wrap items-center gap-1">
        <legend className="sr-only">How they stand</legend>
        {ALL_STATES.filter((s) => s !== 'ODD' || counts.ODD > 0 || which.state.includes('ODD')).map((s) => {
          const on = which.state.includes(s)
          return (
            <button
              key={s}
              type="button"
              aria-pressed={on}
              title={`${STATES[s].word}: ${STATES[s].about}`}
              onClick={() => onStates(on ? which.state.filter((x) => x !== s) : [...which.state, s])}
              className={chip(on)}
            >
              {STATES[s].short} <span className="num">{number(counts[s])}</span>
            </button>
          )
        })}
        <button type="button" aria-pressed={all} onClick={() => onStates([])} className={chip(all)}>
          all <span className="num">{number(view.records)}</span>
        </button>
      </fieldset>
      <button
        type="button"
        aria-pressed={which.decided}
        title="Records on which you have decided"
        onClick={() => onDecided(!which.decided)}
        className={chip(which.decided)}
      >
        decided
      </button>
      <select
        aria-label="Of which type"
        value={which.type}
        onChange={(e) => onSet('type', e.target.value)}
        className={FIELD}
      >
        <option value="">any type</option>
        {view.types.map((t) => (
          <option key={t.type} value={t.type}>
            {t.title} ({number(t.records)}
            {t.states.needYou > 0 &&
              `, ${number(t.states.needYou)} ${t.states.needYou === 1 ? 'needs' : 'need'} you`}
            {t.states.combine > 0 &&
              `, ${number(t.states.combine)} ${t.states.combine === 1 ? 'combines' : 'combine'}`}
            )
          </option>
        ))}
      </select>
      <select
        aria-label="Of which plugin"
        value={which.plugin.length === 1 && !which.losesOf ? which.plugin[0] : ''}
        onChange={(e) => onSet('plugin', e.target.value)}
        className={FIELD}
      >
        <option value="">any plugin</option>
        {plugins.map((p) => (
          <option key={p} value={p}>
            {p}
          </option>
        ))}
      </select>
      <select
        aria-label="What does a plugin lose"
        value={which.losesOf}
        onChange={(e) => onSet('losesOf', e.target.value)}
        className={FIELD}
      >
        <option value="">who loses</option>
        {plugins.map((p) => (
          <option key={p} value={p}>
            {p} loses
          </option>
        ))}
      </select>
      {which.plugin.length > 1 && (
        <Dropped text={`both in ${which.plugin.join(' and ')}`} drop={() => onSet('plugin', '')} />
      )}
      {which.refersTo && <Dropped text={`refers to ${which.refersTo}`} drop={() => onSet('refersTo', '')} />}
    </>
  )
}

function chip(on: boolean): string {
  return clsx(
    'h-[26px] rounded-full border px-2.5 text-[12px]',
    on ? 'border-woad bg-woad-soft text-ink' : 'border-line-2 bg-card text-ink-2 hover:border-ink-3',
  )
}

function Dropped({ text, drop }: { text: string; drop: () => void }) {
  return (
    <button
      type="button"
      onClick={drop}
      className="inline-flex h-[26px] items-center gap-1 rounded-full border border-woad bg-woad-soft px-2.5 text-[12px]"
    >
      {text} <X size={12} aria-label="take this away" />
    </button>
  )
}
