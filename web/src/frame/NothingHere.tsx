import { SignpostBig } from 'lucide-react'
import { useLocation } from 'react-router'
import { ButtonLink } from '../ui/ButtonLink'
import { Screen } from '../ui/Screen'
import { Empty } from '../ui/States'
import { useWorkspace } from './workspace'

/**
 * An address at which there is nothing: mistyped, or of something that is gone.
 *
 * @param what is not there; without it, the screen
 */
export function NothingHere({ what }: { what?: string }) {
  const workspace = useWorkspace()
  const { pathname } = useLocation()
  return (
    <Screen title="Nothing is here">
      <div className="card flex-1">
        <Empty
          icon={SignpostBig}
          title={what ? `${what} is not in this workspace` : 'There is no such screen'}
        >
          <p className="mb-3">
            <span className="mono break-all">{pathname}</span> leads nowhere: it may be mistyped, or of
            something that has been removed.
          </p>
          <ButtonLink to={`/workspaces/${workspace}`}>Go to the overview</ButtonLink>
        </Empty>
      </div>
    </Screen>
  )
}
