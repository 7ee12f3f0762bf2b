import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { PathText } from '../ui/PathText'
import { count, number } from '../ui/text'

type RunDetail = Schema['RunDetail']

const KINDS: Record<Schema['ReadFile']['kind'], string> = {
  COME: 'read for the first time',
  GONE: 'not read any more',
  OTHER: 'with other content',
}

/** For each mod and plugin what the game read of it, and what it read otherwise than the run before. */
export function WhatItRead({ workspace, run }: { workspace: number; run: RunDetail }) {
  const moved = run.plugins.filter((p) => run.comparedWith !== undefined && p.slot !== p.before)
  return (
    <div className="mt-1.5 flex flex-col gap-1">
      {run.comparedWith !== undefined && (
        <details>
          <summary className="cursor-pointer text-ink-2">
            {run.otherwise === 0 && moved.length === 0
              ? 'It read the same files and plugins as the run before'
              : `It read ${count(run.otherwise, 'file')} and ${count(moved.length, 'plugin')} otherwise than the run before`}
          </summary>
          <ul aria-label="Read otherwise" className="mt-1">
            {moved.map((p) => (
              <li key={p.name} className="flex justify-between gap-3 py-0.5">
                <span className="truncate">{p.name}</span>
                <span className="whitespace-nowrap text-ink-2">{slotWords(p)}</span>
              </li>
            ))}
            {run.files.map((f) => (
              <li key={f.path} className="flex justify-between gap-3 py-0.5">
                <PathText path={f.path} />
                <span className="whitespace-nowrap text-ink-2">{KINDS[f.kind]}</span>
              </li>
            ))}
            {run.otherwise > run.files.length && (
              <li className="text-ink-2">and {count(run.otherwise - run.files.length, 'file')} more</li>
            )}
          </ul>
        </details>
      )}
      <details>
        <summary className="cursor-pointer text-ink-2">
          What it read of {count(run.mods.length, 'mod')} and {count(run.plugins.length, 'plugin')}
        </summary>
        <ul aria-label="Read of each mod" className="mt-1 grid gap-x-8 xl:grid-cols-2">
          {run.mods.map((m) => (
            <li key={m.mod} className="flex justify-between gap-3 border-line border-b border-dotted py-0.5">
              <Link to={`/workspaces/${workspace}/layers/${m.mod}`} className="truncate hover:underline">
                {m.name}
              </Link>
              <span className="num whitespace-nowrap text-ink-2">
                {m.read === 0 ? 'nothing' : `${number(m.read)} of ${count(m.files, 'file')}`}
              </span>
            </li>
          ))}
        </ul>
        <ol aria-label="Plugins as it read them" className="mt-1.5 grid gap-x-8 xl:grid-cols-2">
          {run.plugins
            .filter((p) => p.slot !== undefined)
            .map((p) => (
              <li
                key={p.name}
                className="flex justify-between gap-3 border-line border-b border-dotted py-0.5"
              >
                <span className="truncate">{p.name}</span>
                <span className="num whitespace-nowrap text-ink-2">slot {p.slot}</span>
              </li>
            ))}
        </ol>
      </details>
    </div>
  )
}

function slotWords(p: Schema['ReadPlugin']): string {
  if (p.slot === undefined) return 'not read any more'
  return p.before === undefined ? `slot ${p.slot}, new` : `slot ${p.before} before, ${p.slot} now`
}
