import { useEffect } from 'react'
import type { MenuAct, MenuActs } from '../ui/Menu'

/** What the screen has chosen, and what can be done with it. */
interface Offered {
  name: string
  acts: () => readonly MenuAct[]
}

let offered: Offered | null = null

/** Offers what can be done with what is chosen to whoever finds acts by their names, for as long as it is chosen. */
export function useOffered(name: string, acts: MenuActs): void {
  useEffect(() => {
    const mine: Offered = { name, acts: () => (typeof acts === 'function' ? acts() : acts) }
    offered = mine
    return () => {
      // another screen may have offered something by now
      if (offered === mine) offered = null
    }
  }, [name, acts])
}

/** What can be done with what is chosen on the screen; null where nothing is. */
export function offeredNow(): Offered | null {
  return offered
}
