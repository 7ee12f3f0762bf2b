import clsx from 'clsx'
import { CircleCheck } from 'lucide-react'
import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { api, got } from '../api/client'
import { choiceAddress } from '../choice/wanted'
import { useWorkspace } from '../frame/workspace'
import { useAct } from '../library/queries'
import { Button } from '../ui/Button'
import { ButtonLink } from '../ui/ButtonLink'
import { Cell, HeadRow } from '../ui/Cell'
import { ChosenBar } from '../ui/list/ChosenBar'
import { List } from '../ui/list/List'
import type { MenuAct } from '../ui/Menu'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { bytes, count } from '../ui/text'
import { Bridges } from './Bridges'
import { type Update, useBridges, useUpdates } from './queries'
import { UpdateAside } from './UpdateAside'
import { ageWords, changeWords, leftWords } from './words'

const ROW = 46
const COLUMNS =
  'grid grid-cols-[minmax(0,1fr)_150px_130px_110px_72px] items-center gap-3 px-3.5 max-lg:grid-cols-[minmax(0,1fr)_120px_110px]'

/** What the catalogues have that is newer, and whether it is worth it. */
export function UpdatesView() {
  const workspace = useWorkspace()
  const { mod } = useParams()
  const updates = useUpdates(workspace)
  const bridges = useBridges(workspace).data ?? []
  const all = updates.data ?? []
  const offered = all.filter((u) => u.offered)
  const left = all.filter((u) => u.newest && !u.offered)
  const selected = all.find((u) => String(u.mod) === mod)
  return (
    <Screen
      title="Updates"
      says={updates.data && (offered.length > 0 ? count(offered.length, 'update') : 'nothing newer')}
      actions={
        <>
          <ButtonLink to={`/workspaces/${workspace}/catalogue/places`}>Look at the catalogues</ButtonLink>
          {offered.length > 1 && (
            <ButtonLink to={choiceAddress(workspace, { wishes: offered.map(wish) })}>
              See what all bring with them
            </ButtonLink>
          )}
        </>
      }
      aside={selected && <UpdateAside workspace={workspace} update={selected} />}
    >
      {updates.isPending ? (
        <div className="card flex-1">
          <Loading what="what is newer" />
        </div>
      ) : updates.isError ? (
        <Failed error={updates.error} retry={() => updates.refetch()} />
      ) : (
        <div className="flex min-h-0 flex-1 flex-col gap-3">
          {offered.length === 0 ? (
            <div className="card flex-1">
              <Empty icon={CircleCheck} title="No mod has anything newer">
                {all.some((u) => u.catalogue)
                  ? 'What the catalogues said when they were last looked at counts.'
                  : 'No mod in use is in a catalogue that this workspace knows.'}
              </Empty>
            </div>
          ) : (
            <Offered workspace={workspace} updates={offered} selected={selected?.mod} />
          )}
          {left.length > 0 && <Left workspace={workspace} updates={left} />}
          {bridges.length > 0 && <Bridges workspace={workspace} bridges={bridges} />}
        </div>
      )}
    </Screen>
  )
}

/** The wish for what an update would bring. */
function wish(u: Update) {
  return { mod: u.catalogueMod, release: u.newest?.release ?? '' }
}

function Offered(props: { workspace: number; updates: readonly Update[]; selected: number | undefined }) {
  const { workspace, selected } = props
  const go = useNavigate()
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const rows = props.updates.map((u) => ({ id: String(u.mod), label: u.name, update: u }))
  const look = (ids: readonly string[]) =>
    go(
      choiceAddress(workspace, {
        wishes: rows.filter((r) => ids.includes(r.id)).map((r) => wish(r.update)),
      }),
    )
  const acts = (ids: readonly string[]): MenuAct[] => [
    {
      label: ids.length > 1 ? `See what these ${ids.length} bring with them` : 'See what it brings with it',
      run: () => void look(ids),
    },
  ]
  return (
    <>
      <List
        rows={rows}
        rowHeight={ROW}
        label="Mods with something newer"
        selected={selected === undefined ? null : String(selected)}
        onSelect={(id) =>
          go(`/workspaces/${workspace}/catalogue/updates/${id}`, { replace: selected !== undefined })
        }
        chosen={chosen}
        onChoose={setChosen}
        onOpen={(r) => look([r.id])}
        acts={acts}
        head={
          <HeadRow className={clsx(COLUMNS, 'h-[26px] border-line border-b text-[11px] text-ink-3')}>
            <Cell>mod</Cell>
            <Cell>here, and newest</Cell>
            <Cell>what changes</Cell>
            <Cell className="max-lg:hidden">came out</Cell>
            <Cell className="text-right max-lg:hidden">size</Cell>
          </HeadRow>
        }
        renderRow={(r) => <UpdateRow update={r.update} />}
      />
      {chosen.size > 1 && (
        <ChosenBar
          label="Updates that are chosen"
          name={`${chosen.size} updates`}
          menu={acts([...chosen])}
          onClear={() => setChosen(new Set())}
        >
          <Button onClick={() => look([...chosen])}>See what they bring with them</Button>
        </ChosenBar>
      )}
    </>
  )
}

function UpdateRow({ update: u }: { update: Update }) {
  const n = u.newest
  return (
    <div className={clsx(COLUMNS, 'h-full')}>
      <Cell className="min-w-0">
        <span className="block truncate font-medium" title={u.name}>
          {u.name}
        </span>
        <span className="block truncate text-[11.5px] text-ink-2">
          {[u.variant, !u.on && 'off', u.withdrawn && `yours is withdrawn: ${u.withdrawn}`]
            .filter(Boolean)
            .join(', ') || u.catalogue}
        </span>
      </Cell>
      <Cell className="num truncate">
        {u.version} <span className="text-ink-3">then</span> <b className="font-medium">{n?.version}</b>
      </Cell>
      <Cell className="min-w-0 text-[12px]">
        <span className="block truncate">{changeWords(u)}</span>
        {n?.coversGame === false && (
          <span className="block truncate text-ochre" title={`It is for the game ${n.game}.`}>
            not for your game
          </span>
        )}
      </Cell>
      <Cell className="truncate text-[12px] text-ink-2 max-lg:hidden" title={n?.at}>
        {ageWords(n?.at ?? '', new Date())}
      </Cell>
      <Cell className="num text-right max-lg:hidden">{n && bytes(n.sizeBytes)}</Cell>
    </div>
  )
}

/** Updates that the user does not want, each with its reason. */
function Left({ workspace, updates }: { workspace: number; updates: readonly Update[] }) {
  const again = useAct(workspace, (mod: number) =>
    got(
      api.DELETE('/api/workspaces/{workspace}/updates/{mod}/left', { params: { path: { workspace, mod } } }),
    ),
  )
  return (
    <section aria-label="Updates that are left" className="card max-h-40 shrink-0 overflow-y-auto px-4 py-3">
      <h2>Left</h2>
      <ul>
        {updates.map((u) => (
          <li key={u.mod} className="flex items-baseline gap-3 border-line border-t py-1 first:border-t-0">
            <span className="min-w-0 flex-1 break-words">
              <b className="font-medium">{u.name}</b>{' '}
              <span className="text-ink-2">
                {u.version}; {leftWords(u)}
              </span>
            </span>
            <Button onClick={() => again.mutate(u.mod)}>Offer it again</Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
