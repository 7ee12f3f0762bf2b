import { useSyncExternalStore } from 'react'

/**
 * What running games and tools print, line by line as it comes. Lines of one run share one array that only
 * grows, and the page is told once a frame: a game that prints fast must not make it copy.
 */
const lines = new Map<string, string[]>()
const listeners = new Set<() => void>()
let version = 0
let told = true

/** A number for a run of the game, a word for one of a tool. */
export type RunKey = number | `tool-${number}`

const key = (workspace: number, run: RunKey) => `${workspace}/${run}`

export function keepLine(workspace: number, run: RunKey, line: string) {
  const k = key(workspace, run)
  const all = lines.get(k)
  if (all) all.push(line)
  else lines.set(k, [line])
  if (!told) return
  told = false
  requestAnimationFrame(() => {
    told = true
    version++
    for (const listener of listeners) listener()
  })
}

const NONE: readonly string[] = []

function subscribe(listener: () => void) {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** The lines of a run that came while this page was open. */
export function useLines(workspace: number, run: RunKey): readonly string[] {
  useSyncExternalStore(subscribe, () => version)
  return lines.get(key(workspace, run)) ?? NONE
}
