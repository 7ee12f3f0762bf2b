import clsx from 'clsx'
import { PackageX } from 'lucide-react'
import { lazy, type ReactNode, Suspense, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { FileTree } from '../ui/FileTree'
import { useKept } from '../ui/kept'
import { Menu, type MenuAct } from '../ui/Menu'
import { Screen, Waiting } from '../ui/Screen'
import { Segments } from '../ui/Segments'
import { Empty, Loading } from '../ui/States'
import { count, number } from '../ui/text'
import type { TreeNode } from '../ui/tree'
import { IntakeAside } from './IntakeAside'
import { answered, beginningAt, entriesOf, leftOut, letIn, pagesOf, sentTo } from './part'
import { Questions } from './Questions'
import { type Intake, type PartRequest, type StaysOut, useAct, useIntake, useMod } from './queries'

const IntakeReading = lazy(() => import('./IntakeReading'))

type Gets = Schema['Gets']

/** What the game gets from an archive, and everything that can be decided about it. */
export function IntakeView() {
  const workspace = useWorkspace()
  const { archive: address } = useParams()
  const [query] = useSearchParams()
  const again = Number(query.get('instead')) || null
  // what was chosen for the version that it replaces is where choosing starts
  const mod = useMod(workspace, again ?? 0, 1)
  if (again && mod.isPending) return <Waiting title="What the game gets" what="the mod" queries={[mod]} />
  const sameArchive = mod.data?.archive === Number(address)
  const better = mod.data?.better
  // for another archive the server takes over what was chosen for the version that it replaces
  const start: PartRequest = again
    ? sameArchive
      ? { ...mod.data?.choices, ...(better ? { answers: better.answers } : {}), instead: again }
      : { instead: again }
    : {}
  return <Chosen key={`${address} ${again}`} workspace={workspace} archive={Number(address)} start={start} />
}

function Chosen({ workspace, archive, start }: { workspace: number; archive: number; start: PartRequest }) {
  const name = `fitting ${workspace}/${archive}/${start.instead ?? ''}`
  // questions that are answered, and the parts that are chosen beside this one
  const [asked, setPart, dropPart] = useKept<PartRequest>(`${name} part`, start)
  const [others, setOthers, dropOthers] = useKept<readonly PartRequest[]>(`${name} others`, [])
  const drop = () => {
    dropPart()
    dropOthers()
  }
  const [shown, setShown] = useState<'questions' | 'gets' | 'out' | 'read' | null>(null)
  const [page, setPage] = useState(0)
  const [below, setBelow] = useState('')
  const intake = useIntake(workspace, archive, asked, below)
  const install = useInstall(workspace, archive, drop)
  const view = intake.data
  if (intake.isError || !view)
    return <Waiting title="What the game gets" what="what is in the archive" queries={[intake]} />
  // what the server has taken over counts as chosen from the first change on
  const taken = asked.leaveOut ?? asked.sendTo ?? asked.answers
  const part: PartRequest = taken
    ? asked
    : { ...asked, leaveOut: view.leaveOut, sendTo: view.sendTo, answers: view.answers }
  const pages = pagesOf(view.questions)
  const at = Math.min(page, Math.max(0, pages.length - 1))
  const tab = shown ?? (pages.length > 0 ? 'questions' : 'gets')
  const papers = view.staysOut.filter((s) => s.reading)
  const amiss = view.questions.some((q) => q.amiss)
  return (
    <Screen
      title={view.name}
      says={<span className="num">{view.version}</span>}
      actions={
        <Link to={`/workspaces/${workspace}/library/inbox`} className="text-woad underline">
          Back to the inbox
        </Link>
      }
      aside={
        <IntakeAside
          workspace={workspace}
          view={view}
          part={part}
          others={others}
          asking={intake.isPlaceholderData}
          installing={install.isPending}
          amiss={amiss}
          onPart={setPart}
          onDropOther={(root) => setOthers(others.filter((p) => p.root !== root))}
          onInstall={(extra) => install.mutate([...others, { ...part, ...extra }])}
        />
      }
    >
      {view.state === 'SEVERAL' ? (
        <Several
          view={view}
          onPick={(root) => setPart(beginningAt(part, root))}
          onAll={() => install.mutate(view.roots.map((root) => ({ root, name: lastStep(root) })))}
        />
      ) : (
        <>
          <Segments
            label="What to look at"
            value={tab}
            onChange={(next) => {
              setShown(next)
              // one list is told by paths of the game, the other by those of the archive
              setBelow('')
            }}
            options={[
              ...(pages.length > 0 ? [{ value: 'questions' as const, label: 'Questions' }] : []),
              { value: 'gets' as const, label: `The game gets ${count(view.getsInAll, 'file')}` },
              { value: 'out' as const, label: `Left out: ${number(view.staysOutInAll)}` },
              ...(papers.length > 0 ? [{ value: 'read' as const, label: 'To read' }] : []),
            ]}
          />
          {tab === 'questions' ? (
            <div className="card mt-2 flex min-h-0 flex-1 flex-col overflow-hidden">
              <div className="min-h-0 flex-1 overflow-y-auto">
                <Questions
                  workspace={workspace}
                  archive={archive}
                  questions={pages[at] ?? []}
                  onAnswer={(q, a) => setPart({ ...part, answers: answered(q, part.answers ?? {}, a) })}
                />
              </div>
              <div className="flex items-center gap-2 border-line border-t px-4 py-2">
                <span className="flex-1 text-ink-2">
                  {pages.length > 1 ? `Page ${at + 1} of ${pages.length}` : ''}
                </span>
                {at > 0 && <Button onClick={() => setPage(at - 1)}>Back</Button>}
                {at < pages.length - 1 ? (
                  <Button
                    look="strong"
                    disabled={pages[at]?.some((q) => q.amiss)}
                    onClick={() => setPage(at + 1)}
                  >
                    Next
                  </Button>
                ) : (
                  <Button look="strong" disabled={amiss} onClick={() => setShown('gets')}>
                    See what the game gets
                  </Button>
                )}
              </div>
            </div>
          ) : tab === 'read' ? (
            <Suspense fallback={<Loading what="the text" />}>
              <IntakeReading workspace={workspace} archive={archive} papers={papers} />
            </Suspense>
          ) : tab === 'gets' ? (
            <Outcome
              view={view}
              part={part}
              some={<Some shown={view.gets.length} all={view.getsInAll} below={below} onBelow={setBelow} />}
              onPart={setPart}
              onSplit={(root) => {
                setPart(leftOut(part, [`${root}/`]))
                setOthers([...others.filter((p) => p.root !== root), { root, name: lastStep(root) }])
              }}
            />
          ) : (
            <Out
              view={view}
              part={part}
              some={
                <Some
                  shown={view.staysOut.length}
                  all={view.staysOutInAll}
                  below={below}
                  onBelow={setBelow}
                />
              }
              onPart={setPart}
            />
          )}
        </>
      )}
    </Screen>
  )
}

const lastStep = (path: string) => path.slice(path.lastIndexOf('/') + 1)

function useInstall(workspace: number, archive: number, done: () => void) {
  const go = useNavigate()
  const { say } = useNotices()
  return useAct(
    workspace,
    (parts: PartRequest[]) =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/mods', {
            params: { path: { workspace } },
            body: { archive, parts },
          }),
        ),
      ),
    (job) => {
      done()
      say('It is in the library.')
      go(`/workspaces/${workspace}/library/${job.result}`)
    },
  )
}

const isBelow = (path: string, folder: string) => folder === '' || path.startsWith(`${folder}/`)

function Several(props: { view: Intake; onPick: (root: string) => void; onAll: () => void }) {
  const nested = props.view.roots.some((r) => props.view.roots.some((o) => o !== r && isBelow(r, o)))
  return (
    <div className="card flex-1 p-5">
      <h2>{nested ? 'Where does the mod begin?' : 'Several folders in it could each be a mod'}</h2>
      <p className="mt-1 max-w-[620px] text-ink-2">
        {nested
          ? 'This game takes any file, and its own files do not say which folder is meant. Look at one to see where its files would go.'
          : 'Look at one to see what the game would get from it. Or make a mod of each; they become layers of their own, in this order.'}
      </p>
      <ul className="mt-3 max-w-[620px]">
        {props.view.roots.map((root) => (
          <li key={root} className="flex items-center gap-3 border-line border-b py-2">
            <span className={clsx('min-w-0 flex-1 truncate', root && 'mono')} title={root}>
              {root ? `${root}/` : 'at the top of the archive'}
            </span>
            <Button onClick={() => props.onPick(root)}>Look at it</Button>
          </li>
        ))}
      </ul>
      {!nested && (
        <Button look="strong" className="mt-4" onClick={props.onAll}>
          Make {count(props.view.roots.length, 'mod')} of them
        </Button>
      )}
    </div>
  )
}

/** Where more files are there than are listed: how many, and which are asked for. */
function Some(props: { shown: number; all: number; below: string; onBelow: (path: string) => void }) {
  if (props.shown === props.all && props.below === '') return null
  return (
    <form
      className="flex flex-wrap items-center gap-2 border-line border-b px-4 py-2 text-ink-2"
      onSubmit={(e) => {
        e.preventDefault()
        const typed = new FormData(e.currentTarget).get('below')
        props.onBelow(typeof typed === 'string' ? typed.trim() : '')
      }}
    >
      <span className="flex-1">
        {number(props.shown)} of {count(props.all, 'file')} are listed
      </span>
      <label className="flex items-center gap-2">
        Only those below
        <input
          name="below"
          defaultValue={props.below}
          placeholder="folder/"
          className="mono h-8 w-56 rounded-[7px] border border-line-2 bg-card px-2 text-ink"
        />
      </label>
      <Button type="submit">List them</Button>
    </form>
  )
}

function Outcome(props: {
  view: Intake
  part: PartRequest
  some: ReactNode
  onPart: (part: PartRequest) => void
  onSplit: (root: string) => void
}) {
  const { view, part, onPart } = props
  const [selected, setSelected] = useState<string | null>(null)
  const all = () => entries(view)
  if (view.state === 'NOTHING') {
    return (
      <div className="card mt-2 flex-1">
        <Empty icon={PackageX} title="The game would get nothing from it">
          No part of the game reads any of its files at these places. Look at what is left out: begin at
          another folder, or say to which part of the game something goes.
        </Empty>
      </div>
    )
  }
  const acts = (node: TreeNode<Gets>): MenuAct[] => {
    const entry = entriesOf(node, view.gets)
    const only = entry.length === 1 ? entry[0] : undefined
    const folder = only?.endsWith('/') ? only.slice(0, -1) : undefined
    // of a folder that is listed in part, only what is said by its own path is said of all of it
    if (!isWhole(view) && !node.leaf && !folder) return []
    return [
      {
        label: folder && !isWhole(view) ? `Leave all of ${folder}/ out` : 'Leave it out',
        run: () => onPart(leftOut(part, entry)),
      },
      ...(only
        ? view.mounts.map((m) => ({
            label: `Send it to ${mountWords(m)}`,
            run: () => onPart(sentTo(part, only, m.id, all())),
          }))
        : []),
      ...(folder && view.questions.length === 0
        ? [
            null,
            { label: 'Begin here', run: () => onPart(beginningAt(part, folder)) },
            { label: 'Make a mod of its own of it', run: () => props.onSplit(folder) },
          ]
        : []),
    ]
  }
  return (
    <div className="card mt-2 flex min-h-0 flex-1 flex-col overflow-hidden py-1">
      {props.some}
      <FileTree
        label="What the game gets"
        files={view.getsTree}
        selected={selected}
        onSelect={(n) => setSelected(n.path)}
        detail={(n) => (
          <>
            {n.leaf && n.leaf.entry !== n.leaf.path && (
              <small
                className="mono hidden max-w-[40%] shrink truncate text-ink-3 xl:inline"
                title={`In the archive: ${n.leaf.entry}`}
              >
                {n.leaf.entry}
              </small>
            )}
            {acts(n).length > 0 && <Menu label={`Decide about ${n.name}`} acts={() => acts(n)} />}
          </>
        )}
      />
    </div>
  )
}

/** Whether every file of the archive is listed. */
function isWhole(view: Intake): boolean {
  return view.gets.length === view.getsInAll && view.staysOut.length === view.staysOutInAll
}

function mountWords(m: Schema['MountView']): string {
  return m.at === '.' ? 'the game’s own folder' : `${m.at}/`
}

/** Every entry of the archive that is listed. */
function entries(view: Intake): string[] {
  return [...view.gets.map((g) => g.entry), ...view.staysOut.map((s) => s.entry)]
}

function Out({
  view,
  part,
  some,
  onPart,
}: {
  view: Intake
  part: PartRequest
  some: ReactNode
  onPart: (part: PartRequest) => void
}) {
  const [selected, setSelected] = useState<string | null>(null)
  const all = () => entries(view)
  // letting one file of a folder in names all the others, and some of them may not be listed
  const splits = (path: string) =>
    !isWhole(view) && (part.leaveOut ?? []).some((l) => l.endsWith('/') && l !== path && path.startsWith(l))
  const acts = (node: TreeNode<StaysOut>): MenuAct[] => (splits(node.path) ? [] : decisions(node))
  const decisions = (node: TreeNode<StaysOut>): MenuAct[] => [
    ...((part.leaveOut ?? []).some(
      (l) => l === node.path || node.path.startsWith(l) || l.startsWith(node.path),
    )
      ? [{ label: 'Let it in again', run: () => onPart(letIn(part, node.path, all())) }, null]
      : []),
    ...view.mounts.map((m) => ({
      label: `Send it to ${mountWords(m)}`,
      run: () => onPart(sentTo(part, node.path, m.id, all())),
    })),
    ...(node.leaf
      ? []
      : [null, { label: 'Begin here', run: () => onPart(beginningAt(part, node.path.slice(0, -1))) }]),
  ]
  if (view.staysOutInAll === 0)
    return (
      <div className="card mt-2 flex-1 p-4 text-ink-2">Nothing: the game gets every file of the archive.</div>
    )
  return (
    <div className="card mt-2 flex min-h-0 flex-1 flex-col overflow-hidden py-1">
      {some}
      <FileTree
        label="Left out"
        files={view.outTree}
        selected={selected}
        onSelect={(n) => setSelected(n.path)}
        detail={(n) => (
          <>
            {n.leaf && (
              <small className="min-w-0 shrink truncate text-ink-2" title={n.leaf.reason}>
                {n.leaf.reason}
                {n.leaf.reading && ' It can be read in the library.'}
              </small>
            )}
            {acts(n).length > 0 && <Menu label={`Decide about ${n.name}`} acts={() => acts(n)} />}
          </>
        )}
      />
    </div>
  )
}
