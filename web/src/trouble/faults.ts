import type { Schema } from '../api/client'
import type { FaultRequest } from './queries'

type Sign = Schema['SignView']

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

/** That a mod does not show a sign of its own: what keeps it from showing is searched for, with the mod on. */
export function missingSign(mod: number, sign: Sign): Offered {
  const says = `A sign is missing: ${sign.says}`
  if (sign.kind === 'REPORT')
    return {
      says,
      fault: {
        kind: 'REPORTS_NOT',
        name: sign.what,
        value: sign.is ?? '',
        about: mod,
      },
    }
  if (sign.kind === 'READ' && sign.path)
    return { says, fault: { kind: 'NOT_READ', name: sign.path, path: sign.path, about: mod } }
  return { says, fault: { kind: 'WORDS', name: `Missing: ${sign.says}`, about: mod } }
}

/** Where a fault is searched for that somebody else has named. */
export function troubleAddress(workspace: number, offered: Offered): string {
  return `/workspaces/${workspace}/trouble?${new URLSearchParams({ named: JSON.stringify(offered) })}`
}

/** The fault that an address names; nothing where it names none. */
export function namedIn(params: URLSearchParams): Offered | undefined {
  try {
    const named = JSON.parse(params.get('named') ?? 'null')
    return typeof named?.says === 'string' && typeof named.fault?.kind === 'string' ? named : undefined
  } catch {
    return undefined
  }
}
