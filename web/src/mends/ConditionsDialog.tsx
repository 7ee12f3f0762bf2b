import { X } from 'lucide-react'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useLayers } from '../layers/queries'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { useConditions } from './queries'

const FIELD = 'h-[30px] min-w-0 flex-1 rounded-md border border-line-2 bg-card px-2 outline-offset-1'

interface Need {
  mod: string
  versions: string
  answer: string
}

/** When a patch is right: only with some mods, in some version or variant, and never with others. */
export function ConditionsDialog({
  workspace,
  mend,
  onClose,
}: {
  workspace: number
  mend: Schema['MendView']
  onClose: () => void
}) {
  const { say } = useNotices()
  const layers = useLayers(workspace).data?.layers ?? []
  const [needs, setNeeds] = useState<readonly Need[]>(
    mend.needs.map((n) => ({ mod: n.mod, versions: n.versions, answer: n.answer ?? '' })),
  )
  const [clashes, setClashes] = useState<readonly string[]>(mend.clashes)
  const save = useConditions(workspace, () => {
    say('The patch says now when it is right.')
    onClose()
  })
  const mods = layers.filter((l) => l.mod !== mend.mod && l.cardId)
  const put = (at: number, change: Partial<Need>) =>
    setNeeds(needs.map((n, i) => (i === at ? { ...n, ...change } : n)))
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={`When “${mend.name}” is right`}
      says="Its card will say so, and whoever uses it is told when it is not so."
    >
      <form
        onSubmit={(e) => {
          e.preventDefault()
          const body = {
            needs: needs
              .filter((n) => n.mod)
              .map((n) => ({
                mod: n.mod,
                ...(n.versions.trim() && { versions: n.versions.trim() }),
                ...(n.answer.trim() && { answer: n.answer.trim() }),
              })),
            clashes: clashes.filter((c) => c),
          }
          save.mutate({ mod: mend.mod, body })
        }}
      >
        <h3 className="mb-1">Only with</h3>
        {needs.map((n, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place alone
          <div key={i} className="mb-1.5 flex gap-1.5">
            <Mods value={n.mod} mods={mods} label="Mod that must be on" onChange={(mod) => put(i, { mod })} />
            <input
              aria-label="In which versions"
              placeholder="any version"
              value={n.versions === '*' ? '' : n.versions}
              onChange={(e) => put(i, { versions: e.target.value })}
              className={FIELD}
            />
            <input
              aria-label="In which variant, as question/answer of its fitting"
              placeholder="any variant"
              value={n.answer}
              onChange={(e) => put(i, { answer: e.target.value })}
              className={FIELD}
            />
            <Button
              look="quiet"
              icon
              aria-label="Take this line away"
              onClick={() => setNeeds(needs.filter((_, x) => x !== i))}
            >
              <X size={14} />
            </Button>
          </div>
        ))}
        <Button className="h-7" onClick={() => setNeeds([...needs, { mod: '', versions: '', answer: '' }])}>
          Another mod
        </Button>
        <h3 className="mt-4 mb-1">Never with</h3>
        {clashes.map((c, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place alone
          <div key={i} className="mb-1.5 flex gap-1.5">
            <Mods
              value={c}
              mods={mods}
              label="Mod that must not be on"
              onChange={(mod) => setClashes(clashes.map((x, at) => (at === i ? mod : x)))}
            />
            <Button
              look="quiet"
              icon
              aria-label="Take this line away"
              onClick={() => setClashes(clashes.filter((_, x) => x !== i))}
            >
              <X size={14} />
            </Button>
          </div>
        ))}
        <Button className="h-7" onClick={() => setClashes([...clashes, ''])}>
          Another mod
        </Button>
        <p className="mt-4">
          <Button type="submit" look="strong" disabled={save.isPending}>
            {save.isPending ? 'Rebuilding …' : 'Keep it'}
          </Button>
        </p>
      </form>
    </Dialog>
  )
}

function Mods({
  value,
  mods,
  label,
  onChange,
}: {
  value: string
  mods: readonly Schema['LayerView'][]
  label: string
  onChange: (id: string) => void
}) {
  return (
    <select aria-label={label} value={value} onChange={(e) => onChange(e.target.value)} className={FIELD}>
      <option value="">choose a mod</option>
      {value && !mods.some((m) => m.cardId === value) && <option value={value}>{value}</option>}
      {mods.map((m) => (
        <option key={m.mod} value={m.cardId}>
          {m.name}
        </option>
      ))}
    </select>
  )
}
