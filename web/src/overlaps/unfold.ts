/**
 * Which folders of a level are unfolded at first, so that the tree is as long as its window: those that fit with all
 * that is in them, and of the others the first, which may take what is left if its own rows fit.
 *
 * @param within how many paths lie in each folder, at any depth
 * @param left rows that are free below the level's own
 * @returns for each folder the rows that it may take; 0: it stays folded
 */
export function roomsOf(within: readonly number[], left: number): number[] {
  let free = left
  const rooms = within.map((paths) => {
    if (paths > free) return 0
    free -= paths
    return paths
  })
  const first = rooms.indexOf(0)
  if (first >= 0 && free > 0) rooms[first] = free
  return rooms
}
