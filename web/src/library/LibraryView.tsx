import clsx from 'clsx'
import { FolderInput, PackageOpen, Upload } from 'lucide-react'
import { type DragEvent, type FormEvent, type ReactNode, useId, useRef, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { useJobs } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { HowFar, modDetail } from '../ui/HowFar'
import { OrderlessList } from '../ui/OrderlessList'
import { Problems } from '../ui/Problems'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { bytes, count, number } from '../ui/text'
import { ModAside } from './ModAside'
import { useBringInFolder, useLibrary } from './queries'
import { UploadList } from './UploadList'
import { bringIn, useUploads } from './uploads'

type ModView = Schema['ModView']

const COLUMNS =
  'grid grid-cols-[minmax(0,1fr)_88px_56px_64px_92px_70px] items-center gap-3 px-3.5 max-lg:grid-cols-[minmax(0,1fr)_72px_56px_50px]'

/** Every mod that was brought in, used or not; and bringing in more. */
export function LibraryView() {
  const workspace = useWorkspace()
  const library = useLibrary(workspace)
  const uploads = useUploads(workspace)
  const { mod } = useParams()
  const go = useNavigate()
  const picker = useRef<HTMLInputElement>(null)
  const [folder, setFolder] = useState(false)
  const mods = library.data?.mods ?? []
  const selected = mod ?? null
  const pick = () => picker.current?.click()
  return (
    <Dropping onDrop={(files) => bringIn(workspace, files)}>
      <Screen
        title="Library"
        says={library.data && (mods.length > 0 ? `${count(mods.length, 'mod')}, used or not.` : null)}
        actions={
          <>
            <Button onClick={() => setFolder(true)}>
              <FolderInput size={15} aria-hidden="true" /> From a folder
            </Button>
            <Button look="strong" onClick={pick}>
              <Upload size={15} aria-hidden="true" /> Bring in archives
            </Button>
            <input
              ref={picker}
              type="file"
              multiple
              hidden
              aria-label="Archives to bring in"
              onChange={(e) => {
                bringIn(workspace, [...(e.target.files ?? [])])
                e.target.value = ''
              }}
            />
          </>
        }
        aside={selected !== null && <ModAside workspace={workspace} mod={Number(selected)} />}
      >
        <UploadList workspace={workspace} uploads={uploads} />
        <FolderTroubles workspace={workspace} />
        {library.isPending ? (
          <div className="card flex-1">
            <Loading what="the library" />
          </div>
        ) : library.isError ? (
          <Failed error={library.error} retry={() => library.refetch()} />
        ) : mods.length === 0 ? (
          <button
            type="button"
            onClick={pick}
            className="flex-1 rounded-[10px] border-2 border-line-2 border-dashed bg-card hover:border-woad"
          >
            <Empty icon={PackageOpen} title="Drop the archives of your mods here">
              Zip, 7z and tar.gz. Each becomes a mod, and a layer on top of those that are here. Your archives
              stay as they are.
            </Empty>
          </button>
        ) : (
          <OrderlessList
            label="Mods in the library"
            rows={mods.map((m) => ({ id: String(m.id), label: m.name, mod: m }))}
            rowHeight={44}
            selected={selected}
            onSelect={(id) => go(`/workspaces/${workspace}/library/${id}`, { replace: true })}
            head={
              <div className={clsx(COLUMNS, 'h-[26px] shrink-0 border-line border-b text-[11px] text-ink-3')}>
                <span>mod</span>
                <span>version</span>
                <span className="text-right">files</span>
                <span className="text-right max-lg:hidden">size</span>
                <span className="max-lg:hidden">plugins</span>
                <span>how far</span>
              </div>
            }
            renderRow={(row) => <ModRow mod={row.mod} />}
          />
        )}
        <FolderDialog workspace={workspace} open={folder} onOpenChange={setFolder} />
      </Screen>
    </Dropping>
  )
}

function ModRow({ mod: m }: { mod: ModView }) {
  return (
    <div className={clsx(COLUMNS, 'h-full')}>
      <span className="min-w-0">
        <span className="block truncate font-medium" title={m.name}>
          {m.name}
          {m.inferred && <small className="ml-2 font-normal text-ink-3">name from its archive</small>}
        </span>
        <span className="block truncate text-[11.5px] text-ink-2">{m.summary || m.archiveName}</span>
      </span>
      <span className="num truncate text-ink-2">{m.version}</span>
      <span className="num text-right text-ink-2">{number(m.files)}</span>
      <span className="num text-right text-ink-2 max-lg:hidden">{bytes(m.sizeBytes)}</span>
      <span className="truncate text-ink-2 max-lg:hidden" title={m.plugins.join(', ')}>
        {m.plugins.length === 0
          ? 'none'
          : m.plugins.length === 1
            ? m.plugins[0]
            : count(m.plugins.length, 'plugin')}
      </span>
      <HowFar reached={m.journey.reached} detail={modDetail(m.journey)} />
    </div>
  )
}

/** The whole screen takes files that are dropped on it. */
function Dropping({ onDrop, children }: { onDrop: (files: File[]) => void; children: ReactNode }) {
  const [over, setOver] = useState(false)
  const isFiles = (e: DragEvent) => e.dataTransfer.types.includes('Files')
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the button beside does the same by keyboard
    <div
      className="relative flex min-h-0 min-w-0 flex-1"
      onDragOver={(e) => {
        if (!isFiles(e)) return
        e.preventDefault()
        setOver(true)
      }}
      onDragLeave={(e) => {
        if (!e.currentTarget.contains(e.relatedTarget as Node | null)) setOver(false)
      }}
      onDrop={(e) => {
        if (!isFiles(e)) return
        e.preventDefault()
        setOver(false)
        onDrop([...e.dataTransfer.files])
      }}
    >
      {children}
      {over && (
        <div className="pointer-events-none absolute inset-2 z-30 grid place-items-center rounded-xl border-2 border-woad border-dashed bg-woad-soft/90">
          <p className="font-semibold text-[15px] text-woad">Let go to bring them in</p>
        </div>
      )}
    </div>
  )
}

function FolderDialog({
  workspace,
  open,
  onOpenChange,
}: {
  workspace: number
  open: boolean
  onOpenChange: (open: boolean) => void
}) {
  const [folder, setFolder] = useState('')
  const bring = useBringInFolder(workspace)
  const id = useId()
  const submit = (e: FormEvent) => {
    e.preventDefault()
    bring.mutate(folder, { onSuccess: () => onOpenChange(false) })
  }
  return (
    <Dialog
      open={open}
      onOpenChange={onOpenChange}
      title="Bring in a folder of archives"
      says="Every archive in it becomes a mod, in the order of their names. The folder stays as it is."
    >
      <form onSubmit={submit} className="flex flex-col gap-3">
        <label htmlFor={id} className="flex flex-col gap-1 font-medium">
          Folder, as a full path on the machine where Ironing runs
          <input
            id={id}
            value={folder}
            onChange={(e) => setFolder(e.target.value)}
            spellCheck={false}
            placeholder="/home/me/downloads/mods"
            className="mono h-9 rounded-[7px] border border-line-2 bg-card px-2.5"
          />
        </label>
        <Button
          type="submit"
          look="strong"
          className="self-start"
          disabled={!folder.trim() || bring.isPending}
        >
          Bring them in
        </Button>
      </form>
    </Dialog>
  )
}

/** What the last folder job could not bring in. */
function FolderTroubles({ workspace }: { workspace: number }) {
  const job = useJobs(workspace).data?.find((j) => j.kind === 'bring-in-folder')
  const [closed, setClosed] = useState<number | null>(null)
  if (job?.state !== 'FAILED' || closed === job.id) return null
  return (
    <section aria-label="Not brought in" className="mb-3 flex flex-col gap-2">
      <p className="flex items-center gap-3">
        <b className="font-semibold">
          {count(job.problems.length, 'archive')} could not be brought in; the others are here.
        </b>
        <Button look="quiet" className="h-6" onClick={() => setClosed(job.id)}>
          Close
        </Button>
      </p>
      <Problems problems={job.problems} />
    </section>
  )
}
