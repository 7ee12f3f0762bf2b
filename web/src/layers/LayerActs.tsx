import { useState } from 'react'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { Hint } from '../ui/Hint'
import { ChosenBar } from '../ui/list/ChosenBar'
import { count } from '../ui/text'
import { type LayerChange, usePreview } from './queries'
import { differenceWords } from './sentence'
import type { LayerActs as Acts } from './useLayerActs'

interface LayerActsProps {
  workspace: number
  view: Schema['LayersView']
  /** From the lowest. */
  mods: readonly number[]
  acts: Acts
  onChange: (change: LayerChange) => void
  onClear: () => void
}

/** What can be done with the layers that are chosen, each act with what it would change. */
export function LayerActs({ workspace, view, mods, acts, onChange, onClear }: LayerActsProps) {
  const layers = view.layers.filter((l) => mods.includes(l.mod))
  const first = layers[0]
  if (!first) return null
  const many = layers.length > 1
  const someOff = layers.some((l) => !l.on)
  const turn = (on: boolean) => (
    <ActButton
      workspace={workspace}
      revision={view.revision}
      label={on ? 'Switch on' : 'Switch off'}
      change={{ kind: 'switch', mods, on }}
      onChange={onChange}
    />
  )
  return (
    <ChosenBar
      label={many ? `${layers.length} layers chosen` : first.name}
      name={many ? count(layers.length, 'layer') : first.name}
      menu={() => acts.of(mods)}
      onClear={many ? onClear : undefined}
    >
      {turn(someOff)}
      {someOff && layers.some((l) => l.on) && turn(false)}
      <Button className="h-7" onClick={() => acts.askPlace(mods)}>
        Move …
      </Button>
    </ChosenBar>
  )
}

/** A button that says what it would change when it is pointed at. */
function ActButton({
  workspace,
  revision,
  label,
  change,
  onChange,
}: {
  workspace: number
  revision: number
  label: string
  change: LayerChange
  onChange: (change: LayerChange) => void
}) {
  const [open, setOpen] = useState(false)
  const preview = usePreview(workspace, revision, open ? change : null)
  return (
    <Hint
      side="bottom"
      onOpenChange={setOpen}
      text={preview.data ? differenceWords(preview.data, 'would') : 'Looking what that would change …'}
    >
      <Button className="h-7" onClick={() => onChange(change)}>
        {label}
      </Button>
    </Hint>
  )
}
