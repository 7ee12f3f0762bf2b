import { beforeEach, describe, expect, test, vi } from 'vitest'
import type { Schema } from '../api/client'
import { endOf } from './jobs'
import { SharedStream, type Told } from './stream'

/** A browser with some tabs: one lock, one channel between them, and a server that may be gone. */
class Browser {
  readonly opened: FakeSource[] = []
  private readonly channels: FakeChannel[] = []
  private readonly queue: { signal: AbortSignal; hold: () => Promise<void> }[] = []
  private held = false

  tab(): Tab {
    const channel: FakeChannel = {
      onmessage: null,
      postMessage: (word) => {
        for (const c of this.channels)
          if (c !== channel) c.onmessage?.({ data: structuredClone(word) } as MessageEvent)
      },
    }
    this.channels.push(channel)
    return new Tab(this, channel)
  }

  open(): EventSource {
    const source = new FakeSource()
    this.opened.push(source)
    return source as unknown as EventSource
  }

  /** The one source that is open. */
  source(): FakeSource {
    expect(this.sources).toHaveLength(1)
    return this.sources[0] as FakeSource
  }

  /** The sources that are open now. */
  get sources(): FakeSource[] {
    return this.opened.filter((s) => !s.closed)
  }

  async alone(signal: AbortSignal, hold: () => Promise<void>) {
    this.queue.push({ signal, hold })
    this.next()
  }

  private next() {
    if (this.held) return
    const first = this.queue.shift()
    if (!first) return
    if (first.signal.aborted) {
      this.next()
      return
    }
    this.held = true
    first.hold().then(() => {
      this.held = false
      this.next()
    })
  }
}

class Tab {
  hidden = false
  readonly told: Told[] = []
  readonly missed: boolean[] = []
  readonly stream: SharedStream

  constructor(
    browser: Browser,
    readonly channel: FakeChannel,
  ) {
    this.stream = new SharedStream({
      source: () => browser.open(),
      channel: channel as unknown as BroadcastChannel,
      alone: (signal, hold) => browser.alone(signal, hold),
      hidden: () => this.hidden,
    })
  }

  show(hidden: boolean) {
    this.hidden = hidden
    this.stream.look()
  }
}

interface FakeChannel {
  onmessage: ((e: MessageEvent) => void) | null
  postMessage: (word: unknown) => void
}

class FakeSource {
  closed = false
  onerror: (() => void) | null = null
  private readonly on = new Map<string, (e: MessageEvent) => void>()

  addEventListener(name: string, listener: (e: MessageEvent) => void) {
    this.on.set(name, listener)
  }

  close() {
    this.closed = true
  }

  hello(told = 0, server = 'one') {
    this.on.get('hello')?.({ data: JSON.stringify({ server, told }) } as MessageEvent)
  }

  tell(told: Told) {
    this.on.get('told')?.({ data: JSON.stringify(told) } as MessageEvent)
  }
}

const EVENT: Told = { number: 1, workspace: 1, kind: 'inbox', data: {} }
const NEXT: Told = { ...EVENT, number: 2 }

function listen(tab: Tab) {
  return tab.stream.listen({ told: (t) => tab.told.push(t), opened: (m) => tab.missed.push(m) })
}

const turn = () => vi.advanceTimersByTimeAsync(0)

let browser: Browser

beforeEach(() => {
  vi.useFakeTimers()
  browser = new Browser()
})

describe('ten tabs', () => {
  test('open one stream, and each hears everything once', async () => {
    const tabs = Array.from({ length: 10 }, () => browser.tab())
    for (const t of tabs) listen(t)
    await turn()
    browser.source().hello()
    browser.source().tell(EVENT)
    for (const t of tabs) expect(t.told).toEqual([EVENT])
    // nobody has missed anything
    for (const t of tabs) expect(t.missed).toEqual([false])
  })

  test('when the one that holds it closes, another takes it, and nobody asks for what all have heard', async () => {
    const [a, b, c] = [browser.tab(), browser.tab(), browser.tab()]
    for (const t of [a, b, c]) listen(t)
    await turn()
    browser.source().hello()
    browser.source().tell(EVENT)
    a.show(true)
    await turn()
    browser.source().hello(1)
    expect(b.missed).toEqual([false])
    expect(c.missed).toEqual([false])
    browser.source().tell(NEXT)
    expect(c.told).toEqual([EVENT, NEXT])
  })

  test('what happened while nobody held it is asked for by all', async () => {
    const [a, b] = [browser.tab(), browser.tab()]
    for (const t of [a, b]) listen(t)
    await turn()
    browser.source().hello()
    a.show(true)
    await turn()
    browser.source().hello(3)
    expect(b.missed).toEqual([false, true])
    expect(a.missed).toEqual([false, true])
  })
})

describe('hidden tabs', () => {
  test('hold no stream; whoever is shown again asks for what happened, and for nothing if nothing did', async () => {
    const [a, b] = [browser.tab(), browser.tab()]
    listen(a)
    listen(b)
    await turn()
    browser.source().hello()
    a.show(true)
    b.show(true)
    await turn()
    expect(browser.sources).toEqual([])
    b.show(false)
    await turn()
    browser.source().hello()
    expect(b.missed).toEqual([false])
    b.show(true)
    await turn()
    b.show(false)
    await turn()
    browser.source().hello(1)
    expect(b.missed).toEqual([false, true])
  })

  test('with work under way keep it', async () => {
    const a = browser.tab()
    listen(a)
    await turn()
    browser.source().hello()
    a.stream.setBusy(true)
    a.show(true)
    await turn()
    expect(browser.sources).toHaveLength(1)
    a.stream.setBusy(false)
    await turn()
    expect(browser.sources).toEqual([])
  })
})

describe('a server that is gone', () => {
  test('is tried again for as long as it takes, also after an answer that is no stream', async () => {
    const [a, b] = [browser.tab(), browser.tab()]
    listen(a)
    listen(b)
    await turn()
    browser.source().hello()
    for (let i = 0; i < 5; i++) {
      browser.opened.at(-1)?.onerror?.()
      expect(a.stream.heard).toBe(false)
      expect(b.stream.heard).toBe(false)
      await vi.advanceTimersByTimeAsync(10_000)
      expect(browser.sources).toHaveLength(1)
    }
    // it was started anew
    browser.source().hello(0, 'two')
    expect(a.stream.heard).toBe(true)
    expect(b.stream.heard).toBe(true)
    expect(a.missed).toEqual([false, true])
    expect(b.missed).toEqual([false, true])
  })
})

test('a tab that missed one thing asks for everything', async () => {
  const [a, b] = [browser.tab(), browser.tab()]
  listen(a)
  listen(b)
  await turn()
  browser.source().hello()
  const hears = b.channel.onmessage
  b.channel.onmessage = null
  browser.source().tell(EVENT)
  b.channel.onmessage = hears
  browser.source().tell(NEXT)
  expect(b.missed).toEqual([false, true])
  expect(b.told).toEqual([NEXT])
})

describe('the end of long work', () => {
  const job = { id: 7, state: 'RUNNING', title: 'Deploy' } as Schema['Job']
  const done = { ...job, state: 'DONE' } as Schema['Job']
  const asked = vi.fn(async () => job)
  const told = (j: Schema['Job']): Told => ({ number: 1, workspace: 1, kind: 'job', data: j })

  test('is heard, and nobody is asked', async () => {
    const a = browser.tab()
    listen(a)
    await turn()
    browser.source().hello()
    const end = endOf(a.stream, job, asked)
    browser.source().tell(told(job))
    browser.source().tell(told(done))
    expect(await end).toEqual(done)
    expect(asked).not.toHaveBeenCalled()
  })

  test('is known though it came before the answer that named the work', async () => {
    const a = browser.tab()
    listen(a)
    await turn()
    browser.source().hello()
    browser.source().tell(told(done))
    expect(await endOf(a.stream, job, asked)).toEqual(done)
    expect(asked).not.toHaveBeenCalled()
  })

  test('is asked for where nothing is heard', async () => {
    const a = browser.tab()
    listen(a)
    await turn()
    const ask = vi.fn(async () => done).mockResolvedValueOnce(job)
    const end = endOf(a.stream, job, ask)
    await vi.advanceTimersByTimeAsync(7_000)
    expect(await end).toEqual(done)
    expect(ask).toHaveBeenCalledTimes(2)
  })

  test('of a server that was started anew is not mistaken for that of other work of the same number', async () => {
    const a = browser.tab()
    listen(a)
    await turn()
    browser.source().hello()
    browser.source().tell(told(done))
    browser.source().onerror?.()
    await vi.advanceTimersByTimeAsync(1_000)
    browser.source().hello(0, 'two')
    expect(a.stream.ended(7)).toBeUndefined()
  })
})
