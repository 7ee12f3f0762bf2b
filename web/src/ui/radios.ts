import type { KeyboardEvent } from 'react'

const STEPS: Record<string, number> = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }

/**
 * Answers that are written down at once: arrows only walk through them, and Space, Enter or a click takes the one
 * that is focused. A browser by itself would take each one that is walked past.
 */
export function walkAnswers(e: KeyboardEvent<HTMLElement>): void {
  const here = e.target
  if (!(here instanceof HTMLInputElement) || here.type !== 'radio') return
  if (e.key === 'Enter') {
    e.preventDefault()
    here.click()
    return
  }
  const step = STEPS[e.key]
  if (step === undefined) return
  e.preventDefault()
  const all = [...e.currentTarget.querySelectorAll<HTMLInputElement>('input[type=radio]:not(:disabled)')]
  const next = all[(all.indexOf(here) + step + all.length) % all.length]
  next?.focus()
}
