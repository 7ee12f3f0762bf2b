import type { Schema } from '../api/client'

export type Wish = Schema['WantedModRequest']
export type Statement = Schema['StatementView']

/** What is chosen, as the address says it. */
export interface Wanted {
  wishes: readonly Wish[]
  /** All that is on is to get what it needs. */
  missing?: boolean
  givenUp?: readonly Statement[]
}

export function wishOf(mod: string): Wish {
  return { mod }
}

/** A wish as one word: the mod, then `~` and its variant, or `@` and the very release. */
function written(w: Wish): string {
  if (w.release !== undefined) return `${w.mod}@${w.release}`
  return w.variant === undefined ? w.mod : `${w.mod}~${w.variant}`
}

function read(word: string): Wish {
  const at = word.search(/[@~]/)
  if (at < 0) return { mod: word }
  const mod = word.slice(0, at)
  const rest = word.slice(at + 1)
  return word[at] === '@' ? { mod, release: rest } : { mod, variant: rest }
}

/** The address of the screen that shows what a choice brings with it. */
export function choiceAddress(workspace: number, wanted: Wanted): string {
  return `/workspaces/${workspace}/catalogue/choice?${printed(wanted)}`
}

/** What stands in that address behind its question mark. */
export function printed({ wishes, missing, givenUp }: Wanted): string {
  const query = new URLSearchParams()
  for (const w of wishes) query.append('want', written(w))
  if (missing) query.set('missing', '')
  for (const s of givenUp ?? []) query.append('without', JSON.stringify(bare(s)))
  return query.toString()
}

/** Without its words, which the server finds again. */
function bare({ kind, owner, target, versions, variant }: Statement): Statement {
  return { kind, owner, target, versions, ...(variant === undefined ? {} : { variant }) }
}

/** The other way round; what is no statement is left out. */
export function wanted(query: URLSearchParams): Wanted {
  return {
    wishes: query.getAll('want').filter(Boolean).map(read),
    missing: query.has('missing'),
    givenUp: query.getAll('without').flatMap(statement),
  }
}

function statement(text: string): Statement[] {
  try {
    const s = JSON.parse(text) as Statement
    const whole = [s.kind, s.owner, s.target, s.versions].every((x) => typeof x === 'string')
    return whole ? [bare(s)] : []
  } catch {
    return []
  }
}

/** The same without some statements: a wish that is given up is no wish any more, all else need not hold. */
export function without(w: Wanted, way: readonly Statement[]): Wanted {
  const wishes = way.filter((s) => s.kind === 'WISH')
  const isGone = (x: Wish) =>
    wishes.some(
      (s) =>
        s.owner === x.mod && s.versions === (x.release ?? '') && (s.variant ?? null) === (x.variant ?? null),
    )
  return {
    ...w,
    wishes: w.wishes.filter((x) => !isGone(x)),
    givenUp: [...(w.givenUp ?? []), ...way.filter((s) => s.kind !== 'WISH')],
  }
}

/** The same with a statement that has to hold again. */
export function held(w: Wanted, statement: Statement): Wanted {
  const text = JSON.stringify(bare(statement))
  return { ...w, givenUp: (w.givenUp ?? []).filter((s) => JSON.stringify(bare(s)) !== text) }
}
