import { useEffect } from 'react'

/** What the title of the browser's tab is made of, the most particular first. */
const parts = { selected: '', screen: '', workspace: '' }

function useTitlePart(part: keyof typeof parts, words: string | undefined) {
  useEffect(() => {
    if (!words) return
    parts[part] = words
    show()
    return () => {
      parts[part] = ''
      show()
    }
  }, [part, words])
}

/** What ended while nobody looked; gone once the tab is looked at. */
let ended = ''

/** Long work has ended: a tab in the background says so in its title. */
export function tellEnd(words: string): void {
  if (document.visibilityState === 'visible') return
  ended = words
  show()
  document.addEventListener(
    'visibilitychange',
    () => {
      ended = ''
      show()
    },
    { once: true },
  )
}

function show() {
  document.title = [ended, parts.selected, parts.screen, parts.workspace || 'Ironing']
    .filter(Boolean)
    .join(' · ')
}

export const useWorkspaceTitle = (title: string | undefined) => useTitlePart('workspace', title)

export const useScreenTitle = (title: string) => useTitlePart('screen', title)

/** What is selected on the screen. */
export const useSelectedTitle = (name: string | undefined) => useTitlePart('selected', name)
