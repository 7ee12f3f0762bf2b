/** The content of the screen: where the skip link leads. */
export const MAIN = 'main'

/** What was focused, with all that it stood in, the nearest first. */
interface Step {
  element: HTMLElement
  within: readonly Element[]
}

const LONGEST_TRAIL = 30
const LAYERS =
  '[role=dialog], [role=alertdialog], [role=menu], [role=listbox], [data-radix-popper-content-wrapper]'
const TABBABLE =
  'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea:not(:disabled), [tabindex]:not([tabindex="-1"])'

const nobody = () => {
  const active = document.activeElement
  return active === null || active === document.body || active === document.documentElement
}

const canTake = (e: HTMLElement) => e.isConnected && !e.matches(':disabled') && e.getClientRects().length > 0

/** Gives the focus to the content of the screen. */
export function focusMain(): void {
  document.getElementById(MAIN)?.focus({ preventScroll: true })
}

/**
 * Keeps the focus somewhere: where the focused control vanishes or is switched off, it goes to what is left
 * around it, and out of a dialog back to where it was before. A control that is only busy gets it back.
 *
 * Without this a keyboard begins anew at the top of the page after each such act, and a reader falls silent.
 */
export function keepFocus(): () => void {
  const trail: Step[] = []
  /** What was switched off while it had the focus. */
  let busy: { control: HTMLElement; heir: Element | null } | undefined
  let pressed = false
  /** A page that nobody has touched yet begins at its top. */
  let touched = false
  /** Tab leaves the page at its end, for the browser's own controls: that is where the focus is wanted. */
  let left = false
  let asked = 0

  const came = (e: FocusEvent) => {
    touched = true
    left = false
    const element = e.target as HTMLElement
    const within: Element[] = []
    for (let p = element.parentElement; p; p = p.parentElement) within.push(p)
    trail.push({ element, within })
    if (trail.length > LONGEST_TRAIL) trail.shift()
  }

  const look = () => {
    asked = 0
    if (busy && document.activeElement === busy.heir && canTake(busy.control)) {
      const { control } = busy
      busy = undefined
      control.focus({ preventScroll: true })
    }
    if (!touched || left || !nobody() || pressed) return
    const last = trail.at(-1)
    const off = last?.element.isConnected && last.element.matches(':disabled') ? last.element : undefined
    // not to its neighbour: a key that is still held would do what that one does
    if (off) focusMain()
    else heirOf(trail).focus({ preventScroll: true })
    busy = off && { control: off, heir: document.activeElement }
  }
  // the browser takes the focus from what is gone or switched off when it draws
  const later = () => {
    if (asked === 0) asked = requestAnimationFrame(() => requestAnimationFrame(look))
  }
  const key = (e: KeyboardEvent) => {
    left = e.key === 'Tab'
  }
  const press = () => {
    left = false
    touched = true
    pressed = true
  }
  const release = () => {
    pressed = false
    later()
  }

  const changes = new MutationObserver(later)
  changes.observe(document.body, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ['disabled', 'hidden'],
  })
  document.addEventListener('focusin', came)
  document.addEventListener('focusout', later)
  document.addEventListener('keydown', key, true)
  document.addEventListener('pointerdown', press, true)
  document.addEventListener('pointerup', release, true)
  document.addEventListener('pointercancel', release, true)
  return () => {
    changes.disconnect()
    document.removeEventListener('focusin', came)
    document.removeEventListener('focusout', later)
    document.removeEventListener('keydown', key, true)
    document.removeEventListener('pointerdown', press, true)
    document.removeEventListener('pointerup', release, true)
    document.removeEventListener('pointercancel', release, true)
  }
}

/** Who gets the focus that its last holder left. */
function heirOf(trail: readonly Step[]): HTMLElement {
  const main = document.getElementById(MAIN) ?? document.body
  const last = trail.at(-1)
  if (!last || canTake(last.element)) return main
  const layer = last.within.findLast((e) => e.matches(LAYERS))
  if (layer && !layer.isConnected) {
    const before = trail.findLastIndex((s) => !s.within.includes(layer) && s.element !== layer)
    if (before < 0) return main
    const opener = (trail[before] as Step).element
    return canTake(opener) ? opener : heirOf(trail.slice(0, before + 1))
  }
  for (const e of last.within) {
    if (e === main || e === document.body) break
    if (!(e instanceof HTMLElement) || !canTake(e)) continue
    if (e.matches('[tabindex]')) return e
    const inner = [...e.querySelectorAll<HTMLElement>(TABBABLE)].find(canTake)
    if (inner) return inner
  }
  return main
}

/**
 * The screen that an address shows, whatever is selected in it: after a change of it the focus goes to the new one.
 *
 * @param path of the address, as in `/workspaces/1/load-order/rules`
 */
export function screenOf(path: string): string {
  const [, , workspace = '', view = '', part = '', last = ''] = path.split('/')
  const inner =
    /^(inbox|storage|places|link|choice|updates|findings|suggestion|rules|lists|path|proposal|merge|combined-files|drift|game-version|signs)$/
  if (inner.test(part)) return [workspace, view, part, last].join('/')
  if (view === 'trouble') return [workspace, view, part].join('/')
  return [workspace, view, view === 'library' ? last : ''].join('/')
}

let shown = ''
let arrived = false

/** An address was gone to. */
export function wentTo(path: string): void {
  const screen = screenOf(path)
  // a page that is loaded begins at its top
  if (shown !== '' && screen !== shown) arrived = true
  shown = screen
}

/** A screen was drawn: the first after a change of address takes the focus, unless a field in it has it already. */
export function screenDrawn(): void {
  const main = document.getElementById(MAIN)
  if (arrived && !main?.contains(document.activeElement)) focusMain()
  arrived = false
}
