import { Check } from 'lucide-react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { Button } from '../ui/Button'
import { Empty, Failed, Loading } from '../ui/States'
import { count, list } from '../ui/text'
import { useAddPatch, useCalledFor } from './queries'

/** Pairs of plugins that collide and have no patch, and patches that nothing here needs. */
export function CalledFor({ workspace }: { workspace: number }) {
  const called = useCalledFor(workspace)
  return (
    <section aria-labelledby="called-for" className="card min-h-0 overflow-y-auto">
      <h2 id="called-for" className="px-4 pt-3 pb-1">
        Which patches does the set call for?
      </h2>
      {called.isPending ? (
        <Loading what="pairs" />
      ) : !called.data ? (
        <Failed error={called.error} retry={() => called.refetch()} />
      ) : called.data.pairs.length + called.data.idle.length === 0 ? (
        <Empty icon={Check} title="None">
          Wherever two plugins change the same record, a patch holds the outcome or none is needed.
        </Empty>
      ) : (
        <ul>
          {called.data.pairs.map((p) => (
            <Pair key={`${p.first}\n${p.second}`} workspace={workspace} pair={p} />
          ))}
          {called.data.more > 0 && (
            <li className="px-4 py-2 text-ink-2">and {count(called.data.more, 'pair')} more</li>
          )}
          {called.data.idle.map((i) => (
            <li key={i.name} className="border-line border-t px-4 py-2">
              <Link to={`/workspaces/${workspace}/layers/${i.mod}`} className="font-semibold hover:underline">
                {i.name}
              </Link>{' '}
              <span className="text-ink-2">is a patch that nothing here needs. {i.reason}</span>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}

function Pair({ workspace, pair: p }: { workspace: number; pair: Schema['CallingPair'] }) {
  const { say } = useNotices()
  const name = `${p.firstMod} and ${p.secondMod}`
  const add = useAddPatch(workspace, () => say(`A patch for ${name} is made.`))
  const free = p.records - p.asked
  return (
    <li className="border-line border-t px-4 py-2">
      <p>
        <b className="font-semibold">{p.second}</b> <span className="text-ink-2">over</span>{' '}
        <b className="font-semibold">{p.first}</b>
      </p>
      <p className="text-ink-2">
        {p.secondMod} and {p.firstMod}: {count(p.records, 'record')}
        {p.asked > 0 && `, ${p.asked} of them ${p.asked === 1 ? 'needs' : 'need'} you`}
        {p.here.length > 0 &&
          `. ${list(p.here)} ${p.here.length === 1 ? 'is' : 'are'} made for both, and off`}
      </p>
      <p className="mt-1 flex flex-wrap gap-1.5">
        <Link
          to={`/workspaces/${workspace}/records?${new URLSearchParams([
            ['any', ''],
            ['plugin', p.first],
            ['plugin', p.second],
          ])}`}
          className="inline-flex h-7 items-center rounded-[7px] border border-line bg-card px-2.5 hover:bg-sunk"
        >
          See the records
        </Link>
        {free > 0 && (
          <Button
            className="h-7"
            disabled={add.isPending}
            onClick={() => add.mutate({ name: `Patch for ${name}`, plugins: [p.first, p.second] })}
          >
            {add.isPending ? 'Making it …' : 'Make a patch for these two'}
          </Button>
        )}
      </p>
    </li>
  )
}
