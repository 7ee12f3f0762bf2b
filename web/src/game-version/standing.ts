import { count } from '../ui/text'
import type { ModStanding, Said } from './queries'

/** How mods can stand, those that need somebody first. */
export const STATES: readonly {
  states: readonly ModStanding['state'][]
  title: string
  look: string
  isOpen: boolean
}[] = [
  { states: ['SAID_BROKEN', 'BROKEN'], title: 'Broken', look: 'text-madder', isOpen: true },
  { states: ['WAITING'], title: 'Waiting for a release', look: 'text-ochre', isOpen: true },
  { states: ['SAID_WORKS', 'WORKS'], title: 'Works', look: 'text-moss', isOpen: false },
  { states: ['CANNOT_BREAK'], title: 'Cannot break', look: 'text-ink-2', isOpen: false },
]

/** What the user has said of a mod. */
export function saidOf(m: ModStanding): Said {
  if (m.state === 'SAID_WORKS') return 'WORKS'
  return m.state === 'SAID_BROKEN' ? 'BROKEN' : 'NOTHING'
}

/** What it comes to: what is waited for, and what of the essential has come. */
export function standingsWords(all: readonly ModStanding[]): string {
  const waiting = all.filter((m) => m.state === 'WAITING')
  const broken = all.filter((m) => m.state === 'BROKEN' || m.state === 'SAID_BROKEN')
  const essential = [...waiting, ...broken].filter((m) => m.essential)
  const come = essential.filter((m) => m.comes !== undefined)
  if (waiting.length + broken.length === 0) return 'None is broken, and none waits'
  const parts = [
    waiting.length > 0 && `${waiting.length} ${waiting.length === 1 ? 'waits' : 'wait'}`,
    broken.length > 0 && `${broken.length} broken`,
    essential.length > 0 && `${essential.length} of them essential`,
    come.length > 0 && `a catalogue has what ${count(come.length, 'essential mod')} waited for`,
  ]
  return parts.filter(Boolean).join(', ')
}
