import { useVirtualizer } from '@tanstack/react-virtual'
import clsx from 'clsx'
import { ChevronRight, File, Folder } from 'lucide-react'
import { type KeyboardEvent, type ReactNode, useCallback, useMemo, useRef, useState } from 'react'
import { ContextMenu, type MenuAct } from './Menu'
import { bytes, number } from './text'
import { type Leaf, rowsOf, type Tree, type TreeNode, treeOf } from './tree'

const ROW = 27
/** A tree with fewer rows than this opens whole. */
const OPENS_WHOLE = 60

interface FileTreeProps<L extends Leaf> {
  label: string
  /** The files, or the tree that they have grown into already. */
  files: readonly L[] | Tree<L>
  selected?: string | null
  onSelect?: (node: TreeNode<L>) => void
  /** What stands behind the name: marks, a menu. */
  detail?: (node: TreeNode<L>) => ReactNode
  /** What can be done with a row, in a menu at the pointer. */
  acts?: (node: TreeNode<L>) => readonly MenuAct[]
  /** Whether a row is shown as not counting. */
  faded?: (node: TreeNode<L>) => boolean
  className?: string
}

/** Folders and files, to walk through by mouse or keyboard; fast with any number. */
export function FileTree<L extends Leaf>(props: FileTreeProps<L>) {
  const { files, selected, onSelect } = props
  const tree = useMemo(() => ('roots' in files ? files : treeOf(files)), [files])
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set())
  const openAtFirst = tree.roots.reduce((sum, n) => sum + n.files, 0) <= OPENS_WHOLE
  const isOpen = useCallback(
    (folder: string) => turned.has(folder) !== (openAtFirst || !folder.slice(0, -1).includes('/')),
    [turned, openAtFirst],
  )
  const rows = useMemo(() => rowsOf(tree.roots, isOpen), [tree, isOpen])
  const scroller = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
    getItemKey: useCallback((i: number) => rows[i]?.path ?? i, [rows]),
  })
  const selectedAt = rows.findIndex((r) => r.path === selected)
  const turn = (folder: string) =>
    setTurned((t) => {
      const next = new Set(t)
      if (!next.delete(folder)) next.add(folder)
      return next
    })
  const go = (index: number) => {
    const row = rows[Math.max(0, Math.min(index, rows.length - 1))]
    if (!row) return
    onSelect?.(row)
    virtual.scrollToIndex(rows.indexOf(row))
    requestAnimationFrame(() =>
      scroller.current
        ?.querySelector<HTMLElement>(`[data-path="${CSS.escape(row.path)}"]`)
        ?.focus({ preventScroll: true }),
    )
  }
  const key = (e: KeyboardEvent) => {
    const target = e.target as HTMLElement
    if (e.altKey || e.ctrlKey || e.metaKey || target.closest('button')) return
    // keys belong to the row that has the focus; that it is selected may come a moment later
    const focused = target.closest<HTMLElement>('[data-path]')?.dataset.path
    const here = rows.findIndex((r) => r.path === focused)
    const at = here < 0 ? selectedAt : here
    const row = rows[at]
    const folder = row && !row.leaf ? row : undefined
    if (e.key === 'ArrowDown') go(at + 1)
    else if (e.key === 'ArrowUp') go(at - 1)
    else if (e.key === 'Home') go(0)
    else if (e.key === 'End') go(rows.length - 1)
    else if (e.key === 'ArrowRight' && folder) isOpen(folder.path) ? go(at + 1) : turn(folder.path)
    else if (e.key === 'ArrowLeft' && row) {
      if (folder && isOpen(folder.path)) turn(folder.path)
      else go(rows.findLastIndex((r, i) => i < at && r.depth < row.depth))
    } else if ((e.key === 'Enter' || e.key === ' ') && folder) turn(folder.path)
    else return
    e.preventDefault()
  }
  const { acts } = props
  const treeDrawn = (
    <div
      ref={scroller}
      role="tree"
      aria-label={props.label}
      tabIndex={-1}
      onKeyDown={key}
      className={clsx('relative min-h-0 overflow-y-auto', props.className ?? 'flex-1')}
    >
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index]
          if (!row) return null
          const open = !row.leaf && isOpen(row.path)
          return (
            // biome-ignore lint/a11y/useKeyWithClickEvents: the tree above has the keys
            <div
              key={row.path}
              data-path={row.path}
              role="treeitem"
              aria-label={row.name}
              aria-level={row.depth + 1}
              aria-expanded={row.leaf ? undefined : open}
              aria-selected={row.path === selected}
              tabIndex={row.path === selected || (selectedAt < 0 && item.index === 0) ? 0 : -1}
              onClick={() => onSelect?.(row)}
              className={clsx(
                'group absolute right-0 left-0 flex items-center gap-1.5 pr-2.5 outline-offset-[-2px]',
                row.path === selected ? 'bg-woad-soft' : 'hover:bg-sunk/60',
                props.faded?.(row) && 'text-ink-3',
              )}
              style={{ top: item.start, height: ROW, paddingLeft: 8 + row.depth * 16 }}
            >
              {row.leaf ? (
                <File size={13} className="ml-[18px] shrink-0 text-ink-3" aria-hidden="true" />
              ) : (
                <button
                  type="button"
                  tabIndex={-1}
                  aria-label={open ? `Close ${row.name}` : `Open ${row.name}`}
                  onClick={(e) => {
                    e.stopPropagation()
                    turn(row.path)
                  }}
                  className="flex shrink-0 items-center gap-0.5 rounded hover:bg-sunk"
                >
                  <ChevronRight
                    size={14}
                    className={clsx('text-ink-3 transition-transform', open && 'rotate-90')}
                    aria-hidden="true"
                  />
                  <Folder size={14} className="text-ink-3" aria-hidden="true" />
                </button>
              )}
              <span className="mono min-w-0 flex-1 truncate" title={row.path}>
                {row.name}
              </span>
              {props.detail?.(row)}
              {!row.leaf && (
                <span className="num shrink-0 text-[11.5px] text-ink-3">{number(row.files)}</span>
              )}
              <span className="num w-[62px] shrink-0 text-right text-[11.5px] text-ink-2">
                {bytes(row.sizeBytes)}
              </span>
            </div>
          )
        })}
      </div>
    </div>
  )
  if (!acts) return treeDrawn
  return (
    <ContextMenu
      acts={(target) => {
        const path = target.closest<HTMLElement>('[data-path]')?.dataset.path
        const row = rows.find((r) => r.path === path)
        return row ? acts(row) : []
      }}
    >
      {treeDrawn}
    </ContextMenu>
  )
}
