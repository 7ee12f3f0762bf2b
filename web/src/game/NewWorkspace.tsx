import { FolderOpen, FolderSearch } from 'lucide-react'
import { type FormEvent, useEffect, useId, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { asProblems, Refused, type Schema } from '../api/client'
import { Button } from '../ui/Button'
import { Problems } from '../ui/Problems'
import { count, number } from '../ui/text'
import { FolderDialog } from './FolderDialog'
import { Matches } from './Matches'
import { type NamedPlaces, PlaceFields } from './PlaceFields'
import { plainDefinition } from './plain'
import { useLook, useMakeWorkspace, usePropose } from './queries'

/**
 * Naming a folder, looking at it, and making it a workspace.
 *
 * @param chosen a folder to begin with; it is looked at at once
 */
export function NewWorkspace({ chosen }: { chosen: string }) {
  const [folder, setFolder] = useState(chosen)
  const [choosing, setChoosing] = useState(false)
  const [definition, setDefinition] = useState<string | null>(null)
  const [asFound, setAsFound] = useState(false)
  const [named, setNamed] = useState<NamedPlaces>({})
  const [progress, setProgress] = useState<Schema['Job'] | null>(null)
  const look = useLook()
  const make = useMakeWorkspace(setProgress)
  const propose = usePropose()
  const go = useNavigate()
  const ids = { folder: useId(), definition: useId() }
  const body = { folder, definition: definition ?? undefined }
  const { mutate: lookAt } = look
  // whoever writes a definition sees what it matches, once the hands rest
  useEffect(() => {
    if (definition === null || !folder.trim()) return
    const rests = setTimeout(() => lookAt({ folder, definition }), 400)
    return () => clearTimeout(rests)
  }, [folder, definition, lookAt])
  useEffect(() => {
    if (chosen) lookAt({ folder: chosen })
  }, [chosen, lookAt])
  const missing = look.error instanceof Refused && look.error.code === 'definition-missing'
  const found = look.data
  const problems = make.error ?? (missing && definition !== null ? null : look.error)

  const submit = (e: FormEvent) => {
    e.preventDefault()
    make.reset()
    look.mutate(body)
  }
  const describe = () =>
    propose.mutate(folder, {
      onSettled: (p) => {
        setDefinition(p?.definition ?? plainDefinition(folder))
        look.reset()
      },
    })
  const create = () => {
    setProgress(null)
    make.mutate(
      { ...body, places: named, asFound: asFound || undefined },
      { onSuccess: (id) => go(`/workspaces/${id}`) },
    )
  }
  return (
    <section className="card flex flex-col gap-3 px-5 py-4">
      <div>
        <h2>New workspace</h2>
        <p className="text-ink-2">Ironing looks at the folder first and says what it found.</p>
      </div>
      <form onSubmit={submit} className="flex flex-col gap-3">
        <label htmlFor={ids.folder} className="flex flex-col gap-1 font-medium">
          Folder of the game, as a full path on this machine
          <input
            id={ids.folder}
            value={folder}
            onChange={(e) => {
              setFolder(e.target.value)
              look.reset()
              make.reset()
            }}
            placeholder="/home/me/games/the-game"
            spellCheck={false}
            className="mono h-9 rounded-[7px] border border-line-2 bg-card px-2.5"
          />
        </label>
        {choosing && (
          <FolderDialog
            start={folder.trim()}
            onClose={() => setChoosing(false)}
            onChoose={(chosen) => {
              setFolder(chosen)
              setChoosing(false)
              make.reset()
              look.mutate({ folder: chosen, definition: definition ?? undefined })
            }}
          />
        )}
        {definition !== null && (
          <label htmlFor={ids.definition} className="flex flex-col gap-1 font-medium">
            Definition of the game (game.yaml)
            {propose.data && <Guesses guesses={propose.data.guesses} />}
            <textarea
              id={ids.definition}
              value={definition}
              onChange={(e) => setDefinition(e.target.value)}
              rows={propose.data?.definition ? 18 : 9}
              spellCheck={false}
              className="mono rounded-[7px] border border-line-2 bg-card px-2.5 py-2 leading-relaxed"
            />
          </label>
        )}
        <div className="flex flex-wrap items-center gap-2">
          <Button onClick={() => setChoosing(true)}>
            <FolderOpen size={15} aria-hidden="true" /> Choose a folder
          </Button>
          <Button type="submit" look={found ? 'plain' : 'strong'} disabled={!folder.trim() || look.isPending}>
            <FolderSearch size={15} aria-hidden="true" /> Look at it
          </Button>
          {definition === null && folder.trim() !== '' && (
            <Button look="quiet" onClick={describe} disabled={propose.isPending}>
              Describe the game here
            </Button>
          )}
        </div>
      </form>
      {problems && <Problems problems={asProblems(problems)} />}
      {missing && definition === null && (
        <p className="text-ink-2">
          A folder of plain files needs only a few lines.{' '}
          <button type="button" onClick={describe} className="font-medium min-h-6 text-woad underline">
            Start with those
          </button>
        </p>
      )}
      {found && (
        <div className="flex flex-col gap-2.5 rounded-lg border border-line bg-paper px-3.5 py-3">
          <p>
            <b className="font-semibold">{found.title}</b>
            {found.version && `, version ${found.version}`}.{' '}
            {found.itsOwn ? 'It brings its own definition.' : 'Described as above.'}
          </p>
          <p className="mono break-all text-ink-2">{found.folder}</p>
          {found.warnings.map((w) => (
            <p key={w.thing + w.reason} className="text-ochre">
              {w.thing}: {w.reason} {w.remedy}
            </p>
          ))}
          {found.manifest && <ByManifest manifest={found.manifest} asFound={asFound} onChange={setAsFound} />}
          <PlaceFields places={found.places} named={named} onName={setNamed} />
          <Matches matches={found.matches} open={definition !== null} />
          {found.workspace !== undefined ? (
            <Link to={`/workspaces/${found.workspace}`} className="font-medium text-woad underline">
              It has a workspace already: open it
            </Link>
          ) : (
            <div className="flex items-center gap-3">
              <Button look="strong" onClick={create} disabled={make.isPending}>
                Make a workspace of it
              </Button>
              {make.isPending && (
                <span role="status" className="num text-ink-2">
                  Reading the unmodded game
                  {progress &&
                    progress.total > 0 &&
                    `: ${number(progress.done)} of ${number(progress.total)} files`}
                </span>
              )}
            </div>
          )}
        </div>
      )}
    </section>
  )
}

/** What a proposed definition was made of. */
function Guesses({ guesses }: { guesses: readonly Schema['GuessView'][] }) {
  if (guesses.length === 0) return null
  return (
    <section aria-label="By what this was proposed" className="font-normal text-[12px] text-ink-2">
      <p>Proposed by what lies in the folder. Correct what it got wrong; below stands what it matches.</p>
      <ul className="mt-1 flex max-h-36 list-disc flex-col gap-0.5 overflow-y-auto pl-4">
        {guesses.map((g) => (
          <li key={g.what}>
            <b className="font-medium text-ink">{g.what}</b>: {g.evidence}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** What a folder is by the game’s manifest, and what is to become of what it does not name. */
function ByManifest({
  manifest: m,
  asFound,
  onChange,
}: {
  manifest: Schema['ManifestView']
  asFound: boolean
  onChange: (asFound: boolean) => void
}) {
  const name = useId()
  return (
    <section aria-label="By the game’s manifest" className="border-line border-t pt-2">
      <h3 className="mb-1">By the game’s manifest</h3>
      <p className="text-ink-2">
        It names {count(m.named, 'file')}.{' '}
        {m.missingInAll > 0 &&
          `${number(m.missingInAll)} of them ${m.missingInAll === 1 ? 'is' : 'are'} missing, such as ${m.missing[0]}. `}
        {m.besideInAll === 0
          ? 'Nothing else lies there: the folder is not modded.'
          : `${count(m.besideInAll, 'file')} more ${m.besideInAll === 1 ? 'lies' : 'lie'} there: somebody has modded it by hand.`}
      </p>
      {m.besideInAll > 0 && (
        <>
          <ul className="mt-1 max-h-32 overflow-y-auto">
            {m.beside.map((path) => (
              <li key={path} className="mono truncate" title={path}>
                {path}
              </li>
            ))}
            {m.besideInAll > m.beside.length && (
              <li className="text-ink-2">and {number(m.besideInAll - m.beside.length)} more</li>
            )}
          </ul>
          <fieldset className="mt-1.5 flex flex-col gap-1">
            <legend className="sr-only">What is to become of them</legend>
            {[
              { value: false, says: 'Keep them apart: they can be taken into a mod' },
              { value: true, says: 'Count them as the game’s: undeploying leaves them there' },
            ].map((o) => (
              <label key={o.says} className="flex items-baseline gap-2">
                <input
                  type="radio"
                  name={name}
                  checked={asFound === o.value}
                  onChange={() => onChange(o.value)}
                  className="translate-y-[1px] accent-(--woad)"
                />
                {o.says}
              </label>
            ))}
          </fieldset>
        </>
      )}
    </section>
  )
}
