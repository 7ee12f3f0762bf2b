import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Preview } from '../Preview'
import type { LayerChange } from '../queries'
import type { AskProps } from './asking'

/** Asks which section layers are to go into. */
export function SectionDialog({ workspace, view, mods, onClose, onChange }: AskProps) {
  const [section, setSection] = useState<number | null>(view.sections[0]?.id ?? null)
  const [name, setName] = useState('')
  const change: LayerChange | null =
    section === null && !name.trim() ? null : { kind: 'gather', mods, section, name: name.trim() }
  return (
    <Dialog
      open
      onOpenChange={(o) => !o && onClose()}
      title="Put into a section"
      says="A section is a named stretch of neighbouring layers that folds and moves as one."
    >
      <form
        onSubmit={(e) => {
          e.preventDefault()
          if (change) onChange(change)
          onClose()
        }}
      >
        {view.sections.map((s) => (
          <label key={s.id} className="flex items-center gap-2 py-0.5">
            <input
              type="radio"
              name="section"
              checked={section === s.id}
              onChange={() => setSection(s.id)}
              className="accent-(--woad)"
            />
            {s.name}
          </label>
        ))}
        <label className="flex items-center gap-2 py-0.5">
          <input
            type="radio"
            name="section"
            checked={section === null}
            onChange={() => setSection(null)}
            className="accent-(--woad)"
          />
          a new one
          <input
            value={name}
            onFocus={() => setSection(null)}
            onChange={(e) => setName(e.target.value)}
            maxLength={80}
            aria-label="Name of the new section"
            placeholder="its name"
            className="h-[30px] flex-1 rounded-md border border-line-2 bg-card px-2.5"
          />
        </label>
        <Preview workspace={workspace} revision={view.revision} change={change} />
        <Button type="submit" look="strong" disabled={!change} className="mt-3">
          Put them there
        </Button>
      </form>
    </Dialog>
  )
}
