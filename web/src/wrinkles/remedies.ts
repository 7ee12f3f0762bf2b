import type { Schema } from '../api/client'
import { count } from '../ui/text'

type Wrinkle = Schema['Wrinkle']
type Fix = Schema['Fix']

/** Something with a name that an act is done to. */
interface Named {
  id: number
  name: string
}

/** One act that mends one wrinkle, or many that are mended alike. */
export type Remedy =
  | { kind: 'mods'; mods: readonly Named[]; on: boolean }
  | { kind: 'plugins'; names: readonly string[]; on: boolean }
  | { kind: 'rule'; fix: Fix }
  /** An order that keeps the rules, as something to look at. */
  | { kind: 'rules' }
  | { kind: 'proposal' }
  | { kind: 'patch' }
  | { kind: 'rebuild'; mods: readonly Named[] }
  | { kind: 'drop'; keys: readonly string[] }

/** What a remedy is worked out from: a wrinkle, or a trouble that is shown elsewhere. */
export type Mended = Pick<Wrinkle, 'mod' | 'other' | 'fix'>

/**
 * The one act that mends wrinkles whose fixes are of one kind; none where they have none.
 *
 * Of two mods that do not go together only one is switched off, though each is named as the remedy of the other.
 */
export function remedyOf(wrinkles: readonly Mended[]): Remedy | null {
  const fixes = wrinkles.flatMap((w) => w.fix ?? [])
  const [first] = fixes
  if (!first) return null
  switch (first.kind) {
    case 'SWITCH_MOD_ON':
      return { kind: 'mods', mods: named(fixes), on: true }
    case 'SWITCH_MOD_OFF':
      return { kind: 'mods', mods: named(fixesNeeded(wrinkles)), on: false }
    case 'SWITCH_PLUGIN_ON':
      return { kind: 'plugins', names: plugins(fixes), on: true }
    case 'SWITCH_PLUGIN_OFF':
      return { kind: 'plugins', names: plugins(fixesNeeded(wrinkles)), on: false }
    case 'MEND_RULE':
      return fixes.length === 1 ? { kind: 'rule', fix: first } : { kind: 'rules' }
    case 'TAKE_PROPOSAL':
      return { kind: 'proposal' }
    case 'BUILD_PATCH':
      return { kind: 'patch' }
    case 'REBUILD_MEND':
      return { kind: 'rebuild', mods: named(fixes) }
    case 'DROP_UNREADABLE':
      return { kind: 'drop', keys: [...new Set(fixes.map((f) => f.name))] }
  }
}

/** The fixes that switch something off, without those whose wrinkle one before them mends already. */
function fixesNeeded(wrinkles: readonly Mended[]): Fix[] {
  const off = new Set<number>()
  return wrinkles.flatMap((w) => {
    if (!w.fix) return []
    const target = w.fix.mod ?? w.mod
    const partner = target === w.mod ? w.other : w.mod
    if (partner !== undefined && off.has(partner)) return []
    if (target !== undefined) off.add(target)
    return [w.fix]
  })
}

function named(fixes: readonly Fix[]): Named[] {
  const by = new Map<number, string>()
  for (const f of fixes) if (f.mod !== undefined) by.set(f.mod, f.name)
  return [...by].map(([id, name]) => ({ id, name }))
}

function plugins(fixes: readonly Fix[]): string[] {
  return [...new Set(fixes.flatMap((f) => f.plugin ?? []))]
}

/** What the button of a remedy says. */
export function label(r: Remedy): string {
  switch (r.kind) {
    case 'mods':
      return `Switch ${said(
        r.mods.map((m) => m.name),
        'mod',
      )} ${r.on ? 'on' : 'off'}`
    case 'plugins':
      return `Switch ${said(r.names, 'plugin')} ${r.on ? 'on' : 'off'}`
    case 'rule':
      return `Move ${r.fix.name} there`
    case 'rules':
      return 'See an order that keeps them'
    case 'proposal':
      return 'See the proposal'
    case 'patch':
      return 'Put them into a patch'
    case 'rebuild':
      return r.mods.length === 1 ? 'Rebuild it' : `Rebuild ${count(r.mods.length, 'mend')}`
    case 'drop':
      return r.keys.length === 1 ? 'Go on without it' : `Go on without these ${r.keys.length}`
  }
}

function said(names: readonly string[], noun: string): string {
  return names.length === 1 ? (names[0] as string) : count(names.length, noun)
}

/** What a remedy does, for those whose effect on the game is not asked beforehand. */
export function about(r: Remedy): string | null {
  switch (r.kind) {
    case 'rules':
      return 'Shows an order of the layers that keeps the rules with the fewest moves; nothing changes until you take it.'
    case 'proposal':
      return 'Shows an order that keeps the rules; nothing changes until you take it.'
    case 'patch':
      return 'Rebuilds the patch from the records as they are; it becomes its own layer.'
    case 'drop':
      return 'What cannot be read is written down no more.'
    case 'rebuild':
      return 'Rebuilt from what the ingredients are now; your decisions stay.'
    default:
      return null
  }
}

/** The names of what a remedy of many is done to, for a preview. */
export function toWhom(r: Remedy): readonly string[] {
  switch (r.kind) {
    case 'mods':
    case 'rebuild':
      return r.mods.length > 1 ? r.mods.map((m) => m.name) : []
    case 'plugins':
      return r.names.length > 1 ? r.names : []
    default:
      return []
  }
}
