import { Link } from 'react-router'
import { asProblems } from '../api/client'
import { Button } from '../ui/Button'
import { Problems } from '../ui/Problems'
import { count } from '../ui/text'
import { isUnsure } from './unsure'

/** More are not read in a list of a few lines. */
const SHOWN = 200

/**
 * Why undeploying was refused. Where it only is because an update of the game may have removed files that would
 * come back, it can be done all the same.
 */
export function UndeployingRefused(props: {
  workspace: number
  error: unknown
  act: string
  busy: boolean
  onBringBack: () => void
}) {
  const problems = asProblems(props.error)
  if (!isUnsure(props.error)) return <Problems problems={problems} />
  return (
    <div role="alert" className="my-3 rounded-lg border border-ochre/50 bg-ochre-soft px-3.5 py-3">
      <p className="font-semibold">
        An update of the game may have removed {count(problems.length, 'file')}; undeploying would bring{' '}
        {problems.length === 1 ? 'it' : 'them'} back.
      </p>
      <ul className="my-1.5 max-h-36 overflow-auto">
        {problems.slice(0, SHOWN).map((p) => (
          <li key={p.thing} className="mono break-all">
            {p.thing}
          </li>
        ))}
        {problems.length > SHOWN && <li>and {count(problems.length - SHOWN, 'more', 'more')}</li>}
      </ul>
      <p className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Link to={`/workspaces/${props.workspace}/deploy/game-version`} className="text-woad underline">
          Say what the update did
        </Link>
        <Button disabled={props.busy} onClick={props.onBringBack}>
          {props.act}
        </Button>
      </p>
    </div>
  )
}
