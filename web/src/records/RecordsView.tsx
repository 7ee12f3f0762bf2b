import clsx from 'clsx'
import { Scissors, Table2 } from 'lucide-react'
import { useMemo } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { OrderlessList } from '../ui/OrderlessList'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { count, list, number } from '../ui/text'
import { Board } from './Board'
import { useBuildPatch, useMends, useRecords } from './queries'

type Collision = Schema['CollisionView']

const GROUPS: readonly { state: Collision['state']; title: string }[] = [
  { state: 'NEEDS_YOU', title: 'Needs you' },
  { state: 'COMBINES', title: 'Combines without a question' },
  { state: 'SETTLED', title: 'Settled in a patch' },
  { state: 'NOTHING_LOST', title: 'Nothing is lost' },
]

interface Line {
  id: string
  label: string
  collision: Collision | null
  count: number
}

/** Records that more than one plugin changes: decide field by field, and put the outcome into a patch. */
export function RecordsView() {
  const workspace = useWorkspace()
  const records = useRecords(workspace)
  const { owner, id } = useParams()
  const go = useNavigate()
  const view = records.data
  const selected = owner && id ? `${owner}/${id}` : null
  const lines = useMemo<Line[]>(() => (view ? grouped(view.collisions) : []), [view])
  if (records.isPending) {
    return (
      <Screen title="Records">
        <div className="card flex-1">
          <Loading what="records" />
        </div>
      </Screen>
    )
  }
  if (!view) return <Failed error={records.error} retry={() => records.refetch()} />
  const total = view.collisions.length
  return (
    <Screen
      title="Records"
      says={total > 0 && words(view)}
      actions={<PatchButton workspace={workspace} view={view} />}
    >
      <PatchLine workspace={workspace} />
      {total === 0 ? (
        <div className="card flex-1">
          <Empty icon={Table2} title="No record is changed by more than one plugin">
            {view.records > 0
              ? `All ${number(view.records)} records of the plugins that are on are read as their plugins have them.`
              : 'There are no records yet: they come with plugins.'}
          </Empty>
        </div>
      ) : (
        <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-col">
          <div className="flex w-[290px] shrink-0 flex-col max-lg:h-40 max-lg:w-full">
            <OrderlessList
              label="Records"
              rows={lines}
              rowHeight={(line) => (line.collision ? 46 : 28)}
              selected={selected}
              onSelect={(key) =>
                !key.startsWith('group ') && go(`/workspaces/${workspace}/records/${key}`, { replace: true })
              }
              renderRow={(line) =>
                line.collision ? <RecordLine collision={line.collision} /> : <GroupLine line={line} />
              }
            />
          </div>
          {owner && id ? (
            <Board key={selected} workspace={workspace} owner={owner} id={Number(id)} />
          ) : (
            <div className="card flex-1">
              <Empty icon={Table2} title="Choose a record">
                It is laid open field by field: as it was before any mod, who changed what, and the outcome.
              </Empty>
            </div>
          )}
        </div>
      )}
      {view.odd.length > 0 && <OddRecords odd={view.odd} />}
    </Screen>
  )
}

function words(v: Schema['RecordsView']): string {
  const parts = [
    v.needYou > 0 && `${number(v.needYou)} ${v.needYou === 1 ? 'needs' : 'need'} you`,
    v.combine > 0 && `${number(v.combine)} ${v.combine === 1 ? 'combines' : 'combine'} without a question`,
    v.settled > 0 && `${number(v.settled)} ${v.settled === 1 ? 'is' : 'are'} settled`,
    v.nothingLost > 0 && `${number(v.nothingLost)} ${v.nothingLost === 1 ? 'loses' : 'lose'} nothing`,
  ].filter((p): p is string => typeof p === 'string')
  const all = v.collisions.length
  return `${count(all, 'record')} ${all === 1 ? 'is' : 'are'} changed by more than one plugin: ${list(parts)}.`
}

function grouped(collisions: readonly Collision[]): Line[] {
  return GROUPS.flatMap((g) => {
    const inGroup = collisions.filter((c) => c.state === g.state)
    if (inGroup.length === 0) return []
    const head = { id: `group ${g.state}`, label: g.title, collision: null, count: inGroup.length }
    return [head, ...inGroup.map((c) => ({ id: c.key, label: c.label, collision: c, count: 0 }))]
  })
}

function GroupLine({ line }: { line: Line }) {
  return (
    <div className="flex h-full items-end px-3 pb-1 font-semibold text-[12px] text-ink-2">
      {line.label} · {line.count}
    </div>
  )
}

function RecordLine({ collision: c }: { collision: Collision }) {
  return (
    <div className="flex h-full items-center gap-2 px-3">
      <span className="min-w-0 flex-1">
        <span className="block truncate font-semibold">{c.label}</span>
        <span className="block truncate text-[11.5px] text-ink-2">
          {c.title} · {c.key}
        </span>
      </span>
      <span className="num text-right text-[11.5px] text-ink-2">
        {count(c.plugins.length, 'plugin')}
        {c.lost > 0 && <span className="block text-ochre">{c.lost} lost</span>}
      </span>
    </div>
  )
}

function PatchButton({ workspace, view }: { workspace: number; view: Schema['RecordsView'] }) {
  const { say } = useNotices()
  const patch = useMends(workspace).data?.[0]
  const build = useBuildPatch(workspace, () =>
    say('The patch is made. It lies on top, and its plugin loads last.'),
  )
  const parts = view.combine + view.settled
  if (parts === 0) return null
  const fresh = view.combine === 0 && patch && !patch.stale
  return (
    <Button
      look={fresh ? 'plain' : 'strong'}
      disabled={build.isPending || fresh}
      onClick={() => build.mutate()}
    >
      <Scissors size={14} aria-hidden="true" />
      {build.isPending
        ? 'Making the patch …'
        : fresh
          ? 'The patch is fresh'
          : patch
            ? `Make the patch anew with ${count(parts, 'record')}`
            : `Put the ${count(parts, 'record')} into a patch`}
    </Button>
  )
}

/** The profile's patch as it stands, and why it is stale. */
function PatchLine({ workspace }: { workspace: number }) {
  const mends = useMends(workspace).data ?? []
  return mends.map((m) => (
    <p
      key={m.mod}
      className={clsx(
        'mb-2 rounded-lg border px-3 py-2',
        m.stale ? 'border-ochre/50 bg-ochre-soft' : 'border-line bg-card',
      )}
    >
      <Link to={`/workspaces/${workspace}/layers/${m.mod}`} className="font-semibold hover:underline">
        {m.name}
      </Link>{' '}
      {m.on
        ? m.stale
          ? `is stale. ${m.reasons.join(' ')}`
          : `holds ${count(m.records, 'record')}, made from ${m.ingredients.length} plugins, and is fresh.`
        : 'is switched off.'}
    </p>
  ))
}

function OddRecords({ odd }: { odd: readonly Schema['OddView'][] }) {
  return (
    <details className="card mt-3 shrink-0 px-3.5 py-2">
      <summary className="cursor-pointer font-semibold">
        {odd.length === 1
          ? '1 record makes no sense, and is never combined'
          : `${number(odd.length)} records make no sense, and are never combined`}
      </summary>
      <ul className="mt-1 max-h-32 overflow-y-auto">
        {odd.map((o) => (
          <li key={o.key + o.plugin} className="py-0.5 text-ink-2">
            <b className="font-medium text-ink">{o.key}</b> in {o.plugin}: {o.reason}
          </li>
        ))}
      </ul>
    </details>
  )
}
