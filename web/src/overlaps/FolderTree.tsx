import clsx from 'clsx'
import { ChevronRight, Folder } from 'lucide-react'
import { type KeyboardEvent, useRef, useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { Hint } from '../ui/Hint'
import { Tag } from '../ui/Tag'
import { count, number } from '../ui/text'
import { Holders, WayMark } from './PathRow'
import { useFolder, type Which } from './queries'
import { roomsOf } from './unfold'

/** The contested paths as folders with counts; a folder is asked for when it is opened. */
export function FolderTree({ workspace, which }: { workspace: number; which: Which }) {
  const tree = useRef<HTMLDivElement>(null)
  const [room] = useState(() => Math.floor((window.innerHeight - AROUND) / ROW_HEIGHT))
  const key = (e: KeyboardEvent) => {
    const here = (e.target as HTMLElement).closest<HTMLElement>('[role=treeitem]')
    if (!here || e.altKey || e.ctrlKey || e.metaKey) return
    const all = [...(tree.current?.querySelectorAll<HTMLElement>('[role=treeitem]') ?? [])]
    const at = all.indexOf(here)
    const open = here.getAttribute('aria-expanded')
    const level = (el: HTMLElement) => Number(el.getAttribute('aria-level'))
    let to = at
    if (e.key === 'ArrowDown') to = at + 1
    else if (e.key === 'ArrowUp') to = at - 1
    else if (e.key === 'Home') to = 0
    else if (e.key === 'End') to = all.length - 1
    else if (e.key === 'ArrowRight' && open === 'false') here.click()
    else if (e.key === 'ArrowRight') to = at + 1
    else if (e.key === 'ArrowLeft' && open === 'true') here.click()
    else if (e.key === 'ArrowLeft') to = all.findLastIndex((el, i) => i < at && level(el) < level(here))
    else if ((e.key === 'Enter' || e.key === ' ') && open !== null) here.click()
    else return
    e.preventDefault()
    all[Math.max(0, Math.min(to, all.length - 1))]?.focus()
  }
  return (
    <div className="card flex min-h-0 flex-1 flex-col overflow-hidden">
      <div className="flex h-[26px] shrink-0 items-center gap-3 border-line border-b px-3.5 text-[11px] text-ink-3">
        <span className="flex-1">path</span>
        <span className="w-[220px]">in play</span>
        <span className="w-[84px] text-right">differ</span>
        <span className="w-[84px] text-right">contested</span>
      </div>
      <div
        ref={tree}
        role="tree"
        aria-label="Contested paths"
        onKeyDown={key}
        className="min-h-0 flex-1 overflow-y-auto py-1"
      >
        <Level workspace={workspace} folder="" depth={0} which={which} room={room} />
      </div>
    </div>
  )
}

const ROW_HEIGHT = 27
/** What of a window is not the tree: the bar, the hem, the title and the filters. */
const AROUND = 260

const ROW =
  'flex h-[27px] w-full items-center gap-3 pr-3.5 text-left outline-offset-[-2px] hover:bg-sunk/60 focus:bg-woad-soft'

function Level({
  workspace,
  folder,
  depth,
  which,
  room,
}: {
  workspace: number
  folder: string
  depth: number
  which: Which
  /** How many rows it may take to begin with: folders in it are unfolded as far as they fit. */
  room: number
}) {
  const level = useFolder(workspace, folder, which).data
  if (!level) return <p className="px-3.5 py-1 text-ink-3">…</p>
  const alone = level.folders.length === 1 && level.files === 0
  const rooms = roomsOf(
    level.folders.map((f) => f.contested),
    room - level.folders.length - level.paths.length,
  )
  return (
    <>
      {level.folders.map((f, i) => (
        <OneFolder
          key={f.path}
          workspace={workspace}
          folder={f}
          depth={depth}
          which={which}
          first={depth === 0 && i === 0}
          alone={alone}
          room={rooms[i] ?? 0}
        />
      ))}
      {level.paths.map((p) => (
        <OnePath key={p.path} workspace={workspace} path={p} depth={depth} />
      ))}
      {level.files > level.paths.length && (
        <p className="py-1 text-ink-2" style={{ paddingLeft: 34 + depth * 16 }}>
          The first {number(level.paths.length)} of {count(level.files, 'path')} of this folder. Look for a
          part of the path to see others.
        </p>
      )}
    </>
  )
}

function OneFolder({
  workspace,
  folder: f,
  depth,
  which,
  first,
  alone,
  room,
}: {
  workspace: number
  folder: Schema['FolderCount']
  depth: number
  which: Which
  first: boolean
  /** Whether it is all that its level has: it is unfolded then, however long it is. */
  alone: boolean
  /** How many rows it may take at first. */
  room: number
}) {
  const [asked, setOpen] = useState<boolean>()
  const tries = room > 0 && asked === undefined
  const inner = useFolder(workspace, f.path, which, tries).data
  const fits = tries && inner !== undefined && inner.folders.length + inner.paths.length <= room
  const open = asked ?? (alone || fits)
  return (
    <>
      <button
        type="button"
        role="treeitem"
        aria-level={depth + 1}
        aria-expanded={open}
        tabIndex={first ? 0 : -1}
        onClick={() => setOpen(!open)}
        className={ROW}
        style={{ paddingLeft: 8 + depth * 16 }}
      >
        <span className="flex min-w-0 flex-1 items-center gap-1.5">
          <ChevronRight
            size={14}
            className={clsx('shrink-0 text-ink-3 transition-transform', open && 'rotate-90')}
            aria-hidden="true"
          />
          <Folder size={14} className="shrink-0 text-ink-3" aria-hidden="true" />
          <span className="mono truncate">{f.name}</span>
        </span>
        <span className="w-[220px]" />
        <span className="num w-[84px] text-right text-ink-2">{f.differs > 0 ? number(f.differs) : ''}</span>
        <span className="num w-[84px] text-right">{number(f.contested)}</span>
      </button>
      {open && (
        <Level
          workspace={workspace}
          folder={f.path}
          depth={depth + 1}
          which={which}
          room={asked === undefined ? room : 0}
        />
      )}
    </>
  )
}

function OnePath({
  workspace,
  path: p,
  depth,
}: {
  workspace: number
  path: Schema['PathView']
  depth: number
}) {
  const top = p.holders[0]
  if (!top) return null
  const differs = p.holders.some((h) => h.sha256 !== top.sha256)
  return (
    <Link
      to={`/workspaces/${workspace}/overlaps/path?at=${encodeURIComponent(p.path)}`}
      role="treeitem"
      aria-level={depth + 1}
      tabIndex={-1}
      className={ROW}
      style={{ paddingLeft: 26 + depth * 16 }}
    >
      <span className="mono min-w-0 flex-1 truncate" title={p.path}>
        {p.path.slice(p.path.lastIndexOf('/') + 1)}
      </span>
      {p.ruled && <Tag>ruled</Tag>}
      <Hint
        text={
          <>
            <p className="mb-1 font-semibold">{p.why}</p>
            <Holders path={p} />
          </>
        }
      >
        <span className="flex w-[220px] items-center gap-2">
          <WayMark way={top.way} />
          <span className="truncate font-medium">{top.name}</span>
        </span>
      </Hint>
      <span className="w-[84px] text-right text-[12px] text-ink-2">{differs ? 'differs' : 'same'}</span>
      <span className="num w-[84px] text-right text-ink-2">{number(p.holders.length)}</span>
    </Link>
  )
}
