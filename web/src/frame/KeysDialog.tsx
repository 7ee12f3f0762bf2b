import { Dialog } from '../ui/Dialog'
import { KEYS } from './keys'

/** What the keys do. */
export function KeysDialog({ onClose }: { onClose: () => void }) {
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Keys"
      says="On a Mac it is ⌘ in the place of Ctrl."
    >
      <dl className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-x-4 gap-y-1.5">
        {KEYS.map((k) => (
          <div
            key={k.keys}
            className="col-span-2 grid grid-cols-subgrid border-line border-b border-dotted pb-1.5"
          >
            <dt className="font-medium">{k.keys}</dt>
            <dd className="text-ink-2">{k.does}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  )
}
