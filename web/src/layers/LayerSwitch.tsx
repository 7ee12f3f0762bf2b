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
  return (
    <Hint
      side="left"
      onOpenChange={setOpen}
      text={open ? <Switching workspace={workspace} revision={revision} layer={layer} /> : '…'}
    >
      <span className="inline-flex">
        <OnOff on={layer.on} label={`${layer.name} on`} onChange={onChange} tabIndex={tabIndex} />
      </span>
    </Hint>
  )
}

/** Asked for only where it is looked at: a list has thousands of switches. */
function Switching({
  workspace,
  revision,
  layer,
}: {
  workspace: number
  revision: number
  layer: Schema['LayerView']
}) {
  const change: LayerChange = { kind: 'switch', mods: [layer.mod], on: !layer.on }
  const preview = usePreview(workspace, revision, change)
  const what = layer.on ? 'Switching it off' : 'Switching it on'
  return <>{preview.data ? `${what}: ${differenceWords(preview.data, 'would')}` : `${what} …`}</>
}
