import { WifiOff } from 'lucide-react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useDrifted } from '../deploy/queries'
import { useRebuildStale } from '../mends/queries'
import { count, list, number } from '../ui/text'
import { JobLine } from './JobLine'
import { useNotices } from './Notices'
import { useDeployStatus, useJobs, useOverview } from './queries'

/** How far the folder is from what was arranged, in a sentence. */
export function distanceWords(s: Schema['DeployStatus']): string {
  const parts = [
    s.add > 0 && `${count(s.add, 'file')} to add`,
    s.replace > 0 && `${number(s.replace)} to replace`,
    s.takeOut > 0 && `${number(s.takeOut)} to take out`,
  ].filter((p): p is string => typeof p === 'string')
  return list(parts)
}

/** The lower edge of every screen: how far the game folder is from the picture, and the way there. */
export function Hem({ workspace, heard }: { workspace: number; heard: boolean }) {
  const status = useDeployStatus(workspace).data
  const overview = useOverview(workspace).data
  const running = useJobs(workspace).data?.find((j) => j.state === 'RUNNING')
  const waits = status ? status.add + status.replace + status.takeOut : 0
  const wrinkles = overview?.wrinkles.length ?? 0
  const files = useDrifted(workspace)
  const drifted = status?.there ? driftLine(workspace, files, waits > 0) : null
  return (
    <footer className="seam flex h-10 shrink-0 items-center gap-4 bg-card px-4 text-ink-2">
      {!heard && (
        <span role="status" className="flex items-center gap-1.5 font-medium text-madder">
          <WifiOff size={14} aria-hidden="true" /> The server cannot be heard; trying again.
        </span>
      )}
      {running ? (
        <JobLine job={running} />
      ) : (
        status && (
          <span className="truncate">
            {!status.there ? (
              <b className="font-semibold text-madder">The game’s folder is gone: {status.folder}</b>
            ) : waits > 0 ? (
              <>
                <b className="font-semibold text-ink">Not deployed yet:</b> {distanceWords(status)}
              </>
            ) : status.files > 0 ? (
              !drifted && 'The game folder is as you arranged it.'
            ) : (
              !drifted && 'Nothing is deployed.'
            )}
            {drifted}
          </span>
        )
      )}
      <span className="ml-auto" />
      {!running && <StaleMends workspace={workspace} />}
      <span className="whitespace-nowrap">
        {wrinkles > 0 && <Link to={`/workspaces/${workspace}`}>{count(wrinkles, 'wrinkle')}</Link>}
      </span>
      <Link
        to={`/workspaces/${workspace}/deploy`}
        className={
          waits > 0
            ? 'inline-flex h-7 items-center whitespace-nowrap rounded-[7px] bg-strong px-2.5 text-on-strong hover:opacity-90'
            : 'inline-flex h-7 items-center whitespace-nowrap rounded-[7px] border border-line px-2.5 text-ink hover:bg-sunk'
        }
      >
        Review and deploy
      </Link>
    </footer>
  )
}

function driftLine(workspace: number, files: number, behind: boolean) {
  if (files === 0) return null
  return (
    <>
      {behind && '; '}
      <Link to={`/workspaces/${workspace}/deploy/drift`} className="text-ink underline">
        {count(files, 'file')} {files === 1 ? 'is' : 'are'} not as {files === 1 ? 'it was' : 'they were'} left
        in the game folder
      </Link>
    </>
  )
}

/** What would go into the game out of date, and the way to have it made anew first. */
function StaleMends({ workspace }: { workspace: number }) {
  const { say } = useNotices()
  const rebuild = useRebuildStale(workspace, () => say('All stale mends are rebuilt.'))
  const stale = useOverview(workspace).data?.wrinkles.filter((w) => w.code === 'mend-stale').length ?? 0
  if (stale === 0) return null
  return (
    <button
      type="button"
      disabled={rebuild.isPending}
      onClick={() => rebuild.mutate(undefined)}
      className="inline-flex h-7 items-center whitespace-nowrap rounded-[7px] border border-ochre px-2.5 text-ink hover:bg-sunk"
    >
      {rebuild.isPending
        ? 'Rebuilding …'
        : `${count(stale, 'mend')} ${stale === 1 ? 'is' : 'are'} stale: rebuild`}
    </button>
  )
}
