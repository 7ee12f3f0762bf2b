/** Whether the browser could show notifications, and the user has not yet said whether it may. */
export function canAskToNotify(): boolean {
  return 'Notification' in window && Notification.permission === 'default'
}

/** Asks the user, in words of the browser's, whether notifications may be shown. */
export async function askToNotify(): Promise<boolean> {
  return (await Notification.requestPermission()) === 'granted'
}

/**
 * Shows a notification of the machine's, where the user has allowed it and is looking at something else.
 *
 * @param about names what it is about: a later one about the same takes its place, also from another tab
 */
export function notify(words: string, about: string): void {
  const hidden = document.visibilityState !== 'visible'
  if (!hidden || !('Notification' in window) || Notification.permission !== 'granted') return
  const shown = new Notification('Ironing', { body: words, tag: about })
  shown.onclick = () => {
    window.focus()
    shown.close()
  }
}
