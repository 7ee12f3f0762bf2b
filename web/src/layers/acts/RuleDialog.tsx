import { useState } from 'react'
import type { Schema } from '../../api/client'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import type { LayerChange } from '../queries'
import { RULE_WORDS } from '../words'

/** Asks for a rule of placement about a layer. */
export function RuleDialog({
  view,
  mod,
  onClose,
  onChange,
}: {
  view: Schema['LayersView']
  mod: Schema['LayerView']
  onClose: () => void
  onChange: (change: LayerChange) => void
}) {
  const [kind, setKind] = useState<Schema['RuleView']['kind']>('ABOVE')
  const [other, setOther] = useState<number | null>(null)
  const [reason, setReason] = useState('')
  const needsOther = kind !== 'TOP' && kind !== 'BOTTOM'
  return (
    <Dialog
      open
      onOpenChange={(o) => !o && onClose()}
      title={`A rule for ${mod.name}`}
      says="It is held against the order after every change, in every profile; what breaks it is shown with the move that mends it."
    >
      <form
        onSubmit={(e) => {
          e.preventDefault()
          onChange({
            kind: 'rule',
            rule: { kind, mod: mod.mod, ...(needsOther && other ? { other } : {}) },
            reason: reason.trim(),
          })
          onClose()
        }}
      >
        <div className="flex gap-2">
          <select
            value={kind}
            onChange={(e) => setKind(e.target.value as typeof kind)}
            aria-label="Where it is to stand"
            className="h-[30px] rounded-md border border-line-2 bg-card px-2"
          >
            {Object.entries(RULE_WORDS).map(([k, words]) => (
              <option key={k} value={k}>
                {words}
              </option>
            ))}
          </select>
          {needsOther && (
            <select
              value={other ?? ''}
              onChange={(e) => setOther(Number(e.target.value) || null)}
              aria-label="The other layer"
              className="h-[30px] min-w-0 flex-1 rounded-md border border-line-2 bg-card px-2"
            >
              <option value="">which layer?</option>
              {[...view.layers]
                .filter((l) => l.mod !== mod.mod)
                .reverse()
                .map((l) => (
                  <option key={l.mod} value={l.mod}>
                    {l.position} {l.name}
                  </option>
                ))}
            </select>
          )}
        </div>
        <input
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          maxLength={300}
          placeholder="Why? (for your later self)"
          aria-label="Why"
          className="mt-2 h-[30px] w-full rounded-md border border-line-2 bg-card px-2.5"
        />
        <Button type="submit" look="strong" disabled={needsOther && !other} className="mt-3">
          Make the rule
        </Button>
      </form>
    </Dialog>
  )
}
