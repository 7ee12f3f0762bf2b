import { useCallback, useState } from 'react'

const KEY = 'typed '

/** What was half done under a name in this tab, if anything was. */
export function kept<T>(name: string): T | undefined {
  const found = sessionStorage.getItem(KEY + name)
  if (found === null) return undefined
  try {
    return JSON.parse(found) as T
  } catch {
    // of another version of the page: nobody can go on with it
    return undefined
  }
}

/**
 * Something that is being written: it outlives leaving the screen and loading the page anew, until it is
 * taken or dropped.
 *
 * @param name under which it is kept, which says the thing that it is about
 * @param start where nothing is kept
 */
export function useKept<T>(name: string, start: T): [value: T, write: (next: T) => void, drop: () => void] {
  const [all, setAll] = useState<{ name: string; value: T | undefined }>(() => ({
    name,
    value: kept<T>(name),
  }))
  // of another thing now
  const now = all.name === name ? all : { name, value: kept<T>(name) }
  if (now !== all) setAll(now)
  const write = useCallback(
    (next: T) => {
      setAll({ name, value: next })
      try {
        sessionStorage.setItem(KEY + name, JSON.stringify(next))
      } catch {
        // a browser keeps a few megabytes: what is larger lives as long as its screen
        sessionStorage.removeItem(KEY + name)
      }
    },
    [name],
  )
  const drop = useCallback(() => {
    setAll({ name, value: undefined })
    sessionStorage.removeItem(KEY + name)
  }, [name])
  return [now.value ?? start, write, drop]
}
