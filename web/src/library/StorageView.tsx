import { Trash2 } from 'lucide-react'
import { type FormEvent, useState } from 'react'
import { Link } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { bytes, count, when } from '../ui/text'
import { FolderField } from './FolderField'
import { useAct, useBin, useLibrary, useStorage } from './queries'
import { SpaceMap } from './SpaceMap'

type Use = Schema['Use']

const PARTS: readonly {
  key: 'archives' | 'mods' | 'unpacked' | 'kept' | 'bin'
  label: string
  about: string
  way: string
}[] = [
  { key: 'archives', label: 'Archives', about: 'as they came, for installing again', way: 'bg-woad' },
  {
    key: 'mods',
    label: 'Mods',
    about: 'unpacked; deployed files are links to these where possible',
    way: 'bg-[var(--bar-light)]',
  },
  {
    key: 'unpacked',
    label: 'Being decided',
    about: 'archives of the inbox, unpacked until they are installed',
    way: 'bg-ochre',
  },
  {
    key: 'kept',
    label: 'Kept originals',
    about: 'the game’s own files that deployed ones stand in for',
    way: 'bg-line-2',
  },
  { key: 'bin', label: 'Bin', about: 'removed, and not gone yet', way: 'bg-ink-3' },
]

/** What the library takes of the drive, where it lies, and the bin. */
export function StorageView() {
  const workspace = useWorkspace()
  const storage = useStorage(workspace)
  const bin = useBin(workspace)
  const mods = useLibrary(workspace).data?.mods ?? []
  return (
    <Screen
      title="Storage"
      actions={
        <Link to={`/workspaces/${workspace}/library`} className="text-woad underline">
          Library
        </Link>
      }
    >
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(0,1fr)] items-start gap-3 overflow-y-auto max-lg:grid-cols-1">
        {storage.isPending ? (
          <Loading what="what is used" />
        ) : storage.isError ? (
          <Failed error={storage.error} retry={() => storage.refetch()} />
        ) : (
          <Used workspace={workspace} use={storage.data} />
        )}
        {bin.isPending ? (
          <Loading what="the bin" />
        ) : bin.isError ? (
          <Failed error={bin.error} retry={() => bin.refetch()} />
        ) : (
          <BinPart workspace={workspace} bin={bin.data} size={storage.data?.bin ?? 0} />
        )}
        <div className="col-span-2 max-lg:col-span-1">
          <SpaceMap workspace={workspace} mods={mods} />
        </div>
      </div>
    </Screen>
  )
}

function Used({ workspace, use: u }: { workspace: number; use: Use }) {
  const [moving, setMoving] = useState(false)
  const total = PARTS.reduce((sum, p) => sum + u[p.key], 0)
  const { say } = useNotices()
  const again = useAct(
    workspace,
    async () =>
      finished(got(api.POST('/api/workspaces/{workspace}/reinstall', { params: { path: { workspace } } }))),
    () => say('Every mod was installed again from its archive, to the same bytes.'),
  )
  return (
    <section className="card px-4 py-3.5" aria-label="What is used">
      <h2>{bytes(total)} used</h2>
      <p className="text-ink-2">{bytes(u.free)} are free on the drive of the library.</p>
      <div className="mt-3 flex h-4 overflow-hidden rounded-[5px] border border-line" aria-hidden="true">
        {PARTS.filter((p) => u[p.key] > 0).map((p) => (
          <span key={p.key} className={p.way} style={{ flex: `${u[p.key]} 0 2px` }} />
        ))}
      </div>
      <ul className="mt-3">
        {PARTS.map((p) => (
          <li key={p.key} className="flex items-baseline gap-2.5 py-1">
            <span
              className={`inline-block h-3 w-4 shrink-0 translate-y-0.5 rounded-sm border border-line ${p.way}`}
            />
            <span className="min-w-0 flex-1">
              <b className="font-medium">{p.label}</b> <span className="text-ink-2">{p.about}</span>
            </span>
            <span className="num">{bytes(u[p.key])}</span>
          </li>
        ))}
      </ul>
      <h3 className="mt-4">Where the library lies</h3>
      <p className="mono break-all">{u.folder}</p>
      <p className="mt-1 text-ink-2">
        {u.sameDrive
          ? 'On the drive of the game: deploying links files instead of copying them.'
          : 'On another drive than the game: deploying copies every file.'}
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button onClick={() => setMoving(true)}>Move it …</Button>
        <Button disabled={again.isPending} onClick={() => again.mutate(undefined)}>
          Install all mods again
        </Button>
      </div>
      <MoveDialog workspace={workspace} use={u} open={moving} onOpenChange={setMoving} />
    </section>
  )
}

function MoveDialog(props: {
  workspace: number
  use: Use
  open: boolean
  onOpenChange: (open: boolean) => void
}) {
  const { workspace, use: u } = props
  const [folder, setFolder] = useState(u.proposed ?? '')
  const { say } = useNotices()
  const move = useAct(
    workspace,
    async (name: string) =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/storage/move', {
            params: { path: { workspace } },
            body: { folder: name },
          }),
        ),
      ),
    () => {
      props.onOpenChange(false)
      say('The library lies there now, with all that is in it.')
    },
  )
  const submit = (e: FormEvent) => {
    e.preventDefault()
    move.mutate(folder)
  }
  return (
    <Dialog
      open={props.open}
      onOpenChange={props.onOpenChange}
      title="Move the library"
      says="All of it is copied there first; nothing is taken away before the copy is whole."
    >
      <form onSubmit={submit} className="flex flex-col gap-3">
        <FolderField
          label="To a folder, as a full path on the machine where Ironing runs"
          value={folder}
          onChange={setFolder}
        />
        {u.proposed && <p className="text-ink-2">{u.proposed} lies on the drive of the game.</p>}
        <div className="flex gap-2">
          <Button type="submit" look="strong" disabled={!folder.trim() || move.isPending}>
            {move.isPending ? 'Moving …' : 'Move it there'}
          </Button>
          {u.chosen && (
            <Button disabled={move.isPending} onClick={() => move.mutate('')}>
              Back to where it lay at first
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  )
}

function BinPart({ workspace, bin, size }: { workspace: number; bin: Schema['BinView']; size: number }) {
  const [asking, setAsking] = useState(false)
  const { say } = useNotices()
  const empty = useAct(
    workspace,
    () => got(api.DELETE('/api/workspaces/{workspace}/bin', { params: { path: { workspace } } })),
    () => {
      setAsking(false)
      say('The bin is empty.')
    },
  )
  const mod = useAct(workspace, (id: number) =>
    got(
      api.POST('/api/workspaces/{workspace}/bin/mods/{mod}/return', {
        params: { path: { workspace, mod: id } },
      }),
    ),
  )
  const archive = useAct(workspace, (id: number) =>
    got(
      api.POST('/api/workspaces/{workspace}/bin/archives/{archive}/return', {
        params: { path: { workspace, archive: id } },
      }),
    ),
  )
  const things = bin.mods.length + bin.archives.length
  return (
    <section className="card overflow-hidden" aria-label="Bin">
      <div className="flex items-center gap-3 px-4 pt-3.5 pb-2">
        <h2 className="flex-1">Bin</h2>
        {things > 0 && (
          <Button look="warning" onClick={() => setAsking(true)}>
            Empty it
          </Button>
        )}
      </div>
      {things === 0 ? (
        <Empty icon={Trash2} title="The bin is empty">
          What you remove from the library comes here first.
        </Empty>
      ) : (
        <ul>
          {bin.mods.map((b) => (
            <Binned key={`m${b.id}`} binned={b} kind="mod" onReturn={() => mod.mutate(b.id)} />
          ))}
          {bin.archives.map((b) => (
            <Binned key={`a${b.id}`} binned={b} kind="archive" onReturn={() => archive.mutate(b.id)} />
          ))}
        </ul>
      )}
      <Dialog
        open={asking}
        onOpenChange={setAsking}
        title="Empty the bin"
        says={`${count(things, 'thing')}, ${bytes(size)}, would be deleted. That cannot be undone.`}
      >
        <Button look="warning" disabled={empty.isPending} onClick={() => empty.mutate(undefined)}>
          Delete for good
        </Button>
      </Dialog>
    </section>
  )
}

function Binned(props: { binned: Schema['Binned']; kind: string; onReturn: () => void }) {
  const b = props.binned
  return (
    <li className="flex items-center gap-3 border-line border-t px-4 py-2">
      <span className="min-w-0 flex-1">
        <span className="block truncate font-medium" title={b.name}>
          {b.name} <span className="num font-normal text-ink-2">{b.version}</span>
        </span>
        <small className="text-ink-2">
          {props.kind}, removed {when(b.binnedAt)}
        </small>
      </span>
      <span className="num text-ink-2">{bytes(b.sizeBytes)}</span>
      <Button onClick={props.onReturn}>Bring it back</Button>
    </li>
  )
}
