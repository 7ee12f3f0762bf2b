import { Refused } from '../api/client'
import { useNotices } from '../frame/Notices'
import type { MenuAct } from './Menu'

const NOT_COPIED = {
  code: 'not-copied',
  thing: 'The clipboard',
  reason: 'The browser did not let the page copy.',
  remedy: 'Mark the text and copy it by hand.',
}

/** Copies a text to where the user can paste it from, and says so. */
export function useCopy(): (text: string) => void {
  const { say, fail } = useNotices()
  return (text) =>
    navigator.clipboard.writeText(text).then(
      () => say(`Copied: ${text.length > 80 ? `${text.slice(0, 80)} …` : text}`),
      () => fail(new Refused(0, [NOT_COPIED])),
    )
}

/**
 * The act of a menu that copies something.
 *
 * @param what in the middle of a sentence, such as “its name”
 */
export function copyAct(copy: (text: string) => void, what: string, text: string): MenuAct {
  return { label: `Copy ${what}`, run: () => copy(text) }
}
