import { useEffect, useRef, useState } from 'react'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { Progress } from '../ui/Progress'
import { bytes, number } from '../ui/text'
import { useNotices } from './Notices'
import { askToNotify, canAskToNotify } from './notify'
import { useCancelJob } from './queries'

type Job = Schema['Job']

function progressWords(job: Job): string {
  if (job.unit === 'bytes') return bytes(job.done)
  return job.total > 0 ? `${number(job.done)} of ${number(job.total)} ${job.unit}` : ''
}

/** Seconds that are left at the pace so far; null while nobody can tell. */
function useTimeLeft(job: Job): number | null {
  const begun = useRef({ id: job.id, at: Date.now(), done: job.done })
  const [left, setLeft] = useState<number | null>(null)
  useEffect(() => {
    if (begun.current.id !== job.id) begun.current = { id: job.id, at: Date.now(), done: job.done }
    const seconds = (Date.now() - begun.current.at) / 1000
    const pace = (job.done - begun.current.done) / seconds
    setLeft(job.total > 0 && seconds > 1.5 && pace > 0 ? Math.ceil((job.total - job.done) / pace) : null)
  }, [job])
  return left
}

/** Long work: what it is, how far, how much longer, and a way to end it. */
export function JobLine({ job }: { job: Job }) {
  const cancel = useCancelJob()
  const left = useTimeLeft(job)
  return (
    <span role="status" className="flex min-w-0 items-center gap-3">
      <b className="truncate font-semibold text-ink">{job.title}</b>
      <Progress label={job.title} done={job.done} total={job.total} className="h-1.5 w-28 shrink-0" />
      <span className="num whitespace-nowrap">
        {progressWords(job)}
        {left !== null && `, ${left} s left`}
      </span>
      <Button look="quiet" className="h-6" onClick={() => cancel.mutate(job.id)}>
        Cancel
      </Button>
      <NotifyButton />
    </span>
  )
}

/** Offers to say, by a notification, when long work ends in the background; gone once the user has said. */
function NotifyButton() {
  const [offered, setOffered] = useState(canAskToNotify)
  const { say } = useNotices()
  if (!offered) return null
  const ask = async () => {
    const allowed = await askToNotify()
    setOffered(false)
    say(
      allowed
        ? 'When long work ends while you look at something else, a notification says so.'
        : 'The browser shows no notifications of Ironing; its settings for this address can change that.',
    )
  }
  return (
    <Button look="quiet" className="h-6 max-lg:hidden" onClick={ask}>
      Notify me
    </Button>
  )
}
