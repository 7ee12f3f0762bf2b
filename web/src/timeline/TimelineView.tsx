import clsx from 'clsx'
import { Flag, History } from 'lucide-react'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useOverview, useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { DifferenceSaid } from '../layers/Preview'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { Cell } from '../ui/Cell'
import { List } from '../ui/list/List'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { when } from '../ui/text'
import { type Place, useHistory, usePoints, useReturn, useReturnPreview } from './queries'
import { type Returning, returning } from './returning'

const ROW = 40
const ORIGINS: Record<string, string> = { user: 'you', proposal: 'a suggestion', import: 'a list' }

/** Every change of the workspace, the newest on top; any place of the profile in use can be gone back to. */
export function TimelineView() {
  const workspace = useWorkspace()
  const history = useHistory(workspace)
  const [chosen, setChosen] = useState<string | null>(null)
  const { undo, redo, undoes, redoes } = useUndo(workspace)
  const first = history.data?.pages[0]
  const changes = history.data?.pages.flatMap((p) => p.changes) ?? []
  const rows = changes.map((c) => ({ id: String(c.id), label: c.said, change: c }))
  const change = changes.find((c) => String(c.id) === chosen)
  return (
    <Screen
      title="Timeline"
      says="Nothing is lost: whatever was done can be undone, also after a restart."
      actions={
        <>
          <Button onClick={undo} disabled={!undoes}>
            Undo
          </Button>
          <Button onClick={redo} disabled={!redoes}>
            Redo
          </Button>
        </>
      }
      aside={
        first && (
          <TimelineAside
            workspace={workspace}
            view={first}
            change={change ?? null}
            returning={change ? returning(change, first.profile) : null}
          />
        )
      }
    >
      {history.isPending ? (
        <div className="card flex-1">
          <Loading what="the timeline" />
        </div>
      ) : history.isError ? (
        <Failed error={history.error} retry={() => history.refetch()} />
      ) : rows.length === 0 ? (
        <div className="card flex-1">
          <Empty icon={History} title="Nothing has been done yet">
            Every change of the order, the switches, the library and the load order will stand here.
          </Empty>
        </div>
      ) : (
        <>
          <List
            rows={rows}
            rowHeight={ROW}
            label="Changes, the newest first"
            selected={chosen}
            onSelect={setChosen}
            renderRow={(r) => <ChangeRow change={r.change} profile={first?.profile ?? ''} />}
          />
          {history.hasNextPage && (
            <Button className="mt-2 self-start" onClick={() => history.fetchNextPage()}>
              Show older ones
            </Button>
          )}
        </>
      )}
    </Screen>
  )
}

function ChangeRow({ change: c, profile }: { change: Schema['TimelineChange']; profile: string }) {
  return (
    <div className={clsx('flex h-full items-center gap-3 px-3.5', c.state !== 'done' && 'text-ink-3')}>
      <Cell className="num w-[130px] shrink-0 text-[12px] text-ink-2">{when(c.at)}</Cell>
      <Cell className="min-w-0 flex-1 truncate" title={c.said}>
        {c.said}
        {c.state === 'undone' && ' (undone)'}
        {c.state === 'dropped' && ' (undone, and something else was done then)'}
      </Cell>
      {c.profile !== profile && (
        <Cell className="shrink-0 text-[11.5px] text-ink-2">in {c.profile || 'a profile that is gone'}</Cell>
      )}
      <Cell className="w-[90px] shrink-0 text-right text-[11.5px] text-ink-2">
        by {ORIGINS[c.origin] ?? c.origin}
      </Cell>
    </div>
  )
}

function TimelineAside({
  workspace,
  view,
  change,
  returning: to,
}: {
  workspace: number
  view: Schema['TimelineView']
  change: Schema['TimelineChange'] | null
  returning: Returning | null
}) {
  const [name, setName] = useState('')
  const [point, setPoint] = useState<number | null>(null)
  const points = usePoints(workspace)
  return (
    <Aside label="Going back">
      {change ? (
        <>
          <h2 className="break-words">{change.said}</h2>
          <p className="mt-0.5 text-ink-2">{when(change.at)}</p>
          {to?.possible ? (
            <GoBack workspace={workspace} place={{ change: change.id }} label="Go back to right after it" />
          ) : (
            <p className="mt-2 text-ink-2">{to?.why}</p>
          )}
        </>
      ) : (
        <p className="text-ink-2">Choose a change to see what going back there would change.</p>
      )}
      <AsidePart top title={`Restore points of ${view.profile}`}>
        <form
          className="flex gap-2"
          onSubmit={(e) => {
            e.preventDefault()
            points.add.mutate(name.trim())
            setName('')
          }}
        >
          <input
            value={name}
            onChange={(e) => setName(e.target.value)}
            maxLength={80}
            placeholder="Call this place …"
            aria-label="Name of a restore point for the profile as it is now"
            className="h-[30px] min-w-0 flex-1 rounded-md border border-line-2 bg-card px-2.5"
          />
          <Button type="submit" disabled={!name.trim()}>
            Keep
          </Button>
        </form>
        <ul className="mt-2">
          {view.points.map((p) => (
            <li key={p.id} className="border-line border-b py-1.5">
              <button
                type="button"
                aria-expanded={point === p.id}
                onClick={() => setPoint(point === p.id ? null : p.id)}
                className="flex w-full items-center gap-2 text-left"
              >
                <Flag size={13} className="shrink-0 text-ink-3" aria-hidden="true" />
                <span className="min-w-0 flex-1 truncate font-medium">{p.name}</span>
                <small className="text-ink-2">{when(p.at)}</small>
              </button>
              {point === p.id && (
                <>
                  <GoBack workspace={workspace} place={{ point: p.id }} label="Go back to it" />
                  <Button look="quiet" className="mt-1 h-7" onClick={() => points.forget.mutate(p.id)}>
                    Forget it
                  </Button>
                </>
              )}
            </li>
          ))}
        </ul>
      </AsidePart>
    </Aside>
  )
}

/** What going back to a place would change, and doing it. */
function GoBack({ workspace, place, label }: { workspace: number; place: Place; label: string }) {
  const revision = useOverview(workspace).data?.revision ?? 0
  const preview = useReturnPreview(workspace, revision, place)
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const back = useReturn(workspace, (d) =>
    say(
      <>
        <b>Gone back.</b> <DifferenceSaid difference={d} tense="does" />
      </>,
      { label: 'Undo', run: undo },
    ),
  )
  return (
    <div className="mt-2">
      <p role="status" className="leading-snug">
        {preview.data ? (
          <DifferenceSaid difference={preview.data} tense="would" />
        ) : (
          'Looking what that would change …'
        )}
      </p>
      <Button className="mt-2" disabled={back.isPending} onClick={() => back.mutate(place)}>
        {label}
      </Button>
    </div>
  )
}
