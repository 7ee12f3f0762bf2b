import clsx from 'clsx'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { DifferenceSaid } from '../layers/Preview'
import { Button } from '../ui/Button'
import { Menu } from '../ui/Menu'
import { PathText } from '../ui/PathText'
import { Screen } from '../ui/Screen'
import { Failed, Loading } from '../ui/States'
import { count } from '../ui/text'
import {
  type Carry,
  useCarryOver,
  useDeleteProfile,
  useProfileActs,
  useProfileComparison,
  useProfiles,
  useTakeProfile,
} from './queries'
import { SettingsPart } from './SettingsPart'
import { copyName, orderWords } from './words'

type Profile = Schema['ProfileView']

/** The profiles of the workspace, and what another one has otherwise than the one in use. */
export function ProfilesView() {
  const workspace = useWorkspace()
  const profiles = useProfiles(workspace)
  const acts = useProfileActs(workspace)
  const { say } = useNotices()
  const [chosen, setChosen] = useState<number | null>(null)
  const [naming, setNaming] = useState<number | 'new' | null>(null)
  const remove = useDeleteProfile(workspace, (id) =>
    say('The profile is deleted.', { label: 'Bring it back', run: () => acts.bringBack.mutate(id) }),
  )
  const take = useTakeProfile(workspace, (d) =>
    say(
      <>
        <b>The profile is in use.</b> <DifferenceSaid difference={d} tense="does" />
      </>,
    ),
  )
  const all = profiles.data ?? []
  const used = all.find((p) => p.inUse)
  const other = all.find((p) => p.id === chosen && !p.inUse) ?? all.find((p) => !p.inUse)
  return (
    <Screen
      title="Profiles"
      says="Each is an arrangement of its own: switches, versions, order, rulings, load order. One of them is in use."
      actions={<Button onClick={() => setNaming('new')}>New profile</Button>}
    >
      {profiles.isPending ? (
        <div className="card flex-1">
          <Loading what="the profiles" />
        </div>
      ) : profiles.isError ? (
        <Failed error={profiles.error} retry={() => profiles.refetch()} />
      ) : (
        <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-col">
          <div className="card w-[320px] shrink-0 overflow-y-auto max-lg:w-full">
            {naming === 'new' && (
              <NameForm
                first={used ? `${used.name} 2` : ''}
                label="Name of the new profile"
                act={used ? `Copy ${used.name}` : 'Make it'}
                onName={(name) => {
                  acts.create.mutate({ name, ...(used ? { from: used.id } : {}) })
                  setNaming(null)
                }}
                also={{ label: 'With every mod off', run: (name) => acts.create.mutate({ name }) }}
                onClose={() => setNaming(null)}
              />
            )}
            <ul aria-label="Profiles">
              {all.map((p) => (
                <li
                  key={p.id}
                  className={clsx(
                    'flex items-center gap-2 border-line border-b px-3.5 py-2',
                    p.id === other?.id && 'bg-woad-soft',
                  )}
                >
                  {naming === p.id ? (
                    <NameForm
                      first={p.name}
                      label="Name of the profile"
                      act="Rename"
                      onName={(name) => {
                        acts.rename.mutate({ id: p.id, name })
                        setNaming(null)
                      }}
                      onClose={() => setNaming(null)}
                    />
                  ) : (
                    <>
                      <button
                        type="button"
                        disabled={p.inUse}
                        aria-pressed={p.id === other?.id}
                        onClick={() => setChosen(p.id)}
                        className="min-w-0 flex-1 text-left"
                      >
                        <b className="block truncate font-semibold">{p.name}</b>
                        <small className="text-ink-2">
                          {p.inUse && 'in use · '}
                          {count(p.layersOn, 'layer')} on
                          {p.rulings > 0 && ` · ${count(p.rulings, 'ruling')}`}
                          {p.heldBack > 0 && ` · ${p.heldBack} held back`}
                        </small>
                      </button>
                      {!p.inUse && (
                        <Button className="h-7" onClick={() => take.mutate(p.id)} disabled={take.isPending}>
                          Use
                        </Button>
                      )}
                      <Menu
                        label={`More to do with ${p.name}`}
                        acts={[
                          { label: 'Rename …', run: () => setNaming(p.id) },
                          {
                            label: 'Copy',
                            run: () => acts.create.mutate({ name: copyName(p, all), from: p.id }),
                          },
                          ...(p.inUse ? [] : [null, { label: 'Delete', run: () => remove.mutate(p.id) }]),
                        ]}
                      />
                    </>
                  )}
                </li>
              ))}
            </ul>
          </div>
          <div className="card min-h-0 flex-1 overflow-y-auto px-5 py-4">
            {other && used ? (
              <>
                <Comparison key={other.id} workspace={workspace} other={other} used={used} />
                <SettingsPart workspace={workspace} profile={other.id} name={other.name} />
                <SettingsPart workspace={workspace} profile={used.id} name={used.name} />
              </>
            ) : (
              <>
                <p className="text-ink-2">
                  Copy the profile to try something: the copy has an order, switches and an undo of its own,
                  and here stands what differs.
                </p>
                {used && <SettingsPart workspace={workspace} profile={used.id} name={used.name} />}
              </>
            )}
          </div>
        </div>
      )}
    </Screen>
  )
}

function NameForm(props: {
  first: string
  label: string
  act: string
  onName: (name: string) => void
  also?: { label: string; run: (name: string) => void }
  onClose: () => void
}) {
  const [name, setName] = useState(props.first)
  const also = props.also
  return (
    <form
      className="flex flex-1 flex-wrap gap-1.5 px-3.5 py-2"
      onSubmit={(e) => {
        e.preventDefault()
        props.onName(name.trim())
      }}
    >
      <input
        // biome-ignore lint/a11y/noAutofocus: the one thing to fill in
        autoFocus
        value={name}
        onChange={(e) => setName(e.target.value)}
        onKeyDown={(e) => e.key === 'Escape' && props.onClose()}
        maxLength={80}
        aria-label={props.label}
        className="h-[30px] basis-full rounded-md border border-line-2 bg-card px-2.5"
      />
      <Button type="submit" look="strong" disabled={!name.trim()}>
        {props.act}
      </Button>
      {also && (
        <Button
          disabled={!name.trim()}
          onClick={() => {
            also.run(name.trim())
            props.onClose()
          }}
        >
          {also.label}
        </Button>
      )}
      <Button look="quiet" onClick={props.onClose}>
        Leave it
      </Button>
    </form>
  )
}

type PartName = Carry['parts'][number]

/** What another profile has otherwise; what is ticked is carried over into the one in use. */
function Comparison({ workspace, other, used }: { workspace: number; other: Profile; used: Profile }) {
  const comparison = useProfileComparison(workspace, other.id)
  const [mods, setMods] = useState<ReadonlySet<number>>(new Set())
  const [parts, setParts] = useState<ReadonlySet<string>>(new Set())
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const carry = useCarryOver(workspace, (d) => {
    setMods(new Set())
    setParts(new Set())
    say(
      <>
        <b>Carried over.</b> <DifferenceSaid difference={d} tense="does" />
      </>,
      { label: 'Undo', run: undo },
    )
  })
  const c = comparison.data
  if (comparison.isPending) return <Loading what="what differs" />
  if (!c) return <Failed error={comparison.error} retry={() => comparison.refetch()} />
  const turn = <T,>(set: ReadonlySet<T>, put: (s: ReadonlySet<T>) => void, x: T) => {
    const next = new Set(set)
    if (!next.delete(x)) next.add(x)
    put(next)
  }
  const part = (id: PartName, label: string) => (
    <label className="mt-3 flex items-center gap-2 font-semibold">
      <input
        type="checkbox"
        checked={parts.has(id)}
        onChange={() => turn(parts, setParts, id)}
        className="accent-(--woad)"
      />
      {label}
    </label>
  )
  const same =
    c.mods.length + c.moves.length + c.rulings.length + c.heldBack.length + c.decisions === 0 && !c.loadOrder
  return (
    <>
      <h2>
        {other.name}, beside {used.name}
      </h2>
      <p className="mt-1 leading-snug">
        {same ? (
          'The two are the same.'
        ) : (
          <>
            Under {other.name}: <DifferenceSaid difference={c.picture} tense="would" />
          </>
        )}
      </p>
      {!same && (
        <>
          <div className="mt-2 flex items-center gap-3">
            <Button
              look="strong"
              disabled={mods.size + parts.size === 0 || carry.isPending}
              onClick={() =>
                carry.mutate({ from: other.id, mods: [...mods], parts: [...parts] as Carry['parts'] })
              }
            >
              Carry what is ticked over into {used.name}
            </Button>
          </div>
          {c.mods.length > 0 && (
            <section aria-label="Mods">
              <h3 className="mt-3">{count(c.mods.length, 'mod')} otherwise</h3>
              <ul>
                {c.mods.map((m) => (
                  <li key={m.mod}>
                    <label className="flex items-center gap-2 py-0.5">
                      <input
                        type="checkbox"
                        disabled={m.there === undefined}
                        checked={mods.has(m.mod)}
                        onChange={() => turn(mods, setMods, m.mod)}
                        className="accent-(--woad)"
                      />
                      <span className="min-w-0 flex-1 truncate font-medium">{m.name}</span>
                      <span className="text-ink-2">
                        {m.version} {m.on ? 'on' : 'off'} here, {m.versionThere} {m.onThere ? 'on' : 'off'}{' '}
                        there
                      </span>
                    </label>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {c.moves.length > 0 && (
            <section aria-label="Order">
              {part('ORDER', `${count(c.moves.length, 'layer')} at another place`)}
              <ul>
                {c.moves.map((m) => (
                  <li key={m.mod} className="flex gap-2 py-0.5 pl-6">
                    <span className="min-w-0 flex-1 truncate">{m.name}</span>
                    <span className="num text-ink-2">
                      {m.here} here, {m.there} there
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {c.rulings.length > 0 && (
            <section aria-label="Rulings">
              {part('RULINGS', `${count(c.rulings.length, 'ruling')} otherwise`)}
              <ul>
                {c.rulings.map((r) => (
                  <li key={r.at} className="flex gap-2 py-0.5 pl-6">
                    <PathText path={r.at} most={46} className="min-w-0 flex-1 truncate" />
                    <span className="text-ink-2">
                      {r.here ?? 'none'} here, {r.there ?? 'none'} there
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {c.heldBack.length > 0 && (
            <section aria-label="Held back">
              {part('HELD_BACK', `${count(c.heldBack.length, 'path')} held back in one of them`)}
              <ul>
                {c.heldBack.map((h) => (
                  <li key={`${h.mod} ${h.path}`} className="flex gap-2 py-0.5 pl-6">
                    <span className="min-w-0 flex-1 truncate">
                      {h.name}: <PathText path={h.path} most={40} />
                    </span>
                    <span className="text-ink-2">{h.here ? 'here' : 'there'}</span>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {c.loadOrder && (
            <section aria-label="Load order">
              {part('LOAD_ORDER', 'The load order')}
              <p className="pl-6 text-ink-2">{orderWords(c)}</p>
              <ul>
                {c.plugins.slice(0, 60).map((p) => (
                  <li key={p.name} className="flex gap-2 py-0.5 pl-6">
                    <span className="min-w-0 flex-1 truncate">{p.name}</span>
                    <span className="num text-ink-2">
                      {p.here} here, {p.there} there
                    </span>
                  </li>
                ))}
                {c.pluginSwitches.slice(0, 60).map((p) => (
                  <li key={`${p.name} on`} className="flex gap-2 py-0.5 pl-6">
                    <span className="min-w-0 flex-1 truncate">{p.name}</span>
                    <span className="text-ink-2">{p.here ? 'on here, off there' : 'off here, on there'}</span>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {c.decisions > 0 && part('DECISIONS', `${count(c.decisions, 'record')} decided otherwise`)}
        </>
      )}
    </>
  )
}
