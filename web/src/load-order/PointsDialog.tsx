import { useState } from 'react'
import { useHistory } from '../timeline/queries'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { when } from '../ui/text'
import { type LoadChange, useLoadPreview } from './queries'
import { loadWords } from './sentence'

/** The restore points of the profile: the load order alone can come back from each. */
export function PointsDialog({
  workspace,
  revision,
  onChange,
  onClose,
}: {
  workspace: number
  revision: number
  onChange: (change: LoadChange) => void
  onClose: () => void
}) {
  const points = useHistory(workspace).data?.pages[0]?.points ?? []
  const [chosen, choose] = useState<number | null>(null)
  const point = points.find((p) => p.id === chosen)
  const change: LoadChange | null = point ? { kind: 'restore', point: point.id, name: point.name } : null
  const preview = useLoadPreview(workspace, revision, change).data
  return (
    <Dialog
      open
      onOpenChange={(o) => !o && onClose()}
      title="The load order of a restore point"
      says="Only the order of the plugins and what is on comes back. The timeline takes all of it back, and makes new points."
    >
      {points.length === 0 ? (
        <p className="text-ink-2">This profile has no restore point yet. The timeline makes them.</p>
      ) : (
        <ul>
          {points.map((p) => (
            <li key={p.id}>
              <label className="flex items-center gap-2 py-1">
                <input
                  type="radio"
                  name="point"
                  className="accent-(--woad)"
                  checked={p.id === chosen}
                  onChange={() => choose(p.id)}
                />
                <span className="min-w-0 flex-1 truncate font-medium">{p.name}</span>
                <span className="text-ink-3">{when(p.at)}</span>
              </label>
            </li>
          ))}
        </ul>
      )}
      <p role="status" className="mt-2 min-h-[1.4em] text-ink-2">
        {change && (preview ? loadWords(preview, 'would') : 'Looking what that would change …')}
      </p>
      <Button
        look="strong"
        className="mt-2"
        disabled={!change}
        onClick={() => {
          if (change) onChange(change)
          onClose()
        }}
      >
        Bring this order back
      </Button>
    </Dialog>
  )
}
