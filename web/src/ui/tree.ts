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
  children: TreeNode<L>[]
}

/** The tree of some files: folders first, each kind by name. Cost: one look-up a step of a path. */
export function treeOf<L extends Leaf>(leaves: readonly L[]): TreeNode<L>[] {
  const root: TreeNode<L> = { path: '', name: '', depth: -1, files: 0, sizeBytes: 0, children: [] }
  const folders = new Map<string, TreeNode<L>>([['', root]])
  const folder = (path: string): TreeNode<L> => {
    const known = folders.get(path)
    if (known) return known
    const bare = path.slice(0, -1)
    const slash = bare.lastIndexOf('/')
    const parent = folder(bare.slice(0, slash + 1))
    const made: TreeNode<L> = {
      path,
      name: bare.slice(slash + 1),
      depth: parent.depth + 1,
      files: 0,
      sizeBytes: 0,
      children: [],
    }
    parent.children.push(made)
    folders.set(path, made)
    return made
  }
  for (const leaf of leaves) {
    const slash = leaf.path.lastIndexOf('/')
    const parent = folder(leaf.path.slice(0, slash + 1))
    parent.children.push({
      path: leaf.path,
      name: leaf.path.slice(slash + 1),
      depth: parent.depth + 1,
      files: 1,
      sizeBytes: leaf.sizeBytes,
      leaf,
      children: [],
    })
  }
  sum(root)
  return root.children
}

function sum<L extends Leaf>(node: TreeNode<L>) {
  if (node.leaf) return
  for (const c of node.children) {
    sum(c)
    node.files += c.files
    node.sizeBytes += c.sizeBytes
  }
  node.children.sort((a, b) => {
    const kind = Number(!!a.leaf) - Number(!!b.leaf)
    return kind || (a.name < b.name ? -1 : a.name > b.name ? 1 : 0)
  })
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
      if (!n.leaf && isOpen(n.path)) walk(n.children)
    }
  }
  walk(nodes)
  return rows
}

/** The files of a node. */
export function leavesOf<L extends Leaf>(node: TreeNode<L>): L[] {
  return node.leaf ? [node.leaf] : node.children.flatMap(leavesOf)
}
