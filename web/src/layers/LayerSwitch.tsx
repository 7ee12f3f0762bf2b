import { useState } from 'react'
import type { Schema } from '../api/client'
import { Hint } from '../ui/Hint'
import { OnOff } from '../ui/OnOff'
import { type LayerChange, usePreview } from './queries'
import { differenceWords } from './sentence'

interface LayerSwitchProps {
  workspace: number
  revision: number
  layer: Schema['LayerView']
  tabIndex: number
  onChange: (on: boolean) => void
}

/** The switch of a layer; pointed at, it says what switching would change. */
export function LayerSwitch({ workspace, revision, layer, tabIndex, onChange }: LayerSwitchProps) {
  const [open, setOpen] = useState(false)
  const change: LayerChange = { kind: 'switch', mods: [layer.mod], on: !layer.on }
  const preview = usePreview(workspace, revision, open ? change : null)
  const what = layer.on ? 'Switching it off' : 'Switching it on'
  return (
    <Hint
      side="left"
      onOpenChange={setOpen}
      text={preview.data ? `${what}: ${differenceWords(preview.data, 'would')}` : `${what} …`}
    >
      <span className="inline-flex">
        <OnOff on={layer.on} label={`${layer.name} on`} onChange={onChange} tabIndex={tabIndex} />
      </span>
    </Hint>
  )
}
