import { ScrollText } from 'lucide-react'
import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { Menu } from '../ui/Menu'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { count, when } from '../ui/text'
import { exportsOf } from './exports'
import { type Kind, useBringInList, useLists } from './queries'

export function LayersListsView() {
  return <ListsView kind="layers" />
}

export function OrderListsView() {
  return <ListsView kind="load-order" />
}

/** The published orders that are followed, and bringing another one in. */
function ListsView({ kind }: { kind: Kind }) {
  const workspace = useWorkspace()
  const lists = useLists(workspace, kind)
  const go = useNavigate()
  const input = useRef<HTMLInputElement>(null)
  const [over, setOver] = useState(false)
  const bringIn = useBringInList(workspace, kind, (list) =>
    go(`/workspaces/${workspace}/${kind}/lists/${list.id}`),
  )
  return (
    <Screen
      title={kind === 'layers' ? 'Lists' : 'Load orders of others'}
      says={
        kind === 'layers'
          ? 'Orders that somebody has published. Bringing one in changes nothing yet.'
          : 'Published orders of plugins. One that you follow also counts as rules, weaker than your own and those of cards.'
      }
      actions={
        <>
          <Button onClick={() => go(`/workspaces/${workspace}/${kind}`)}>
            Back to the {kind === 'layers' ? 'layers' : 'load order'}
          </Button>
          <Menu
            label="Take the order away as a file"
            acts={exportsOf(workspace, kind).map((e) => ({
              label: `Export the order as ${e.name}`,
              run: () => window.location.assign(e.address),
            }))}
          />
          <Button look="strong" disabled={bringIn.isPending} onClick={() => input.current?.click()}>
            Bring in a list …
          </Button>
          <input
            ref={input}
            type="file"
            accept=".csv,.json,.md,.txt"
            aria-label="The file of a list"
            className="sr-only"
            tabIndex={-1}
            onChange={(e) => {
              const file = e.target.files?.[0]
              if (file) bringIn.mutate(file)
              e.target.value = ''
            }}
          />
        </>
      }
    >
      <section
        aria-label="Lists"
        className={`card min-h-0 flex-1 overflow-y-auto ${over ? 'outline-2 outline-woad outline-dashed' : ''}`}
        onDragOver={(e) => {
          // a list, and not an archive for the inbox
          e.preventDefault()
          e.stopPropagation()
          setOver(true)
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(e) => {
          e.preventDefault()
          e.stopPropagation()
          setOver(false)
          const file = e.dataTransfer.files[0]
          if (file) bringIn.mutate(file)
        }}
      >
        {lists.isPending ? (
          <Loading what="the lists" />
        ) : !lists.data ? (
          <Failed error={lists.error} retry={() => lists.refetch()} />
        ) : lists.data.length === 0 ? (
          <Empty icon={ScrollText} title="No list is followed">
            Drop one here: a table (CSV), JSON or Markdown with the names of{' '}
            {kind === 'layers' ? 'mods' : 'plugins'} in their order. You will see what is missing or out of
            place, and can bring the {kind === 'layers' ? 'layers' : 'load order'} to it step by step.
          </Empty>
        ) : (
          <ul>
            {lists.data.map((l) => (
              <li key={l.id} className="border-line border-b">
                <Link
                  to={`/workspaces/${workspace}/${kind}/lists/${l.id}`}
                  className="flex items-baseline gap-3 px-4 py-2.5 hover:bg-sunk/60"
                >
                  <b className="min-w-0 truncate font-semibold">{l.title}</b>
                  <span className="text-ink-2">{count(l.entries, 'entry', 'entries')}</span>
                  <span className="ml-auto text-ink-2">
                    {l.away === 0
                      ? l.departures === 0
                        ? 'all as it says'
                        : 'the rest as it says'
                      : `${l.away} otherwise here`}
                    {l.departures > 0 && `, ${count(l.departures, 'departure')}`}
                  </span>
                  <span className="text-[12px] text-ink-3">since {when(l.at)}</span>
                </Link>
              </li>
            ))}
          </ul>
        )}
      </section>
    </Screen>
  )
}
