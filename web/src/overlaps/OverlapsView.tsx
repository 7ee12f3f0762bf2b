import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query'
import { useVirtualizer } from '@tanstack/react-virtual'
import clsx from 'clsx'
import { Search, SquaresIntersect } from 'lucide-react'
import { useDeferredValue, useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { of, useWorkspace } from '../frame/workspace'
import { FileBarKey } from '../ui/FileBar'
import { Hint } from '../ui/Hint'
import { PathText } from '../ui/PathText'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { bytes, count } from '../ui/text'
import { Holders, WayMark } from './PathRow'

const ROW = 32
const COLUMNS =
  'grid grid-cols-[minmax(0,1.3fr)_minmax(0,0.8fr)_minmax(0,1.2fr)_72px] items-center gap-3 px-3.5 max-lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]'

function useOverlaps(workspace: number, find: string, differs: boolean) {
  return useInfiniteQuery({
    queryKey: of(workspace, 'overlaps', find, differs),
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: ({ pageParam, signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/overlaps', {
          params: { path: { workspace }, query: { find, differs, offset: pageParam } },
          signal,
        }),
      ),
    getNextPageParam: (last) => last.next ?? undefined,
  })
}

/** Every path that more than one layer brings, with the file in play and why it is that one. */
export function OverlapsView() {
  const workspace = useWorkspace()
  const [find, setFind] = useState('')
  const [differs, setDiffers] = useState(false)
  const overlaps = useOverlaps(workspace, useDeferredValue(find), differs)
  const paths = overlaps.data?.pages.flatMap((p) => p.paths) ?? []
  const total = overlaps.data?.pages[0]?.total ?? 0
  const filtered = find.trim() !== '' || differs
  return (
    <Screen
      title="Overlaps"
      says={
        overlaps.data && (
          <div className="flex flex-wrap items-center gap-x-5">
            <span>
              {count(total, 'path')} {total === 1 ? 'is' : 'are'} contested
              {filtered && ', of those that you look for'}.
            </span>
            <FileBarKey />
          </div>
        )
      }
      actions={
        <>
          <label className="flex items-center gap-1.5 text-ink-2">
            <input
              type="checkbox"
              checked={differs}
              onChange={(e) => setDiffers(e.target.checked)}
              className="accent-(--woad)"
            />
            only those that differ
          </label>
          <label className="flex h-[30px] w-[260px] items-center gap-2 rounded-[7px] border border-line-2 bg-card px-2.5">
            <Search size={14} className="text-ink-3" aria-hidden="true" />
            <input
              type="search"
              value={find}
              onChange={(e) => setFind(e.target.value)}
              placeholder="Part of a path"
              aria-label="Part of a path"
              className="w-full bg-transparent outline-none"
            />
          </label>
        </>
      }
    >
      {overlaps.isPending ? (
        <div className="card flex-1">
          <Loading what="overlaps" />
        </div>
      ) : overlaps.isError ? (
        <Failed error={overlaps.error} retry={() => overlaps.refetch()} />
      ) : total === 0 ? (
        <div className="card flex-1">
          <Empty
            icon={SquaresIntersect}
            title={filtered ? 'No such path is contested' : 'Nothing is contested'}
          >
            {filtered
              ? 'Look for less of its name, or let those with the same content in.'
              : 'No two layers bring the same path.'}
          </Empty>
        </div>
      ) : (
        <PathList
          workspace={workspace}
          paths={paths}
          total={total}
          more={() => overlaps.hasNextPage && !overlaps.isFetching && overlaps.fetchNextPage()}
        />
      )}
    </Screen>
  )
}

function PathList({
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
                <PathText path={p.path} most={52} className="truncate" />
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
