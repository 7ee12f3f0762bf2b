import clsx from 'clsx'
import { CircleCheck } from 'lucide-react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { Screen, Waiting } from '../ui/Screen'
import { Empty, Failed } from '../ui/States'
import { Tag } from '../ui/Tag'
import { count, number } from '../ui/text'
import { BackToOrder } from './BackToOrder'
import { type CompactRow, compact } from './compact'
import { LoadReasons } from './LoadReasons'
import { PluginName } from './PluginName'
import {
  useChangeLoadOrder,
  useLoadOrder,
  useLoadPreview,
  useProposal,
  useRuleAct,
  useWaysOut,
} from './queries'
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
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
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
  if (!proposal.data || !order.data)
    return <Waiting title="Load order" what="the proposal" queries={[proposal, order]} />
  const p = proposal.data
  if (p.ring.length > 0) return <Ring workspace={workspace} ring={p.ring} />
  if (p.moves.length === 0) {
    return (
      <Screen
        title="Load order"
        actions={<Button onClick={back}>Back</Button>}
        aside={
          p.gaveWay.length > 0 && (
            <Aside label="What gave way">
              <GaveWay workspace={workspace} proposal={p} />
            </Aside>
          )
        }
      >
        <div className="card flex-1">
          <Empty icon={CircleCheck} title="Nothing to propose">
            Every plugin has its masters before it, and every rule that can be kept is kept.
          </Empty>
        </div>
      </Screen>
    )
  }
  const taken = p.moves.filter((m) => !left.has(m.name)).map((m) => m.name)
  const all = taken.length === p.moves.length
  const turn = (name: string) => {
    const next = new Set(left)
    if (!next.delete(name)) next.add(name)
    setLeft(next)
  }
  return (
    <Screen
      title="Load order"
      says={`A proposal moves ${p.moves.length} of ${count(order.data.plugins.length, 'plugin')}, the fewest that keep every rule. Nothing changes until you take it.`}
      actions={
        <>
          <Button onClick={back}>Leave it</Button>
          <Button
            look="strong"
            disabled={take.isPending || taken.length === 0}
            onClick={() =>
              take.mutate({ kind: 'proposal', order: p.order, ...(all ? {} : { names: taken }) })
            }
          >
            {all
              ? p.moves.length === 1
                ? 'Take the move'
                : `Take all ${p.moves.length} moves`
              : `Take ${taken.length} of ${count(p.moves.length, 'move')}`}
          </Button>
        </>
      }
      aside={
        <Why
          workspace={workspace}
          proposal={p}
          revision={order.data.revision}
          taken={all ? null : taken}
          left={left}
          onTurn={turn}
        />
      }
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
  const [whole, setWhole] = useState(false)
  const moved = new Set(proposal.moves.map((m) => m.name))
  const left = compact(
    now.map((p) => p.name),
    moved,
    whole,
  )
  const right = compact(proposal.order, moved, whole)
  const to = new Map(right.flatMap((r, i) => ('name' in r ? [[r.name, i] as const] : [])))
  const height = Math.max(left.length, right.length) * ROW
  const y = (i: number) => i * ROW + ROW / 2
  const own = new Set(now.filter((p) => p.own).map((p) => p.name))
  const kept = new Set(now.filter((p) => p.kept).map((p) => p.name))
  const column = { moved, own, kept, onWhole: () => setWhole(true) }
  return (
    <section aria-label="Now and proposed" tabIndex={0} className="card min-h-0 flex-1 overflow-y-auto">
      <div className="sticky top-0 z-10 grid grid-cols-[minmax(0,1fr)_150px_minmax(0,1fr)] border-line border-b bg-card font-semibold text-ink-2">
        <span className="px-3 py-1.5">Now</span>
        <span />
        <span className="px-3 py-1.5">Proposed</span>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)_150px_minmax(0,1fr)]">
        <Column rows={left} {...column} />
        <svg aria-hidden="true" width="150" height={height} viewBox={`0 0 150 ${height}`}>
          {left.map((r, i) => {
            const end = 'name' in r ? to.get(r.name) : undefined
            if (!('name' in r) || end === undefined) return null
            return (
              <path
                key={r.name}
                d={`M0 ${y(i)} C75 ${y(i)},75 ${y(end)},150 ${y(end)}`}
                fill="none"
                className={moved.has(r.name) ? 'stroke-woad' : 'stroke-line-2'}
                strokeWidth={moved.has(r.name) ? 2.4 : 1}
              />
            )
          })}
        </svg>
        <Column rows={right} {...column} />
      </div>
    </section>
  )
}

function Column({
  rows,
  moved,
  own,
  kept,
  onWhole,
}: {
  rows: readonly CompactRow[]
  moved: ReadonlySet<string>
  own: ReadonlySet<string>
  kept: ReadonlySet<string>
  onWhole: () => void
}) {
  return (
    <ol>
      {rows.map((r) =>
        'gap' in r ? (
          <li
            key={`gap ${r.after}`}
            className="flex items-center border-line border-b border-dashed px-3"
            style={{ height: ROW }}
          >
            <button type="button" className="pl-9 text-ink-3 underline" onClick={onWhole}>
              {number(r.gap)} that stay
            </button>
          </li>
        ) : (
          <li
            key={r.name}
            className={clsx(
              'flex items-center gap-3 border-line border-b px-3',
              moved.has(r.name) && 'bg-woad-soft',
            )}
            style={{ height: ROW }}
          >
            <span className="num w-8 text-right text-ink-2">{r.at + 1}</span>
            <span className="truncate">
              <PluginName name={r.name} />
            </span>
            {own.has(r.name) && <small className="text-ink-2">the game’s own</small>}
            {kept.has(r.name) && <Tag>kept here</Tag>}
            {moved.has(r.name) && <span className="sr-only">, moved</span>}
          </li>
        ),
      )}
    </ol>
  )
}

function Why({
  workspace,
  proposal: p,
  revision,
  taken,
  left,
  onTurn,
}: {
  workspace: number
  proposal: Schema['ProposalView']
  revision: number
  /** Whose moves are taken; null for all. */
  taken: readonly string[] | null
  left: ReadonlySet<string>
  onTurn: (name: string) => void
}) {
  const some = useLoadPreview(
    workspace,
    revision,
    taken && taken.length > 0 ? { kind: 'proposal', order: p.order, names: taken } : null,
  )
  const d = taken === null ? p.difference : some.data
  return (
    <Aside label="Why these moves">
      <h2>Why {p.moves.length === 1 ? 'this move' : 'these moves'}</h2>
      <ul className="mt-2 flex flex-col gap-2.5">
        {p.moves.map((m) => (
          <li
            key={m.name}
            className={clsx('border-l-[3px] pl-3', left.has(m.name) ? 'border-line-2' : 'border-woad')}
          >
            <label className="flex items-start gap-2 break-words font-semibold">
              <input
                type="checkbox"
                className="mt-1 accent-(--woad)"
                checked={!left.has(m.name)}
                onChange={() => onTurn(m.name)}
              />
              {m.name}, from {m.from} to {m.to}
            </label>
            {m.because.length > 0 ? (
              <LoadReasons reasons={m.because} about={m.name} />
            ) : (
              <p className="text-ink-2">It makes room for the others.</p>
            )}
          </li>
        ))}
      </ul>
      {p.keptNumbers.length > 0 && (
        <AsidePart title="Kept here: their order among each other stays">
          <ul>
            {p.keptNumbers.map((k) => (
              <li key={k.name} className="flex justify-between py-0.5">
                <span className="truncate font-medium">{k.name}</span>
                <span className="num text-ink-2">
                  now {k.from}, then {k.to}
                </span>
              </li>
            ))}
          </ul>
        </AsidePart>
      )}
      <GaveWay workspace={workspace} proposal={p} />
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

/** Rules that stand against stronger ones, each with its ring; and the smallest ways out of all of it. */
function GaveWay({ workspace, proposal: p }: { workspace: number; proposal: Schema['ProposalView'] }) {
  const [open, setOpen] = useState(false)
  if (p.gaveWay.length === 0) return null
  return (
    <AsidePart title="Rules that cannot be kept">
      <p className="text-ink-2">Of rules that contradict one another the weaker gives way.</p>
      <ul>
        {p.gaveWay.map((g) => (
          <li key={g.what + g.from} className="mt-2">
            <b className="font-semibold">{g.what}</b>
            <LoadReasons reasons={g.ring} />
          </li>
        ))}
      </ul>
      {open ? (
        <WaysOut workspace={workspace} />
      ) : (
        <Button className="mt-2" onClick={() => setOpen(true)}>
          What would open it?
        </Button>
      )}
    </AsidePart>
  )
}

/** The smallest sets of things without which all the rest holds together. */
function WaysOut({ workspace }: { workspace: number }) {
  const ways = useWaysOut(workspace, true)
  const { undo } = useUndo(workspace)
  const { say } = useNotices()
  const act = useRuleAct(workspace, () => say('The rule is taken back.', { label: 'Undo', run: undo }))
  const change = useChangeLoadOrder(workspace, (_, d) =>
    say(<>Done. {loadWords(d, 'does')}</>, { label: 'Undo', run: undo }),
  )
  if (ways.isPending) return <p className="mt-2 text-ink-2">Looking for the smallest way out …</p>
  if (!ways.data) return <Failed error={ways.error} retry={() => ways.refetch()} />
  const take = (e: Schema['ExitView']) => {
    if (e.off !== undefined) change.mutate({ kind: 'switch', names: [e.off], on: false })
    else if (e.free !== undefined) change.mutate({ kind: 'keep', names: [e.free], kept: false })
    else if (e.rule?.startsWith('own ')) act.mutate({ kind: 'take-back', key: e.rule })
    else if (e.rule !== undefined) act.mutate({ kind: 'word', key: e.rule, word: 'DROPPED' })
  }
  if (ways.data.sets.length === 0)
    return (
      <p className="mt-2 text-ink-2">
        Only bands gave way; the rules hold together. In Rules the bands can be muted for this profile.
      </p>
    )
  return (
    <div className="mt-2">
      <p className="font-medium">Any one of these would open it:</p>
      <ul>
        {ways.data.sets.map((set) => (
          <li key={set.map((e) => e.what).join()} className="flex flex-wrap items-center gap-1.5 py-1">
            {set.map((e, i) => (
              <span key={e.what} className="contents">
                {i > 0 && <span className="text-ink-2">and</span>}
                <Button className="h-auto whitespace-normal py-0.5 text-left" onClick={() => take(e)}>
                  {e.what}
                </Button>
              </span>
            ))}
          </li>
        ))}
      </ul>
      {!ways.data.whole && <p className="text-ink-2">There may be more; the search was ended.</p>}
    </div>
  )
}

function Ring({ workspace, ring }: { workspace: number; ring: readonly Schema['ReasonView'][] }) {
  return (
    <Screen title="Load order" says="No order works: what is fixed goes round in a ring.">
      <div className="card flex-1 overflow-y-auto px-5 py-4">
        <ol className="flex flex-col gap-3">
          {ring.map((r) => (
            <li key={r.earlier + r.later} className="border-madder border-l-[3px] pl-3">
              <p className="font-semibold">
                {r.later} after {r.earlier}
              </p>
              <p className="text-ink-2">
                {r.reason}. {r.from === 'you' ? 'So you said.' : `So says ${r.from}.`}
              </p>
            </li>
          ))}
        </ol>
        <div className="mt-4 max-w-[560px]">
          <WaysOut workspace={workspace} />
        </div>
        <p className="mt-3">
          <BackToOrder workspace={workspace} />
        </p>
      </div>
    </Screen>
  )
}
