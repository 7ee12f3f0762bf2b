import createClient from 'openapi-fetch'
import type { components, paths } from './schema.gen'

/** The shapes of the API by their names in /api/openapi.json. */
export type Schema = components['schemas']

export const api = createClient<paths>({ baseUrl: '/' })

/** One thing that is wrong, in words: the thing, the reason, the remedy. */
export interface Problem {
  code: string
  thing: string
  reason: string
  remedy: string
}

/** What the server refused, with every problem that it named. */
export class Refused extends Error {
  readonly status: number
  readonly problems: readonly Problem[]

  constructor(status: number, problems: readonly Problem[]) {
    super(problems.map((p) => `${p.thing}: ${p.reason} ${p.remedy}`).join('\n'))
    this.status = status
    this.problems = problems
  }

  get code(): string {
    return this.problems[0]?.code ?? 'internal'
  }
}

const UNREACHABLE: Problem = {
  code: 'unreachable',
  thing: 'The server',
  reason: 'It does not answer.',
  remedy: 'See whether ./ironing still runs, then try again.',
}

/** Problem details (RFC 9457) as problems; whatever else came back, as one. */
export function problemsOf(status: number, body: unknown): Problem[] {
  const detail = body as { title?: string; detail?: string; code?: string; problems?: Problem[] } | null
  if (detail?.problems?.length) return detail.problems
  return [
    {
      code: detail?.code ?? 'internal',
      thing: detail?.title ?? 'The server',
      reason: detail?.detail ?? `It answered with ${status} and nothing else: something went wrong in it.`,
      remedy: detail?.detail
        ? ''
        : 'Try again. If it stays so, start ./ironing again; what it prints says more.',
    },
  ]
}

/**
 * The body of an answer.
 *
 * @throws Refused when it is a refusal, or when no answer came
 */
export async function got<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let settled: { data?: T; error?: unknown; response: Response }
  try {
    settled = await answer
  } catch {
    throw new Refused(0, [UNREACHABLE])
  }
  if (settled.response.ok) return settled.data as T
  throw new Refused(settled.response.status, problemsOf(settled.response.status, settled.error))
}

/** Any failure as problems to show. */
export function asProblems(e: unknown): readonly Problem[] {
  if (e instanceof Refused) return e.problems
  return [{ code: 'internal', thing: 'The page', reason: String(e), remedy: 'Load it again.' }]
}

/** The header that says which revision a change is made of. */
export function ifMatch(revision: number): { 'If-Match': string } {
  return { 'If-Match': `"${revision}"` }
}
