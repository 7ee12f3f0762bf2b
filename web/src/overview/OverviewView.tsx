import clsx from 'clsx'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useOverview } from '../frame/queries'
import { addressOf } from '../frame/views'
import { useWorkspace } from '../frame/workspace'
import { LastRun } from '../test-run/LastRun'
import { Screen, Waiting } from '../ui/Screen'
import { count, number } from '../ui/text'
import { Wrinkles } from '../wrinkles/Wrinkles'
import { GamePlaces } from './GamePlaces'
import { countsOf, filled, makeupOf } from './parts'

type Overview = Schema['OverviewView']

const STEPS: Record<Overview['steps'][number]['id'], string> = {
  LIBRARY: 'Bring mods in',
  LAYERS: 'Put them in order',
  LOAD_ORDER: 'Order the plugins',
  RECORDS: 'Combine records',
  DEPLOY: 'Deploy',
  TEST_RUN: 'Test run',
}

/** How far the workspace is on the way, and what to do next. */
export function OverviewView() {
  const workspace = useWorkspace()
  const overview = useOverview(workspace)
  if (!overview.data) return <Waiting title="Overview" what="the overview" queries={[overview]} />
  const o = overview.data
  return (
    <Screen title={o.profile} name="Overview" says="How far your mods have come">
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto">
        <Counts counts={o.counts} />
        <Way workspace={workspace} overview={o} />
        <div className="grid min-h-0 flex-1 gap-3 lg:grid-cols-[1.25fr_1fr]">
          <Wrinkles workspace={workspace} open={o.wrinkles} empty={o.counts.library === 0} />
          <div className="flex flex-col gap-3">
            <section className="card px-4 py-3">
              <LastRun workspace={workspace} />
            </section>
            <Makeup makeup={o.makeup} />
            <GamePlaces workspace={workspace} places={o.places} />
          </div>
        </div>
      </div>
    </Screen>
  )
}

function Counts({ counts }: { counts: Overview['counts'] }) {
  const parts = countsOf(counts)
  return (
    <section aria-label="How far the mods have come" className="card grid grid-cols-4 px-2 py-3.5">
      {parts.map((p, i) => (
        <div key={p.says} className="relative px-4">
          {i > 0 && (
            <span
              aria-hidden="true"
              className="absolute top-4 -left-2 w-4 border-line-2 border-t-2 border-dashed"
            />
          )}
          <p className="num font-bold text-[24px] leading-tight">{p.n === undefined ? '–' : number(p.n)}</p>
          <p className="text-ink-2">{p.says}</p>
          <span className="mt-2 block h-2 overflow-hidden rounded-[3px] bg-sunk">
            <span
              className="block h-full rounded-[3px] bg-woad"
              style={{ width: `${filled(p.n, counts.library)}%` }}
            />
          </span>
        </div>
      ))}
    </section>
  )
}

function Way({ workspace, overview }: { workspace: number; overview: Overview }) {
  return (
    <section aria-label="The way to a tested game" className="card relative overflow-x-auto">
      <ol className="grid min-w-[860px] grid-flow-col auto-cols-fr">
        {overview.steps.map((s, i) => {
          const next = s.id === overview.next
          return (
            <li key={s.id} className={clsx('border-line not-first:border-l', next && 'bg-woad-soft')}>
              <Link
                to={addressOf(workspace, s.id)}
                className="flex h-full flex-col px-3.5 py-2.5 hover:bg-sunk/60"
              >
                <span className="flex items-center gap-2">
                  <span
                    className={clsx(
                      'num grid size-[18px] shrink-0 place-items-center rounded-full border font-semibold text-[10.5px]',
                      s.done
                        ? 'border-woad bg-woad text-on-woad'
                        : next
                          ? 'border-woad border-dashed text-woad'
                          : 'border-line-2 border-dashed text-ink-3',
                    )}
                  >
                    {i + 1}
                    <span className="sr-only">{s.done ? ', done' : next ? ', next' : ''}</span>
                  </span>
                  <b className="font-semibold">{STEPS[s.id]}</b>
                  {next && <span className="ml-auto font-semibold text-[11px] text-woad">next</span>}
                </span>
                <span className="mt-0.5 text-ink-2 leading-snug">{s.text}</span>
              </Link>
            </li>
          )
        })}
      </ol>
    </section>
  )
}

function Makeup({ makeup: m }: { makeup: Overview['makeup'] }) {
  const total = m.game + m.mods + m.covering + m.mends
  const parts = makeupOf(m)
  return (
    <section className="card px-4 py-3">
      <h2 className="mb-2">Where the game comes from</h2>
      <div
        role="img"
        aria-label={parts.map((p) => `${count(p.n, 'file')} ${p.says}`).join(', ')}
        className="flex h-[18px] overflow-hidden rounded border border-line-2"
      >
        {parts.map((p) => (
          <span key={p.says} className={p.look} style={{ width: `${(100 * p.n) / total}%` }} />
        ))}
      </div>
      <ul className="mt-2 grid gap-x-4 gap-y-1 text-ink-2 sm:grid-cols-2">
        {parts.map((p) => (
          <li key={p.says} className="flex items-center gap-2">
            <span className={clsx(p.look, 'h-2.5 w-[18px] shrink-0 rounded-[2px] border border-line-2')} />
            <span className="num">
              {number(p.n)} {p.says}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
