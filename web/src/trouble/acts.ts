import { api, got, type Schema } from '../api/client'
import { finished } from '../frame/jobs'
import { differenceWords } from '../layers/sentence'
import { parts } from '../records/keys'
import { list } from '../ui/text'
import type { Part, Search } from './queries'

type Header = { 'If-Match': string }
type Board = Schema['Board']

/**
 * Something that can be done about what was found.
 *
 * @param ask what it would change in the game, in words, asked without doing it
 * @param act does it; gives the revision of after, where that is known
 */
export interface Way {
  label: string
  ask: () => Promise<string>
  act: (header: Header) => Promise<number | undefined>
}

async function said(difference: Promise<Schema['DifferenceView']>): Promise<string> {
  return differenceWords(await difference, 'would')
}

export function switchOff(workspace: number, p: Part): Way {
  const path = { workspace }
  const body = { mods: [p.mod], on: false }
  const address = '/api/workspaces/{workspace}/layers/switch'
  return {
    label: `Switch off ${p.modName}`,
    ask: () => said(got(api.POST(address, { params: { path, query: { dryRun: true } }, body }))),
    act: async (header) => (await got(api.POST(address, { params: { path, header }, body }))).revision,
  }
}

export function version(workspace: number, p: Part, v: Schema['VersionView']): Way {
  return {
    label: `Use version ${v.version || 'that has no number'} instead`,
    ask: async () => {
      const compared = await got(
        api.GET('/api/workspaces/{workspace}/mods/{mod}/compare', {
          params: { path: { workspace, mod: p.mod }, query: { with: v.mod } },
        }),
      )
      if (!compared.game) throw new Error('It is not in use, so nothing in the game would change.')
      return differenceWords(compared.game, 'would')
    },
    act: async (header) => {
      const { response, error } = await api.POST('/api/workspaces/{workspace}/mods/{mod}/use', {
        params: { path: { workspace, mod: v.mod }, query: { instead: p.mod }, header },
      })
      return got(
        Promise.resolve({
          data: Number(response.headers.get('ETag')?.replaceAll('"', '')),
          error,
          response,
        }),
      )
    },
  }
}

/** The lower of two above the other one: at once, or also for good, by a rule. */
export function turned(workspace: number, p: Part, above: number, byRule: boolean): Way {
  const path = { workspace }
  const body = { mods: [p.mod], to: above + 1 }
  const address = '/api/workspaces/{workspace}/layers/move'
  return {
    label: byRule ? `A rule: ${p.modName} above ${p.aboveName}` : `Put ${p.modName} above ${p.aboveName}`,
    ask: () => said(got(api.POST(address, { params: { path, query: { dryRun: true } }, body }))),
    act: async (header) => {
      const moved = await got(api.POST(address, { params: { path, header }, body }))
      if (!byRule) return moved.revision
      const rule = { kind: 'ABOVE' as const, mod: p.mod, other: p.above }
      return (
        await got(
          api.POST('/api/workspaces/{workspace}/layers/rules', {
            params: { path, header: { 'If-Match': `"${moved.revision}"` } },
            body: rule,
          }),
        )
      ).revision
    },
  }
}

export function heldBack(workspace: number, p: Part): Way {
  const path = { workspace, mod: p.mod }
  const body = { paths: [p.path], hold: true }
  const address = '/api/workspaces/{workspace}/mods/{mod}/held-back'
  return {
    label: `Hold it back from ${p.modName}`,
    ask: () => said(got(api.POST(address, { params: { path, query: { dryRun: true } }, body }))),
    act: async (header) => (await got(api.POST(address, { params: { path, header }, body }))).revision,
  }
}

export function ruled(workspace: number, p: Part, h: Schema['Holder']): Way {
  const path = { workspace }
  const body = { rulings: [{ at: p.path, mod: h.mod }] }
  const address = '/api/workspaces/{workspace}/rulings'
  return {
    label: `A ruling: take it from ${h.name}`,
    ask: () => said(got(api.PUT(address, { params: { path, query: { dryRun: true } }, body }))),
    act: async (header) => (await got(api.PUT(address, { params: { path, header }, body }))).revision,
  }
}

/** A record, or one field of it, as another plugin has it, held by a patch. */
export function taken(
  workspace: number,
  p: Part,
  level: Search['search']['level'],
  board: Board,
  plugin: string,
): Way {
  const path = { workspace }
  return {
    label:
      level === 'FIELDS'
        ? `A patch: ${p.field} as ${plugin} has it`
        : `A patch: the record as ${plugin} has it`,
    ask: async () => takenWords(board, plugin, level === 'FIELDS' ? p.field : undefined),
    act: async (header) => {
      if (level === 'FIELDS')
        await got(
          api.PUT('/api/workspaces/{workspace}/records/{owner}/{id}/decisions', {
            params: { path: { workspace, ...parts(p.record) }, header },
            body: { place: p.field, decision: { take: plugin } },
          }),
        )
      else
        await got(
          api.POST('/api/workspaces/{workspace}/records/bring', {
            params: { path, header },
            body: { plugin, keys: [p.record], withReferences: false },
          }),
        )
      await finished(got(api.POST('/api/workspaces/{workspace}/mends/patch', { params: { path } })))
      // the patch has changed the arrangement once more
      return undefined
    },
  }
}

const FIELDS_SAID = 4

/** What the game would read otherwise where it took a plugin's version: all places, or one of them. */
export function takenWords(board: Board, plugin: string, place?: string): string {
  const words: string[] = []
  for (const p of board.places) {
    if (place !== undefined && p.place !== place) continue
    const its = p.changes.find((c) => c.plugin === plugin)?.value ?? p.before
    if (its.text === p.used.text && its.there === p.used.there) continue
    words.push(
      `${p.title} ${its.there ? its.text : 'not there'} instead of ${p.used.there ? p.used.text : 'nothing'}`,
    )
  }
  if (words.length === 0) return 'The game would read the same.'
  const more = words.length - FIELDS_SAID
  const told = words.slice(0, FIELDS_SAID)
  if (more > 0) told.push(`${more} more`)
  return `The game would read ${list(told)}.`
}
