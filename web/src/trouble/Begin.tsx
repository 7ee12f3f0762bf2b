import { type FormEvent, useId, useState } from 'react'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { type FaultRequest, type Search, useBegin, useGoesOn } from './queries'

const FIELD = 'h-7 rounded-md border border-line-2 bg-card px-1.5 text-ink'

type Mends = Schema['SearchRequest']['mends']

const MENDS: Record<Mends, string> = {
  KEPT: 'stay as they are, where all is on that they were made from',
  ANEW: 'are made anew for each set',
  LEFT_OUT: 'are left out',
}

/** How to search, and the button that begins it. */
export function Begin(props: {
  workspace: number
  fault: FaultRequest
  startable: boolean
  inSteps: boolean
  onBegun: (s: Search) => void
}) {
  const told = props.startable && props.fault.kind !== 'WORDS'
  const [byItself, setByItself] = useState(true)
  const [mends, setMends] = useState<Mends>('KEPT')
  const [first, setFirst] = useState('1')
  const [limit, setLimit] = useState('300')
  const begin = useBegin(props.workspace, props.onBegun)
  // the one before is over a little before the folder is as it was
  const busy = useGoesOn(props.workspace)
  const name = useId()
  const automatic = told && byItself
  const submit = (e: FormEvent) => {
    e.preventDefault()
    begin.mutate({
      fault: props.fault,
      automatic,
      limitSeconds: Math.max(1, Math.round(Number(limit) || 300)),
      mends,
      inSteps: props.inSteps,
      wholeFirst: Number(first),
    })
  }
  return (
    <form aria-label="How to search" className="card shrink-0 px-4 py-3" onSubmit={submit}>
      <h2>{props.inSteps ? 'Steps' : 'Search'}</h2>
      {props.inSteps && (
        <p className="mb-1 text-ink-2">
          Groundwork first, then what needs only that, then the large ones, then the rest; the game is started
          after each. Where a step fails, the search goes on in what it added.
        </p>
      )}
      <label className="flex min-h-[27px] items-center gap-2 py-0.5">
        <input
          type="radio"
          className="accent-(--woad)"
          name={name}
          disabled={!told}
          checked={automatic}
          onChange={() => setByItself(true)}
        />
        <span>
          By itself: it deploys a set, starts the game, sees whether the fault shows, and goes on
          {!told && (
            <span className="text-ink-2">
              {' '}
              ({props.startable ? 'not for what only you can see' : 'not where Ironing cannot start the game'}
              )
            </span>
          )}
        </span>
      </label>
      <label className="flex min-h-[27px] items-center gap-2 py-0.5">
        <input
          type="radio"
          name={name}
          className="accent-(--woad)"
          checked={!automatic}
          onChange={() => setByItself(false)}
        />
        <span>By hand: you play each set and say how it went; you may stop for days</span>
      </label>
      <label className="mt-1 flex min-h-[27px] flex-wrap items-center gap-2 py-0.5">
        Patches, merges and combined files
        <select
          aria-label="What becomes of mends in each set"
          className={FIELD}
          value={mends}
          onChange={(e) => setMends(e.target.value as Mends)}
        >
          {(Object.keys(MENDS) as Mends[]).map((m) => (
            <option key={m} value={m}>
              {MENDS[m]}
            </option>
          ))}
        </select>
      </label>
      {!props.inSteps && (
        <label className="flex min-h-[27px] flex-wrap items-center gap-2 py-0.5">
          Run the whole set
          <select
            aria-label="How often the whole set is run first"
            className={FIELD}
            value={first}
            onChange={(e) => setFirst(e.target.value)}
          >
            {['1', '3', '5', '10'].map((n) => (
              <option key={n} value={n}>
                {n === '1' ? 'once' : `${n} times`}
              </option>
            ))}
          </select>
          first
          {first !== '1' && <span className="text-ink-2">, to see whether the fault comes every time</span>}
        </label>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button look="strong" type="submit" disabled={begin.isPending || busy}>
          {begin.isPending ? 'Beginning …' : props.inSteps ? 'Build it up' : 'Search for what causes it'}
        </Button>
        {automatic && (
          <label className="flex items-center gap-2 text-ink-2">
            end a run after
            <input
              aria-label="Seconds a run may take"
              inputMode="numeric"
              className={`${FIELD} w-20`}
              value={limit}
              onChange={(e) => setLimit(e.target.value)}
            />
            s
          </label>
        )}
      </div>
    </form>
  )
}
