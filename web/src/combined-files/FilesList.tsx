import { useVirtualizer } from '@tanstack/react-virtual'
import clsx from 'clsx'
import { useRef } from 'react'
import type { Schema } from '../api/client'
import { list } from '../ui/text'

type File = Schema['CandidateFile']

/** What combining a file comes to, those that need somebody first. */
const STATES: Record<File['state'], string> = {
  NEEDS_YOU: 'need a decision',
  PROPOSED: 'combine; look at them first',
  COMBINES: 'combine without a question',
  IMPOSSIBLE: 'cannot be combined',
  TWINS: 'the same in all',
}

const HEADING = 30
const ROW = 47

type Row = { heading: string } | { file: File }

/** Files by what combining them comes to, in the order in which one works through them. */
export function inStates(files: readonly File[]): File[] {
  return (Object.keys(STATES) as File['state'][]).flatMap((state) => files.filter((f) => f.state === state))
}

/** The files one under the other, with a heading over each state; fast with any number. */
export function FilesList({
  files,
  path,
  choose,
}: {
  files: readonly File[]
  path: string
  choose: (path: string) => void
}) {
  const rows = rowsOf(files)
  const scroller = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (rows[i] && 'heading' in rows[i] ? HEADING : ROW),
    overscan: 12,
    getItemKey: (i) => {
      const row = rows[i]
      return row ? ('heading' in row ? row.heading : row.file.path) : i
    },
  })
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto">
      <ul className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index]
          if (!row) return null
          return (
            <li
              key={item.key}
              className="absolute right-0 left-0"
              style={{ top: item.start, height: item.size }}
            >
              {'heading' in row ? (
                <h2 className="border-line border-b px-3 py-1.5 text-[11.5px] text-ink-2">{row.heading}</h2>
              ) : (
                <FileRow file={row.file} here={row.file.path === path} choose={choose} />
              )}
            </li>
          )
        })}
      </ul>
    </div>
  )
}

function rowsOf(files: readonly File[]): Row[] {
  const rows: Row[] = []
  let state: File['state'] | undefined
  const all = inStates(files)
  for (const file of all) {
    if (file.state !== state) {
      state = file.state
      rows.push({ heading: `${STATES[state]} · ${all.filter((f) => f.state === file.state).length}` })
    }
    rows.push({ file })
  }
  return rows
}

function FileRow({ file: f, here, choose }: { file: File; here: boolean; choose: (path: string) => void }) {
  return (
    <button
      type="button"
      aria-current={here}
      onClick={() => choose(f.path)}
      className={clsx(
        'block h-full w-full px-3 py-1.5 text-left -outline-offset-2',
        here ? 'bg-woad-soft' : 'hover:bg-sunk',
      )}
    >
      <span className="flex items-baseline gap-2">
        <span className="min-w-0 flex-1 truncate" title={f.path}>
          {f.path.slice(f.path.lastIndexOf('/') + 1)}
        </span>
        {f.written && <small className="text-ink-2">in the mend</small>}
      </span>
      <span
        className="block truncate text-[11.5px] text-ink-2"
        title={`${folderOf(f.path)} · ${list(f.contenders.map((c) => c.name))}`}
      >
        <span className="mono text-[11px]">{folderOf(f.path)}</span> · {list(f.contenders.map((c) => c.name))}
      </span>
    </button>
  )
}

function folderOf(path: string): string {
  return path.slice(0, path.lastIndexOf('/') + 1) || '/'
}
