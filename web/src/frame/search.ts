import { useDeferredValue, useEffect, useRef, useState } from 'react'
import { useAddress } from './address'

export interface Search {
  /** What the field shows. */
  typed: string
  type: (text: string) => void
  /** What a long list is searched for: the same, a little later, so that typing waits for nothing. */
  wanted: string
}

/**
 * What a screen is searched for. It stands in the address, so that a reload, going back and a link keep it.
 *
 * The address follows what is typed some time later: meanwhile the field shows what was typed, or letters would be lost.
 *
 * @param name of it in the address
 * @param start what is searched for where the address says nothing at first
 */
export function useSearch(name = 'find', start = ''): Search {
  const [query, put] = useAddress()
  const said = query.get(name) ?? ''
  const [typed, setTyped] = useState(query.has(name) ? said : start)
  /** What was typed here and may still be on its way into the address. */
  const ours = useRef(new Set<string>())
  const latest = useRef(typed)
  const before = useRef(said)
  useEffect(() => {
    if (said === before.current) return
    before.current = said
    // going back, or to a link, says something else than what was typed
    if (!ours.current.has(said)) {
      latest.current = said
      setTyped(said)
    }
    if (said === latest.current) ours.current.clear()
  }, [said])
  const type = (text: string) => {
    ours.current.add(text)
    latest.current = text
    setTyped(text)
    put((q) => (text === '' ? q.delete(name) : q.set(name, text)))
  }
  return { typed, type, wanted: useDeferredValue(typed) }
}

/** Whether all words of a search are in one text or another, small and capital letters alike. */
export function hasWords(wanted: string, texts: readonly string[]): boolean {
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) return true
  const all = texts.join('\n').toLowerCase()
  return words.every((w) => all.includes(w))
}
