import clsx from 'clsx'
import { Eye, Inbox, PackageOpen } from 'lucide-react'
import { type FormEvent, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { DownloadList } from '../downloads/DownloadList'
import { useNotices } from '../frame/Notices'
import { useJobs } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { copyAct, useCopy } from '../ui/copy'
import { Dialog } from '../ui/Dialog'
import { ContextMenu, Menu, type MenuAct } from '../ui/Menu'
import { Problems } from '../ui/Problems'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { bytes, count, number } from '../ui/text'
import { BringIn } from './BringIn'
import { FolderField } from './FolderField'
import { lacksWords } from './NeedsList'
import { useAct, useInbox } from './queries'
import { UploadList } from './UploadList'
import { bringIn, useUploads } from './uploads'

type Archive = Schema['Archive']
type Arrived = Schema['Arrived']

/** Archives that have come in: what each needs before it is a mod. */
export function InboxView() {
  const workspace = useWorkspace()
  const inbox = useInbox(workspace)
  const uploads = useUploads(workspace)
  const { say } = useNotices()
  const waiting = inbox.data?.waiting ?? []
  const ready = waiting.filter((a) => a.look?.decision === 'NONE').length
  const lacking = waiting.filter((a) => a.look?.decision === 'NONE' && a.look.lacks?.length).length
  const asks = waiting.filter((a) => a.look && a.look.decision !== 'NONE').length
  const install = useAct(
    workspace,
    () =>
      got(
        api.POST('/api/workspaces/{workspace}/inbox/install-ready', {
          params: { path: { workspace } },
          // side by side, they arrive in any order; they become layers in that in which they were dropped
          body: { first: uploads.flatMap((u) => (u.state.is === 'arrived' ? [u.state.archive] : [])) },
        }),
      ),
    () => say(`${count(ready, 'archive')} on the way to become ${ready === 1 ? 'a mod' : 'mods'}.`),
  )
  const nothing = waiting.length + (inbox.data?.arrived.length ?? 0) + uploads.length === 0
  return (
    <Screen
      title="Inbox"
      says={inbox.data && waiting.length > 0 && waitingWords(waiting.length, ready, asks)}
      actions={
        <>
          <Link to={`/workspaces/${workspace}/library`} className="text-woad underline">
            Library
          </Link>
          <BringIn workspace={workspace} strong={ready === 0} onFiles={(f) => bringIn(workspace, f)} />
          {lacking > 0 && (
            <span className="text-[12px] text-ochre">
              {lacking === 1 ? '1 of them lacks' : `${number(lacking)} of them lack`} something
            </span>
          )}
          {ready > 0 && (
            <Button look="strong" disabled={install.isPending} onClick={() => install.mutate(undefined)}>
              Install {number(ready)} that {ready === 1 ? 'needs' : 'need'} no decision
            </Button>
          )}
        </>
      }
    >
      <DownloadList workspace={workspace} />
      <UploadList workspace={workspace} uploads={uploads} />
      <JobTroubles workspace={workspace} />
      {inbox.isPending ? (
        <div className="card flex-1">
          <Loading what="the inbox" />
        </div>
      ) : inbox.isError ? (
        <Failed error={inbox.error} retry={() => inbox.refetch()} />
      ) : (
        <div className="card min-h-0 flex-1 overflow-y-auto">
          {nothing && (
            <Empty icon={Inbox} title="Nothing waits here">
              Drop archives anywhere on this screen: zip, 7z, or tar with gzip, xz, bzip2 or zstd. Each is
              looked into first, and nothing is installed before you say so.
            </Empty>
          )}
          <ul aria-label="Archives that wait">
            {waiting.map((a) => (
              <Waiting key={a.id} workspace={workspace} archive={a} />
            ))}
          </ul>
          <WatchedPart workspace={workspace} inbox={inbox.data} />
        </div>
      )}
    </Screen>
  )
}

function waitingWords(waiting: number, ready: number, asks: number): string {
  const looked = ready + asks
  const parts = [
    ready > 0 && `${number(ready)} ${ready === 1 ? 'needs' : 'need'} no decision`,
    asks > 0 && `${number(asks)} ${asks === 1 ? 'asks' : 'ask'} something of you`,
    waiting > looked && `${number(waiting - looked)} being looked into`,
  ].filter(Boolean)
  return `${count(waiting, 'archive')}: ${parts.join(', ')}.`
}

/** What an archive needs, in a few words. */
function needs(a: Archive, looking: boolean): string {
  const look = a.look
  if (!look) return looking ? 'being looked into' : 'not looked into yet'
  switch (look.decision) {
    case 'NONE':
      return `needs no decision: ${count(look.files, 'file')} for the game`
    case 'QUESTIONS':
      return 'asks which parts of it you want'
    case 'SEVERAL':
      return `could begin at any of ${number(look.roots.length)} folders`
    case 'VERSION':
      return 'another version of it is here: put it in its place, or beside it?'
    case 'FLAWED':
      return look.problems[0]?.reason ?? 'its card cannot be read'
    case 'NOTHING':
      return 'nothing in it is for this game, as far as can be told'
    default:
      return look.problems[0]?.reason ?? 'it cannot be read'
  }
}

function Waiting({ workspace, archive: a }: { workspace: number; archive: Archive }) {
  const go = useNavigate()
  const { say } = useNotices()
  const copy = useCopy()
  const path = { workspace, archive: a.id }
  const look = a.look
  const looking = useJobs(workspace).data?.find(
    (j) => j.kind === 'look' && j.state === 'RUNNING' && j.title === `Look into ${a.name}`,
  )
  const refused = look?.decision === 'REFUSED'
  const instead = look?.decision === 'VERSION' && look.here ? `?instead=${look.here}` : ''
  const address = `/workspaces/${workspace}/library/inbox/${a.id}${instead}`
  const giveBack = useAct(workspace, () =>
    got(api.POST('/api/workspaces/{workspace}/bin/archives/{archive}/return', { params: { path } })),
  )
  const remove = useAct(
    workspace,
    () => got(api.DELETE('/api/workspaces/{workspace}/archives/{archive}', { params: { path } })),
    () =>
      say(`“${a.name}” lies in the bin.`, { label: 'Bring it back', run: () => giveBack.mutate(undefined) }),
  )
  const lookAgain = useAct(workspace, () =>
    got(api.POST('/api/workspaces/{workspace}/archives/{archive}/look', { params: { path } })),
  )
  const install = useAct(workspace, () =>
    got(
      api.POST('/api/workspaces/{workspace}/mods', {
        params: { path: { workspace } },
        body: { archive: a.id },
      }),
    ),
  )
  const acts: MenuAct[] = [
    ...(look?.decision === 'NONE' ? [{ label: 'Install it', run: () => install.mutate(undefined) }] : []),
    ...(!look && !looking ? [{ label: 'Look into it again', run: () => lookAgain.mutate(undefined) }] : []),
    ...(refused || !look ? [] : [{ label: 'See what the game gets', run: () => go(address) }, null]),
    copyAct(copy, 'its name', a.name),
    { label: 'Remove it', run: () => remove.mutate(undefined) },
  ]
  return (
    <ContextMenu acts={() => acts}>
      <li
        className="flex items-center gap-3 border-line border-b px-3.5 py-2"
        onDoubleClick={(e) => {
          if (look && !refused && !(e.target as HTMLElement).closest('button, a')) go(address)
        }}
      >
        <div className="min-w-0 flex-1">
          <p className="flex min-w-0 items-baseline gap-2">
            {refused || !look ? (
              <b className="truncate font-medium">{a.name}</b>
            ) : (
              <>
                <Link to={address} className="truncate font-medium hover:underline" title={look.name}>
                  {look.name}
                </Link>
                <span className="num shrink-0 text-ink-2">{look.version}</span>
                <small className="mono min-w-0 truncate text-ink-3" title={a.name}>
                  {a.name}
                </small>
              </>
            )}
          </p>
          <p
            className={clsx(
              'break-words text-[12px]',
              refused ? 'text-madder' : look?.decision === 'NONE' ? 'text-ink-2' : 'text-ochre',
              !look && looking && 'animate-pulse text-ink-2',
            )}
          >
            {needs(a, looking !== undefined)}
            {!look &&
              looking &&
              looking.total > 0 &&
              `, ${Math.floor((100 * looking.done) / looking.total)} %`}
          </p>
          {refused && <p className="text-[12px] text-ink-2">{look?.problems[0]?.remedy}</p>}
          {look?.lacks && look.lacks.length > 0 && (
            <p className="break-words text-[12px] text-ochre">It lacks {lacksWords(look.lacks)}</p>
          )}
        </div>
        <span className="num whitespace-nowrap text-ink-2">{bytes(a.sizeBytes)}</span>
        {look?.decision === 'NONE' ? (
          <Button
            className="w-[68px]"
            aria-label={`Install ${look.name}`}
            disabled={install.isPending}
            onClick={() => install.mutate(undefined)}
          >
            Install
          </Button>
        ) : (
          !refused && (
            <Button
              className="w-[68px]"
              aria-label={`Decide about ${look?.name ?? a.name}`}
              disabled={!look}
              onClick={() => go(address)}
            >
              Decide
            </Button>
          )
        )}
        <Menu label={`More about ${a.name}`} acts={acts} />
      </li>
    </ContextMenu>
  )
}

/** The folder of the user's in which new archives are looked for. */
function WatchedPart({ workspace, inbox }: { workspace: number; inbox: Schema['Inbox'] }) {
  const [open, setOpen] = useState(false)
  const take = useAct(workspace, (names: string[]) =>
    got(
      api.POST('/api/workspaces/{workspace}/inbox/take-in', {
        params: { path: { workspace } },
        body: { names },
      }),
    ),
  )
  const ready = inbox.arrived.filter((a) => !a.arriving && !a.outside)
  return (
    <section aria-label="Watched folder" className="px-3.5 py-3">
      <p className="flex flex-wrap items-center gap-x-3 gap-y-1 text-ink-2">
        <Eye size={15} aria-hidden="true" />
        {inbox.watched ? (
          <span className="min-w-0 flex-1">
            Watching <span className="mono break-all">{inbox.watched}</span>:{' '}
            {inbox.arrived.length === 0
              ? 'nothing new in it.'
              : `${count(inbox.arrived.length, 'archive')} there ${inbox.arrived.length === 1 ? 'is' : 'are'} not here yet.`}
          </span>
        ) : (
          <span className="flex-1">No folder is watched for new archives.</span>
        )}
        {ready.length > 1 && (
          <Button onClick={() => take.mutate(ready.map((a) => a.name))}>Bring in all</Button>
        )}
        <Button look="quiet" onClick={() => setOpen(true)}>
          {inbox.watched ? 'Change' : 'Watch a folder'}
        </Button>
      </p>
      <ul className="mt-1">
        {inbox.arrived.map((a) => (
          <ArrivedRow key={a.name} arrived={a} onTake={() => take.mutate([a.name])} />
        ))}
      </ul>
      <WatchDialog workspace={workspace} present={inbox.watched ?? ''} open={open} onOpenChange={setOpen} />
    </section>
  )
}

function ArrivedRow({ arrived: a, onTake }: { arrived: Arrived; onTake: () => void }) {
  return (
    <li className="flex items-center gap-3 py-1 pl-[27px]">
      <span className="min-w-0 flex-1 truncate" title={a.name}>
        {a.name}
      </span>
      <span className="num text-ink-2">
        {a.outside
          ? 'a link to another folder, not followed'
          : a.arriving
            ? 'still arriving'
            : bytes(a.sizeBytes)}
      </span>
      <Button className="h-6" disabled={a.arriving || a.outside} onClick={onTake}>
        Bring in
      </Button>
    </li>
  )
}

function WatchDialog(props: {
  workspace: number
  present: string
  open: boolean
  onOpenChange: (open: boolean) => void
}) {
  const [folder, setFolder] = useState(props.present)
  const watch = useAct(
    props.workspace,
    (name: string) =>
      got(
        api.PUT('/api/workspaces/{workspace}/inbox/watched', {
          params: { path: { workspace: props.workspace } },
          body: { folder: name },
        }),
      ),
    () => props.onOpenChange(false),
  )
  const submit = (e: FormEvent) => {
    e.preventDefault()
    watch.mutate(folder)
  }
  return (
    <Dialog
      open={props.open}
      onOpenChange={props.onOpenChange}
      title="Watch a folder for new archives"
      says="What arrives there is offered in the inbox. Nothing is taken from it by itself, and it stays as it is."
    >
      <form onSubmit={submit} className="flex flex-col gap-3">
        <FolderField
          label="Folder, as a full path on the machine where Ironing runs"
          value={folder}
          onChange={setFolder}
          placeholder="/home/me/downloads"
        />
        <div className="flex gap-2">
          <Button type="submit" look="strong" disabled={!folder.trim() || watch.isPending}>
            Watch it
          </Button>
          {props.present && <Button onClick={() => watch.mutate('')}>Watch none</Button>}
        </div>
      </form>
    </Dialog>
  )
}

const TOLD = ['bring-in-folder', 'bring-in-plain', 'take-in', 'install', 'install-ready', 'look']

/** What the last piece of work on archives could not do. */
export function JobTroubles({ workspace }: { workspace: number }) {
  // a look that went well says nothing of what was brought in before it
  const job = useJobs(workspace).data?.find(
    (j) => TOLD.includes(j.kind) && (j.kind !== 'look' || j.state === 'FAILED'),
  )
  const [closed, setClosed] = useState<number | null>(null)
  if (job?.state !== 'FAILED' || closed === job.id) return null
  return (
    <section
      aria-label="Not brought in"
      className="mb-3 flex max-h-[40%] shrink-0 flex-col gap-2 overflow-y-auto"
    >
      <p className="flex items-center gap-3">
        <PackageOpen size={15} className="text-madder" aria-hidden="true" />
        <b className="font-semibold">{job.title}: not all of it could be done.</b>
        <Button look="quiet" className="h-6" onClick={() => setClosed(job.id)}>
          Close
        </Button>
      </p>
      <Problems problems={job.problems} />
    </section>
  )
}
