import { useQuery } from '@tanstack/react-query'
import { useId, useState } from 'react'
import { Link } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { of } from '../frame/workspace'
import { useLayers } from '../layers/queries'
import { differenceWords } from '../layers/sentence'
import { useArrange, useMod } from '../library/queries'
import { usePath } from '../overlaps/queries'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import type { Part, Search } from './queries'
import { partName } from './words'

type Header = { 'If-Match': string }

/**
 * Something that can be done about what was found.
 *
 * @param ask what it would change in the game, asked without doing it
 * @param act does it; gives the revision of after
 */
interface Way {
  label: string
  ask: () => Promise<Schema['DifferenceView']>
  act: (header: Header) => Promise<number | undefined>
}

/** All that can be done about a part that was found, each with what it would change. */
export function WhatToDo(props: { workspace: number; part: Part; level: Search['search']['level'] }) {
  const { workspace, part, level } = props
  const [open, setOpen] = useState(false)
  const close = () => setOpen(false)
  return (
    <>
      <Button
        className="h-6"
        aria-label={`What can be done about ${partName(part)}`}
        onClick={() => setOpen(true)}
      >
        What can be done
      </Button>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title={partName(part)}
        says="Each changes your arrangement only, and can be undone; the game sees it when you deploy."
      >
        {open && level === 'MODS' && <OfMod workspace={workspace} part={part} done={close} />}
        {open && level === 'ORDER' && <OfOrder workspace={workspace} part={part} done={close} />}
        {open && level === 'FILES' && <OfFile workspace={workspace} part={part} done={close} />}
        {open && (level === 'RECORDS' || level === 'FIELDS') && (
          <OfRecord workspace={workspace} part={part} />
        )}
      </Dialog>
    </>
  )
}

interface OfPart {
  workspace: number
  part: Part
  done: () => void
}

function OfMod({ workspace, part: p, done }: OfPart) {
  const mod = useMod(workspace, p.mod).data
  const others = mod?.versions.filter((v) => v.mod !== p.mod) ?? []
  return (
    <>
      <ul>
        <WayRow workspace={workspace} part={p} way={switchOff(workspace, p)} done={done} />
        {others.map((v) => (
          <WayRow key={v.mod} workspace={workspace} part={p} way={version(workspace, p, v)} done={done} />
        ))}
      </ul>
      <Elsewhere
        links={[
          { label: 'Versions in the catalogues', to: `/workspaces/${workspace}/catalogue/updates/${p.mod}` },
          { label: 'Its layer', to: `/workspaces/${workspace}/layers/${p.mod}` },
        ]}
      />
    </>
  )
}

function OfOrder({ workspace, part: p, done }: OfPart) {
  const layers = useLayers(workspace).data?.layers ?? []
  const above = layers.findIndex((l) => l.mod === p.above)
  if (above < 0) return null
  return (
    <>
      <ul>
        <WayRow workspace={workspace} part={p} way={turned(workspace, p, above, false)} done={done} />
        <WayRow workspace={workspace} part={p} way={turned(workspace, p, above, true)} done={done} />
      </ul>
      <Elsewhere links={[{ label: 'Layers', to: `/workspaces/${workspace}/layers/${p.mod}` }]} />
    </>
  )
}

function OfFile({ workspace, part: p, done }: OfPart) {
  const holders = usePath(workspace, p.path).data?.path.holders ?? []
  const others = holders.filter((h) => h.mod !== p.mod && !h.pack)
  return (
    <>
      <ul>
        <WayRow workspace={workspace} part={p} way={heldBack(workspace, p)} done={done} />
        {others.map((h) => (
          <WayRow key={h.mod} workspace={workspace} part={p} way={ruled(workspace, p, h)} done={done} />
        ))}
      </ul>
      <Elsewhere
        links={[
          {
            label: 'The path, with all who have it',
            to: `/workspaces/${workspace}/overlaps/path?at=${encodeURIComponent(p.path)}`,
          },
        ]}
      />
    </>
  )
}

function OfRecord({ workspace, part: p }: { workspace: number; part: Part }) {
  const at = p.record.lastIndexOf('/')
  return (
    <>
      <p>
        Decide whose fields count in this record; a patch then holds the outcome. What that changes stands
        there before it is built.
      </p>
      <Elsewhere
        links={[
          {
            label: 'Decide it in the record',
            to: `/workspaces/${workspace}/records/${encodeURIComponent(p.record.slice(0, at))}/${p.record.slice(at + 1)}`,
          },
          { label: 'Build the patch', to: `/workspaces/${workspace}/mends` },
        ]}
      />
    </>
  )
}

function Elsewhere({ links }: { links: readonly { label: string; to: string }[] }) {
  return (
    <p className="mt-2 flex flex-wrap gap-x-4 border-line border-t pt-2">
      {links.map((l) => (
        <Link key={l.to} to={l.to} className="inline-flex min-h-6 items-center text-woad underline">
          {l.label}
        </Link>
      ))}
    </p>
  )
}

/** A way with what it would change beside, and the button that goes it. */
function WayRow({ workspace, part: p, way, done }: OfPart & { way: Way }) {
  const says = useId()
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const ahead = useQuery({
    queryKey: of(workspace, 'way', p.mod, p.path, way.label),
    gcTime: 0,
    retry: false,
    queryFn: way.ask,
  })
  const go = useArrange(
    workspace,
    (_: undefined, header) => way.act(header),
    (revision) => revision,
    () => {
      done()
      say(`${way.label}: done; deploy to play so.`, { label: 'Undo', run: undo })
    },
  )
  return (
    <li className="flex items-baseline gap-3 border-line border-t py-2 first:border-t-0">
      <div className="min-w-0 flex-1">
        <p className="break-words font-medium">{way.label}</p>
        <p id={says} role="status" className="break-words text-ink-2">
          {ahead.data
            ? differenceWords(ahead.data, 'would')
            : ahead.isError
              ? ahead.error.message
              : 'Looking what that would change …'}
        </p>
      </div>
      <Button
        disabled={go.isPending || ahead.isError}
        aria-label={way.label}
        aria-describedby={says}
        onClick={() => go.mutate(undefined)}
      >
        Do it
      </Button>
    </li>
  )
}

function switchOff(workspace: number, p: Part): Way {
  const path = { workspace }
  const body = { mods: [p.mod], on: false }
  const address = '/api/workspaces/{workspace}/layers/switch'
  return {
    label: `Switch off ${p.modName}`,
    ask: () => got(api.POST(address, { params: { path, query: { dryRun: true } }, body })),
    act: async (header) => (await got(api.POST(address, { params: { path, header }, body }))).revision,
  }
}

function version(workspace: number, p: Part, v: Schema['VersionView']): Way {
  return {
    label: `Use version ${v.version || 'that has no number'} instead`,
    ask: async () => {
      const compared = await got(
        api.GET('/api/workspaces/{workspace}/mods/{mod}/compare', {
          params: { path: { workspace, mod: p.mod }, query: { with: v.mod } },
        }),
      )
      if (!compared.game) throw new Error('It is not in use, so nothing in the game would change.')
      return compared.game
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
function turned(workspace: number, p: Part, above: number, byRule: boolean): Way {
  const path = { workspace }
  const body = { mods: [p.mod], to: above + 1 }
  const address = '/api/workspaces/{workspace}/layers/move'
  return {
    label: byRule ? `A rule: ${p.modName} above ${p.aboveName}` : `Put ${p.modName} above ${p.aboveName}`,
    ask: () => got(api.POST(address, { params: { path, query: { dryRun: true } }, body })),
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

function heldBack(workspace: number, p: Part): Way {
  const path = { workspace, mod: p.mod }
  const body = { paths: [p.path], hold: true }
  const address = '/api/workspaces/{workspace}/mods/{mod}/held-back'
  return {
    label: `Hold it back from ${p.modName}`,
    ask: () => got(api.POST(address, { params: { path, query: { dryRun: true } }, body })),
    act: async (header) => (await got(api.POST(address, { params: { path, header }, body }))).revision,
  }
}

function ruled(workspace: number, p: Part, h: Schema['Holder']): Way {
  const path = { workspace }
  const body = { rulings: [{ at: p.path, mod: h.mod }] }
  const address = '/api/workspaces/{workspace}/rulings'
  return {
    label: `A ruling: take it from ${h.name}`,
    ask: () => got(api.PUT(address, { params: { path, query: { dryRun: true } }, body })),
    act: async (header) => (await got(api.PUT(address, { params: { path, header }, body }))).revision,
  }
}
