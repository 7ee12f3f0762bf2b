import clsx from 'clsx'
import { CircleCheck } from 'lucide-react'
import { useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { count, number } from '../ui/text'
import { BackToOrder } from './LoadOrderView'
import { PluginName } from './PluginName'
import { useChangeLoadOrder, useLoadOrder, useProposal } from './queries'
import { loadWords } from './sentence'

const ROW = 31

/** A better order beside the present one, every move with its reason. Nothing changes until it is taken. */
export function ProposalView() {
  const workspace = useWorkspace()
  const proposal = useProposal(workspace)
  const order = useLoadOrder(workspace)
  const go = useNavigate()
  const { undo } = useUndo(workspace)
  const { say } = useNotices()
  const back = () => go(`/workspaces/${workspace}/load-order`)
  const take = useChangeLoadOrder(workspace, (_, d) => {
    say(
      <>
        <b>The proposal is taken.</b> {loadWords(d, 'does')}
      </>,
      { label: 'Undo', run: undo },
    )
    back()
  })
  if (proposal.isPending || order.isPending) {
    return (
      <Screen title="Load order">
        <div className="card flex-1">
          <Loading what="the proposal" />
        </div>
      </Screen>
    )
  }
  if (!proposal.data || !order.data) {
    return (
      <Failed
        error={proposal.error ?? order.error}
        retry={() => Promise.all([proposal.refetch(), order.refetch()])}
      />
    )
  }
  const p = proposal.data
  if (p.ring.length > 0) return <Ring workspace={workspace} ring={p.ring} />
  if (p.moves.length === 0) {
    return (
      <Screen title="Load order" actions={<Button onClick={back}>Back</Button>}>
        <div className="card flex-1">
          <Empty icon={CircleCheck} title="Nothing to propose">
            Every plugin has its masters before it, and the wishes of the mods’ cards are kept.
          </Empty>
        </div>
      </Screen>
    )
  }
  return (
    <Screen
      title="Load order"
      says={`A proposal moves ${p.moves.length} of ${count(order.data.plugins.length, 'plugin')}. Nothing changes until you take it.`}
      actions={
        <>
          <Button onClick={back}>Leave it</Button>
          <Button
            look="strong"
            disabled={take.isPending}
            onClick={() => take.mutate({ kind: 'proposal', order: p.order })}
          >
            {p.moves.length === 1 ? 'Take the move' : `Take all ${p.moves.length} moves`}
          </Button>
        </>
      }
      aside={<Why proposal={p} />}
    >
      <SideBySide now={order.data.plugins} proposal={p} />
    </Screen>
  )
}

function SideBySide({
  now,
  proposal,
}: {
  now: readonly Schema['PluginView'][]
  proposal: Schema['ProposalView']
}) {
  const moved = new Set(proposal.moves.map((m) => m.name))
  const to = new Map(proposal.order.map((name, i) => [name, i]))
  const height = now.length * ROW
  const y = (i: number) => i * ROW + ROW / 2
  const own = new Set(now.filter((p) => p.own).map((p) => p.name))
  return (
    <div className="card min-h-0 flex-1 overflow-y-auto">
      <div className="sticky top-0 z-10 grid grid-cols-[minmax(0,1fr)_150px_minmax(0,1fr)] border-line border-b bg-card font-semibold text-ink-2">
        <span className="px-3 py-1.5">Now</span>
        <span />
        <span className="px-3 py-1.5">Proposed</span>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)_150px_minmax(0,1fr)]">
        <Column names={now.map((p) => p.name)} moved={moved} own={own} />
        <svg aria-hidden="true" width="150" height={height} viewBox={`0 0 150 ${height}`}>
          {now.map((p, i) => {
            const end = to.get(p.name) ?? i
            return (
              <path
                key={p.name}
                d={`M0 ${y(i)} C75 ${y(i)},75 ${y(end)},150 ${y(end)}`}
                fill="none"
                className={moved.has(p.name) ? 'stroke-woad' : 'stroke-line-2'}
                strokeWidth={moved.has(p.name) ? 2.4 : 1}
              />
            )
          })}
        </svg>
        <Column names={proposal.order} moved={moved} own={own} />
      </div>
    </div>
  )
}

function Column({
  names,
  moved,
  own,
}: {
  names: readonly string[]
  moved: ReadonlySet<string>
  own: ReadonlySet<string>
}) {
  return (
    <ol>
      {names.map((name, i) => (
        <li
          key={name}
          className={clsx(
            'flex items-center gap-3 border-line border-b px-3',
            moved.has(name) && 'bg-woad-soft',
          )}
          style={{ height: ROW }}
        >
          <span className="num w-6 text-right text-ink-3">{i + 1}</span>
          <span className="truncate">
            <PluginName name={name} />
          </span>
          {own.has(name) && <small className="text-ink-3">the game’s own</small>}
          {moved.has(name) && <span className="sr-only">, moved</span>}
        </li>
      ))}
    </ol>
  )
}

function Why({ proposal: p }: { proposal: Schema['ProposalView'] }) {
  const d = p.difference
  return (
    <Aside label="Why these moves">
      <h2>Why {p.moves.length === 1 ? 'this move' : 'these moves'}</h2>
      <ul className="mt-2 flex flex-col gap-2.5">
        {p.moves.map((m) => (
          <li key={m.name} className="border-woad border-l-[3px] pl-3">
            <p className="break-words font-semibold">
              {m.name}, from {m.from} to {m.to}
            </p>
            {m.because ? (
              <>
                <p className="break-words">
                  {m.because.later === m.name ? `after ${m.because.earlier}` : `before ${m.because.later}`}:{' '}
                  {m.because.reason}.
                </p>
                <p className="text-ink-2">
                  {m.because.from === 'the file'
                    ? 'Fixed by the file; no rule can undo it.'
                    : `So says ${m.because.from}.`}
                </p>
              </>
            ) : (
              <p className="text-ink-2">It makes room for the others.</p>
            )}
          </li>
        ))}
      </ul>
      {p.leftOut.length > 0 && (
        <AsidePart title="Wishes that cannot be kept">
          <ul>
            {p.leftOut.map((l) => (
              <li key={l.mod + l.plugin + l.other} className="py-0.5 text-ink-2">
                {l.mod} asks for {l.plugin} {l.after ? 'after' : 'before'} {l.other}.
              </li>
            ))}
          </ul>
        </AsidePart>
      )}
      {d && (
        <AsidePart title="What the game would read differently">
          {d.types.length === 0 ? (
            <p className="text-ink-2">No record.</p>
          ) : (
            <ul>
              {d.types.map((t) => (
                <li key={t.title} className="flex justify-between py-0.5">
                  <span className="font-medium">{t.title} records</span>
                  <span className="num text-ink-2">{number(t.records)}</span>
                </li>
              ))}
              {d.samples.slice(0, 8).map((s) => (
                <li key={s.key} className="border-line border-b border-dotted py-1 text-ink-2">
                  <b className="font-medium text-ink">{s.label}</b>: {s.after ?? 'nobody'} instead of{' '}
                  {s.before ?? 'nobody'}
                </li>
              ))}
            </ul>
          )}
        </AsidePart>
      )}
    </Aside>
  )
}

function Ring({ workspace, ring }: { workspace: number; ring: readonly Schema['ReasonView'][] }) {
  return (
    <Screen title="Load order" says="No order works: these plugins each ask to load after another of them.">
      <div className="card flex-1 overflow-y-auto px-5 py-4">
        <ol className="flex flex-col gap-3">
          {ring.map((r) => (
            <li key={r.earlier + r.later} className="border-madder border-l-[3px] pl-3">
              <p className="font-semibold">
                {r.later} after {r.earlier}
              </p>
              <p className="text-ink-2">
                {r.reason}. So says {r.from}.
              </p>
            </li>
          ))}
        </ol>
        <p className="mt-4 text-ink-2">
          Switch one of them off, or ask its author for a file without this master.
        </p>
        <p className="mt-2">
          <BackToOrder workspace={workspace} />
        </p>
      </div>
    </Screen>
  )
}
