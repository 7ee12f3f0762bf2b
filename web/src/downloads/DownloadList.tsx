import { useQuery } from '@tanstack/react-query'
import { api, got } from '../api/client'
import { of } from '../frame/workspace'
import { useAct } from '../library/queries'
import { Button } from '../ui/Button'
import { Problems } from '../ui/Problems'
import { Progress } from '../ui/Progress'
import { type Download, downloadWords, queueWords } from './words'

function useDownloads(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'downloads'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/downloads', { params: { path: { workspace } }, signal })),
  })
}

/** The queue of downloads, each with how far it is. */
export function DownloadList({ workspace }: { workspace: number }) {
  const all = useDownloads(workspace).data ?? []
  const clear = useAct(workspace, async () => {
    for (const d of all)
      if (d.state === 'DONE')
        await got(
          api.DELETE('/api/workspaces/{workspace}/downloads/{download}', {
            params: { path: { workspace, download: d.id } },
          }),
        )
  })
  if (all.length === 0) return null
  return (
    <section aria-label="Downloads" className="card mb-3 max-h-[38%] shrink-0 overflow-y-auto">
      <div className="flex items-center gap-3 px-3.5 py-1.5">
        <h2 className="flex-1 text-[13px]" aria-live="polite">
          {queueWords(all)}
        </h2>
        {all.some((d) => d.state === 'DONE') && (
          <Button look="quiet" className="h-6" onClick={() => clear.mutate(undefined)}>
            Clear what is over
          </Button>
        )}
      </div>
      <ul>
        {all.map((d) => (
          <Line key={d.id} workspace={workspace} download={d} />
        ))}
      </ul>
    </section>
  )
}

function Line({ workspace, download: d }: { workspace: number; download: Download }) {
  const params = { path: { workspace, download: d.id } }
  const pause = useAct(workspace, () =>
    got(api.POST('/api/workspaces/{workspace}/downloads/{download}/pause', { params })),
  )
  const resume = useAct(workspace, () =>
    got(api.POST('/api/workspaces/{workspace}/downloads/{download}/resume', { params })),
  )
  const remove = useAct(workspace, () =>
    got(api.DELETE('/api/workspaces/{workspace}/downloads/{download}', { params })),
  )
  const isOpen = d.state === 'RUNNING' || d.state === 'WAITING'
  return (
    <li className="border-line border-t px-3.5 py-1.5">
      <div className="flex items-center gap-3">
        <span className="min-w-0 flex-1 truncate" title={d.name}>
          {d.name}
        </span>
        <span className="num whitespace-nowrap text-ink-2">{downloadWords(d)}</span>
        {isOpen && (
          <Button className="h-6" aria-label={`Pause ${d.name}`} onClick={() => pause.mutate(undefined)}>
            Pause
          </Button>
        )}
        {['PAUSED', 'RESTING', 'FAILED'].includes(d.state) && (
          <Button
            className="h-6"
            aria-label={`Go on with ${d.name}`}
            onClick={() => resume.mutate(undefined)}
          >
            {d.state === 'FAILED' ? 'Try again' : 'Go on'}
          </Button>
        )}
        {d.state !== 'DONE' && (
          <Button
            look="quiet"
            className="h-6"
            aria-label={`Take ${d.name} out`}
            onClick={() => remove.mutate(undefined)}
          >
            Take it out
          </Button>
        )}
      </div>
      {d.state !== 'DONE' && d.state !== 'FAILED' && (
        <Progress
          label={`Fetching ${d.name}`}
          done={d.received}
          total={Math.max(1, d.sizeBytes)}
          className="mt-1 h-1"
        />
      )}
      {d.problem && (
        <div className="mt-1.5">
          <Problems problems={[d.problem]} />
        </div>
      )}
    </li>
  )
}
