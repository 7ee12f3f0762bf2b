import { useEffect, useId, useState } from 'react'
import { Link } from 'react-router'
import { asProblems, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useRunningJob } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { useKept } from '../ui/kept'
import { PathText } from '../ui/PathText'
import { Problems } from '../ui/Problems'
import { Screen, Waiting } from '../ui/Screen'
import { Tag } from '../ui/Tag'
import { count, number } from '../ui/text'
import { Matches } from './Matches'
import { type NamedPlaces, PlaceFields } from './PlaceFields'
import { useChangeDefinition, useDefinition, useLookAtDefinition } from './queries'

/** The definition of the game: to read, and to correct after seeing what that changes. */
export function DefinitionView() {
  const workspace = useWorkspace()
  const definition = useDefinition(workspace)
  if (!definition.data)
    return <Waiting title="Definition of the game" what="the definition" queries={[definition]} />
  return <Editor key={definition.data.definition} workspace={workspace} now={definition.data.definition} />
}

function Editor({ workspace, now }: { workspace: number; now: string }) {
  const [text, setText, drop] = useKept(`definition ${workspace}`, now)
  const [named, setNamed] = useState<NamedPlaces>({})
  const look = useLookAtDefinition(workspace)
  const { say } = useNotices()
  const change = useChangeDefinition(workspace, () => {
    drop()
    say('The definition is changed. Deploy to have the game folder follow.')
  })
  const running = useRunningJob(workspace, ['definition', 'deploy', 'undeploy']) !== undefined
  const id = useId()
  const { mutate: lookAt, reset } = look
  // whoever writes sees what it changes, once the hands rest
  useEffect(() => {
    if (text === now) {
      reset()
      return
    }
    const rests = setTimeout(() => lookAt(text), 500)
    return () => clearTimeout(rests)
  }, [text, now, lookAt, reset])
  const found = look.variables === text ? look.data : undefined
  return (
    <Screen
      title="Definition of the game"
      says="Where mods go, what plugins and packs are, and how files combine. Nothing changes before you take it."
      actions={
        <>
          <Button disabled={text === now || change.isPending} onClick={drop}>
            As it was
          </Button>
          <Button
            look="strong"
            disabled={text === now || !found || change.isPending || running}
            onClick={() => change.mutate({ definition: text, places: named })}
          >
            {change.isPending ? 'Changing it …' : 'Take this definition'}
          </Button>
        </>
      }
      aside={
        <Aside label="What it changes">
          <h2>What it changes</h2>
          {text === now ? (
            <p className="mt-2 text-ink-2">
              This is the definition that holds. Write in it to see what would change.
            </p>
          ) : look.error ? (
            <div className="mt-2">
              <Problems problems={asProblems(look.error)} />
            </div>
          ) : !found ? (
            <p className="mt-2 text-ink-2" role="status">
              Looking …
            </p>
          ) : (
            <>
              <PlaceFields places={found.places} named={named} onName={setNamed} />
              <Changes workspace={workspace} look={found} />
            </>
          )}
        </Aside>
      }
    >
      <label htmlFor={id} className="sr-only">
        Definition of the game (game.yaml)
      </label>
      <textarea
        id={id}
        value={text}
        onChange={(e) => setText(e.target.value)}
        spellCheck={false}
        wrap="off"
        className="card mono min-h-0 flex-1 resize-none px-4 py-3 leading-relaxed"
      />
    </Screen>
  )
}

function Changes({ workspace, look: l }: { workspace: number; look: Schema['DefinitionLook'] }) {
  const anew = l.mods.filter((m) => m.asIs === undefined)
  const stay = l.mods.filter((m) => m.asIs !== undefined)
  return (
    <>
      {l.warnings.map((w) => (
        <p key={w.thing + w.reason} className="mt-2 text-ochre">
          {w.thing}: {w.reason} {w.remedy}
        </p>
      ))}
      <p className="mt-2">
        {anew.length === 0
          ? 'No mod is installed otherwise.'
          : `${count(anew.length, 'mod')} ${anew.length === 1 ? 'is' : 'are'} installed again from ${anew.length === 1 ? 'its archive' : 'their archives'}. Layers and their order stay.`}
      </p>
      {anew.length > 0 && (
        <ul className="mt-1 max-h-44 shrink-0 overflow-y-auto">
          {anew.map((m) => (
            <Mod key={m.mod} workspace={workspace} mod={m}>
              <span className="num shrink-0 text-ink-2">
                {m.more > 0 && `${number(m.more)} new`}
                {m.more > 0 && m.gone > 0 && ', '}
                {m.gone > 0 && `${number(m.gone)} gone`}
              </span>
            </Mod>
          ))}
        </ul>
      )}
      {stay.length > 0 && (
        <AsidePart
          title={`${count(stay.length, 'mod')} would be installed otherwise, and ${stay.length === 1 ? 'stays' : 'stay'}`}
        >
          <ul>
            {stay.map((m) => (
              <Mod key={m.mod} workspace={workspace} mod={m}>
                <span className="text-ink-2">{m.asIs}</span>
              </Mod>
            ))}
          </ul>
        </AsidePart>
      )}
      <Paths title="New in the game with the next deployment" all={l.moreInAll} paths={l.more} />
      <Paths title="No longer in the game" all={l.goneInAll} paths={l.gone} />
      {(l.newPlugins.length > 0 || l.gonePlugins.length > 0) && (
        <AsidePart title="The load order">
          <ul>
            {l.newPlugins.map((p) => (
              <li key={p} className="flex gap-2 py-0.5">
                <Tag>gains</Tag> <span className="min-w-0 truncate">{p}</span>
              </li>
            ))}
            {l.gonePlugins.map((p) => (
              <li key={p} className="flex gap-2 py-0.5">
                <Tag>loses</Tag> <span className="min-w-0 truncate">{p}</span>
              </li>
            ))}
          </ul>
        </AsidePart>
      )}
      <div className="mt-3">
        <Matches matches={l.matches} open={false} />
      </div>
    </>
  )
}

function Mod(props: { workspace: number; mod: Schema['OtherwiseView']; children: React.ReactNode }) {
  return (
    <li className="flex flex-wrap items-baseline gap-x-2 border-line border-t py-1">
      <Link
        to={`/workspaces/${props.workspace}/library/${props.mod.mod}`}
        className="min-w-0 flex-1 truncate py-[3px] hover:underline"
      >
        {props.mod.name}
      </Link>
      {props.children}
    </li>
  )
}

function Paths({ title, all, paths }: { title: string; all: number; paths: readonly string[] }) {
  if (all === 0) return null
  return (
    <AsidePart title={`${title}: ${count(all, 'file')}`}>
      <ul className="max-h-32 overflow-y-auto">
        {paths.map((p) => (
          <li key={p} className="py-0.5">
            <PathText path={p} most={44} className="min-w-0 truncate" />
          </li>
        ))}
        {all > paths.length && <li className="text-ink-2">and {number(all - paths.length)} more</li>}
      </ul>
    </AsidePart>
  )
}
