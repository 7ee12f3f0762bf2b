import { Scissors } from 'lucide-react'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { Button } from '../ui/Button'
import { count } from '../ui/text'
import { useBuildPatch, useMends } from './queries'

/** Puts what combines into the patch of the profile, which is made when there is none yet. */
export function PatchButton({ workspace, states }: { workspace: number; states: Schema['StateCounts'] }) {
  const { say } = useNotices()
  const patch = useMends(workspace).data?.find((m) => m.scope === 'PROFILE')
  const build = useBuildPatch(workspace, () =>
    say('The patch is made. It lies on top, and its plugin loads last.'),
  )
  if (states.combine + (patch ? states.settled : 0) === 0) return null
  const fresh = states.combine === 0 && patch && !patch.stale
  return (
    <Button
      look={fresh ? 'plain' : 'strong'}
      disabled={build.isPending || fresh}
      onClick={() => build.mutate(undefined)}
    >
      <Scissors size={14} aria-hidden="true" />
      {build.isPending
        ? 'Making the patch …'
        : fresh
          ? 'The patch is fresh'
          : patch
            ? 'Rebuild the patch'
            : `Put the ${count(states.combine, 'record')} into a patch`}
    </Button>
  )
}
