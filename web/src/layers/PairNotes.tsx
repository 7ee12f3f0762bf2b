import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { of } from '../frame/workspace'
import { useAct } from '../library/queries'
import { AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { useKept } from '../ui/kept'
import { when } from '../ui/text'

type View = Schema['LayersView']

function usePairNotes(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'pair-notes'),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/layers/pair-notes', { params: { path: { workspace } }, signal }),
      ),
  })
}

/** What the user wrote of a mod together with another one. */
export function PairNotes({ workspace, view, mod }: { workspace: number; view: View; mod: number }) {
  const all = usePairNotes(workspace).data ?? []
  const [writing, setWriting, drop] = useKept<{ other: number | null; note: string } | null>(
    `pair note ${workspace}/${mod}`,
    null,
  )
  const write = useAct(workspace, (body: Schema['PairNoteRequest']) =>
    got(api.PUT('/api/workspaces/{workspace}/layers/pair-notes', { params: { path: { workspace } }, body })),
  )
  const mine = all
    .filter((n) => n.mod === mod || n.other === mod)
    .map((n) =>
      n.mod === mod
        ? { ...n, with: n.other, withName: n.otherName }
        : { ...n, with: n.mod, withName: n.name },
    )
  const there = mine.some((n) => n.with === writing?.other)
  const keep = () => {
    if (writing?.other != null) write.mutate({ mod, other: writing.other, note: writing.note })
    drop()
  }
  return (
    <AsidePart title="Notes with another mod">
      <ul className="flex flex-col gap-2">
        {mine.map((n) => (
          <li key={n.with}>
            <p className="flex items-baseline gap-2">
              <Link
                to={`/workspaces/${workspace}/layers/${n.with}`}
                className="min-w-0 flex-1 truncate font-medium hover:underline"
              >
                {n.withName}
              </Link>
              <small className="text-ink-3">{when(n.at)}</small>
              <button
                type="button"
                className="min-h-6 text-woad underline"
                onClick={() => setWriting({ other: n.with, note: n.note })}
              >
                Edit
              </button>
            </p>
            <p className="whitespace-pre-wrap break-words text-ink-2 leading-snug">{n.note}</p>
          </li>
        ))}
      </ul>
      {writing ? (
        <form
          className="mt-2 flex flex-col gap-1.5"
          onSubmit={(e) => {
            e.preventDefault()
            keep()
          }}
        >
          <select
            aria-label="The other mod"
            value={writing.other ?? ''}
            onChange={(e) =>
              setWriting({ ...writing, other: e.target.value ? Number(e.target.value) : null })
            }
            className="h-[30px] rounded-md border border-line-2 bg-card px-2"
          >
            <option value="">Which other mod?</option>
            {view.layers
              .filter((l) => l.mod !== mod)
              .map((l) => (
                <option key={l.mod} value={l.mod}>
                  {l.name}
                </option>
              ))}
          </select>
          <textarea
            // biome-ignore lint/a11y/noAutofocus: the one thing to fill in
            autoFocus
            aria-label="Note of the two"
            rows={3}
            maxLength={10_000}
            value={writing.note}
            onChange={(e) => setWriting({ ...writing, note: e.target.value })}
            onKeyDown={(e) => e.key === 'Escape' && drop()}
            className="rounded-md border border-line-2 bg-card px-2.5 py-1.5"
          />
          <span className="flex gap-1.5">
            <Button
              type="submit"
              look="strong"
              disabled={writing.other === null || !(there || writing.note.trim())}
            >
              {there && !writing.note.trim() ? 'Take the note away' : 'Keep the note'}
            </Button>
            <Button look="quiet" onClick={drop}>
              Leave it
            </Button>
          </span>
        </form>
      ) : (
        <button
          type="button"
          className="mt-1 min-h-6 text-woad underline"
          onClick={() => setWriting({ other: null, note: '' })}
        >
          Write a note of this and another mod
        </button>
      )}
    </AsidePart>
  )
}
