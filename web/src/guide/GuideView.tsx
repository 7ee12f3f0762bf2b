import clsx from 'clsx'
import { useMemo } from 'react'
import { Link, useParams } from 'react-router'
import text from '../../../docs/guide.md?raw'
import { NothingHere } from '../frame/NothingHere'
import { useWorkspace } from '../frame/workspace'
import Markdown from '../ui/Markdown'
import { Screen } from '../ui/Screen'
import { partsOf } from './parts'

/** The guide, part by part. */
export function GuideView() {
  const workspace = useWorkspace()
  const parts = useMemo(() => partsOf(text), [])
  const { part: wanted } = useParams()
  const part = wanted ? parts.find((p) => p.id === wanted) : parts[0]
  if (!part) return <NothingHere what={`A part “${wanted}” of the guide`} />
  return (
    <Screen title={part.title} name={`${part.title} · Guide`} says="The guide">
      <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-col">
        <nav
          aria-label="Parts of the guide"
          className="card w-[200px] shrink-0 overflow-y-auto py-2 max-lg:w-full"
        >
          <ul>
            {parts.map((p) => (
              <li key={p.id}>
                <Link
                  to={`/workspaces/${workspace}/guide/${p.id}`}
                  aria-current={p.id === part.id ? 'page' : undefined}
                  className={clsx(
                    'block px-3 py-1 -outline-offset-2',
                    p.id === part.id ? 'bg-woad-soft font-semibold' : 'hover:bg-sunk',
                  )}
                >
                  {p.title}
                </Link>
              </li>
            ))}
          </ul>
        </nav>
        <section
          tabIndex={0}
          aria-label={part.title}
          className="card min-w-0 flex-1 overflow-y-auto px-6 py-4"
        >
          <div className="max-w-[760px]">
            <Markdown text={part.text} />
          </div>
        </section>
      </div>
    </Screen>
  )
}
