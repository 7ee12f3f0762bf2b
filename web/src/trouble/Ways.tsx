import { useQuery } from '@tanstack/react-query'
import { useId, useState } from 'react'
import { Link } from 'react-router'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { of } from '../frame/workspace'
import { useLayers } from '../layers/queries'
import { useArrange, useMod } from '../library/queries'
import { usePath } from '../overlaps/queries'
import { parts, recordPath } from '../records/keys'
import { useBoard } from '../records/queries'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Loading } from '../ui/States'
import { heldBack, ruled, switchOff, taken, turned, version, type Way } from './acts'
import type { Part, Search } from './queries'
import { partName } from './words'

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
        says="Each can be undone, a rule and a patch in two steps; the game sees it when you deploy."
      >
        {open && level === 'MODS' && <OfMod workspace={workspace} part={part} done={close} />}
        {open && level === 'ORDER' && <OfOrder workspace={workspace} part={part} done={close} />}
        {open && level === 'FILES' && <OfFile workspace={workspace} part={part} done={close} />}
        {open && (level === 'RECORDS' || level === 'FIELDS') && (
          <OfRecord workspace={workspace} part={part} level={level} done={close} />
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

function OfRecord({ workspace, part: p, level, done }: OfPart & { level: Search['search']['level'] }) {
  const { owner, id } = parts(p.record)
  const board = useBoard(workspace, owner, id)
  const others = board.data?.versions.filter((v) => v.mod !== p.mod && !v.patch) ?? []
  return (
    <>
      {board.isPending && <Loading what="the record" />}
      {board.data && (
        <ul>
          {others.map((v) => (
            <WayRow
              key={v.plugin}
              workspace={workspace}
              part={p}
              way={taken(workspace, p, level, board.data, v.plugin)}
              done={done}
            />
          ))}
        </ul>
      )}
      <Elsewhere
        links={[
          {
            label: 'Decide it in the record',
            to: recordPath(workspace, p.record),
          },
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
    queryKey: of(workspace, 'way', p.mod, p.path, p.record, way.label),
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
          {ahead.data ? ahead.data : ahead.isError ? ahead.error.message : 'Looking what that would change …'}
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
