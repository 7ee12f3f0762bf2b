import { afterEach, describe, expect, it, vi } from 'vitest'
import { askToNotify, canAskToNotify, notify } from './notify'

class FalseNotification {
  static permission: NotificationPermission = 'default'
  static answer: NotificationPermission = 'granted'
  static shown: { title: string; options: NotificationOptions }[] = []
  static async requestPermission() {
    FalseNotification.permission = FalseNotification.answer
    return FalseNotification.answer
  }
  onclick: (() => void) | null = null
  constructor(title: string, options: NotificationOptions) {
    FalseNotification.shown.push({ title, options })
  }
  close() {}
}

function browser(permission: NotificationPermission, visibilityState: DocumentVisibilityState) {
  FalseNotification.permission = permission
  FalseNotification.shown = []
  vi.stubGlobal('Notification', FalseNotification)
  vi.stubGlobal('window', { Notification: FalseNotification, focus() {} })
  vi.stubGlobal('document', { visibilityState })
}

describe('notifications', () => {
  afterEach(() => vi.unstubAllGlobals())

  it('come where they are allowed and nobody looks, one for each piece of work', () => {
    browser('granted', 'hidden')
    notify('Deploy: done', 'job 3')
    expect(FalseNotification.shown).toEqual([
      { title: 'Ironing', options: { body: 'Deploy: done', tag: 'job 3' } },
    ])
  })
  it('never come where the user looks, or has not allowed them', () => {
    for (const [permission, visible] of [
      ['granted', 'visible'],
      ['denied', 'hidden'],
      ['default', 'hidden'],
    ] as const) {
      browser(permission, visible)
      notify('Deploy: done', 'job 3')
      expect(FalseNotification.shown).toEqual([])
    }
  })
  it('are asked for once', async () => {
    browser('default', 'visible')
    expect(canAskToNotify()).toBe(true)
    expect(await askToNotify()).toBe(true)
    expect(canAskToNotify()).toBe(false)
  })
  it('are none in a browser that has none', () => {
    vi.stubGlobal('window', {})
    vi.stubGlobal('document', { visibilityState: 'hidden' })
    expect(canAskToNotify()).toBe(false)
    notify('Deploy: done', 'job 3')
  })
})
