import clsx from 'clsx'
import { CircleCheck } from 'lucide-react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { DifferenceSaid, Preview } from '../layers/Preview'
import { useChangeLayers, useLayers, useSuggestion } from '../layers/queries'
import { Reasons } from '../layers/Reasons'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { Screen, Waiting } from '../ui/Screen'
import { Empty } from '../ui/States'
import { count } from '../ui/text'

/** An order that keeps all rules with the fewest moves, each with its reason. Nothing moves until it is taken. */
export function SuggestionView() {
  const workspace = useWorkspace()
  const suggestion = useSuggestion(workspace)
  const layers = useLayers(workspace)
  const go = useNavigate()
  const { undo } = useUndo(workspace)
  const { say } = useNotices()
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set())
  const back = () => go(`/workspaces/${workspace}/layers`)
  const change = useChangeLayers(workspace, (_, d) => {
    say(
      <>
        <b>The proposal is taken.</b> <DifferenceSaid difference={d} tense="does" />
      </>,
      { label: 'Undo', run: undo },
    )
    back()
  })
  const s = suggestion.data
  if (!s || !layers.data)
    return <Waiting title="Proposed order" what="an order" queries={[suggestion, layers]} />
  const view = layers.data
  const actions = <Button onClick={back}>Back to the layers</Button>
  if (s.ring.length > 0) {
    return (
      <Screen title="Proposed order" actions={actions}>
        <div className="card flex-1 overflow-y-auto p-5">
          <h2>Your own rules contradict one another</h2>
          <p className="mt-1 text-ink-2">
            Together they go round in a ring, so no order keeps them all. Take one of them back.
          </p>
          <Reasons reasons={s.ring} />
          <Button className="mt-4" onClick={() => go(`/workspaces/${workspace}/layers/rules`)}>
            Open the rules
          </Button>
        </div>
      </Screen>
    )
  }
  if (s.moves.length === 0) {
    return (
      <Screen title="Proposed order" actions={actions} aside={<GaveWay left={s.leftOut} />}>
        <div className="card flex-1">
          <Empty icon={CircleCheck} title="Nothing would have to move">
            The order keeps every rule of the cards and of your own.
          </Empty>
        </div>
      </Screen>
    )
  }
  const taken = s.moves.filter((m) => !left.has(m.mod)).map((m) => m.mod)
  const turn = (mod: number) => {
    const next = new Set(left)
    if (!next.delete(mod)) next.add(mod)
    setLeft(next)
  }
  return (
    <Screen
      title="Proposed order"
      says={`${count(s.moves.length, 'layer')} would move, the fewest that keep every rule.`}
      actions={
        <>
          {actions}
          <Button
            look="strong"
            disabled={taken.length === 0 || change.isPending}
            onClick={() => change.mutate({ kind: 'suggestion', mods: taken })}
          >
            {taken.length === s.moves.length ? 'Take all' : `Take ${taken.length} of ${s.moves.length}`}
          </Button>
        </>
      }
      aside={
        <Aside label="What it would change">
          <h2>What it would change</h2>
          <Preview
            workspace={workspace}
            revision={view.revision}
            change={taken.length > 0 ? { kind: 'suggestion', mods: taken } : null}
          />
          {s.keptNumbers.length > 0 && (
            <AsidePart title="Kept here, with another number">
              <ul>
                {s.keptNumbers.map((k) => (
                  <li key={k.mod} className="flex gap-2 py-0.5">
                    <span className="min-w-0 flex-1 truncate">{k.name}</span>
                    <span className="num text-ink-2">
                      {k.from} → {k.to}
                    </span>
                  </li>
                ))}
              </ul>
            </AsidePart>
          )}
          <GaveWayPart left={s.leftOut} />
        </Aside>
      }
    >
      <div className="card flex min-h-0 flex-1 flex-col overflow-hidden">
        <div className="flex h-[26px] shrink-0 items-center gap-3 border-line border-b px-3.5 text-[11px] text-ink-3">
          <span className="w-5" />
          <span className="w-[240px]">layer</span>
          <span className="w-24 text-right">number</span>
          <span>because</span>
        </div>
        <ul className="min-h-0 flex-1 overflow-y-auto">
          {s.moves.map((m) => (
            <li key={m.mod} className="flex items-start gap-3 border-line border-b px-3.5 py-2">
              <input
                type="checkbox"
                checked={!left.has(m.mod)}
                onChange={() => turn(m.mod)}
                aria-label={`Move ${m.name}`}
                className="mt-1 w-5 accent-(--woad)"
              />
              <span
                className={clsx('w-[240px] shrink-0 truncate font-medium', left.has(m.mod) && 'text-ink-3')}
              >
                {m.name}
              </span>
              <span className="num w-24 shrink-0 text-right">
                {m.from} → {m.to}
                <small className="block text-ink-2">{m.to > m.from ? 'higher' : 'lower'}</small>
              </span>
              <div className="min-w-0 flex-1">
                {m.because.length === 0 ? (
                  <span className="text-ink-2">it makes room</span>
                ) : (
                  <Reasons reasons={m.because} about={m.mod} />
                )}
              </div>
            </li>
          ))}
        </ul>
      </div>
    </Screen>
  )
}

function GaveWay({ left }: { left: Schema['SuggestionView']['leftOut'] }) {
  if (left.length === 0) return null
  return (
    <Aside label="What gave way">
      <GaveWayPart left={left} />
    </Aside>
  )
}

/** Rules that stand against stronger ones, with the ring that they close. */
function GaveWayPart({ left }: { left: Schema['SuggestionView']['leftOut'] }) {
  if (left.length === 0) return null
  return (
    <AsidePart title="What gave way">
      <p className="text-ink-2">Of rules that contradict one another the weaker gives way.</p>
      <ul>
        {left.map((l) => (
          <li key={l.what} className="mt-2">
            <b className="font-semibold">{l.what}</b>
            <Reasons reasons={l.ring} />
          </li>
        ))}
      </ul>
    </AsidePart>
  )
}
