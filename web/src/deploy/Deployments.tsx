import { useState } from 'react'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { count, number, when } from '../ui/text'
import { useGoBack, useHistory } from './queries'

type Deployment = Schema['DeploymentView']

const SHOWN = 5

const KINDS: Record<Deployment['kind'], string> = {
  DEPLOY: 'Deployed',
  UNDEPLOY: 'Taken out',
  PUT_BACK: 'Put back',
}

const RESULTS: Record<Deployment['result'], string> = {
  DONE: '',
  CANCELLED: 'cancelled; nothing was changed',
  FAILED: 'refused',
  UNKNOWN: 'broken off; finished or taken back at the next start',
}

/** What was done to the folder, the newest first, and the way back to how things were arranged then. */
export function Deployments({ workspace }: { workspace: number }) {
  const all = useHistory(workspace).data ?? []
  const [open, setOpen] = useState(false)
  const { say } = useNotices()
  const back = useGoBack(workspace, () => say('Arranged as it was then. Deploy to have it so in the folder.'))
  if (all.length === 0) return null
  return (
    <AsidePart title="What was done to it">
      <ul>
        {(open ? all : all.slice(0, SHOWN)).map((d, i) => (
          <li key={d.id} className="border-line border-b border-dotted py-1.5">
            <p>
              {KINDS[d.kind]} {when(d.at)}
              <span className="text-ink-2">
                {d.tookMs !== undefined && `, in ${seconds(d.tookMs)}`}
                {d.result === 'DONE' ? `: ${told(d)}` : `: ${RESULTS[d.result]}`}
              </span>
            </p>
            {d.why && <p className="text-ink-2">{d.why}</p>}
            {i > 0 && d.own && d.kind === 'DEPLOY' && d.result === 'DONE' && (
              <Button
                look="quiet"
                className="h-6 px-1"
                disabled={back.isPending}
                onClick={() => back.mutate(d.id)}
                aria-label={`Go back to how it was arranged ${when(d.at)}`}
              >
                Go back to that
              </Button>
            )}
          </li>
        ))}
      </ul>
      {all.length > SHOWN && (
        <Button look="quiet" className="mt-1 h-7" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'The last ones only' : `All ${number(all.length)}`}
        </Button>
      )}
    </AsidePart>
  )
}

function told(d: Deployment): string {
  const parts = [
    d.put > 0 && `${number(d.put)} put there`,
    d.takenOut > 0 && `${number(d.takenOut)} taken out`,
  ]
  const changes = parts.filter((p): p is string => typeof p === 'string')
  return `${changes.length > 0 ? changes.join(', ') : 'nothing to change'}; ${count(d.files, 'file')} since`
}

function seconds(ms: number): string {
  return ms < 1000 ? `${ms} ms` : `${(ms / 1000).toFixed(1)} s`
}
