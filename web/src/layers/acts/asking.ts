import type { Schema } from '../../api/client'
import type { LayerChange } from '../queries'

/** What a dialog about layers is given. */
export interface AskProps {
  workspace: number
  view: Schema['LayersView']
  mods: readonly number[]
  onClose: () => void
  onChange: (change: LayerChange) => void
}
