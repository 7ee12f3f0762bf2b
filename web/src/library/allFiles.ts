import type { Schema } from '../api/client'
import { GrowingTree, type Tree } from '../ui/tree'

/** A file of a mod in the tree: a packed one stands below its pack. */
export type ShownFile = Schema['ModFile'] & { own: string; lower: string }

/** The files of a mod, and the tree that they make. */
export interface AllFiles {
  files: readonly ShownFile[]
  tree: Tree<ShownFile>
  /** Whether no more are to come. */
  whole: boolean
}

/** So many are asked for at once. */
export const PIECE = 2_000

/**
 * All files of a mod, piece by piece, so that the page answers while fifty thousand come in.
 *
 * @param ask for a piece, from a place in the list on; fewer than a piece are the last
 * @param soFar is told what is there, at first and then whenever it has doubled: each time costs a drawing of the tree
 */
export async function gathered(
  ask: (offset: number) => Promise<readonly Schema['ModFile'][]>,
  soFar: (files: AllFiles) => void,
): Promise<AllFiles> {
  const files: ShownFile[] = []
  const tree = new GrowingTree<ShownFile>()
  let told = 0
  while (true) {
    const piece = await ask(files.length)
    const whole = piece.length < PIECE
    for (const f of piece) {
      const path = f.pack ? `${f.pack} (pack)/${f.path}` : f.path
      const shown = { ...f, own: f.path, path, lower: path.toLowerCase() }
      files.push(shown)
      tree.add(shown)
    }
    const now = { files, tree: tree.now(), whole }
    if (whole) return now
    if (files.length >= 2 * told) {
      told = files.length
      soFar(now)
    }
  }
}
