import { HardDrive, Inbox, PackageOpen } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link, useLocation, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { useAddress } from '../frame/address'
import { useSearch } from '../frame/search'
import { useSelectedTitle } from '../frame/title'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { ChosenBar } from '../ui/list/ChosenBar'
import { List } from '../ui/list/List'
import { type ListRow, NONE } from '../ui/list/rows'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { count } from '../ui/text'
import { BringIn } from './BringIn'
import { useBringIn } from './Dropping'
import { JobTroubles } from './InboxView'
import { ModAside } from './ModAside'
import { ModFilters } from './ModFilters'
import { ModHead, ModRow } from './ModRow'
import { isKind, isSort, KINDS, type Kind, SORTS, type Sort, shownMods, type Wanted } from './mods'
import { useInbox, useLibrary } from './queries'
import { useUploads } from './uploads'
import { type ModActs, useModActs } from './useModActs'

type ModView = Schema['ModView']

interface Row extends ListRow {
  mod: ModView
}

/** Every mod that was brought in, used or not. */
export function LibraryView() {
  const workspace = useWorkspace()
  const library = useLibrary(workspace)
  const { mod } = useParams()
  const base = `/workspaces/${workspace}/library`
  const bring = useBringIn(workspace)
  // of several versions of one mod, the one in use stands for it
  const mods = useMemo(() => (library.data?.mods ?? []).filter((m) => m.inUse), [library.data])
  const selected = mod ?? null
  useSelectedTitle(mods.find((m) => String(m.id) === selected)?.name)
  return (
    <Screen
      title="Library"
      says={library.data && (mods.length > 0 ? `${count(mods.length, 'mod')}, used or not.` : null)}
      actions={
        <>
          <Link to={`${base}/storage`} className="flex items-center gap-1.5 px-1 text-ink-2 hover:text-ink">
            <HardDrive size={15} aria-hidden="true" /> Storage
          </Link>
          <InboxLink workspace={workspace} />
          <BringIn workspace={workspace} strong onFiles={bring} />
        </>
      }
      aside={selected !== null && <ModAside workspace={workspace} mod={Number(selected)} />}
    >
      <JobTroubles workspace={workspace} />
      {library.isPending ? (
        <div className="card flex-1">
          <Loading what="the library" />
        </div>
      ) : library.isError ? (
        <Failed error={library.error} retry={() => library.refetch()} />
      ) : mods.length === 0 ? (
        <div className="flex-1 rounded-[10px] border-2 border-line-2 border-dashed bg-card">
          <Empty icon={PackageOpen} title="Drop the archives of your mods here">
            Zip, 7z, or tar with gzip, xz, bzip2 or zstd. They come into the inbox first, where you see what
            the game would get from each. Your archives stay as they are.
          </Empty>
        </div>
      ) : (
        <Mods workspace={workspace} mods={mods} selected={selected} />
      )}
    </Screen>
  )
}

/** The way to the inbox, with how many wait there. */
function InboxLink({ workspace }: { workspace: number }) {
  const inbox = useInbox(workspace)
  const uploads = useUploads(workspace)
  const waiting =
    (inbox.data?.waiting.length ?? 0) +
    (inbox.data?.arrived.length ?? 0) +
    uploads.filter((u) => ['waiting', 'sending', 'storing', 'broken'].includes(u.state.is)).length
  return (
    <Link
      to={`/workspaces/${workspace}/library/inbox`}
      className="flex h-[30px] items-center gap-1.5 rounded-[7px] border border-line bg-card px-2.5 hover:bg-sunk"
    >
      <Inbox size={15} aria-hidden="true" /> Inbox
      {waiting > 0 && (
        <span className="rounded-lg bg-ochre px-1.5 font-semibold text-[11px] text-card">{waiting}</span>
      )}
    </Link>
  )
}

/** The mods that are looked for, to choose from. */
function Mods({
  workspace,
  mods,
  selected,
}: {
  workspace: number
  mods: readonly ModView[]
  selected: string | null
}) {
  const go = useNavigate()
  const { search } = useLocation()
  const [query, put] = useAddress()
  const { typed, type, wanted } = useSearch()
  const [chosen, choose] = useState<ReadonlySet<string>>(NONE)
  const acts = useModActs(workspace)
  const said = query.get('sort')
  const sort = isSort(said) ? said : 'name'
  const down = query.has('turned') !== SORTS[sort].down
  const kinds = query.getAll('only').filter(isKind)
  const tags = query.getAll('tag')
  const asked = JSON.stringify({ find: wanted, kinds, tags, sort, down } satisfies Wanted)
  const rows = useMemo<Row[]>(
    () =>
      shownMods(mods, JSON.parse(asked) as Wanted).map((m) => ({ id: String(m.id), label: m.name, mod: m })),
    [mods, asked],
  )
  const there = useMemo(() => (Object.keys(KINDS) as Kind[]).filter((k) => mods.some(KINDS[k].is)), [mods])
  const allKinds = [...there, ...kinds.filter((k) => !there.includes(k))]
  const allTags = useMemo(() => [...new Set(mods.flatMap((m) => m.tags))].sort(), [mods])
  const set = (key: string, values: readonly string[]) =>
    put((q) => {
      q.delete(key)
      for (const v of values) q.append(key, v)
    })
  const sortBy = (by: Sort) =>
    put((q) => {
      if (by !== sort) {
        q.set('sort', by)
        q.delete('turned')
      } else if (q.has('turned')) q.delete('turned')
      else q.set('turned', '')
    })
  const of = (ids: Iterable<string>) => {
    const wantedIds = new Set(ids)
    return rows.filter((r) => wantedIds.has(r.id)).map((r) => r.mod)
  }
  const inBar = of(chosen.size > 0 ? chosen : selected === null ? [] : [selected])
  return (
    <>
      <ModFilters
        find={typed}
        onFind={type}
        kinds={kinds}
        allKinds={allKinds}
        onKinds={(k) => set('only', k)}
        tags={tags}
        allTags={allTags}
        onTags={(t) => set('tag', t)}
        shown={rows.length}
        total={mods.length}
      />
      {rows.length === 0 ? (
        <div className="card flex-1">
          <Empty icon={PackageOpen} title="No mod is like that">
            Look for something else, or take a filter away.
          </Empty>
        </div>
      ) : (
        <List
          label="Mods in the library"
          rows={rows}
          rowHeight={44}
          selected={selected}
          onSelect={(id) =>
            go({ pathname: `/workspaces/${workspace}/library/${id}`, search }, { replace: true })
          }
          chosen={chosen}
          onChoose={choose}
          onOpen={(row) => go(`/workspaces/${workspace}/library/${row.id}/about`)}
          acts={(ids) => acts.of(of(ids))}
          head={<ModHead sort={sort} down={down} onSort={sortBy} />}
          renderRow={renderRow}
          foot={inBar.length > 0 && <ModBar mods={inBar} acts={acts} onClear={() => choose(NONE)} />}
        />
      )}
      {acts.dialog}
    </>
  )
}

const renderRow = (row: Row) => <ModRow mod={row.mod} />

/** What can be done with the mods that are chosen. */
function ModBar({ mods, acts, onClear }: { mods: readonly ModView[]; acts: ModActs; onClear: () => void }) {
  const many = mods.length > 1
  const off = (m: ModView) => m.journey.reached === 'LIBRARY'
  return (
    <ChosenBar
      label={many ? `${mods.length} mods chosen` : (mods[0]?.name ?? '')}
      name={many ? count(mods.length, 'mod') : (mods[0]?.name ?? '')}
      menu={() => acts.of(mods)}
      onClear={many ? onClear : undefined}
    >
      {mods.some(off) && (
        <Button className="h-7" onClick={() => acts.switchTo(mods, true)}>
          Switch on
        </Button>
      )}
      {!mods.every(off) && (
        <Button className="h-7" onClick={() => acts.switchTo(mods, false)}>
          Switch off
        </Button>
      )}
      <Button className="h-7" onClick={() => acts.ask('tags', mods)}>
        Tags …
      </Button>
      <Button className="h-7" onClick={() => acts.ask('remove', mods)}>
        Remove …
      </Button>
    </ChosenBar>
  )
}
