import { type FormEvent, useId, useState } from 'react'
import { asProblems, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useSayPlace } from '../game/queries'
import { Button } from '../ui/Button'
import { Problems } from '../ui/Problems'

/** The folders beside the game’s own, and saying where one is now. */
export function GamePlaces({
  workspace,
  places,
}: {
  workspace: number
  places: readonly Schema['GamePlaceView'][]
}) {
  if (places.length === 0) return null
  return (
    <section aria-labelledby="game-places" className="card px-4 py-3">
      <h2 id="game-places" className="mb-1">
        Beside the game folder
      </h2>
      <ul>
        {places.map((p) => (
          <GamePlace key={p.id} workspace={workspace} place={p} />
        ))}
      </ul>
    </section>
  )
}

function GamePlace({ workspace, place: p }: { workspace: number; place: Schema['GamePlaceView'] }) {
  const [folder, setFolder] = useState<string | null>(null)
  const { say } = useNotices()
  const id = useId()
  const change = useSayPlace(workspace, () => {
    setFolder(null)
    say(`It is known now where @${p.id} lies.`)
  })
  const submit = (e: FormEvent) => {
    e.preventDefault()
    if (folder !== null) change.mutate({ place: p.id, folder })
  }
  return (
    <li className="border-line border-t py-1.5">
      <p className="flex items-baseline gap-2">
        <span className="min-w-0 flex-1 truncate">
          {p.what || 'Folder'} <span className="mono text-ink-3">@{p.id}</span>
        </span>
        {!p.there && <span className="font-medium text-madder">gone</span>}
        {folder === null && (
          <Button look="quiet" onClick={() => setFolder(p.folder ?? '')}>
            Another folder
          </Button>
        )}
      </p>
      {folder === null ? (
        <p className="mono truncate text-ink-2" title={p.folder}>
          {p.folder ?? 'not known'}
        </p>
      ) : (
        <form onSubmit={submit} className="mt-1 flex flex-col gap-2">
          <label htmlFor={id} className="sr-only">
            Folder for {p.what || p.id}
          </label>
          <input
            id={id}
            value={folder}
            onChange={(e) => setFolder(e.target.value)}
            spellCheck={false}
            className="mono h-9 rounded-[7px] border border-line-2 bg-card px-2.5"
          />
          {change.error !== null && <Problems problems={asProblems(change.error)} />}
          <div className="flex gap-2">
            <Button type="submit" look="strong" disabled={!folder.trim() || change.isPending}>
              {change.isPending ? 'Looking …' : 'It lies there'}
            </Button>
            <Button
              onClick={() => {
                setFolder(null)
                change.reset()
              }}
            >
              Leave it
            </Button>
          </div>
        </form>
      )}
    </li>
  )
}
