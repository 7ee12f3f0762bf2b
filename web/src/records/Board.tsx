import clsx from 'clsx'
import { useSelectedTitle } from '../frame/title'
import { Failed, Loading } from '../ui/States'
import { BoardHead } from './BoardHead'
import { BoardPlace, GRID } from './BoardPlace'
import type { Decision } from './decision'
import { useBoard, useDecide } from './queries'
import { RecordRelations } from './RecordRelations'
import { UnchangedFields } from './UnchangedFields'

/** One record laid open: what was before any mod, who changed what, and the outcome. */
export function Board({ workspace, owner, id }: { workspace: number; owner: string; id: string }) {
  const board = useBoard(workspace, owner, id)
  const decide = useDecide(workspace, owner, id)
  useSelectedTitle(board.data?.label)
  if (board.isPending) {
    return (
      <section className="card flex-1">
        <Loading what="the record" />
      </section>
    )
  }
  if (!board.data) {
    return (
      <section className="card flex-1">
        <Failed error={board.error} retry={() => board.refetch()} />
      </section>
    )
  }
  const b = board.data
  // under which what is half typed of its places is kept
  const name = `value ${workspace}/${owner}/${id}`
  const choose = (place: string, decision: Decision | null) => decide.mutate({ place, decision })
  return (
    <section aria-label={b.label} className="card flex min-w-0 flex-1 flex-col overflow-hidden">
      <BoardHead workspace={workspace} board={b} />
      <div className="min-h-0 flex-1 overflow-y-auto">
        <div className="min-w-[640px]">
          {b.places.length > 0 && (
            <div
              className={clsx(GRID, 'sticky top-0 z-10 border-line border-b bg-card text-[11px] text-ink-3')}
            >
              <span className="px-3.5 py-1.5">field</span>
              <span className="py-1.5">before any mod</span>
              <span className="py-1.5">changed by</span>
              <span className="border-line-2 border-l-2 border-dashed px-3 py-1.5">outcome</span>
            </div>
          )}
          {b.places.map((p) => (
            <BoardPlace
              key={p.place}
              workspace={workspace}
              name={`${name} ${p.place}`}
              place={p}
              pair={b.places.find((x) => x.place === p.pair)}
              onPair={choose}
              pending={
                decide.isPending && decide.variables.place === p.place ? decide.variables.decision : undefined
              }
              onChoose={(decision) => choose(p.place, decision)}
            />
          ))}
          <UnchangedFields workspace={workspace} name={name} board={b} onChoose={choose} />
          <RecordRelations workspace={workspace} board={b} />
        </div>
      </div>
    </section>
  )
}
