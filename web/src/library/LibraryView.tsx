import clsx from 'clsx'
import { HardDrive, Inbox, PackageOpen } from 'lucide-react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { useSelectedTitle } from '../frame/title'
import { useWorkspace } from '../frame/workspace'
import { HowFar, modDetail } from '../ui/HowFar'
import { OrderlessList } from '../ui/OrderlessList'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { bytes, count, number } from '../ui/text'
import { BringIn } from './BringIn'
import { Dropping } from './Dropping'
import { JobTroubles } from './InboxView'
import { ModAside } from './ModAside'
import { useInbox, useLibrary } from './queries'
import { bringIn, useUploads } from './uploads'

type ModView = Schema['ModView']

const COLUMNS =
  'grid grid-cols-[minmax(0,1fr)_88px_56px_64px_92px_70px] items-center gap-3 px-3.5 max-lg:grid-cols-[minmax(0,1fr)_72px_56px_50px]'

/** Every mod that was brought in, used or not. */
export function LibraryView() {
  const workspace = useWorkspace()
  const library = useLibrary(workspace)
  const inbox = useInbox(workspace)
  const uploads = useUploads(workspace)
  const { mod } = useParams()
  const go = useNavigate()
  const base = `/workspaces/${workspace}/library`
  // of several versions of one mod, the one in use stands for it
  const mods = (library.data?.mods ?? []).filter((m) => m.inUse)
  const selected = mod ?? null
  useSelectedTitle(mods.find((m) => String(m.id) === selected)?.name)
  const bring = (files: File[]) => {
    if (files.length === 0) return
    bringIn(workspace, files)
    go(`${base}/inbox`)
  }
  const waiting =
    (inbox.data?.waiting.length ?? 0) +
    (inbox.data?.arrived.length ?? 0) +
    uploads.filter((u) => ['waiting', 'sending', 'storing', 'broken'].includes(u.state.is)).length
  return (
    <Dropping onDrop={bring}>
      <Screen
        title="Library"
        says={library.data && (mods.length > 0 ? `${count(mods.length, 'mod')}, used or not.` : null)}
        actions={
          <>
            <Link to={`${base}/storage`} className="flex items-center gap-1.5 px-1 text-ink-2 hover:text-ink">
              <HardDrive size={15} aria-hidden="true" /> Storage
            </Link>
            <Link
              to={`${base}/inbox`}
              className="flex h-[30px] items-center gap-1.5 rounded-[7px] border border-line bg-card px-2.5 hover:bg-sunk"
            >
              <Inbox size={15} aria-hidden="true" /> Inbox
              {waiting > 0 && (
                <span className="rounded-lg bg-ochre px-1.5 font-semibold text-[11px] text-card">
                  {waiting}
                </span>
              )}
            </Link>
            <BringIn workspace={workspace} strong onFiles={bring} />
          </>
        }
        aside={selected !== null && <ModAside workspace={workspace} mod={Number(selected)} />}
      >
        <JobTroubles workspace={workspace} />
        {library.isPending ? (
          <div className="card flex-1">
            <Loading what="the library" />
          </div>
        ) : library.isError ? (
          <Failed error={library.error} retry={() => library.refetch()} />
        ) : mods.length === 0 ? (
          <div className="flex-1 rounded-[10px] border-2 border-line-2 border-dashed bg-card">
            <Empty icon={PackageOpen} title="Drop the archives of your mods here">
              Zip, 7z, or tar with gzip, xz, bzip2 or zstd. They come into the inbox first, where you see what
              the game would get from each. Your archives stay as they are.
            </Empty>
          </div>
        ) : (
          <OrderlessList
            label="Mods in the library"
            rows={mods.map((m) => ({ id: String(m.id), label: m.name, mod: m }))}
            rowHeight={44}
            selected={selected}
            onSelect={(id) => go(`${base}/${id}`, { replace: true })}
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
      </Screen>
    </Dropping>
  )
}

/** What is special about a mod, in a word or two each. */
function marks(m: ModView): string[] {
  return [
    m.betterFitting && 'a better fitting exists',
    m.heldBack > 0 && `${count(m.heldBack, 'path')} held back`,
    m.edited > 0 && `${count(m.edited, 'file')} edited`,
  ].filter((w): w is string => typeof w === 'string')
}

function ModRow({ mod: m }: { mod: ModView }) {
  return (
    <div className={clsx(COLUMNS, 'h-full')}>
      <span className="min-w-0">
        <span className="block truncate font-medium" title={m.name}>
          {m.name}
          {m.inferred && <small className="ml-2 font-normal text-ink-3">name from its archive</small>}
          {marks(m).map((mark) => (
            <small key={mark} className="ml-2 font-normal text-ochre">
              {mark}
            </small>
          ))}
          {m.tags.map((t) => (
            <small key={t} className="ml-1.5 rounded-full border border-line px-1.5 font-normal text-ink-2">
              {t}
            </small>
          ))}
        </span>
        <span className="block truncate text-[11.5px] text-ink-2">{m.summary || m.archiveName}</span>
      </span>
      <span
        className="num truncate text-ink-2"
        title={m.versions > 1 ? `${m.versions} versions are here` : ''}
      >
        {m.version}
        {m.versions > 1 && <small className="text-ink-3"> of {m.versions}</small>}
      </span>
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
