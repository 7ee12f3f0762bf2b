import { useNavigate } from 'react-router'
import { Button } from '../ui/Button'
import { useLoadSample, useSample } from './queries'

/** The sample game, to try things out with before one’s own game is touched. */
export function SampleGame() {
  const sample = useSample().data
  const go = useNavigate()
  const load = useLoadSample((workspace) => go(`/workspaces/${workspace}`))
  if (!sample?.available || sample.workspace !== undefined) return null
  return (
    <section className="card flex items-center gap-4 px-5 py-4">
      <div className="min-w-0 flex-1">
        <h2>Try it out first</h2>
        <p className="text-ink-2">
          A small game of our own with fourteen mods that collide: a ferry company. It comes in a moment, and
          can be removed again without a trace.
        </p>
      </div>
      <Button disabled={load.isPending} onClick={() => load.mutate(undefined)}>
        {load.isPending ? 'Bringing it in …' : 'Bring in the sample game'}
      </Button>
    </section>
  )
}
