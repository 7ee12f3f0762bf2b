import type { Schema } from '../api/client'
import type { FaultRequest } from './queries'

type Run = Schema['RunDetail']

/** A fault that can be told from a run, with what to call it. */
export interface Offered {
  says: string
  fault: FaultRequest
}

/** What a run shows that may be what is wrong, the weightiest first. */
export function faultsOf(run: Run): Offered[] {
  const out: Offered[] = []
  const f = run.fault
  if (f?.code && f.code !== 'said') {
    out.push({
      says: `It stops: ${f.text}`,
      fault: {
        kind: 'STOPS',
        name: f.code,
        place: f.path || f.plugin,
        path: f.path,
        plugin: f.plugin,
        record: f.record,
      },
    })
  }
  if (f?.code === 'said') out.push({ says: `It says: ${f.text}`, fault: { kind: 'SAYS', name: f.text } })
  if (run.exitCode !== undefined && run.exitCode !== 0)
    out.push({
      says: `It ends with exit code ${run.exitCode}`,
      fault: { kind: 'EXITS', name: '', value: String(run.exitCode) },
    })
  const seen = new Set<string>()
  for (const w of run.warnings) {
    const key = `${w.code} ${w.path || w.plugin}`
    if (seen.has(key)) continue
    seen.add(key)
    out.push({
      says: `It warns: ${w.text}`,
      fault: {
        kind: 'WARNS',
        name: w.code,
        place: w.path || w.plugin,
        path: w.path,
        plugin: w.plugin,
        record: w.record,
      },
    })
  }
  return out
}

/** The record or file that a reported value came from, as far as its text says. */
export function sourceOf(from: string): Pick<FaultRequest, 'path' | 'record'> {
  const record = /^(\S.*\/\d+) as /.exec(from)?.[1]
  return record ? { record } : { path: from }
}
