import { useState } from 'react'

/** What was half typed under a name in this tab, if anything was. */
export function keptText(name: string): string | undefined {
  return sessionStorage.getItem(`typed ${name}`) ?? undefined
}

/**
 * A text that is being typed: it outlives leaving the screen and loading the page anew, until it is
 * taken or dropped.
 */
export function useKeptText(
  name: string,
  start: string,
): [text: string, type: (text: string) => void, drop: () => void] {
  const [text, setText] = useState(() => keptText(name))
  const type = (next: string) => {
    setText(next)
    sessionStorage.setItem(`typed ${name}`, next)
  }
  const drop = () => {
    setText(undefined)
    sessionStorage.removeItem(`typed ${name}`)
  }
  return [text ?? start, type, drop]
}
