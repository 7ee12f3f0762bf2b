import { useVirtualizer } from '@tanstack/react-virtual'
import clsx from 'clsx'
import { useEffect, useRef } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { Hint } from '../ui/Hint'
import { PathText } from '../ui/PathText'
import { Tag } from '../ui/Tag'
import { bytes } from '../ui/text'
import { Holders, WayMark } from './PathRow'

const ROW = 32
const COLUMNS =
  'grid grid-cols-[minmax(0,1.3fr)_minmax(0,0.8fr)_minmax(0,1.2fr)_72px] items-center gap-3 px-3.5 max-lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]'

/** Contested paths one under the other, each with the file in play and those below it. */
export function PathList({
  workspace,
  paths,
  total,
  more,
}: {
  workspace: number
  paths: readonly Schema['PathView'][]
  total: number
  more: () => void
}) {
  const scroller = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: paths.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 15,
  })
  const items = virtual.getVirtualItems()
  const last = items.at(-1)?.index ?? 0
  const wantsMore = last >= paths.length - 40 && paths.length < total
  const moreRef = useRef(more)
  moreRef.current = more
  useEffect(() => {
    if (wantsMore) moreRef.current()
  }, [wantsMore])
  return (
    <div className="card flex min-h-0 flex-1 flex-col overflow-hidden">
      <div className={clsx(COLUMNS, 'h-[26px] shrink-0 border-line border-b text-[11px] text-ink-3')}>
        <span>path</span>
        <span>in play</span>
        <span className="max-lg:hidden">below it</span>
        <span className="text-right max-lg:hidden">size</span>
      </div>
      <div
        ref={scroller}
        tabIndex={0}
        role="list"
        aria-label="Contested paths"
        className="relative min-h-0 flex-1 overflow-y-auto"
      >
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {items.map((item) => {
            const p = paths[item.index]
            const top = p?.holders[0]
            if (!p || !top) return null
            const below = p.holders.slice(1)
            // three names fit, but not beside the words that there are more
            const fits = below.length > 3 ? 2 : 3
            return (
              <div
                key={p.path}
                role="listitem"
                className={clsx(COLUMNS, 'absolute right-0 left-0 border-line border-b')}
                style={{ top: item.start, height: ROW }}
              >
                <Link
                  to={`/workspaces/${workspace}/overlaps/path?at=${encodeURIComponent(p.path)}`}
                  className="flex min-w-0 items-center gap-2 hover:underline"
                >
                  <PathText path={p.path} most={52} className="truncate" />
                  {p.ruled && <Tag>ruled</Tag>}
                </Link>
                <Hint
                  text={
                    <>
                      <p className="mb-1 font-semibold">{p.why}</p>
                      <Holders path={p} />
                    </>
                  }
                >
                  <Link
                    to={`/workspaces/${workspace}/layers/${top.mod}`}
                    className="flex min-w-0 items-center gap-2 font-medium hover:underline"
                  >
                    <WayMark way={top.way} />
                    <span className="truncate">{top.name}</span>
                    {top.pack && <small className="shrink-0 text-ink-3">packed</small>}
                  </Link>
                </Hint>
                <span className="flex min-w-0 items-center gap-3 text-ink-2 max-lg:hidden">
                  {below.slice(0, fits).map((h) => (
                    <span key={`${h.mod} ${h.pack ?? ''}`} className="flex min-w-0 items-center gap-1.5">
                      <WayMark way={h.way} />
                      <span className="truncate">{h.name}</span>
                    </span>
                  ))}
                  {below.length > fits && <span className="shrink-0">and {below.length - fits} more</span>}
                </span>
                <span className="num text-right text-ink-2 max-lg:hidden">{bytes(top.sizeBytes)}</span>
              </div>
            )
          })}
        </div>
      </div>
    </div>
  )
}
