import { api, got, type Schema } from '../api/client'

type LayersView = Schema['LayersView']
type Layer = Schema['LayerView']

/**
 * By workspace: the list of layers as the server gave it last, and the tag by which to ask what has changed since. The
 * cache of queries cannot say it: a change stands there before the server has answered.
 */
const given = new Map<number, { tag: number; view: LayersView }>()

/** The list of layers; of one that was there before only what has changed is asked for. */
export async function layersNow(workspace: number, signal: AbortSignal): Promise<LayersView> {
  const had = given.get(workspace)
  const answer = await got(
    api.GET('/api/workspaces/{workspace}/layers/since/{tag}', {
      params: { path: { workspace, tag: had?.tag ?? 0 } },
      signal,
    }),
  )
  const view = merged(had?.view, answer)
  given.set(workspace, { tag: answer.tag, view })
  return view
}

/** A list of layers with what has changed since it was given. */
export function merged(before: LayersView | undefined, answer: Schema['LayersSince']): LayersView {
  const { whole, changes } = answer
  if (whole) return whole
  if (!changes || !before) throw new Error('the server told changes of a list that is not here')
  const rows = new Map<number, Layer>(before.layers.map((l) => [l.mod, l]))
  for (const l of changes.layers) rows.set(l.mod, l)
  const order = before.layers.map((l) => l.mod)
  if (changes.order) order.splice(changes.order.from, changes.order.gone, ...changes.order.mods)
  return {
    revision: changes.revision,
    game: changes.game,
    sections: changes.sections,
    layers: order.flatMap((mod, i) => {
      const row = rows.get(mod)
      // a row that is as it was stays the same object, so that it is not drawn again
      return row ? [row.position === i + 1 ? row : { ...row, position: i + 1 }] : []
    }),
  }
}
