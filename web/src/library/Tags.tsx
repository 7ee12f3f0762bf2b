import { X } from 'lucide-react'
import { useState } from 'react'
import { api, got } from '../api/client'
import { useAct } from './queries'

/** The tags of a mod, to add and to take away. */
export function Tags({ workspace, mod, tags }: { workspace: number; mod: number; tags: readonly string[] }) {
  const [fresh, setFresh] = useState('')
  const save = useAct(workspace, (next: string[]) =>
    got(
      api.PUT('/api/workspaces/{workspace}/mods/{mod}/tags', {
        params: { path: { workspace, mod } },
        body: { tags: next },
      }),
    ),
  )
  return (
    <form
      className="flex flex-wrap items-center gap-1.5"
      onSubmit={(e) => {
        e.preventDefault()
        if (fresh.trim()) save.mutate([...tags, fresh.trim()])
        setFresh('')
      }}
    >
      {tags.map((t) => (
        <span
          key={t}
          className="inline-flex items-center gap-1 rounded-full border border-line-2 py-px pr-1 pl-2.5"
        >
          {t}
          <button
            type="button"
            aria-label={`Take the tag ${t} away`}
            className="rounded-full p-0.5 hover:bg-sunk"
            onClick={() => save.mutate(tags.filter((x) => x !== t))}
          >
            <X size={12} />
          </button>
        </span>
      ))}
      <input
        aria-label="A new tag"
        placeholder="add a tag"
        value={fresh}
        maxLength={40}
        onChange={(e) => setFresh(e.target.value)}
        className="h-7 w-28 rounded-[7px] border border-line bg-card px-2"
      />
    </form>
  )
}
