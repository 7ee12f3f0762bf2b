import { choiceAddress } from '../choice/wanted'
import { ButtonLink } from '../ui/ButtonLink'
import { list } from '../ui/text'
import type { Bridge } from './queries'
import { bridgeWords } from './words'

/** Bridges that are called for, have lost a side, or wait for one. */
export function Bridges({ workspace, bridges }: { workspace: number; bridges: readonly Bridge[] }) {
  return (
    <section aria-label="Bridges" className="card max-h-44 shrink-0 overflow-y-auto px-4 py-3">
      <h2>Bridges</h2>
      <ul>
        {bridges.map((b) => (
          <li key={b.mod} className="flex items-baseline gap-3 border-line border-t py-1 first:border-t-0">
            <span className="min-w-0 flex-1 break-words">
              <b className="font-medium">{b.name}</b>{' '}
              <span className="text-ink-2">
                between{' '}
                {list(b.sides.map((s) => (s.met ? s.name : `${s.name}${range(s.versions)} (not on)`)))};{' '}
                {bridgeWords(b)}
              </span>
            </span>
            {b.state === 'CALLED_FOR' && (
              <ButtonLink to={choiceAddress(workspace, { wishes: [{ mod: b.mod }] })}>
                See what it brings with it
              </ButtonLink>
            )}
            {b.state === 'LOST_SIDE' && b.here !== undefined && (
              <ButtonLink to={`/workspaces/${workspace}/layers/${b.here}`}>Show its layer</ButtonLink>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

function range(versions: string): string {
  return versions === '*' ? '' : ` ${versions}`
}
