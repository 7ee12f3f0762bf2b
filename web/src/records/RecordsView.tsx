import { Table2 } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { useAddress } from '../frame/address'
import { useSearch } from '../frame/search'
import { useWorkspace } from '../frame/workspace'
import { useLoadOrder } from '../load-order/queries'
import { PatchButton } from '../mends/PatchButton'
import { Screen, Waiting } from '../ui/Screen'
import { SearchField } from '../ui/SearchField'
import { Segments } from '../ui/Segments'
import { Empty, Failed } from '../ui/States'
import { count, list, number } from '../ui/text'
import { Board } from './Board'
import { ComparePart } from './ComparePart'
import { FindingsPart } from './FindingsPart'
import { recordPath } from './keys'
import { PairsPart } from './PairsPart'
import { PatternDialog } from './PatternDialog'
import { type RecordState, useRecordList, useRecords, type WhichRecords } from './queries'
import { RecordFilters } from './RecordFilters'
import { RecordList } from './RecordList'
import { ALL_STATES } from './states'
import { TextFormDialog } from './TextFormDialog'

const VIEWS = ['records', 'pairs', 'findings', 'compare'] as const
type View = (typeof VIEWS)[number]

/** What is shown before anybody asks for anything: what is to be done. */
const TO_DO: readonly RecordState[] = ['NEEDS_YOU', 'COMBINES']

/** All records of the plugins that are on: which collide, field by field, and how they combine. */
export function RecordsView() {
  const workspace = useWorkspace()
  const records = useRecords(workspace)
  const [query, put] = useAddress()
  const view: View = VIEWS.find((v) => v === query.get('show')) ?? 'records'
  const [pattern, setPattern] = useState(false)
  const [importing, setImporting] = useState(false)
  const v = records.data
  if (!v) return <Waiting title="Records" what="records" queries={[records]} />
  return (
    <Screen title="Records" says={words(v)} actions={<PatchButton workspace={workspace} states={v.states} />}>
      {v.records === 0 ? (
        <div className="card flex-1">
          <Empty icon={Table2} title="There are no records yet">
            They come with plugins: bring in a mod that has one, and switch it on.
          </Empty>
        </div>
      ) : (
        <>
          <div className="mb-2 flex flex-wrap items-center gap-2">
            <Segments
              label="How to look at them"
              value={view}
              onChange={(next) => put((q) => q.set('show', next))}
              options={[
                { value: 'records', label: 'Record by record' },
                { value: 'pairs', label: 'Plugin by plugin' },
                { value: 'findings', label: 'What is wrong' },
                { value: 'compare', label: 'Compare plugins' },
              ]}
            />
            <span className="ml-auto flex items-center gap-3">
              <button type="button" className="min-h-6 text-woad underline" onClick={() => setPattern(true)}>
                Decide by pattern
              </button>
              <button
                type="button"
                className="min-h-6 text-woad underline"
                onClick={() => setImporting(true)}
              >
                Text forms
              </button>
              <Link to={`/workspaces/${workspace}/mends`} className="text-woad underline">
                Mends
              </Link>
            </span>
          </div>
          {view === 'records' && <RecordByRecord workspace={workspace} view={v} />}
          {view === 'pairs' && <PairsPart workspace={workspace} />}
          {view === 'findings' && <FindingsPart workspace={workspace} odd={v.odd} oddInAll={v.oddInAll} />}
          {view === 'compare' && <ComparePart workspace={workspace} />}
        </>
      )}
      {pattern && <PatternDialog workspace={workspace} view={v} onClose={() => setPattern(false)} />}
      {importing && <TextFormDialog workspace={workspace} onClose={() => setImporting(false)} />}
    </Screen>
  )
}

function words(v: Schema['RecordsView']): string {
  const s = v.states
  const parts = [
    s.needYou > 0 && `${number(s.needYou)} ${s.needYou === 1 ? 'needs' : 'need'} a decision`,
    s.combine > 0 && `${number(s.combine)} ${s.combine === 1 ? 'combines' : 'combine'} without a question`,
    s.settled > 0 && `${number(s.settled)} ${s.settled === 1 ? 'is' : 'are'} settled`,
  ].filter((p): p is string => typeof p === 'string')
  const all = `${count(v.records, 'record')}${parts.length > 0 ? ': ' : '.'}`
  return parts.length > 0 ? `${all}${list(parts)}.` : `${all} No change is lost.`
}

function RecordByRecord({ workspace, view }: { workspace: number; view: Schema['RecordsView'] }) {
  const { owner, id } = useParams()
  const [query, put] = useAddress()
  const go = useNavigate()
  const { typed, type, wanted: find } = useSearch()
  const asked = query.getAll('state').filter((s): s is RecordState => ALL_STATES.some((a) => a === s))
  const which: WhichRecords = {
    find,
    state: query.has('any')
      ? []
      : asked.length > 0
        ? asked
        : find.trim() || query.has('type') || query.has('decided')
          ? []
          : TO_DO,
    type: query.get('type') ?? '',
    plugin: query.getAll('plugin'),
    losesOf: query.get('losesOf') ?? '',
    refersTo: query.get('refersTo') ?? '',
    decided: query.has('decided'),
  }
  const found = useRecordList(workspace, which)
  const plugins = useLoadOrder(workspace).data?.plugins.filter((p) => p.on) ?? []
  const lines = useMemo(() => found.data?.pages.flatMap((p) => p.records) ?? [], [found.data])
  const total = found.data?.pages[0]?.total ?? 0
  const selected = owner && id ? `${owner}/${id}` : null
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <SearchField
          label="Find a record by name, id, type or value"
          hint="Name, speed > 10"
          value={typed}
          onChange={type}
          className="w-[160px]"
        />
        <RecordFilters
          view={view}
          which={which}
          plugins={plugins.map((p) => p.name)}
          onStates={(states) =>
            put((q) => {
              q.delete('state')
              q.delete('any')
              for (const s of states) q.append('state', s)
              if (states.length === 0) q.set('any', '')
            })
          }
          onSet={(key, value) => put((q) => (value ? q.set(key, value) : q.delete(key)))}
          onDecided={(on) => put((q) => (on ? q.set('decided', '') : q.delete('decided')))}
        />
      </div>
      <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-col">
        <div className="flex w-[290px] shrink-0 flex-col max-lg:h-40 max-lg:w-full">
          {found.isError ? (
            <Failed error={found.error} retry={() => found.refetch()} />
          ) : lines.length === 0 && !found.isPending ? (
            <div className="card flex-1">
              <Empty icon={Table2} title="No such record">
                {which.state === TO_DO
                  ? 'Nothing is to be done: no change of a record is lost. Choose “all” to see every record.'
                  : which.decided
                    ? 'You have decided on none of these. Choose “decided” again to see the others.'
                    : 'Look for another name, or take a filter away.'}
              </Empty>
            </div>
          ) : (
            <RecordList
              lines={lines}
              total={total}
              selected={selected}
              more={() => found.hasNextPage && !found.isFetchingNextPage && found.fetchNextPage()}
              onSelect={(key) =>
                go({ pathname: recordPath(workspace, key), search: query.toString() }, { replace: true })
              }
            />
          )}
        </div>
        {owner && id ? (
          <Board key={selected} workspace={workspace} owner={owner} id={id} />
        ) : (
          <div className="card flex-1">
            <Empty icon={Table2} title="Choose a record">
              It is laid open field by field: as it was before any mod, who changed what, and the outcome.
            </Empty>
          </div>
        )}
      </div>
    </>
  )
}
