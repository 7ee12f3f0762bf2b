import { api, got, Refused, type Schema } from '../api/client'
import { events, type SharedStream } from './stream'

type Job = Schema['Job']

/** How long nothing is heard of a piece of work before it is asked for. */
const ASK_AFTER_MS = 3_000

/** A piece of work that was ended before it was done. */
export class Cancelled extends Error {
  constructor(readonly title: string) {
    super(`${title}: cancelled; nothing of it is half done.`)
  }
}

/**
 * Long work from its beginning to its end: no request waits for it, its end is heard from the stream.
 *
 * @param begun the answer to the request that began it
 * @param heard is told of each state on the way
 * @returns the work once it is done
 * @throws Refused with its problems when it failed
 * @throws Cancelled when it was ended before
 */
export async function finished(begun: Promise<Job>, heard?: (job: Job) => void): Promise<Job> {
  const ask = (id: number) => got(api.GET('/api/jobs/{job}', { params: { path: { job: id } } }))
  const job = await endOf(events(), await begun, ask, heard)
  if (job.state === 'FAILED') throw new Refused(422, job.problems)
  if (job.state === 'CANCELLED') throw new Cancelled(job.title)
  return job
}

/**
 * The work as it ended, heard from the stream. Where nothing is heard of it for a while, it is asked for.
 *
 * @param ask gets it as it is now
 * @param heard is told of each state on the way
 */
export function endOf(
  stream: Pick<SharedStream, 'listen' | 'ended'>,
  job: Job,
  ask: (job: number) => Promise<Job>,
  heard?: (job: Job) => void,
): Promise<Job> {
  const known = job.state === 'RUNNING' ? stream.ended(job.id) : job
  if (known) return Promise.resolve(known)
  return new Promise((resolve, reject) => {
    let timer: ReturnType<typeof setTimeout> | undefined
    let stop = () => {}
    const end = () => {
      clearTimeout(timer)
      stop()
    }
    const look = (now: Job) => {
      clearTimeout(timer)
      if (now.state === 'RUNNING') {
        heard?.(now)
        askLater(ASK_AFTER_MS)
      } else {
        end()
        resolve(now)
      }
    }
    const askNow = async () => {
      try {
        look(await ask(job.id))
      } catch (e) {
        end()
        reject(e)
      }
    }
    const askLater = (ms: number) => {
      clearTimeout(timer)
      timer = setTimeout(askNow, ms)
    }
    askLater(ASK_AFTER_MS)
    stop = stream.listen({
      told: ({ kind, data }) => {
        if (kind === 'job' && (data as Job).id === job.id) look(data as Job)
      },
      opened: (missed) => missed && askLater(0),
    })
  })
}
