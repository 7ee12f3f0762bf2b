import clsx from 'clsx'
import { Telescope } from 'lucide-react'
import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { choiceAddress, wishOf } from '../choice/wanted'
import { useAddress } from '../frame/address'
import { useSearch } from '../frame/search'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { ButtonLink } from '../ui/ButtonLink'
import { Cell, HeadRow } from '../ui/Cell'
import { Chip } from '../ui/Chip'
import { ChosenBar } from '../ui/list/ChosenBar'
import { List } from '../ui/list/List'
import type { MenuAct } from '../ui/Menu'
import { Screen } from '../ui/Screen'
import { SearchField } from '../ui/SearchField'
import { Empty, Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { bytes, count } from '../ui/text'
import { isLink } from './link'
import { OfferedAside } from './OfferedAside'
import { type FoundMod, type Looked, useCatalogues, useFound, useTags } from './queries'
import { foundWords, hereWords } from './words'

const ROW = 46
const COLUMNS =
  'grid grid-cols-[minmax(0,1fr)_84px_92px_190px_72px] items-center gap-3 px-3.5 max-lg:grid-cols-[minmax(0,1fr)_70px_130px]'
/** How many tags are offered to narrow by. */
const TAGS = 10

/** What the catalogues of the workspace offer, searched; some are chosen, and what that brings with it is a screen of its own. */
export function CatalogueView() {
  const workspace = useWorkspace()
  const { mod } = useParams()
  const selected = mod ?? null
  const [query, put] = useAddress()
  const search = useSearch()
  const go = useNavigate()
  const catalogues = useCatalogues(workspace)
  const looked: Looked = {
    search: search.wanted,
    tag: query.get('tag') ?? '',
    fits: query.has('fits'),
    nothingMore: query.has('alone'),
  }
  const base = `/workspaces/${workspace}/catalogue`
  const known = catalogues.data ?? []
  const turn = (name: string) => put((q) => (q.has(name) ? q.delete(name) : q.set(name, '')))
  return (
    <Screen
      title="Catalogue"
      says={known.length > 0 && count(known.length, 'catalogue')}
      actions={
        <>
          <ButtonLink to={`${base}/places`}>Catalogues</ButtonLink>
          <ButtonLink to={`${base}/updates`}>Updates</ButtonLink>
          <ButtonLink to={`${base}/findings`}>Findings</ButtonLink>
          <ButtonLink to={`${base}/choice?missing`}>Fill what is missing</ButtonLink>
        </>
      }
      aside={selected && <OfferedAside workspace={workspace} mod={selected} />}
    >
      {catalogues.isPending ? (
        <div className="card flex-1">
          <Loading what="the catalogues" />
        </div>
      ) : catalogues.isError ? (
        <Failed error={catalogues.error} retry={() => catalogues.refetch()} />
      ) : known.length === 0 ? (
        <div className="card flex-1">
          <Empty icon={Telescope} title="No catalogue is known yet">
            A catalogue tells which mods there are and where their files lie. Name its address or a folder
            under <i>Catalogues</i>.
          </Empty>
        </div>
      ) : (
        <>
          <div className="mb-2 flex flex-wrap items-center gap-1.5">
            <SearchField
              label="Look for mods"
              hint="name, author, a word about it, or a link"
              value={search.typed}
              onChange={(text) =>
                isLink(text)
                  ? void go(`${base}/link?to=${encodeURIComponent(text.trim())}`)
                  : search.type(text)
              }
              className="w-[280px]"
            />
            <Chip says="goes with my game" on={looked.fits} onTurn={() => turn('fits')} />
            <Chip says="needs nothing more" on={looked.nothingMore} onTurn={() => turn('alone')} />
            <Tags
              workspace={workspace}
              tag={looked.tag}
              onTag={(t) => put((q) => (t === looked.tag ? q.delete('tag') : q.set('tag', t)))}
            />
          </div>
          <Found workspace={workspace} looked={looked} selected={selected} />
        </>
      )}
    </Screen>
  )
}

function Tags({ workspace, tag, onTag }: { workspace: number; tag: string; onTag: (tag: string) => void }) {
  const all = useTags(workspace).data ?? []
  const shown = all.slice(0, TAGS).map((t) => t.tag)
  if (tag && !shown.includes(tag)) shown.push(tag)
  return (
    <>
      <span className="mx-1 h-4 border-line border-l" aria-hidden="true" />
      {shown.map((t) => (
        <Chip key={t} says={t} on={t === tag} onTurn={() => onTag(t)} />
      ))}
    </>
  )
}

function Found({
  workspace,
  looked,
  selected,
}: {
  workspace: number
  looked: Looked
  selected: string | null
}) {
  const go = useNavigate()
  const found = useFound(workspace, looked)
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const base = `/workspaces/${workspace}/catalogue`
  const here = window.location.search
  const pages = found.data?.pages ?? []
  const rows = pages.flatMap((p) => p.mods).map((m) => ({ id: m.mod, label: m.name, mod: m }))
  const first = pages[0]
  const look = (ids: readonly string[]) => go(choiceAddress(workspace, { wishes: ids.map(wishOf) }))
  const acts = (ids: readonly string[]): MenuAct[] => [
    {
      label: ids.length > 1 ? `See what these ${ids.length} bring with them` : 'See what it brings with it',
      run: () => void look(ids),
    },
  ]
  if (found.isPending) return <Loading what="the mods" />
  if (found.isError) return <Failed error={found.error} retry={() => found.refetch()} />
  if (rows.length === 0)
    return (
      <div className="card flex-1">
        <Empty icon={Telescope} title="Nothing was found">
          Try fewer words, or take a narrowing word off.
        </Empty>
      </div>
    )
  return (
    <>
      <List
        rows={rows}
        rowHeight={ROW}
        label="Mods that are offered"
        selected={selected}
        onSelect={(id) => go({ pathname: `${base}/${id}`, search: here }, { replace: selected !== null })}
        chosen={chosen}
        onChoose={setChosen}
        onOpen={(r) => look([r.id])}
        acts={acts}
        onNearEnd={() => found.hasNextPage && !found.isFetchingNextPage && found.fetchNextPage()}
        head={
          <HeadRow className={clsx(COLUMNS, 'h-[26px] border-line border-b text-[11px] text-ink-3')}>
            <Cell>mod</Cell>
            <Cell>newest</Cell>
            <Cell className="max-lg:hidden">came out</Cell>
            <Cell>in your library</Cell>
            <Cell className="text-right max-lg:hidden">size</Cell>
          </HeadRow>
        }
        renderRow={(r) => <FoundRow mod={r.mod} />}
      />
      {chosen.size > 1 ? (
        <ChosenBar
          label="Mods that are chosen"
          name={`${chosen.size} mods`}
          menu={acts([...chosen])}
          onClear={() => setChosen(new Set())}
        >
          <Button onClick={() => look([...chosen])}>See what they bring with them</Button>
        </ChosenBar>
      ) : (
        <p className="mt-1.5 text-[12px] text-ink-2">{first && foundWords(first.total, first.isMore)}</p>
      )}
    </>
  )
}

function FoundRow({ mod: m }: { mod: FoundMod }) {
  return (
    <div className={clsx(COLUMNS, 'h-full')}>
      <Cell className="min-w-0">
        <span className="flex items-baseline gap-1.5">
          <span className="min-w-0 truncate font-medium" title={m.name}>
            {m.name}
          </span>
          {m.tags.slice(0, 3).map((t) => (
            <Tag key={t}>{t}</Tag>
          ))}
        </span>
        <span className="block truncate text-[11.5px] text-ink-2" title={m.summary}>
          {m.summary || m.authors.join(', ')}
        </span>
      </Cell>
      <Cell className="num truncate">{m.newest ? m.newest.version : 'none'}</Cell>
      <Cell className="num text-[12px] text-ink-2 max-lg:hidden">{m.newest?.at}</Cell>
      <Cell
        className={clsx('truncate text-[12px]', m.hasNewer ? 'text-ochre' : 'text-ink-2')}
        title={hereWords(m)}
      >
        {hereWords(m)}
      </Cell>
      <Cell className="num text-right max-lg:hidden">{m.newest && bytes(m.newest.sizeBytes)}</Cell>
    </div>
  )
}
