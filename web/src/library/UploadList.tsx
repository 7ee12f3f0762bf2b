import { Check, CircleAlert, LoaderCircle } from 'lucide-react'
import { Link } from 'react-router'
import { Button } from '../ui/Button'
import { Problems } from '../ui/Problems'
import { Progress } from '../ui/Progress'
import { bytes } from '../ui/text'
import { cancelUpload, clearUploads, goOn, howFar, leftWords, type Upload } from './uploads'

/** Archives on their way in, each with how far it is. */
export function UploadList({ workspace, uploads }: { workspace: number; uploads: readonly Upload[] }) {
  if (uploads.length === 0) return null
  const over = uploads.filter((u) => ['arrived', 'failed', 'cancelled'].includes(u.state.is)).length
  return (
    <section aria-label="Archives on their way in" className="card mb-3 max-h-[38%] shrink-0 overflow-y-auto">
      <div className="flex items-center gap-3 px-3.5 py-1.5">
        <h2 className="flex-1 text-[13px]" aria-live="polite">
          {howFar(uploads.map((u) => u.state))}
        </h2>
        {over > 0 && (
          <Button look="quiet" className="h-6" onClick={() => clearUploads(workspace)}>
            Clear what is over
          </Button>
        )}
      </div>
      <ul>
        {uploads.map((u) => (
          <Line key={u.id} workspace={workspace} upload={u} />
        ))}
      </ul>
    </section>
  )
}

function Line({ workspace, upload: u }: { workspace: number; upload: Upload }) {
  const s = u.state
  const sent = s.is === 'sending' || s.is === 'broken' ? s.sentBytes : null
  return (
    <li className="border-line border-t px-3.5 py-1.5">
      <div className="flex items-center gap-3">
        <Icon state={s.is} />
        <span className="min-w-0 flex-1 truncate" title={u.name}>
          {u.name}
        </span>
        <span className="num whitespace-nowrap text-ink-2">{words(u)}</span>
        {s.is === 'arrived' && s.mod !== undefined && (
          <Link to={`/workspaces/${workspace}/library/${s.mod}`} className="text-woad underline">
            Look at it
          </Link>
        )}
        {s.is === 'broken' && (
          <Button className="h-6" onClick={() => goOn(u.id)}>
            Go on
          </Button>
        )}
        {['waiting', 'sending', 'broken'].includes(s.is) && (
          <Button look="quiet" className="h-6" onClick={() => cancelUpload(u.id)}>
            Cancel
          </Button>
        )}
      </div>
      {sent !== null && (
        <Progress
          label={`Sending ${u.name}`}
          done={sent}
          total={Math.max(1, u.sizeBytes)}
          className="mt-1 h-1"
        />
      )}
      {(s.is === 'failed' || s.is === 'broken') && (
        <div className="mt-1.5">
          <Problems problems={s.problems} />
        </div>
      )}
    </li>
  )
}

function words(u: Upload): string {
  const s = u.state
  switch (s.is) {
    case 'waiting':
      return 'waiting'
    case 'sending': {
      const pace = s.pace > 0 ? `, ${bytes(s.pace)}/s` : ''
      const left = leftWords(u.sizeBytes, s.sentBytes, s.pace)
      return `${bytes(s.sentBytes)} of ${bytes(u.sizeBytes)}${pace}${left && `, ${left}`}`
    }
    case 'storing':
      return 'all of it is here'
    case 'arrived':
      return s.mod !== undefined
        ? 'was here before, and is installed'
        : s.before
          ? 'was here before'
          : 'arrived'
    case 'broken':
      return `broke off at ${bytes(s.sentBytes)} of ${bytes(u.sizeBytes)}`
    case 'failed':
      return 'refused'
    default:
      return 'cancelled'
  }
}

function Icon({ state }: { state: Upload['state']['is'] }) {
  if (state === 'arrived') return <Check size={15} className="shrink-0 text-moss" aria-hidden="true" />
  if (state === 'failed' || state === 'broken')
    return <CircleAlert size={15} className="shrink-0 text-madder" aria-hidden="true" />
  const spins = state === 'sending' || state === 'storing'
  return (
    <LoaderCircle
      size={15}
      className={`shrink-0 text-ink-3 ${spins ? 'animate-spin' : ''}`}
      aria-hidden="true"
    />
  )
}
