/** Light, dark, or as the machine says. Kept in this browser. */
export type Theme = 'system' | 'light' | 'dark'

const KEY = 'ironing.theme'
const machine = window.matchMedia('(prefers-color-scheme: dark)')

export function theme(): Theme {
  const kept = localStorage.getItem(KEY)
  return kept === 'light' || kept === 'dark' ? kept : 'system'
}

export function setTheme(next: Theme) {
  if (next === 'system') localStorage.removeItem(KEY)
  else localStorage.setItem(KEY, next)
  show()
  for (const w of watchers) w()
}

const watchers = new Set<() => void>()

/** Calls whenever another theme is chosen. */
export function watchTheme(watcher: () => void): () => void {
  watchers.add(watcher)
  return () => watchers.delete(watcher)
}

function show() {
  const dark = theme() === 'dark' || (theme() === 'system' && machine.matches)
  document.documentElement.dataset.theme = dark ? 'dark' : 'light'
}

/** To call once, before the first paint. */
export function startTheme() {
  show()
  machine.addEventListener('change', show)
}
