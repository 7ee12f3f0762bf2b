import clsx from 'clsx'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, got } from '../api/client'
import { useAct } from '../library/queries'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { count, when } from '../ui/text'
import { type ModStanding, type Said, useStandings } from './queries'
import { STATES, saidOf, standingsWords } from './standing'

/** How each mod stands with the version of the game, those that need somebody first. */
export function Standings({ workspace }: { workspace: number }) {
  const standings = useStandings(workspace).data
  const [said, setSaid] = useState<ModStanding | null>(null)
  if (!standings || standings.mods.length === 0) return null
  const groups = STATES.map((s) => ({
    ...s,
    // what nobody can do without stands first
    mods: standings.mods
      .filter((m) => s.states.includes(m.state))
      .sort((a, b) => Number(b.essential) - Number(a.essential)),
  })).filter((g) => g.mods.length > 0)
  return (
    <section aria-label="How your mods stand with it" className="card shrink-0 px-4 py-3">
      <h2>How your mods stand with {standings.game ?? 'the game'}</h2>
      <p className="mt-0.5 text-ink-2">
        {standingsWords(standings.mods)}
        {standings.since && `, since ${when(standings.since)}`}
      </p>
      {groups.map((g) => (
        <details key={g.title} open={g.isOpen} className="mt-2">
          <summary className={clsx('font-medium', g.look)}>
            {g.title}: {count(g.mods.length, 'mod')}
          </summary>
          <ul>
            {g.mods.map((m) => (
              <li key={m.mod} className="flex items-baseline gap-2 border-line border-t py-1">
                <span className="min-w-0 flex-1 break-words">
                  <Link
                    to={`/workspaces/${workspace}/library/${m.mod}`}
                    className="font-medium hover:underline"
                  >
                    {m.name}
                  </Link>{' '}
                  <span className="num">{m.version}</span>
                  <span className="ml-1 text-ink-2">
                    {[m.essential && 'essential', !m.on && 'off', m.reason].filter(Boolean).join(', ')}
                  </span>
                  {m.comes && (
                    <Link
                      to={`/workspaces/${workspace}/catalogue/updates/${m.mod}`}
                      className="ml-1 text-moss underline"
                    >
                      {m.comes} is for it
                    </Link>
                  )}
                  {m.waitsFor && (
                    <span className="block text-[12px] text-ink-2">
                      To be switched on {m.waitsFor}{' '}
                      <Link to={`/workspaces/${workspace}/layers/${m.mod}`} className="text-woad underline">
                        in its layer
                      </Link>
                    </span>
                  )}
                </span>
                <Button aria-label={`Say how ${m.name} stands`} onClick={() => setSaid(m)}>
                  Say …
                </Button>
              </li>
            ))}
          </ul>
        </details>
      ))}
      {said && <SayDialog workspace={workspace} mod={said} onClose={() => setSaid(null)} />}
    </section>
  )
}

const WORDS: readonly { said: Said; says: string }[] = [
  { said: 'NOTHING', says: 'As it is worked out' },
  { said: 'WORKS', says: 'It works, I have seen it' },
  { said: 'BROKEN', says: 'It is broken' },
]

function SayDialog(props: { workspace: number; mod: ModStanding; onClose: () => void }) {
  const { workspace, mod: m, onClose } = props
  const [said, setSaid] = useState<Said>(saidOf(m))
  const [essential, setEssential] = useState(m.essential)
  const [waitsFor, setWaitsFor] = useState(m.waitsFor)
  const say = useAct(
    workspace,
    () =>
      got(
        api.PUT('/api/workspaces/{workspace}/game-version/mods/{mod}', {
          params: { path: { workspace, mod: m.mod } },
          body: { essential, said, waitsFor: waitsFor.trim() },
        }),
      ),
    onClose,
  )
  return (
    <Dialog open onOpenChange={onClose} title={`How does ${m.name} stand?`}>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          say.mutate(undefined)
        }}
      >
        <fieldset>
          <legend className="sr-only">With this version of the game</legend>
          {WORDS.map((w) => (
            <label key={w.said} className="flex items-baseline gap-2 py-1">
              <input
                type="radio"
                name="said"
                className="accent-(--woad)"
                checked={said === w.said}
                onChange={() => setSaid(w.said)}
              />
              {w.says}
            </label>
          ))}
        </fieldset>
        <label className="mt-1 flex items-baseline gap-2 py-1">
          <input type="checkbox" checked={essential} onChange={(e) => setEssential(e.target.checked)} />
          Essential: I do not play without it
        </label>
        <label className="mt-1 block">
          To be switched on
          <input
            value={waitsFor}
            maxLength={400}
            placeholder="after the ferry has sailed"
            onChange={(e) => setWaitsFor(e.target.value)}
            className="mt-1 h-[32px] w-full rounded-[7px] border border-line-2 bg-card px-2.5"
          />
        </label>
        <div className="mt-3 flex justify-end gap-2">
          <Button type="submit" look="strong" disabled={say.isPending}>
            Keep that
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
