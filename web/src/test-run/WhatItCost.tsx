import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { bytes, list, timeWords, when } from '../ui/text'
import { useCosts } from './queries'

type Cost = Schema['RunCost']

/** What a run has cost, beside the runs before and what was switched between them. */
export function WhatItCost({ workspace, run }: { workspace: number; run: number }) {
  const costs = useCosts(workspace, run).data ?? []
  const [now] = costs
  if (!now) return null
  return (
    <details className="mt-2">
      <summary className="cursor-pointer">
        It took {costWords(now)}
        {costs.length > 1 && <span className="text-ink-2"> · beside the runs before</span>}
      </summary>
      <table className="mt-1 w-full">
        <thead>
          <tr className="text-left text-[11px] text-ink-3">
            <th className="font-normal">run</th>
            <th className="pl-4 text-right font-normal">loaded after</th>
            <th className="pl-4 text-right font-normal">in all</th>
            <th className="pl-4 text-right font-normal">memory</th>
            <th className="pl-6 font-normal">switched since the run before</th>
          </tr>
        </thead>
        <tbody>
          {costs.map((c) => (
            <tr key={c.run} className="border-line border-t align-baseline">
              <td className="whitespace-nowrap py-0.5">
                {c.run === run ? (
                  'this one'
                ) : (
                  <Link to={`/workspaces/${workspace}/test-run/${c.run}`} className="text-woad underline">
                    {when(c.startedAt)}
                  </Link>
                )}
                {!c.toItsEnd && <span className="text-madder"> stopped</span>}
              </td>
              <td className="num pl-4 text-right">
                {c.loadingMs === undefined ? '–' : timeWords(c.loadingMs)}
              </td>
              <td className="num pl-4 text-right">{timeWords(c.ms)}</td>
              <td className="num whitespace-nowrap pl-4 text-right">
                {c.peakBytes === undefined ? '–' : bytes(c.peakBytes)}
              </td>
              <td className="min-w-0 break-words pl-6">{switchedWords(c)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  )
}

function costWords(c: Cost): string {
  const loading = c.loadingMs === undefined ? '' : `, ${timeWords(c.loadingMs)} of it until it had loaded`
  const memory = c.peakBytes === undefined ? '' : `, and ${bytes(c.peakBytes)} of memory at most`
  return `${timeWords(c.ms)}${loading}${memory}`
}

const HOW: Record<Cost['switched'][number]['how'], string> = {
  ON: 'on',
  OFF: 'off',
  OTHER_VERSION: 'another version',
}

function switchedWords(c: Cost): string {
  const words = c.switched.map((s) => `${s.name} ${HOW[s.how]}`)
  if (c.others > 0) words.push(`${c.others} more`)
  return list(words)
}
