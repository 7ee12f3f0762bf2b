import { Table2 } from 'lucide-react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { Empty, Failed, Loading } from '../ui/States'
import { count, number } from '../ui/text'
import { useRecordPairs } from './queries'

const COLUMNS =
  'grid grid-cols-[minmax(0,1.6fr)_repeat(5,minmax(64px,0.5fr))_120px] items-center gap-3 px-3.5'

/** Which plugins collide with which, and over how many records. */
export function PairsPart({ workspace }: { workspace: number }) {
  const pairs = useRecordPairs(workspace)
  if (pairs.isPending)
    return (
      <div className="card flex-1">
        <Loading what="pairs of plugins" />
      </div>
    )
  if (!pairs.data) return <Failed error={pairs.error} retry={() => pairs.refetch()} />
  if (pairs.data.pairs.length === 0)
    return (
      <div className="card flex-1">
        <Empty icon={Table2} title="No two plugins change the same record">
          Nothing has to be combined.
        </Empty>
      </div>
    )
  return (
    <div className="card flex min-h-0 flex-1 flex-col overflow-auto">
      <div
        className={`${COLUMNS} sticky top-0 h-[26px] shrink-0 border-line border-b bg-card text-[11px] text-ink-3`}
      >
        <span>the later one is read</span>
        <span className="text-right">records</span>
        <span className="text-right">to decide</span>
        <span className="text-right">combine</span>
        <span className="text-right">settled</span>
        <span className="text-right">the same</span>
        <span />
      </div>
      <ul>
        {pairs.data.pairs.map((p) => (
          <li key={`${p.first}\n${p.second}`} className={`${COLUMNS} min-h-[38px] border-line border-b`}>
            <span className="min-w-0">
              <span className="truncate">
                <b className="font-semibold">{p.second}</b> <span className="text-ink-2">over {p.first}</span>
              </span>
            </span>
            <Numbers pair={p} />
            <Link
              to={`/workspaces/${workspace}/records?${new URLSearchParams([
                ['any', ''],
                ['plugin', p.first],
                ['plugin', p.second],
              ])}`}
              className="text-right text-woad underline"
            >
              See them
            </Link>
          </li>
        ))}
      </ul>
      {pairs.data.more > 0 && (
        <p className="px-3.5 py-2 text-ink-2">
          {count(pairs.data.more, 'pair')} more collide over fewer records.
        </p>
      )}
    </div>
  )
}

function Numbers({ pair: p }: { pair: Schema['RecordPair'] }) {
  const s = p.states
  return (
    <>
      <span className="num text-right">{number(p.records)}</span>
      <span className="num text-right font-semibold">{s.needYou > 0 && number(s.needYou)}</span>
      <span className="num text-right">{s.combine > 0 && number(s.combine)}</span>
      <span className="num text-right text-ink-2">{s.settled > 0 && number(s.settled)}</span>
      <span className="num text-right text-ink-2">
        {s.oneChanges + s.same > 0 && number(s.oneChanges + s.same)}
      </span>
    </>
  )
}
