import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'

/** Asks what a section is to be called. */
export function RenameDialog({
  name,
  onClose,
  onName,
}: {
  name: string
  onClose: () => void
  onName: (name: string) => void
}) {
  const [next, setNext] = useState(name)
  return (
    <Dialog open onOpenChange={(o) => !o && onClose()} title="Rename the section">
      <form
        className="flex gap-2"
        onSubmit={(e) => {
          e.preventDefault()
          onName(next.trim())
          onClose()
        }}
      >
        <input
          autoFocus
          value={next}
          onChange={(e) => setNext(e.target.value)}
          maxLength={80}
          aria-label="Name of the section"
          className="h-[30px] flex-1 rounded-md border border-line-2 bg-card px-2.5"
        />
        <Button type="submit" look="strong" disabled={!next.trim()}>
          Rename
        </Button>
      </form>
    </Dialog>
  )
}
