import { useSyncExternalStore } from 'react'
import { Upload as Tus } from 'tus-js-client'
import { api, asProblems, got, type Problem } from '../api/client'
import { number } from '../ui/text'

/** Where one archive is on its way in. */
export type UploadState =
  | { is: 'waiting' }
  /** @param pace bytes a second, 0 while nobody can tell */
  | { is: 'sending'; sentBytes: number; pace: number }
  /** It is whole, and being stored. */
  | { is: 'storing' }
  /** It is in the inbox, or was here before. */
  | { is: 'arrived'; archive: number; before: boolean; mod?: number }
  /** The connection broke; sending it again goes on where it stopped. */
  | { is: 'broken'; sentBytes: number; problems: readonly Problem[] }
  | { is: 'failed'; problems: readonly Problem[] }
  | { is: 'cancelled' }

export interface Upload {
  readonly id: number
  readonly workspace: number
  readonly name: string
  readonly sizeBytes: number
  readonly state: UploadState
}

/**
 * Archives on their way into the library, several side by side. Lives beside the screens, so that going
 * elsewhere stops nothing; and since the server keeps what has come in, an archive that is dropped again,
 * even after the page was loaded anew, goes on where it stopped (tus 1.0.0).
 */
const AT_ONCE = 3
/** How often a broken connection is tried again by itself, in milliseconds. */
const RETRIES = [500, 1500, 4000, 8000]
const CHUNK_BYTES = 32 * 1024 * 1024
const OVER: readonly UploadState['is'][] = ['arrived', 'failed', 'cancelled']
let uploads: readonly Upload[] = []
let lastId = 0
const files = new Map<number, File>()
const senders = new Map<number, Tus>()
const listeners = new Set<() => void>()

function tell(next: readonly Upload[]) {
  uploads = next
  for (const listener of listeners) listener()
}

function set(id: number, state: UploadState) {
  tell(uploads.map((u) => (u.id === id ? { ...u, state } : u)))
}

const find = (id: number) => uploads.find((u) => u.id === id)

/** Takes files in and sends them. */
export function bringIn(workspace: number, dropped: readonly File[]) {
  const fresh = dropped.map((file): Upload => {
    const id = ++lastId
    files.set(id, file)
    return { id, workspace, name: file.name, sizeBytes: file.size, state: { is: 'waiting' } }
  })
  tell([...uploads, ...fresh])
  sendNext()
}

/** Ends the sending of one archive for good, or takes it out of the queue. */
export function cancelUpload(id: number) {
  // the server lets go of what has come in
  void senders
    .get(id)
    ?.abort(true)
    .catch(() => {})
  forget(id)
  set(id, { is: 'cancelled' })
  sendNext()
}

/** Goes on with one whose connection broke. */
export function goOn(id: number) {
  set(id, { is: 'waiting' })
  sendNext()
}

/** Takes what is over out of the list. */
export function clearUploads(workspace: number) {
  tell(uploads.filter((u) => u.workspace !== workspace || !OVER.includes(u.state.is)))
}

function forget(id: number) {
  senders.delete(id)
  files.delete(id)
}

function sendNext() {
  const going = uploads.filter((u) => u.state.is === 'sending' || u.state.is === 'storing').length
  for (const next of uploads.filter((u) => u.state.is === 'waiting').slice(0, AT_ONCE - going))
    void send(next)
}

async function send(upload: Upload) {
  const file = files.get(upload.id)
  if (!file) return
  const pace = paceOf()
  set(upload.id, { is: 'sending', sentBytes: 0, pace: 0 })
  const sender = new Tus(file, {
    endpoint: '/api/uploads',
    chunkSize: CHUNK_BYTES,
    retryDelays: RETRIES,
    removeFingerprintOnSuccess: true,
    metadata: { filename: file.name },
    // what is dropped again is known by where it goes, its name, its size and its time
    fingerprint: () =>
      Promise.resolve(['ironing', upload.workspace, file.name, file.size, file.lastModified].join('/')),
    onProgress: (sentBytes) => {
      if (find(upload.id)?.state.is === 'sending')
        set(upload.id, { is: 'sending', sentBytes, pace: pace(sentBytes) })
    },
    onError: (e) => {
      const state = find(upload.id)?.state
      if (state?.is === 'cancelled') return
      senders.delete(upload.id)
      const sentBytes = state?.is === 'sending' ? state.sentBytes : 0
      set(upload.id, { is: 'broken', sentBytes, problems: brokenBy(upload.name, e) })
      sendNext()
    },
    onSuccess: () => void store(upload, sender.url ?? ''),
  })
  senders.set(upload.id, sender)
  const earlier = await sender.findPreviousUploads()
  if (earlier[0]) sender.resumeFromPreviousUpload(earlier[0])
  if (find(upload.id)?.state.is === 'sending') sender.start()
}

/** Bytes a second over the last few seconds. */
function paceOf(): (sentBytes: number) => number {
  const seen: { at: number; sent: number }[] = []
  return (sent) => {
    const now = performance.now()
    seen.push({ at: now, sent })
    while (seen.length > 2 && now - (seen[0]?.at ?? now) > 4000) seen.shift()
    const first = seen[0]
    return first && now - first.at > 300 ? (1000 * (sent - first.sent)) / (now - first.at) : 0
  }
}

function brokenBy(name: string, e: unknown): readonly Problem[] {
  const status = (e as { originalResponse?: { getStatus(): number } }).originalResponse?.getStatus()
  return [
    {
      code: 'broken-off',
      thing: name,
      reason: status ? `The server answered ${status}.` : 'The connection broke.',
      remedy: 'Go on when it is back: what has come in is kept for a week.',
    },
  ]
}

async function store(upload: Upload, address: string) {
  set(upload.id, { is: 'storing' })
  sendNext()
  try {
    const archive = await got(
      api.POST('/api/workspaces/{workspace}/archives/from-upload', {
        params: { path: { workspace: upload.workspace } },
        body: { upload: new URL(address, location.href).pathname, name: upload.name },
      }),
    )
    set(upload.id, {
      is: 'arrived',
      archive: archive.id,
      before: archive.mod !== undefined || archive.look !== undefined,
      mod: archive.mod,
    })
  } catch (e) {
    set(upload.id, { is: 'failed', problems: asProblems(e) })
  }
  forget(upload.id)
  sendNext()
}

/** “2 under way, 3 arrived, 1 refused” */
export function howFar(states: readonly UploadState[]): string {
  const n = (...is: UploadState['is'][]) => states.filter((s) => is.includes(s.is)).length
  const parts: [number, string][] = [
    [n('waiting', 'sending', 'storing'), 'under way'],
    [n('broken'), 'broken off'],
    [n('arrived'), 'arrived'],
    [n('failed'), 'refused'],
    [n('cancelled'), 'cancelled'],
  ]
  return parts
    .filter(([many]) => many > 0)
    .map(([many, what]) => `${number(many)} ${what}`)
    .join(', ')
}

/** How much longer at this pace: “12 s left”, “3 min left”; empty when nobody can tell. */
export function leftWords(sizeBytes: number, sentBytes: number, pace: number): string {
  if (pace <= 0) return ''
  const seconds = Math.ceil((sizeBytes - sentBytes) / pace)
  return seconds < 100 ? `${seconds} s left` : `${Math.round(seconds / 60)} min left`
}

function subscribe(listener: () => void) {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

export function useUploads(workspace: number): readonly Upload[] {
  return useSyncExternalStore(subscribe, () => uploads).filter((u) => u.workspace === workspace)
}
