import type { Schema } from '../api/client'

/** One thing that happened, in any workspace; its number is one more than that of the one before. */
export interface Told {
  number: number
  workspace: number
  kind: string
  data: unknown
}

/** What a tab is told by the stream. */
export interface Listener {
  told: (event: Told) => void
  /**
   * The stream is there.
   *
   * @param missed whether something may have happened since that was not told
   */
  opened: (missed: boolean) => void
}

/** What a server says first: which one it is, and the number of the last thing that it told. */
interface Hello {
  server: string
  told: number
}

/** What the tabs of one browser say to one another. */
type Word =
  | { what: 'told'; server: string; told: Told }
  | { what: 'here'; server: string; number: number; heard: boolean }
  | { what: 'who' }

/** What a stream needs of the browser: a test brings its own. */
export interface Surroundings {
  source: () => EventSource
  /** Between the tabs of one browser; what one tab says the others hear. */
  channel: Pick<BroadcastChannel, 'postMessage' | 'onmessage'>
  /** Calls `hold` in one tab at a time, for as long as its promise is open. */
  alone: (signal: AbortSignal, hold: () => Promise<void>) => Promise<void>
  hidden: () => boolean
}

const FIRST_PAUSE_MS = 1_000
const LONGEST_PAUSE_MS = 10_000
const REMEMBERED = 200

/**
 * The one stream of events that all tabs of a browser share: a browser opens six connections to a server, and
 * each stream holds one for good. One tab holds it and tells the others. Nobody holds it while all tabs are
 * hidden and none has work under way. Each event has a number: who has missed one asks for everything anew, and
 * only then.
 */
export class SharedStream {
  readonly #around: Surroundings
  readonly #listeners = new Set<Listener>()
  readonly #watchers = new Set<() => void>()
  #heard = true
  #busy = false
  #started = false
  /** Ends the waiting for the stream, or the holding of it. */
  #leave: (() => void) | undefined
  #holds = false
  #source: EventSource | undefined
  #again: ReturnType<typeof setTimeout> | undefined
  #pause = FIRST_PAUSE_MS
  /** Which server was heard last, and how far. */
  #server = ''
  #number = 0
  /** Work that ended lately, by its number: whoever asked for it may begin to wait only now. */
  readonly #ended = new Map<number, Schema['Job']>()

  constructor(around: Surroundings) {
    this.#around = around
  }

  /** Whether the server can be heard. */
  get heard(): boolean {
    return this.#heard
  }

  /** Calls whenever `heard` changes. */
  watch = (watcher: () => void): (() => void) => {
    this.#watchers.add(watcher)
    return () => this.#watchers.delete(watcher)
  }

  listen(listener: Listener): () => void {
    this.#listeners.add(listener)
    if (!this.#started) this.#start()
    else if (this.#server && this.#heard) listener.opened(false)
    return () => this.#listeners.delete(listener)
  }

  /** A piece of work that ended lately. */
  ended(job: number): Schema['Job'] | undefined {
    return this.#ended.get(job)
  }

  /** Whether work is under way whose end this tab waits for, seen or not. */
  setBusy(busy: boolean): void {
    if (this.#busy === busy) return
    this.#busy = busy
    if (this.#started) this.look()
  }

  /** The tab was shown or hidden. */
  look(): void {
    const wanted = this.#busy || !this.#around.hidden()
    if (!wanted) {
      this.#leave?.()
      return
    }
    if (!this.#holds) this.#say({ what: 'who' })
    if (this.#leave) return
    const left = new AbortController()
    this.#leave = () => {
      this.#leave = undefined
      left.abort()
    }
    this.#around
      .alone(left.signal, () => this.#hold(left.signal))
      .catch(() => {
        // it was not waited for any longer
      })
  }

  #start(): void {
    this.#started = true
    this.#around.channel.onmessage = (e) => this.#hear(e.data as Word)
    this.look()
  }

  #say(word: Word): void {
    this.#around.channel.postMessage(word)
  }

  #hold(left: AbortSignal): Promise<void> {
    if (left.aborted) return Promise.resolve()
    this.#holds = true
    this.#pause = FIRST_PAUSE_MS
    this.#open()
    return new Promise((over) =>
      left.addEventListener('abort', () => {
        this.#holds = false
        clearTimeout(this.#again)
        this.#source?.close()
        over()
      }),
    )
  }

  #open(): void {
    const source = this.#around.source()
    this.#source = source
    source.addEventListener('hello', (e) => {
      const { server, told } = JSON.parse((e as MessageEvent<string>).data) as Hello
      this.#pause = FIRST_PAUSE_MS
      this.#here(server, told)
      this.#say({ what: 'here', server, number: told, heard: true })
    })
    source.addEventListener('told', (e) => {
      const told = JSON.parse((e as MessageEvent<string>).data) as Told
      this.#number = told.number
      this.#say({ what: 'told', server: this.#server, told })
      this.#tell(told)
    })
    source.onerror = () => {
      // an answer that is no stream ends a source for good: it is opened anew, whatever the reason
      source.close()
      if (this.#source !== source || !this.#holds) return
      this.#setHeard(false)
      this.#say({ what: 'here', server: this.#server, number: this.#number, heard: false })
      this.#again = setTimeout(() => this.#open(), this.#pause)
      this.#pause = Math.min(LONGEST_PAUSE_MS, this.#pause * 2)
    }
  }

  #hear(word: Word): void {
    if (word.what === 'who') {
      if (this.#holds && this.#server)
        this.#say({ what: 'here', server: this.#server, number: this.#number, heard: this.#heard })
    } else if (this.#holds) {
      // the tab that held it before may have said one more thing
    } else if (word.what === 'here') {
      if (word.heard) this.#here(word.server, word.number)
      else this.#setHeard(false)
    } else {
      this.#here(word.server, word.told.number - 1)
      this.#number = word.told.number
      this.#setHeard(true)
      this.#tell(word.told)
    }
  }

  #tell(event: Told): void {
    const job = event.data as Schema['Job']
    if (event.kind === 'job' && job.state !== 'RUNNING') {
      this.#ended.set(job.id, job)
      for (const oldest of this.#ended.keys())
        if (this.#ended.size > REMEMBERED) this.#ended.delete(oldest)
        else break
    }
    for (const l of this.#listeners) l.told(event)
  }

  /** A server is heard, and has told so much. */
  #here(server: string, number: number): void {
    const first = this.#server === ''
    // a server that was started anew counts its work from 1 again
    if (server !== this.#server) this.#ended.clear()
    const known = server === this.#server && number === this.#number
    this.#server = server
    this.#number = number
    this.#setHeard(true)
    if (!known) for (const l of this.#listeners) l.opened(!first)
  }

  #setHeard(heard: boolean): void {
    if (heard === this.#heard) return
    this.#heard = heard
    for (const w of this.#watchers) w()
  }
}

/** In a browser that lacks locks, each tab is alone. */
const alone: Surroundings['alone'] = async (signal, hold) => {
  if (navigator.locks) await navigator.locks.request('ironing-events', { signal }, hold)
  else await hold()
}

let shared: SharedStream | undefined

/** The stream of this browser. */
export function events(): SharedStream {
  if (!shared) {
    const made = new SharedStream({
      source: () => new EventSource('/api/events'),
      channel: new BroadcastChannel('ironing-events'),
      alone,
      hidden: () => document.visibilityState === 'hidden',
    })
    document.addEventListener('visibilitychange', () => made.look())
    shared = made
  }
  return shared
}
