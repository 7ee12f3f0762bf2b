import { FolderOpen } from 'lucide-react'
import { useId, useState } from 'react'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { FolderDialog } from './FolderDialog'

/** Folders by the id of their place, as the user has named them. */
export type NamedPlaces = Readonly<Record<string, string>>

/** Which folder each place beside the game’s own is: what was found, to be corrected. */
export function PlaceFields({
  places,
  named,
  onName,
}: {
  places: readonly Schema['GamePlaceView'][]
  named: NamedPlaces
  onName: (named: NamedPlaces) => void
}) {
  if (places.length === 0) return null
  return (
    <section aria-label="Places beside the game folder" className="flex flex-col gap-2">
      <p className="text-ink-2">
        The game keeps things beside its own folder too. What Ironing puts there comes out again like all
        else.
      </p>
      {places.map((p) => (
        <PlaceField
          key={p.id}
          place={p}
          folder={named[p.id] ?? p.folder ?? ''}
          onChange={(folder) => onName({ ...named, [p.id]: folder })}
        />
      ))}
    </section>
  )
}

function PlaceField({
  place: p,
  folder,
  onChange,
}: {
  place: Schema['GamePlaceView']
  folder: string
  onChange: (folder: string) => void
}) {
  const [choosing, setChoosing] = useState(false)
  const id = useId()
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="font-medium">
        {p.what || 'Folder'} <span className="mono font-normal text-ink-3">@{p.id}</span>
      </label>
      <div className="flex items-center gap-2">
        <input
          id={id}
          value={folder}
          onChange={(e) => onChange(e.target.value)}
          aria-describedby={`${id}-found`}
          spellCheck={false}
          className="mono h-9 min-w-0 flex-1 rounded-[7px] border border-line-2 bg-card px-2.5"
        />
        <Button onClick={() => setChoosing(true)}>
          <FolderOpen size={15} aria-hidden="true" /> Choose
        </Button>
      </div>
      <p id={`${id}-found`} className={p.folder ? 'text-ink-2' : 'text-ochre'}>
        {p.folder
          ? 'Found on this machine.'
          : p.tried.length > 0
            ? `Not found at ${p.tried.join(', ')}. Start the game once so that it makes it, or name another.`
            : 'The definition does not say where it lies: name it.'}
      </p>
      {choosing && (
        <FolderDialog
          title={`Choose the folder for ${p.what || p.id}`}
          start={folder.trim()}
          onClose={() => setChoosing(false)}
          onChoose={(chosen) => {
            onChange(chosen)
            setChoosing(false)
          }}
        />
      )}
    </div>
  )
}
