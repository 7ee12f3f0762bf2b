import clsx from 'clsx'
import { ListChecks } from 'lucide-react'
import { type FormEvent, useState } from 'react'
import { Link } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { useWorkspace } from '../frame/workspace'
import { useAct } from '../library/queries'
import { missingSign, troubleAddress } from '../trouble/faults'
import { Button } from '../ui/Button'
import { Screen, Waiting } from '../ui/Screen'
import { Empty } from '../ui/States'
import { useSigns } from './queries'
import { byPlace, readWords, SEEN, tally } from './signs'

type OfMod = Schema['SignsOfMod']
type Sign = Schema['SignView']

/** For each mod that is on, what the last run has shown of it. */
export function SignsView() {
  const workspace = useWorkspace()
  const signs = useSigns(workspace)
  if (!signs.data) return <Waiting title="Signs" what="the signs" queries={[signs]} />
  const { mods, run } = signs.data
  const places = byPlace(mods)
  return (
    <Screen
      title="Signs"
      says={run === undefined ? 'The game was not played yet' : `Of the last run: ${tally(mods)}`}
      actions={
        run !== undefined && (
          <Link to={`/workspaces/${workspace}/test-run/${run}`} className="text-woad underline">
            The run
          </Link>
        )
      }
    >
      <WriteOne workspace={workspace} mods={mods} />
      {mods.length === 0 ? (
        <div className="card flex-1">
          <Empty icon={ListChecks} title="No mod is on">
            Once one is, its signs stand here: what shows in the game that it works.
          </Empty>
        </div>
      ) : (
        <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto">
          {places.length > 0 && (
            <section aria-label="To look for in the game" className="card shrink-0 px-4 py-3">
              <h2>To look for in the game</h2>
              <p className="text-ink-2">By where one goes for it, so that one walk sees many.</p>
              {places.map((p) => (
                <section key={p.place} aria-label={p.place} className="mt-2">
                  <h3>{p.place}</h3>
                  <ul>
                    {p.signs.map(({ mod, sign }) => (
                      <li
                        key={`${mod.mod} ${sign.says}`}
                        className="flex flex-wrap items-baseline gap-x-3 border-line border-t py-1 first:border-t-0"
                      >
                        <span className="min-w-0 flex-1 break-words">
                          {sign.says} <span className="text-ink-2">({sign.what})</span>
                        </span>
                        <span className="text-[12px] text-ink-2">{mod.name}</span>
                        <WhyNot workspace={workspace} mod={mod.mod} sign={sign} />
                        {run !== undefined && <Tick workspace={workspace} mod={mod.mod} sign={sign} />}
                      </li>
                    ))}
                  </ul>
                </section>
              ))}
            </section>
          )}
          <section aria-label="What the run tells" className="card shrink-0 px-4 py-2">
            <h2 className="py-1">What the run tells</h2>
            <ul>
              {mods.map((m) => (
                <li key={m.mod} className="border-line border-t py-1.5">
                  <OneMod workspace={workspace} mod={m} />
                </li>
              ))}
            </ul>
          </section>
        </div>
      )}
    </Screen>
  )
}

function OneMod({ workspace, mod: m }: { workspace: number; mod: OfMod }) {
  const remove = useAct(workspace, (sign: number) =>
    got(api.DELETE('/api/workspaces/{workspace}/signs/{sign}', { params: { path: { workspace, sign } } })),
  )
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <Link to={`/workspaces/${workspace}/layers/${m.mod}`} className="font-medium hover:underline">
          {m.name}
        </Link>
        <span className="text-[12px] text-ink-2">{readWords(m)}</span>
      </div>
      <ul>
        {m.signs
          .filter((s) => s.kind !== 'LOOK')
          .map((s) => (
            <li
              key={`${s.own ?? ''} ${s.says}`}
              className="flex flex-wrap items-baseline gap-x-3 py-0.5 pl-4"
            >
              <span className={clsx('w-28 shrink-0 font-medium', SEEN[s.seen].look)}>
                {SEEN[s.seen].name}
              </span>
              <span className="min-w-0 flex-1 break-words">
                {s.says}{' '}
                <span className="text-ink-2">
                  {s.kind === 'REPORT'
                    ? `(${s.what}${s.wanted ? `, to be ${s.wanted}` : ''}${s.found ? `; reported: ${s.found}` : ''})`
                    : `(reads ${s.what})`}
                </span>
              </span>
              <WhyNot workspace={workspace} mod={m.mod} sign={s} />
              {s.own !== undefined && (
                <Button look="quiet" className="h-6" onClick={() => remove.mutate(s.own as number)}>
                  Take away
                </Button>
              )}
            </li>
          ))}
      </ul>
    </>
  )
}

/** The way from a sign that was not seen to the search for what keeps it away. */
function WhyNot({ workspace, mod, sign }: { workspace: number; mod: number; sign: Sign }) {
  if (sign.seen !== 'NOT_SEEN') return null
  return (
    <Link
      to={troubleAddress(workspace, missingSign(mod, sign))}
      className="inline-flex min-h-6 items-center text-woad underline"
      aria-label={`Search why not: ${sign.says}`}
    >
      Search why not
    </Link>
  )
}

/** Whether the user has seen a sign. */
function Tick({ workspace, mod, sign }: { workspace: number; mod: number; sign: Sign }) {
  const tick = useAct(workspace, (seen: boolean | undefined) =>
    got(
      api.PUT('/api/workspaces/{workspace}/signs/ticks', {
        params: { path: { workspace } },
        body: { mod, says: sign.says, ...(seen === undefined ? {} : { seen }) },
      }),
    ),
  )
  const look = (seen: boolean) => sign.seen === (seen ? 'SEEN' : 'NOT_SEEN')
  return (
    <span className="flex gap-1">
      {[true, false].map((seen) => (
        <Button
          key={String(seen)}
          className={clsx(
            'h-6',
            look(seen) && (seen ? 'bg-moss-soft text-moss' : 'bg-madder-soft text-madder'),
          )}
          aria-pressed={look(seen)}
          aria-label={`${seen ? 'Seen' : 'Not there'}: ${sign.says}`}
          onClick={() => tick.mutate(look(seen) ? undefined : seen)}
        >
          {seen ? 'Seen' : 'Not there'}
        </Button>
      ))}
    </span>
  )
}

const FIELD = 'h-7 rounded-md border border-line-2 bg-card px-1.5 text-ink'

/** Writing a sign of one's own. */
function WriteOne({ workspace, mods }: { workspace: number; mods: readonly OfMod[] }) {
  const [mod, setMod] = useState('')
  const [kind, setKind] = useState<Sign['kind']>('LOOK')
  const [says, setSays] = useState('')
  const [what, setWhat] = useState('')
  const [value, setValue] = useState('')
  const add = useAct(workspace, (body: Schema['SignRequest']) =>
    got(api.POST('/api/workspaces/{workspace}/signs', { params: { path: { workspace } }, body })),
  )
  const chosen = mod || String(mods[0]?.mod ?? '')
  const submit = (e: FormEvent) => {
    e.preventDefault()
    add.mutate(
      {
        mod: Number(chosen),
        kind,
        says,
        what,
        ...(kind === 'REPORT' && value ? { is: value } : {}),
      },
      {
        onSuccess: () => {
          setSays('')
          setWhat('')
          setValue('')
        },
      },
    )
  }
  if (mods.length === 0) return null
  return (
    <details className="card mb-3 shrink-0 px-4 py-2">
      <summary className="cursor-pointer">Write a sign of your own</summary>
      <form aria-label="A sign of yours" className="mt-2 flex flex-wrap items-center gap-2" onSubmit={submit}>
        <select
          aria-label="Mod"
          className={`${FIELD} max-w-56`}
          value={chosen}
          onChange={(e) => setMod(e.target.value)}
        >
          {mods.map((m) => (
            <option key={m.mod} value={m.mod}>
              {m.name}
            </option>
          ))}
        </select>
        <input
          aria-label="What shows"
          placeholder="Gulls are heard further off"
          required
          maxLength={500}
          className={`${FIELD} min-w-56 flex-1`}
          value={says}
          onChange={(e) => setSays(e.target.value)}
        />
        <select
          aria-label="How it is told"
          className={FIELD}
          value={kind}
          onChange={(e) => setKind(e.target.value as Sign['kind'])}
        >
          <option value="LOOK">I look for it</option>
          <option value="READ">the game reads a file</option>
          <option value="REPORT">the game reports a value</option>
        </select>
        <input
          aria-label={
            kind === 'LOOK' ? 'Where to look' : kind === 'READ' ? 'File in the mod' : 'Name of the report'
          }
          placeholder={
            kind === 'LOOK'
              ? 'Harbour, left of the wheel'
              : kind === 'READ'
                ? 'sound/gulls.wav'
                : 'Aud Helga, speed'
          }
          required
          maxLength={500}
          className={`${FIELD} w-56`}
          value={what}
          onChange={(e) => setWhat(e.target.value)}
        />
        {kind === 'REPORT' && (
          <input
            aria-label="Its value, if it matters"
            placeholder="any value"
            className={`${FIELD} w-28`}
            value={value}
            onChange={(e) => setValue(e.target.value)}
          />
        )}
        <Button type="submit" disabled={add.isPending}>
          Write it down
        </Button>
      </form>
    </details>
  )
}
