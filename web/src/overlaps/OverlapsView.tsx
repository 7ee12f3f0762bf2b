import { SquaresIntersect } from 'lucide-react'
import { useAddress } from '../frame/address'
import { useSearch } from '../frame/search'
import { useWorkspace } from '../frame/workspace'
import { useLayers } from '../layers/queries'
import { RulingsPart } from '../rulings/RulingsPart'
import { FileBarKey } from '../ui/FileBar'
import { Screen } from '../ui/Screen'
import { SearchField } from '../ui/SearchField'
import { Segments } from '../ui/Segments'
import { Empty, Failed, Loading } from '../ui/States'
import { count, list } from '../ui/text'
import { BigMatrix } from './BigMatrix'
import { FolderTree } from './FolderTree'
import { Matrix } from './Matrix'
import { PathList } from './PathList'
import { type Kind, useFolder, useOverlaps, useRulings, type Which } from './queries'

const VIEWS = ['folders', 'list', 'matrix', 'picture', 'rulings'] as const
type View = (typeof VIEWS)[number]

const KINDS: Record<Kind, string> = {
  DIFFERS: 'differ',
  SAME: 'same content',
  LOOSE_OVER_PACKED: 'loose over packed',
  COMBINES: 'can be combined',
  RULED: 'ruled',
}

/** Every path that more than one layer brings: by folder, as a list, mod by mod, and what was ruled. */
export function OverlapsView() {
  const workspace = useWorkspace()
  const [query, put] = useAddress()
  const { typed, type, wanted: find } = useSearch()
  const view: View = VIEWS.find((v) => v === query.get('show')) ?? 'folders'
  const kind = query.getAll('kind').filter((k): k is Kind => k in KINDS)
  const mod = query.getAll('mod').map(Number)
  const which: Which = { find, kind, mod }
  const top = useFolder(workspace, '', which)
  const rulings = useRulings(workspace).data?.rulings.length ?? 0
  const total = top.data?.total ?? 0
  const showPair = (a: number, b: number) =>
    put((q) => {
      q.set('show', 'list')
      q.delete('mod')
      q.append('mod', String(a))
      q.append('mod', String(b))
    })
  const filtered = find.trim() !== '' || kind.length + mod.length > 0
  return (
    <Screen
      title="Overlaps"
      says={
        top.data && (
          <div className="flex flex-wrap items-center gap-x-5">
            <span>
              {count(total, 'path')} {total === 1 ? 'is' : 'are'} contested
              {filtered && ', of those that you look for'}.
            </span>
            <FileBarKey combined={false} />
          </div>
        )
      }
      actions={<SearchField label="Part of a path" value={typed} onChange={type} />}
    >
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <Segments
          label="How to look at them"
          value={view}
          onChange={(v) => put((q) => q.set('show', v))}
          options={[
            { value: 'folders', label: 'By folder' },
            { value: 'list', label: 'As a list' },
            { value: 'matrix', label: 'Mod by mod' },
            { value: 'picture', label: 'All mods at once' },
            { value: 'rulings', label: rulings > 0 ? count(rulings, 'ruling') : 'Rulings' },
          ]}
        />
        {view !== 'rulings' && (
          <KindFilter
            kinds={kind}
            counts={top.data?.kinds ?? {}}
            onKinds={(next) =>
              put((q) => {
                q.delete('kind')
                for (const k of next) q.append('kind', k)
              })
            }
          />
        )}
        {mod.length > 0 && (
          <ModsFilter workspace={workspace} mods={mod} onClear={() => put((q) => q.delete('mod'))} />
        )}
      </div>
      {view === 'rulings' ? (
        <RulingsPart workspace={workspace} />
      ) : view === 'picture' ? (
        <BigMatrix workspace={workspace} kind={kind} onPair={showPair} />
      ) : view === 'matrix' ? (
        <Matrix workspace={workspace} kind={kind} onPair={showPair} />
      ) : top.isPending ? (
        <div className="card flex-1">
          <Loading what="overlaps" />
        </div>
      ) : top.isError ? (
        <Failed error={top.error} retry={() => top.refetch()} />
      ) : total === 0 ? (
        <div className="card flex-1">
          <Empty
            icon={SquaresIntersect}
            title={filtered ? 'No such path is contested' : 'Nothing is contested'}
          >
            {filtered
              ? 'Look for less of its name, or take a criterion away.'
              : 'No two layers bring the same path.'}
          </Empty>
        </div>
      ) : view === 'folders' ? (
        <FolderTree workspace={workspace} which={which} />
      ) : (
        <FlatList workspace={workspace} which={which} />
      )}
    </Screen>
  )
}

function FlatList({ workspace, which }: { workspace: number; which: Which }) {
  const overlaps = useOverlaps(workspace, which)
  if (overlaps.isPending)
    return (
      <div className="card flex-1">
        <Loading what="overlaps" />
      </div>
    )
  if (overlaps.isError) return <Failed error={overlaps.error} retry={() => overlaps.refetch()} />
  return (
    <PathList
      workspace={workspace}
      paths={overlaps.data.pages.flatMap((p) => p.paths)}
      total={overlaps.data.pages[0]?.total ?? 0}
      more={() => overlaps.hasNextPage && !overlaps.isFetching && overlaps.fetchNextPage()}
    />
  )
}

function KindFilter({
  kinds,
  counts,
  onKinds,
}: {
  kinds: readonly Kind[]
  counts: Record<string, number>
  onKinds: (kinds: readonly Kind[]) => void
}) {
  return (
    <fieldset className="flex flex-wrap gap-1" aria-label="Only paths whose files">
      {(Object.keys(KINDS) as Kind[]).map((k) => (
        <button
          key={k}
          type="button"
          aria-pressed={kinds.includes(k)}
          onClick={() => onKinds(kinds.includes(k) ? kinds.filter((x) => x !== k) : [...kinds, k])}
          className="rounded-full border border-line-2 px-2.5 py-0.5 text-ink-2 hover:bg-sunk aria-pressed:border-woad aria-pressed:bg-woad-soft aria-pressed:font-semibold aria-pressed:text-woad"
        >
          {KINDS[k]} <span className="num text-[11.5px]">{counts[k] ?? ''}</span>
        </button>
      ))}
    </fieldset>
  )
}

function ModsFilter({
  workspace,
  mods,
  onClear,
}: {
  workspace: number
  mods: readonly number[]
  onClear: () => void
}) {
  const view = useLayers(workspace).data
  const names = mods.map(
    (m) => (m === 0 ? view?.game.title : view?.layers.find((l) => l.mod === m)?.name) ?? '…',
  )
  return (
    <button
      type="button"
      onClick={onClear}
      title="Show all again"
      className="max-w-[420px] truncate rounded-full border border-ochre bg-ochre-soft px-2.5 py-0.5"
    >
      brought by {list(names)} ×
    </button>
  )
}
