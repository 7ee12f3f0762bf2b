import { type FormEvent, useState } from 'react'
import { useLayers } from '../layers/queries'
import { Button } from '../ui/Button'
import { type Search, useGoesOn, useMeasure } from './queries'

const FIELD = 'h-7 rounded-md border border-line-2 bg-card px-1.5 text-ink'

/** What a mod costs: the game is run with it and without it. */
export function MeasureCost({ workspace, onBegun }: { workspace: number; onBegun: (s: Search) => void }) {
  const layers = useLayers(workspace).data?.layers.filter((l) => l.on) ?? []
  const [mod, setMod] = useState('')
  const [times, setTimes] = useState('5')
  const measure = useMeasure(workspace, onBegun)
  const busy = useGoesOn(workspace)
  const chosen = mod || String(layers[0]?.mod ?? '')
  if (layers.length === 0) return null
  const submit = (e: FormEvent) => {
    e.preventDefault()
    measure.mutate({ mod: Number(chosen), times: Number(times) })
  }
  return (
    <form aria-label="What a mod costs" className="card shrink-0 px-4 py-3" onSubmit={submit}>
      <h2>What a mod costs</h2>
      <p className="text-ink-2">
        The game is run with it and without it, in turns: how long it loads and runs, and how much memory it
        has.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <select
          aria-label="The mod to measure"
          className={`${FIELD} max-w-[340px]`}
          value={chosen}
          onChange={(e) => setMod(e.target.value)}
        >
          {layers.map((l) => (
            <option key={l.mod} value={l.mod}>
              {l.name}
            </option>
          ))}
        </select>
        <label className="flex items-center gap-2 text-ink-2">
          each set
          <select
            aria-label="How often each set is run"
            className={FIELD}
            value={times}
            onChange={(e) => setTimes(e.target.value)}
          >
            {['1', '3', '5', '10'].map((n) => (
              <option key={n}>{n}</option>
            ))}
          </select>
          {times === '1' ? 'time' : 'times'}
        </label>
        <Button type="submit" disabled={measure.isPending || busy}>
          {measure.isPending ? 'Beginning …' : 'Measure it'}
        </Button>
      </div>
    </form>
  )
}
