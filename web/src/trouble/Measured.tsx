import clsx from 'clsx'
import { list } from '../ui/text'
import type { Search } from './queries'
import { costWords, MEASURES, measureWords, outcomeWords } from './words'

type Cost = NonNullable<Search['measured']>
type Figure = Cost['figures'][number]

/** What a mod costs, as far as it is measured: its two sets side by side. */
export function Measured({ search: s, cost }: { search: Search; cost: Cost }) {
  const known = cost.figures.filter((f) => f.with || f.without)
  const untold = outcomeWords(s)
  return (
    <section aria-label="What it costs" className="card shrink-0 px-4 py-3">
      <h2>With it and without it</h2>
      {untold && <p>{untold}</p>}
      {cost.alsoLeftOut.length > 0 && (
        <p className="text-ink-2">
          Without it {list(cost.alsoLeftOut)} {cost.alsoLeftOut.length === 1 ? 'is' : 'are'} out too, since
          they need it: what that costs is in the difference.
        </p>
      )}
      {known.length === 0 ? (
        <p className="mt-1 text-ink-2">No run has come to its end yet.</p>
      ) : (
        known.map((f) => <OneMeasure key={f.measure} figure={f} />)
      )}
      <p className="mt-2 text-[12px] text-ink-2">
        Each mark is the middle of its runs, each bar reaches from the least to the most. A difference counts
        where the bars do not meet.
      </p>
    </section>
  )
}

function OneMeasure({ figure: f }: { figure: Figure }) {
  const most = Math.max(f.with?.most ?? 0, f.without?.most ?? 0, 1)
  return (
    <div className="mt-3">
      <h3 className="flex flex-wrap items-baseline gap-x-3">
        {MEASURES[f.measure]}
        <span className={clsx('font-normal', f.apart ? 'font-semibold text-woad' : 'text-ink-2')}>
          {costWords(f)}
        </span>
      </h3>
      <Bar label="with it" measure={f.measure} spread={f.with} most={most} />
      <Bar label="without it" measure={f.measure} spread={f.without} most={most} />
    </div>
  )
}

function Bar(props: { label: string; measure: Figure['measure']; spread: Figure['with']; most: number }) {
  const { spread: v, most } = props
  const at = (value: number) => `${(100 * value) / most}%`
  return (
    <div className="flex items-center gap-3 py-0.5">
      <span className="w-20 shrink-0 text-ink-2">{props.label}</span>
      <span className="relative h-3 min-w-0 flex-1 rounded-sm bg-sunk" aria-hidden="true">
        {v && (
          <>
            <span
              className="absolute inset-y-0 rounded-sm bg-woad-soft"
              style={{ left: at(v.least), right: `calc(100% - ${at(v.most)})`, minWidth: 2 }}
            />
            <span
              className="absolute inset-y-0 w-[3px] -translate-x-1/2 bg-woad"
              style={{ left: at(v.middle) }}
            />
          </>
        )}
      </span>
      <span className="num w-60 shrink-0 text-right">
        {v ? (
          <>
            {measureWords(props.measure, v.middle)}{' '}
            <span className="text-ink-2">
              ({measureWords(props.measure, v.least)} to {measureWords(props.measure, v.most)}, {v.runs}{' '}
              {v.runs === 1 ? 'run' : 'runs'})
            </span>
          </>
        ) : (
          <span className="text-ink-2">not known yet</span>
        )}
      </span>
    </div>
  )
}
