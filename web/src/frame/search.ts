import { useDeferredValue, useState } from 'react'
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
 * @param name of it in the address
 */
export function useSearch(name = 'find'): Search {
  const [query, put] = useAddress()
  const said = query.get(name) ?? ''
  const [typed, setTyped] = useState(said)
  // going back, or to a link, says something else than what was typed here last
  const [known, setKnown] = useState(said)
  if (known !== said) {
    setKnown(said)
    setTyped(said)
  }
  const type = (text: string) => {
    setTyped(text)
    setKnown(text)
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
