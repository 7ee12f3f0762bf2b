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

function show() {
  document.title = [parts.selected, parts.screen, parts.workspace || 'Ironing'].filter(Boolean).join(' · ')
}

export const useWorkspaceTitle = (title: string | undefined) => useTitlePart('workspace', title)

export const useScreenTitle = (title: string) => useTitlePart('screen', title)

/** What is selected on the screen. */
export const useSelectedTitle = (name: string | undefined) => useTitlePart('selected', name)
