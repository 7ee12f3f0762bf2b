import { useSyncExternalStore } from 'react'
import { api, asProblems, got, type Problem, problemsOf, Refused, type Schema } from '../api/client'
import { number } from '../ui/text'

/** Where one archive is on its way in. */
export type UploadState =
  | { is: 'waiting' }
  | { is: 'sending'; sentBytes: number }
  | { is: 'unpacking'; unpackedBytes: number }
  /** Several folders in it could be the mod: the user picks one. */
  | { is: 'choosing'; archive: number; roots: readonly string[] }
  | { is: 'done'; mod: number }
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
 * Archives on their way into the library: sent one after another, so that they become layers in the
 * order in which they were dropped. Lives beside the screens, so that going elsewhere stops nothing.
 */
const POLL_MS = 200
let uploads: readonly Upload[] = []
let lastId = 0
let sending = false
const files = new Map<number, File>()
const requests = new Map<number, XMLHttpRequest>()
const listeners = new Set<() => void>()

function tell(next: readonly Upload[]) {
  uploads = next
  for (const listener of listeners) listener()
}

function set(id: number, state: UploadState) {
  tell(uploads.map((u) => (u.id === id ? { ...u, state } : u)))
}

/** Takes files in; they are sent at once, in this order. */
export function bringIn(workspace: number, dropped: readonly File[]) {
  const fresh = dropped.map((file): Upload => {
    const id = ++lastId
    files.set(id, file)
    return { id, workspace, name: file.name, sizeBytes: file.size, state: { is: 'waiting' } }
  })
  tell([...uploads, ...fresh])
  sendNext()
}

/** Ends the sending of one archive, or takes it out of the queue. */
export function cancelUpload(id: number) {
  requests.get(id)?.abort()
  files.delete(id)
  set(id, { is: 'cancelled' })
}

/** Takes what is over out of the list. */
export function clearUploads(workspace: number) {
  const over = (u: Upload) =>
    u.workspace === workspace && ['done', 'failed', 'cancelled'].includes(u.state.is)
  tell(uploads.filter((u) => !over(u)))
}

/** Goes on with an archive in which the mod begins at this folder. */
export async function chooseRoot(upload: Upload, root: string) {
  if (upload.state.is !== 'choosing') return
  await install(upload, upload.state.archive, root)
}

async function sendNext() {
  const next = uploads.find((u) => u.state.is === 'waiting')
  if (sending || !next) return
  sending = true
  try {
    const archive = await send(next)
    // unpacking goes on beside the sending of the next one
    void install(next, archive.id)
  } catch (e) {
    if (find(next.id)?.state.is !== 'cancelled') set(next.id, { is: 'failed', problems: asProblems(e) })
  } finally {
    sending = false
    files.delete(next.id)
    requests.delete(next.id)
    void sendNext()
  }
}

const find = (id: number) => uploads.find((u) => u.id === id)

// fetch cannot say how much of a body has gone
function send(upload: Upload): Promise<Schema['Archive']> {
  return new Promise((done, failed) => {
    const request = new XMLHttpRequest()
    requests.set(upload.id, request)
    request.open(
      'POST',
      `/api/workspaces/${upload.workspace}/archives?name=${encodeURIComponent(upload.name)}`,
    )
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    request.responseType = 'json'
    request.upload.onprogress = (e) => set(upload.id, { is: 'sending', sentBytes: e.loaded })
    request.onload = () => {
      if (request.status === 201) done(request.response as Schema['Archive'])
      else failed(new Refused(request.status, problemsOf(request.status, request.response)))
    }
    request.onerror = () =>
      failed(
        new Refused(0, problemsOf(0, { title: upload.name, detail: 'The connection broke. Drop it again.' })),
      )
    request.onabort = () => failed(new Error('cancelled'))
    set(upload.id, { is: 'sending', sentBytes: 0 })
    request.send(files.get(upload.id))
  })
}

async function install(upload: Upload, archive: number, root?: string) {
  const path = { workspace: upload.workspace }
  set(upload.id, { is: 'unpacking', unpackedBytes: 0 })
  try {
    const body = { archive, root }
    let job = await got(api.POST('/api/workspaces/{workspace}/mods', { params: { path }, body }))
    while (job.state === 'RUNNING') {
      await new Promise((wait) => setTimeout(wait, POLL_MS))
      job = await got(api.GET('/api/jobs/{job}', { params: { path: { job: job.id } } }))
      if (job.state === 'RUNNING') set(upload.id, { is: 'unpacking', unpackedBytes: job.done })
    }
    set(upload.id, ended(job, archive))
  } catch (e) {
    set(upload.id, { is: 'failed', problems: asProblems(e) })
  }
}

/** “2 under way, 3 mods brought in, 1 refused” */
export function howFar(states: readonly UploadState[]): string {
  const n = (...is: UploadState['is'][]) => states.filter((s) => is.includes(s.is)).length
  const parts: [number, string][] = [
    [n('waiting', 'sending', 'unpacking'), 'under way'],
    [n('choosing'), n('choosing') === 1 ? 'waits for you' : 'wait for you'],
    [n('done'), n('done') === 1 ? 'mod brought in' : 'mods brought in'],
    [n('failed'), 'refused'],
    [n('cancelled'), 'cancelled'],
  ]
  return parts
    .filter(([many]) => many > 0)
    .map(([many, what]) => `${number(many)} ${what}`)
    .join(', ')
}

/** What a job that is over means for its archive. */
export function ended(job: Schema['Job'], archive: number): UploadState {
  if (job.state === 'DONE' && job.result !== undefined) return { is: 'done', mod: job.result }
  if (job.state === 'CANCELLED') return { is: 'cancelled' }
  const several = job.problems.filter((p) => p.code === 'several-mods')
  if (several.length > 0) return { is: 'choosing', archive, roots: several.map((p) => p.thing) }
  return { is: 'failed', problems: job.problems }
}

function subscribe(listener: () => void) {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

export function useUploads(workspace: number): readonly Upload[] {
  return useSyncExternalStore(subscribe, () => uploads).filter((u) => u.workspace === workspace)
}
