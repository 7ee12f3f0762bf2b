/** A file of a tree: its path, and whatever goes with it. */
export interface Leaf {
  path: string
  sizeBytes: number
}

/** A folder with all that is in it, or a file. */
export interface TreeNode<L extends Leaf> {
  /** A folder's ends in a slash. */
  path: string
  name: string
  depth: number
  /** Files below it; 1 for a file. */
  files: number
  sizeBytes: number
  leaf?: L
  /** In no order until {@link childrenOf} is asked. */
  children: TreeNode<L>[]
  sorted: boolean
}

/**
 * A tree to look at. Its nodes go on growing with the tree that gave it; whenever that has grown it gives another one, by
 * which a screen knows to draw anew.
 */
export interface Tree<L extends Leaf> {
  /** Folders first, each kind by name. */
  readonly roots: readonly TreeNode<L>[]
}

/** A tree that grows file by file. Cost of one: one look-up and one addition a step of its path. */
export class GrowingTree<L extends Leaf> {
  private readonly root: TreeNode<L> = folderOf<L>('', '', -1)
  private readonly folders = new Map<string, TreeNode<L>>([['', this.root]])

  add(leaf: L): void {
    const slash = leaf.path.lastIndexOf('/')
    const parent = this.folder(leaf.path.slice(0, slash + 1))
    parent.sorted = false
    parent.children.push({
      path: leaf.path,
      name: leaf.path.slice(slash + 1),
      depth: parent.depth + 1,
      files: 1,
      sizeBytes: leaf.sizeBytes,
      leaf,
      children: [],
      sorted: true,
    })
    for (let path = parent.path; ; path = path.slice(0, path.lastIndexOf('/', path.length - 2) + 1)) {
      const folder = this.folders.get(path)
      if (folder) {
        folder.files++
        folder.sizeBytes += leaf.sizeBytes
      }
      if (path === '') break
    }
  }

  /** To look at as it stands. */
  now(): Tree<L> {
    return { roots: childrenOf(this.root) }
  }

  private folder(path: string): TreeNode<L> {
    const known = this.folders.get(path)
    if (known) return known
    const bare = path.slice(0, -1)
    const slash = bare.lastIndexOf('/')
    const parent = this.folder(bare.slice(0, slash + 1))
    const made = folderOf<L>(path, bare.slice(slash + 1), parent.depth + 1)
    parent.children.push(made)
    parent.sorted = false
    this.folders.set(path, made)
    return made
  }
}

function folderOf<L extends Leaf>(path: string, name: string, depth: number): TreeNode<L> {
  return { path, name, depth, files: 0, sizeBytes: 0, children: [], sorted: true }
}

/** What lies in a folder; put in order when it is first looked at, so that nobody waits for all folders. */
export function childrenOf<L extends Leaf>(node: TreeNode<L>): readonly TreeNode<L>[] {
  if (!node.sorted) {
    node.children.sort((a, b) => {
      const kind = Number(!!a.leaf) - Number(!!b.leaf)
      return kind || (a.name < b.name ? -1 : a.name > b.name ? 1 : 0)
    })
    node.sorted = true
  }
  return node.children
}

/** The tree of some files. */
export function treeOf<L extends Leaf>(leaves: readonly L[]): Tree<L> {
  const tree = new GrowingTree<L>()
  for (const leaf of leaves) tree.add(leaf)
  return tree.now()
}

const GROWN_AT_ONCE = 4_000

/** The tree of very many files, grown piece by piece, so that the page answers meanwhile. */
export async function grown<L extends Leaf>(leaves: readonly L[]): Promise<Tree<L>> {
  const tree = new GrowingTree<L>()
  for (let i = 0; i < leaves.length; i++) {
    tree.add(leaves[i] as L)
    if (i % GROWN_AT_ONCE === GROWN_AT_ONCE - 1) await new Promise((go) => setTimeout(go))
  }
  return tree.now()
}

/** The rows that are seen when some folders are open, from the top. */
export function rowsOf<L extends Leaf>(
  nodes: readonly TreeNode<L>[],
  isOpen: (folder: string) => boolean,
): TreeNode<L>[] {
  const rows: TreeNode<L>[] = []
  const walk = (list: readonly TreeNode<L>[]) => {
    for (const n of list) {
      rows.push(n)
      if (!n.leaf && isOpen(n.path)) walk(childrenOf(n))
    }
  }
  walk(nodes)
  return rows
}

/** The files of a node. */
export function leavesOf<L extends Leaf>(node: TreeNode<L>): L[] {
  return node.leaf ? [node.leaf] : childrenOf(node).flatMap(leavesOf)
}
