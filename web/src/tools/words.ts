import type { Schema } from '../api/client'
import { duration, list, when } from '../ui/text'

type Tool = Schema['ToolView']

/** What a tool does, as a sentence. */
export function aboutTool(t: Tool): string {
  const reads = t.reads.length > 0 ? `Reads ${list(t.reads)}` : 'Is not said to read anything'
  const writes = t.writes.length > 0 ? `writes ${list(t.writes)}` : 'writes to a folder of its own only'
  return `${reads}; ${writes}.`
}

const STATES: Record<Schema['ToolRunLine']['state'], string> = {
  RUNNING: 'is running',
  DONE: 'ended well',
  FAILED: 'ended with a fault',
  STOPPED: 'was stopped',
}

/** How a run went, as a sentence. */
export function runWords(r: Schema['ToolRunLine']): string {
  const took = r.endedAt ? ` after ${duration(r.beganAt, r.endedAt)}` : ''
  const code = r.exitCode === undefined || r.exitCode === 0 ? '' : ` (exit code ${r.exitCode})`
  return `${when(r.beganAt)}: ${STATES[r.state]}${code}${took}.`
}

/** The lines of a text field; blank ones do not count. */
export function linesOf(text: string): string[] {
  return text
    .split('\n')
    .map((l) => l.trim())
    .filter((l) => l !== '')
}

/** Lines such as NAME=value, by name. What has no = is a name with nothing. */
export function variablesOf(text: string): Record<string, string> {
  const all: Record<string, string> = {}
  for (const line of linesOf(text)) {
    const at = line.indexOf('=')
    const name = at < 0 ? line : line.slice(0, at).trim()
    all[name] = at < 0 ? '' : line.slice(at + 1).trim()
  }
  return all
}

export function textOfVariables(variables: Record<string, string>): string {
  return Object.entries(variables)
    .map(([name, value]) => `${name}=${value}`)
    .join('\n')
}
