import { Link } from 'react-router'
import { useDrifted } from '../deploy/queries'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useReturnToRun } from '../test-run/queries'
import { Button } from '../ui/Button'
import { count, when } from '../ui/text'
import type { Suspects } from './queries'
import { reasonWords } from './words'

const SHOWN = 12

/** Who is suspected, each with its reason, and the way back to what worked. */
export function SuspectList({ workspace, suspects: s }: { workspace: number; suspects: Suspects }) {
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const back = useReturnToRun(workspace, () =>
    say('Arranged as it was when it worked; deploy to play with it.', { label: 'Undo', run: undo }),
  )
  const drifted = useDrifted(workspace)
  return (
    <section aria-label="Suspects" className="card shrink-0 px-4 py-3">
      <h2>Suspects</h2>
      {drifted > 0 && (
        <p className="my-1 rounded-md bg-ochre-soft px-2 py-1">
          {count(drifted, 'file')} in the game folder {drifted === 1 ? 'is' : 'are'} not as deployed or as the
          game has them.{' '}
          <Link to={`/workspaces/${workspace}/deploy/drift`} className="text-woad underline">
            Look at {drifted === 1 ? 'it' : 'them'} first
          </Link>
        </p>
      )}
      <p className="text-ink-2">
        {s.suspects.length === 0
          ? 'Nothing speaks against one mod more than against another.'
          : `The most suspicious first; the other ${count(s.others, 'mod')} that are on come after them.`}
      </p>
      <ol className="mt-1">
        {s.suspects.slice(0, SHOWN).map((m) => (
          <li key={m.mod} className="flex items-baseline gap-3 border-line border-t py-1 first:border-t-0">
            <span className="w-56 shrink-0 truncate font-medium" title={m.name}>
              {m.name}
            </span>
            <span className="min-w-0 flex-1 text-ink-2">{reasonWords(m.reasons)}</span>
          </li>
        ))}
      </ol>
      {s.suspects.length > SHOWN && (
        <p className="text-ink-2">and {count(s.suspects.length - SHOWN, 'mod')} more</p>
      )}
      {s.earlier.length > 0 && (
        <p className="mt-1.5">This fault was searched for before, and found: see the searches beside.</p>
      )}
      {s.worked !== undefined && s.workedAt && (
        <p className="mt-2 flex flex-wrap items-center gap-3">
          <span>It did not show in the run of {when(s.workedAt)}.</span>
          <Button disabled={back.isPending} onClick={() => back.mutate(s.worked as number)}>
            Go back to what worked then
          </Button>
        </p>
      )}
    </section>
  )
}
