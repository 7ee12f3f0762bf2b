import clsx from 'clsx'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { DifferenceSaid } from '../layers/Preview'
import { useChangeLayers, useLayers, usePreview } from '../layers/queries'
import { differenceWords } from '../layers/sentence'
import { useHold } from '../library/hold'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { CopyButton } from '../ui/CopyButton'
import { Hint } from '../ui/Hint'
import { Screen, Waiting } from '../ui/Screen'
import { bytes } from '../ui/text'
import { Comparison } from './Comparison'
import { WayMark } from './PathRow'
import { usePath, useVerdict, useVerdictPreview, type Verdict } from './queries'

type Holder = Schema['Holder']
const idOf = (h: Holder) => `${h.mod} ${h.pack ?? ''}`

/** One contested path: two of its contenders side by side, and everything that settles whose is in play. */
export function PathScreen() {
  const workspace = useWorkspace()
  const [query] = useSearchParams()
  const at = query.get('at') ?? ''
  const path = usePath(workspace, at)
  const [picked, setPicked] = useState<{ left?: string; right?: string }>({})
  const back = (
    <Link to={`/workspaces/${workspace}/overlaps`} className="text-woad underline">
      All overlaps
    </Link>
  )
  if (!path.data) return <Waiting title="Overlaps" what="the path" queries={[path]} actions={back} />
  const p = path.data.path
  const find = (id: string | undefined) => p.holders.find((h) => idOf(h) === id)
  const right = find(picked.right) ?? p.holders[0]
  const left = find(picked.left) ?? p.holders.find((h) => h !== right) ?? right
  return (
    <Screen
      title={p.path.slice(p.path.lastIndexOf('/') + 1)}
      says={
        <span className="flex items-center gap-1">
          <span className="mono break-all">{p.path}</span>
          <CopyButton what="the path" text={p.path} />
        </span>
      }
      actions={back}
      aside={<Settle workspace={workspace} view={path.data} />}
    >
      <div className="mb-2 flex flex-wrap gap-x-5 gap-y-1.5">
        <Pick
          label="left"
          holders={p.holders}
          value={left}
          onPick={(h) => setPicked({ ...picked, left: idOf(h) })}
        />
        <Pick
          label="right"
          holders={p.holders}
          value={right}
          onPick={(h) => setPicked({ ...picked, right: idOf(h) })}
        />
      </div>
      {left && right && <Comparison workspace={workspace} path={p.path} left={left} right={right} />}
    </Screen>
  )
}

function Pick({
  label,
  holders,
  value,
  onPick,
}: {
  label: string
  holders: readonly Holder[]
  value: Holder | undefined
  onPick: (h: Holder) => void
}) {
  return (
    <label className="flex items-center gap-2">
      <span className="text-ink-2">{label}</span>
      <select
        value={value ? idOf(value) : ''}
        onChange={(e) => {
          const h = holders.find((x) => idOf(x) === e.target.value)
          if (h) onPick(h)
        }}
        className="h-[30px] max-w-[300px] rounded-md border border-line-2 bg-card px-2"
      >
        {holders.map((h, i) => (
          <option key={idOf(h)} value={idOf(h)}>
            {h.position} {h.name}
            {h.pack ? ' (packed)' : ''}
            {i === 0 ? ', in play' : ''}
          </option>
        ))}
      </select>
    </label>
  )
}

/** Whose file is in play and why, and the ways to have it otherwise. */
function Settle({ workspace, view }: { workspace: number; view: Schema['OnePath'] }) {
  const p = view.path
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const rule = useVerdict(workspace, (d, v) =>
    say(
      <>
        <b>{'takeBack' in v ? 'The order decides again.' : 'Ruled.'}</b>{' '}
        <DifferenceSaid difference={d} tense="does" />
      </>,
      { label: 'Undo', run: undo },
    ),
  )
  const folder = p.path.slice(0, p.path.lastIndexOf('/') + 1)
  const dot = p.path.lastIndexOf('.')
  const kind = dot > folder.length ? `${folder}**/*${p.path.slice(dot)}` : null
  return (
    <Aside label="Whose file is in play">
      <h2>Whose file is in play</h2>
      <p className="mt-1 leading-snug">{p.why}</p>
      {view.combinesAs && (
        <p className="mt-2 text-ink-2">
          The game’s definition says that such files can be combined ({view.combinesAs}).{' '}
          <Link
            to={`/workspaces/${workspace}/mends/combined-files?path=${encodeURIComponent(p.path)}`}
            className="text-woad underline"
          >
            See what that comes to
          </Link>
        </p>
      )}
      {p.ruled && (
        <Button className="mt-2" onClick={() => rule.mutate({ takeBack: [p.path] })}>
          Take the ruling back
        </Button>
      )}
      <ul className="mt-3">
        {p.holders.map((h, i) => (
          <li key={idOf(h)} className="border-line border-b py-2">
            <div className="flex items-center gap-2">
              <WayMark way={h.way} />
              <span className="num w-7 text-right text-ink-3">{h.position}</span>
              <Link
                to={`/workspaces/${workspace}/layers/${h.mod}`}
                className={clsx(
                  'min-w-0 flex-1 truncate py-[3px] hover:underline',
                  i === 0 && 'font-semibold',
                )}
              >
                {h.name}
              </Link>
              <span className="num text-ink-2">{bytes(h.sizeBytes)}</span>
            </div>
            <p className="mono mt-0.5 flex items-center pl-[60px] text-[11px] text-ink-3" title={h.sha256}>
              {h.sha256.slice(0, 16)}…
              <CopyButton what={`the SHA-256 of ${h.name}’s file`} text={h.sha256} />
              {h.pack && ` in ${h.pack.slice(h.pack.lastIndexOf('/') + 1)}`}
            </p>
            <Acts
              workspace={workspace}
              holder={h}
              top={p.holders[0] as Holder}
              path={p}
              revision={view.revision}
              onRule={(v) => rule.mutate(v)}
            />
          </li>
        ))}
      </ul>
      <AsidePart title="For more than this path">
        <p className="text-ink-2">A ruling can hold for a whole folder or for a kind of file.</p>
        <Wider
          workspace={workspace}
          view={view}
          places={kind ? [folder, kind] : [folder]}
          onRule={(v) => rule.mutate(v)}
        />
      </AsidePart>
    </Aside>
  )
}

function Acts({
  workspace,
  holder: h,
  top,
  path,
  revision,
  onRule,
}: {
  workspace: number
  holder: Holder
  top: Holder
  path: Schema['PathView']
  revision: number
  onRule: (v: Verdict) => void
}) {
  const layers = useLayers(workspace).data
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const move = useChangeLayers(workspace, (_, d) =>
    say(
      <>
        <b>{h.name} moved.</b> <DifferenceSaid difference={d} tense="does" />
      </>,
      { label: 'Undo', run: undo },
    ),
  )
  const hold = useHold(workspace, h.mod)
  const [pointed, setPointed] = useState<'rule' | 'move' | null>(null)
  const verdict: Verdict = { at: path.path, mod: h.mod }
  const ruling = useVerdictPreview(workspace, revision, pointed === 'rule' ? verdict : null).data
  // directly above the one in play, counted without the layer itself
  const above = layers?.layers.filter((l) => l.mod !== h.mod).findIndex((l) => l.mod === top.mod) ?? -1
  const change = above < 0 ? null : ({ kind: 'move', mods: [h.mod], to: above + 2 } as const)
  const moving = usePreview(workspace, revision, pointed === 'move' ? change : null).data
  const inPlay = h === top
  return (
    <div className="mt-1.5 flex flex-wrap gap-1.5 pl-[60px]">
      {!inPlay && (
        <Hint
          side="left"
          onOpenChange={(o) => setPointed(o ? 'rule' : null)}
          text={ruling ? differenceWords(ruling, 'would') : 'Looking what that would change …'}
        >
          <Button className="h-7" onClick={() => onRule(verdict)}>
            Take this one
          </Button>
        </Hint>
      )}
      {inPlay && !path.ruled && path.holders.length > 1 && (
        <Hint side="left" text="Whatever is moved later, this one stays in play.">
          <Button className="h-7" onClick={() => onRule(verdict)}>
            Rule it so
          </Button>
        </Hint>
      )}
      {!inPlay && h.mod !== 0 && top.mod !== 0 && !h.pack && change && (
        <Hint
          side="left"
          onOpenChange={(o) => setPointed(o ? 'move' : null)}
          text={moving ? differenceWords(moving, 'would') : 'Looking what that would change …'}
        >
          <Button className="h-7" onClick={() => move.mutate(change)}>
            Move its layer above {top.name.length > 14 ? 'that one' : top.name}
          </Button>
        </Hint>
      )}
      {h.mod !== 0 && !h.pack && (
        <Hint side="left" text="In this profile the game does not get this file.">
          <Button className="h-7" onClick={() => hold.mutate({ paths: [path.path], hold: true })}>
            Hold it back
          </Button>
        </Hint>
      )}
    </div>
  )
}

/** A ruling for a folder or a kind of file. */
function Wider({
  workspace,
  view,
  places,
  onRule,
}: {
  workspace: number
  view: Schema['OnePath']
  places: readonly string[]
  onRule: (v: Verdict) => void
}) {
  const [at, setAt] = useState(places[0] ?? '')
  const [mod, setMod] = useState(view.path.holders[0]?.mod ?? 0)
  const verdict: Verdict | null = at.trim() ? { at: at.trim(), mod } : null
  const preview = useVerdictPreview(workspace, view.revision, verdict)
  return (
    <form
      className="mt-1.5"
      onSubmit={(e) => {
        e.preventDefault()
        if (verdict) onRule(verdict)
      }}
    >
      <input
        value={at}
        onChange={(e) => setAt(e.target.value)}
        list="wider-places"
        aria-label="Folder with a slash at its end, or a pattern"
        className="mono h-[30px] w-full rounded-md border border-line-2 bg-card px-2"
      />
      <datalist id="wider-places">
        {places.map((p) => (
          <option key={p} value={p} />
        ))}
      </datalist>
      <select
        value={mod}
        onChange={(e) => setMod(Number(e.target.value))}
        aria-label="Whose files"
        className="mt-1.5 h-[30px] w-full rounded-md border border-line-2 bg-card px-2"
      >
        {[...new Map(view.path.holders.map((h) => [h.mod, h])).values()].map((h) => (
          <option key={h.mod} value={h.mod}>
            from {h.name}
          </option>
        ))}
      </select>
      <p role="status" className="mt-1.5 min-h-[2.6em] text-ink-2 leading-snug">
        {preview.data && <DifferenceSaid difference={preview.data} tense="would" />}
        {preview.isError && 'No file of that mod lies there.'}
      </p>
      <Button type="submit" disabled={!preview.data}>
        Rule it so
      </Button>
    </form>
  )
}
