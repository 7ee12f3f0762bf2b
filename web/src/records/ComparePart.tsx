import { GitCompareArrows } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../frame/address'
import { useLoadOrder } from '../load-order/queries'
import { Button } from '../ui/Button'
import { Segments } from '../ui/Segments'
import { Empty, Failed, Loading } from '../ui/States'
import { count, list, number } from '../ui/text'
import { recordPath, spoken } from './keys'
import { type ComparedKind, useComparedPlugins } from './queries'

/** Two or more plugins compared as wholes. */
export function ComparePart({ workspace }: { workspace: number }) {
  const plugins = useLoadOrder(workspace).data?.plugins.filter((p) => p.on) ?? []
  const [query, set] = useAddress()
  // the box is ticked at once; the address follows
  const [chosen, setChosen] = useState<readonly string[]>(query.getAll('of'))
  const show = (query.get('which') ?? 'DIFFERENT') as ComparedKind
  return (
    <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-col">
      <fieldset className="card w-[250px] shrink-0 overflow-y-auto px-2 py-1.5 max-lg:h-40 max-lg:w-full">
        <legend className="sr-only">Plugins to compare</legend>
        {plugins.map((p) => (
          <label
            key={p.name}
            className="flex cursor-pointer items-baseline gap-2 rounded px-1.5 py-1 hover:bg-sunk"
          >
            <input
              type="checkbox"
              checked={chosen.includes(p.name)}
              onChange={(e) => {
                const others = chosen.filter((c) => c !== p.name)
                const next = e.target.checked ? [...others, p.name] : others
                setChosen(next)
                set((q) => {
                  q.delete('of')
                  for (const c of next) q.append('of', c)
                })
              }}
              className="translate-y-[1px] accent-(--woad)"
            />
            <span className="min-w-0 flex-1 truncate">{p.name}</span>
            <small className="num text-ink-2">{number(p.records)}</small>
          </label>
        ))}
      </fieldset>
      {chosen.length < 2 ? (
        <div className="card flex-1">
          <Empty icon={GitCompareArrows} title="Choose two plugins, or more">
            They are compared record by record: what one has alone, what they have alike, and where they
            differ.
          </Empty>
        </div>
      ) : (
        <Compared
          workspace={workspace}
          plugins={chosen}
          show={show}
          onShow={(next) => set((q) => q.set('which', next))}
        />
      )}
    </div>
  )
}

function Compared({
  workspace,
  plugins,
  show,
  onShow,
}: {
  workspace: number
  plugins: readonly string[]
  show: ComparedKind
  onShow: (show: ComparedKind) => void
}) {
  const compared = useComparedPlugins(workspace, plugins, show)
  const first = compared.data?.pages[0]
  if (compared.isPending)
    return (
      <div className="card flex-1">
        <Loading what="the comparison" />
      </div>
    )
  if (!first) return <Failed error={compared.error} retry={() => compared.refetch()} />
  const only = Object.entries(first.only).map(([plugin, n]) => `${number(n)} only in ${plugin}`)
  const rows = (compared.data?.pages ?? []).flatMap((p) => p.records)
  return (
    <section aria-label="Comparison" className="card flex min-w-0 flex-1 flex-col overflow-hidden">
      <div className="flex flex-wrap items-center gap-3 border-line border-b px-3.5 py-2">
        <Segments
          label="Which records"
          value={show}
          onChange={onShow}
          options={[
            { value: 'DIFFERENT', label: `${number(first.different)} differ` },
            { value: 'SAME', label: `${number(first.same)} alike` },
            { value: 'ONLY', label: 'In one only' },
          ]}
        />
        <span className="text-ink-2">{list(only)}.</span>
      </div>
      <ul className="min-h-0 flex-1 overflow-y-auto">
        {rows.map((r) => (
          <li key={r.key} className="border-line border-b px-3.5 py-1.5">
            <Link to={`${recordPath(workspace, r.key)}?any`} className="font-semibold hover:underline">
              {r.title} “{r.label}”
            </Link>{' '}
            <span className="text-ink-2">{spoken(r.key)}</span>
            <p className="text-ink-2">
              {r.in.length === 1
                ? `only in ${r.in[0]}`
                : r.same
                  ? `alike in ${list(r.in)}`
                  : `${list(r.in)} differ in ${list(r.fields)}`}
            </p>
          </li>
        ))}
        {rows.length === 0 && <li className="px-3.5 py-6 text-center text-ink-2">There are none.</li>}
        {compared.hasNextPage && (
          <li className="px-3.5 py-2">
            <Button onClick={() => compared.fetchNextPage()}>
              Show more of {count(first.total, 'record')}
            </Button>
          </li>
        )}
      </ul>
    </section>
  )
}
