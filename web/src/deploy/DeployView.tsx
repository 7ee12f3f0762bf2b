import { useVirtualizer } from '@tanstack/react-virtual'
import clsx from 'clsx'
import { CircleCheck, Download } from 'lucide-react'
import { useMemo, useRef } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useAddress } from '../frame/address'
import { JobLine } from '../frame/JobLine'
import { useDeployStatus, useOverview, useRunningJob } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { PathText } from '../ui/PathText'
import { Screen } from '../ui/Screen'
import { Segments } from '../ui/Segments'
import { Empty, Failed, Loading } from '../ui/States'
import { bytes, count, number, timeWords, when } from '../ui/text'
import { Deployments } from './Deployments'
import { useDeploy, useDrift, usePlan } from './queries'
import { UndeployingRefused } from './UndeployingRefused'
import { isUnsure } from './unsure'

type Act = Schema['PlanStep']['act']

const ACTS: readonly { act: Act; title: string; about: string }[] = [
  { act: 'ADD', title: 'Add', about: 'nothing is there yet' },
  { act: 'REPLACE', title: 'Replace', about: 'the game’s own file is kept, and comes back when undeploying' },
  { act: 'SWAP', title: 'Exchange', about: 'what lies there gives way to what you arranged' },
  {
    act: 'GUARD',
    title: 'Keep safe',
    about: 'the game writes to these: it gets a copy, the original is kept',
  },
  { act: 'TAKE_OUT', title: 'Take out', about: 'nothing was there before' },
  { act: 'PUT_BACK', title: 'Put back', about: 'the game’s own file returns' },
]

const COUNTS: Record<Act, keyof Schema['PlanView']> = {
  ADD: 'add',
  REPLACE: 'replace',
  SWAP: 'swap',
  GUARD: 'guard',
  TAKE_OUT: 'takeOut',
  PUT_BACK: 'putBack',
}

/** The plan for the game folder, and carrying it out. Nothing is touched before that. */
export function DeployView() {
  const workspace = useWorkspace()
  const plan = usePlan(workspace)
  const status = useDeployStatus(workspace).data
  const deploy = useDeploy(workspace)
  const job = useRunningJob(workspace, ['deploy', 'undeploy'])
  const inUse = status?.use && IN_USE[status.use]
  const busy = deploy.isPending || job !== undefined || inUse !== undefined
  return (
    <Screen
      title="Deploy"
      says={
        status &&
        (status.at
          ? `${count(status.files, 'file')} deployed ${when(status.at)}.`
          : 'Nothing is deployed: the game is as it was.')
      }
      actions={
        <>
          {status && status.files > 0 && (
            <Button onClick={() => deploy.mutate('undeploy')} disabled={busy}>
              Undeploy everything
            </Button>
          )}
          <Button
            look="strong"
            onClick={() => deploy.mutate('deploy')}
            disabled={busy || !plan.data || plan.data.total === 0}
          >
            <Download size={14} aria-hidden="true" />
            {plan.data && plan.data.total > 0 ? `Deploy ${count(plan.data.total, 'change')}` : 'Deploy'}
          </Button>
        </>
      }
      aside={<FolderAside workspace={workspace} status={status} />}
    >
      {job && (
        <div className="card mb-3 px-3.5 py-2">
          <JobLine job={job} />
        </div>
      )}
      {inUse && (
        <p role="status" className="mb-1.5 rounded-lg border border-ochre/50 bg-ochre-soft px-3 py-2">
          {inUse}
        </p>
      )}
      {isUnsure(deploy.error) && (
        <UndeployingRefused
          workspace={workspace}
          error={deploy.error}
          act="Bring them back, and undeploy"
          busy={busy}
          onBringBack={() => deploy.mutate('bring-back')}
        />
      )}
      <Warnings workspace={workspace} />
      {plan.isPending ? (
        <div className="card flex-1">
          <Loading what="the plan" />
        </div>
      ) : plan.isError ? (
        <Failed error={plan.error} retry={() => plan.refetch()} />
      ) : plan.data.total === 0 ? (
        <div className="card flex-1">
          <Empty
            icon={CircleCheck}
            title={status && status.files > 0 ? 'The game folder is as you arranged it' : 'Nothing to deploy'}
          >
            {status && status.files > 0
              ? 'Every file of it was looked at.'
              : 'Switch on a mod in Layers, and what it brings appears here.'}
          </Empty>
        </div>
      ) : (
        <Plan workspace={workspace} plan={plan.data} />
      )}
    </Screen>
  )
}

/** What a deployment would leave unsettled, beside what stops the game. */
const TOLD = ['game-updated', 'need-unmet', 'mend-stale', 'tool-stale', 'files-asked', 'records-asked']

const IN_USE: Partial<Record<NonNullable<Schema['DeployStatus']['use']>, string>> = {
  RUNNING:
    'The game is running: nothing is put into its folder meanwhile. Wait until it ends, or stop it under Test run.',
  TOOL: 'A tool is running in the game’s folder: nothing is put there meanwhile. Wait until it ends, or stop it under Tools.',
}

/** What would stop the game, or lose something, if it were deployed so. */
function Warnings({ workspace }: { workspace: number }) {
  const wrinkles =
    useOverview(workspace).data?.wrinkles.filter((w) => w.weight === 'STOPS' || TOLD.includes(w.code)) ?? []
  if (wrinkles.length === 0) return null
  return (
    <ul className="mb-3 flex max-h-44 shrink-0 flex-col gap-1.5 overflow-y-auto">
      {wrinkles.map((w) => (
        <li key={w.title} className="rounded-lg border border-ochre/50 bg-ochre-soft px-3 py-2">
          <b className="font-semibold">{w.title}.</b> {w.reason}{' '}
          <Link to={`/workspaces/${workspace}`} className="text-woad underline">
            See what helps
          </Link>
        </li>
      ))}
    </ul>
  )
}

const ROW = 28

type Line =
  | { key: string; head: (typeof ACTS)[number]; count: number }
  | { key: string; step: Schema['PlanStep'] }

function Plan({ workspace, plan }: { workspace: number; plan: Schema['PlanView'] }) {
  const scroller = useRef<HTMLDivElement>(null)
  const lines = useMemo<Line[]>(
    () =>
      ACTS.flatMap((head) => {
        const steps = plan.steps.filter((s) => s.act === head.act)
        if (steps.length === 0) return []
        const n = plan[COUNTS[head.act]] as number
        return [{ key: head.act, head, count: n }, ...steps.map((step) => ({ key: step.path, step }))]
      }),
    [plan],
  )
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 20,
  })
  const [query, put] = useAddress()
  const by = query.get('by') === 'mod' ? 'mod' : query.get('by') === 'folder' ? 'folder' : 'file'
  return (
    <>
      <ul className="mb-2 flex flex-wrap gap-2">
        {ACTS.map((a) => {
          const n = plan[COUNTS[a.act]] as number
          if (n === 0) return null
          return (
            <li key={a.act} className="card px-3 py-1.5" title={a.about}>
              <b className="num font-bold text-[16px]">{number(n)}</b>{' '}
              <span className="text-ink-2">to {a.title.toLowerCase()}</span>
            </li>
          )
        })}
        <li className="self-center text-ink-2">{planWords(plan)}</li>
        <li className="ml-auto self-center">
          <Segments
            label="The plan by"
            value={by}
            onChange={(v) => put((q) => (v === 'file' ? q.delete('by') : q.set('by', v)))}
            options={[
              { value: 'file', label: 'By file' },
              { value: 'mod', label: 'By mod' },
              { value: 'folder', label: 'By folder' },
            ]}
          />
        </li>
      </ul>
      {plan.copyBytes > plan.freeBytes && (
        <p className="mb-2 rounded-lg border border-madder/50 bg-madder-soft px-3 py-2">
          <b className="font-semibold">There is not enough space:</b> copies take {bytes(plan.copyBytes)}, and{' '}
          {bytes(plan.freeBytes)} are free on the drive of the game.
        </p>
      )}
      {by !== 'file' && (
        <PlanParts workspace={workspace} parts={by === 'mod' ? plan.mods : plan.folders} by={by} />
      )}
      <div
        ref={scroller}
        tabIndex={0}
        role="list"
        aria-label="What deploying would do"
        hidden={by !== 'file'}
        className="card min-h-0 flex-1 overflow-y-auto"
      >
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const line = lines[item.index]
            if (!line) return null
            return (
              <div
                key={line.key}
                role="listitem"
                className="absolute right-0 left-0"
                style={{ top: item.start, height: ROW }}
              >
                {'head' in line ? (
                  <p className="flex h-full items-end gap-2 px-3.5 pb-1">
                    <b className="font-semibold">
                      {line.head.title} · {number(line.count)}
                    </b>
                    <span className="text-ink-2">{line.head.about}</span>
                  </p>
                ) : (
                  <StepLine workspace={workspace} step={line.step} />
                )}
              </div>
            )
          })}
        </div>
      </div>
      {by === 'file' && plan.total > plan.steps.length && (
        <p className="mt-1.5 text-ink-2">
          The first {number(plan.steps.length)} of {number(plan.total)} are shown.
        </p>
      )}
    </>
  )
}

const COPIED: Record<NonNullable<Schema['PlanStep']['copied']>, string> = {
  GAME_WRITES: 'copy: the game writes',
  TOOL_WRITES: 'copy: a tool writes',
  PACKED: 'copy: out of a pack',
  WRITTEN: 'written here',
}

function planWords(plan: Schema['PlanView']): string {
  const copies = plan.copyBytes > 0 ? `, ${bytes(plan.copyBytes)} of it copied` : ''
  const time =
    plan.expectedMs === undefined
      ? ''
      : plan.expectedMs < 100
        ? ' · under 0.1 s'
        : ` · about ${timeWords(plan.expectedMs)}`
  return `${bytes(plan.sizeBytes)} in all${copies}${time}`
}

/** The same added up by mod or by folder. */
function PlanParts({
  workspace,
  parts,
  by,
}: {
  workspace: number
  parts: readonly Schema['PlanPart'][]
  by: 'mod' | 'folder'
}) {
  return (
    <div className="card min-h-0 flex-1 overflow-y-auto">
      <table className="w-full">
        <caption className="sr-only">What deploying would do, by {by}</caption>
        <thead>
          <tr className="text-[11.5px] text-ink-3">
            <th className="px-3.5 py-1 text-left font-normal">{by}</th>
            <th className="text-right font-normal">put there</th>
            <th className="text-right font-normal">taken out</th>
            <th className="px-3.5 text-right font-normal">size</th>
          </tr>
        </thead>
        <tbody>
          {parts.map((p) => (
            <tr key={`${p.mod} ${p.name}`} className="border-line border-t">
              <td className="max-w-0 truncate px-3.5 py-1" style={{ width: '60%' }}>
                {by === 'folder' ? (
                  <PathText path={p.name || 'the game folder itself'} most={70} />
                ) : p.mod ? (
                  <Link to={`/workspaces/${workspace}/layers/${p.mod}`} className="hover:underline">
                    {p.name}
                  </Link>
                ) : (
                  p.name
                )}
              </td>
              <td className="num text-right">{p.put > 0 ? number(p.put) : ''}</td>
              <td className="num text-right">{p.takenOut > 0 ? number(p.takenOut) : ''}</td>
              <td className="num px-3.5 text-right text-ink-2">
                {p.sizeBytes > 0 ? bytes(p.sizeBytes) : ''}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

function StepLine({ workspace, step: s }: { workspace: number; step: Schema['PlanStep'] }) {
  const from =
    s.mod === 0 ? (
      <span className="truncate">{s.from}</span>
    ) : (
      <Link to={`/workspaces/${workspace}/layers/${s.mod}`} className="truncate hover:underline">
        {s.from}
      </Link>
    )
  return (
    <div className="grid h-full grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)_150px_70px] items-center gap-3 max-lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)_70px] border-line border-b px-3.5">
      <PathText path={s.path} most={60} className="truncate" />
      <span className="flex min-w-0 gap-1 text-ink-2">
        {from}
        {s.act === 'SWAP' && s.before && s.before !== s.from && (
          <span className="truncate">instead of {s.before}</span>
        )}
      </span>
      <span className={clsx('truncate text-[11.5px] max-lg:hidden', s.changed ? 'text-ochre' : 'text-ink-3')}>
        {s.changed
          ? 'changed since; set aside'
          : ['TAKE_OUT', 'PUT_BACK'].includes(s.act)
            ? ''
            : s.copied
              ? COPIED[s.copied]
              : 'hard link'}
      </span>
      <span className="num text-right text-ink-2">{s.sizeBytes > 0 ? bytes(s.sizeBytes) : ''}</span>
    </div>
  )
}

const IN_SHORT: Record<Schema['DriftGroup']['cause'], string> = {
  THROUGH_LINK: 'written to through the link',
  CHANGED: 'changed since',
  MISSING: 'gone since',
  PUT_BACK: 'put back by the game',
  KEPT_LOST: 'of the game’s own lost',
  GAME_CHANGED: 'of the game’s own changed',
  GAME_MISSING: 'of the game’s own gone',
  NEW: 'new',
  SET_ASIDE: 'set aside',
}

function FolderAside({
  workspace,
  status,
}: {
  workspace: number
  status: Schema['DeployStatus'] | undefined
}) {
  const drift = useDrift(workspace).data
  return (
    <Aside label="The game folder">
      <h2>The game folder</h2>
      {status && <p className="mono mt-1 break-all text-ink-2">{status.folder}</p>}
      <p className="mt-2.5 text-[13.5px] leading-snug">
        {status && status.files > 0
          ? `Ironing has put ${count(status.links, 'hard link')} and ${count(status.copies, 'copy', 'copies')} there. What they replaced is kept in .ironing/kept.`
          : 'Deploying links the files in play into it. What is replaced is kept first, and comes back byte for byte.'}
      </p>
      {status && status.files > 0 && (
        <p className="mt-2 text-ink-2">
          To check it from outside: <code className="mono">sha256sum -c .ironing/SHA256SUMS</code>
        </p>
      )}
      <AsidePart title="What else lies there">
        <p className="text-ink-2">
          {drift
            ? drift.inAll === 0
              ? 'Nothing is missing, changed or extra.'
              : drift.groups.map((g) => `${number(g.inAll)} ${IN_SHORT[g.cause]}`).join(', ')
            : 'Looking …'}
        </p>
        <p className="mt-1">
          <Link
            to={`/workspaces/${workspace}/deploy/drift`}
            className="inline-block py-[3px] text-woad underline"
          >
            Check the folder
          </Link>
        </p>
        <p className="mt-1">
          <Link
            to={`/workspaces/${workspace}/deploy/game-version`}
            className="inline-block py-[3px] text-woad underline"
          >
            Game version
          </Link>
        </p>
      </AsidePart>
      <Deployments workspace={workspace} />
    </Aside>
  )
}
