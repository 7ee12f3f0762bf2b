import { useState } from 'react'
import { api, got, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { count } from '../ui/text'
import { useAct, useLibrary } from './queries'

type Mod = Schema['ModView']

interface Change {
  add: readonly string[]
  remove: readonly string[]
}

/** Asks which tags some mods are to have. */
export function TagDialog({
  workspace,
  mods,
  onClose,
}: {
  workspace: number
  mods: readonly Mod[]
  onClose: () => void
}) {
  const library = useLibrary(workspace).data?.mods ?? []
  const [fresh, setFresh] = useState('')
  const [turned, setTurned] = useState<ReadonlyMap<string, boolean>>(new Map())
  const { say } = useNotices()
  const all = [...new Set([...library.flatMap((m) => m.tags), ...turned.keys()])].sort()
  const held = (tag: string) => mods.filter((m) => m.tags.includes(tag)).length
  const change = useAct(
    workspace,
    ({ add, remove }: Change) =>
      got(
        api.POST('/api/workspaces/{workspace}/library/tags', {
          params: { path: { workspace } },
          body: { mods: mods.map((m) => m.id), add: [...add], remove: [...remove] },
        }),
      ),
    () => say(`${mods.length === 1 ? mods[0]?.name : count(mods.length, 'mod')}: tags saved.`),
  )
  const save = () => {
    const wanted = new Map(turned)
    if (fresh.trim()) wanted.set(fresh.trim(), true)
    change.mutate({
      add: [...wanted].flatMap(([tag, on]) => (on ? [tag] : [])),
      remove: [...wanted].flatMap(([tag, on]) => (on ? [] : [tag])),
    })
    onClose()
  }
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={mods.length === 1 ? `Tags of ${mods[0]?.name}` : `Tags of ${count(mods.length, 'mod')}`}
      says="Words of your own. Library and Layers show only what has one, if you like."
    >
      <form
        onSubmit={(e) => {
          e.preventDefault()
          save()
        }}
        className="flex flex-col gap-3"
      >
        {all.length > 0 && (
          <fieldset className="flex max-h-52 flex-col gap-1 overflow-y-auto">
            <legend className="sr-only">Tags that there are</legend>
            {all.map((tag) => {
              const some = held(tag)
              const on = turned.get(tag) ?? some === mods.length
              return (
                <label key={tag} className="flex min-h-6 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={on}
                    ref={(box) => {
                      if (box) box.indeterminate = !turned.has(tag) && some > 0 && some < mods.length
                    }}
                    onChange={(e) => setTurned(new Map(turned).set(tag, e.target.checked))}
                    className="accent-(--woad)"
                  />
                  {tag}
                  {some > 0 && some < mods.length && !turned.has(tag) && (
                    <small className="text-ink-2">{some} of them</small>
                  )}
                </label>
              )
            })}
          </fieldset>
        )}
        <input
          autoFocus
          value={fresh}
          maxLength={40}
          onChange={(e) => setFresh(e.target.value)}
          aria-label="A new tag"
          placeholder="a new tag"
          className="h-[30px] rounded-md border border-line-2 bg-card px-2.5"
        />
        <Button
          type="submit"
          look="strong"
          className="self-start"
          disabled={turned.size === 0 && !fresh.trim()}
        >
          Save
        </Button>
      </form>
    </Dialog>
  )
}
