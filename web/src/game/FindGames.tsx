import { Search } from 'lucide-react'
import { type FormEvent, useState } from 'react'
import { Link } from 'react-router'
import { asProblems } from '../api/client'
import { Button } from '../ui/Button'
import { Problems } from '../ui/Problems'
import { count, number } from '../ui/text'
import { useFindGames } from './queries'

const LAST = 'games below'

/** Looks for games below a folder that the user names. */
export function FindGames({ onChoose }: { onChoose: (folder: string) => void }) {
  const [below, setBelow] = useState(() => localStorage.getItem(LAST) ?? '')
  const find = useFindGames()
  const found = find.data
  const submit = (e: FormEvent) => {
    e.preventDefault()
    localStorage.setItem(LAST, below.trim())
    find.mutate(below.trim())
  }
  return (
    <section className="card flex flex-col gap-2.5 px-5 py-4">
      <div>
        <h2>Which games are there?</h2>
        <p className="text-ink-2">
          Name a folder that has games in it, such as that of your drive for games. It is only read.
        </p>
      </div>
      <form onSubmit={submit} className="flex gap-2">
        <input
          value={below}
          onChange={(e) => setBelow(e.target.value)}
          aria-label="Folder in which to look for games, as a full path"
          placeholder="/home/me/games"
          spellCheck={false}
          className="mono h-9 min-w-0 flex-1 rounded-[7px] border border-line-2 bg-card px-2.5"
        />
        <Button type="submit" className="h-9" disabled={!below.trim() || find.isPending}>
          <Search size={15} aria-hidden="true" /> {find.isPending ? 'Looking …' : 'Look for games'}
        </Button>
      </form>
      {find.isError && <Problems problems={asProblems(find.error)} />}
      {found && (
        <div role="status">
          {found.games.length === 0 ? (
            <p className="text-ink-2">
              {number(found.folders)} folders were looked into, and none says what game it is. Name the folder
              of the game itself below, and describe the game in a few lines.
            </p>
          ) : (
            <ul aria-label="Games that were found" className="rounded-lg border border-line">
              {found.games.map((g) => (
                <li
                  key={g.path}
                  className="flex items-center gap-3 border-line border-b px-3 py-2 last:border-b-0"
                >
                  <span className="min-w-0 flex-1">
                    <b className="block truncate font-semibold">{g.title}</b>
                    <span className="mono block truncate text-ink-3" title={g.path}>
                      {g.path}
                    </span>
                  </span>
                  {g.workspace === undefined ? (
                    <Button onClick={() => onChoose(g.path)}>Look at it</Button>
                  ) : (
                    <Link to={`/workspaces/${g.workspace}`} className="text-woad underline">
                      Open its workspace
                    </Link>
                  )}
                </li>
              ))}
            </ul>
          )}
          {!found.whole && (
            <p className="mt-1.5 text-ochre">
              There was not time for all: {count(found.folders, 'folder')} were looked into. Name one nearer
              to the game.
            </p>
          )}
        </div>
      )}
    </section>
  )
}
