import clsx from 'clsx'
import { Play, Square, Wrench } from 'lucide-react'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { NothingHere } from '../frame/NothingHere'
import { useCancelJob, useRunningJob } from '../frame/queries'
import { useSelectedTitle } from '../frame/title'
import { useWorkspace } from '../frame/workspace'
import { useLines } from '../test-run/lines'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { PathText } from '../ui/PathText'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { count } from '../ui/text'
import { useRemoveTool, useRunTool, useToolRun, useToolRuns, useTools } from './queries'
import { ToolDialog } from './ToolDialog'
import { aboutTool, runWords } from './words'

type Tool = Schema['ToolView']

/** Programs that work on the deployed game: what they are, how they ran, what they wrote. */
export function ToolsView() {
  const workspace = useWorkspace()
  const tools = useTools(workspace)
  const go = useNavigate()
  const [adding, setAdding] = useState(false)
  const address = useParams().tool
  const tool = address ? tools.data?.find((t) => t.id === Number(address)) : tools.data?.[0]
  useSelectedTitle(address ? tool?.name : undefined)
  const stale = tools.data?.filter((t) => t.stale.length > 0).length ?? 0
  // one that has just been added is not in the list yet
  if (address && tools.data && !tool && !tools.isFetching) return <NothingHere what={`Tool ${address}`} />
  return (
    <Screen
      title="Tools"
      says={
        stale > 0
          ? `What ${count(stale, 'tool')} wrote is stale: run ${stale === 1 ? 'it' : 'them'} again.`
          : 'Programs of yours that see the deployed game. What they write becomes a mod.'
      }
      actions={<Button onClick={() => setAdding(true)}>Add a tool</Button>}
      aside={tool && <ToolAside workspace={workspace} tool={tool} />}
    >
      {tools.isPending ? (
        <div className="card flex-1">
          <Loading what="the tools" />
        </div>
      ) : !tools.data ? (
        <div className="card flex-1">
          <Failed error={tools.error} retry={() => tools.refetch()} />
        </div>
      ) : !tool ? (
        <div className="card flex-1">
          <Empty icon={Wrench} title="No tool yet">
            Some programs read all plugins in their order and write another one, or files beside them. Add
            such a program here: it then sees the game as you deployed it, and you are told when it has to run
            again.
          </Empty>
        </div>
      ) : (
        <div className="flex min-h-0 flex-1 flex-col gap-3">
          <ul aria-label="Tools" className="card max-h-[46%] shrink-0 overflow-y-auto">
            {tools.data.map((t) => (
              <ToolCard key={t.id} workspace={workspace} tool={t} chosen={t.id === tool.id} />
            ))}
          </ul>
          <LastToolRun workspace={workspace} tool={tool} />
        </div>
      )}
      {adding && (
        <ToolDialog
          workspace={workspace}
          onClose={() => setAdding(false)}
          onSaved={(id) => {
            setAdding(false)
            go(`/workspaces/${workspace}/tools/${id}`)
          }}
        />
      )}
    </Screen>
  )
}

function ToolCard({ workspace, tool: t, chosen }: { workspace: number; tool: Tool; chosen: boolean }) {
  const run = useRunTool(workspace)
  const job = useRunningJob(workspace, ['tool'])
  const cancel = useCancelJob()
  const running = t.last?.state === 'RUNNING'
  return (
    <li className={clsx('border-line border-b px-4 py-3', chosen && 'bg-woad-soft')}>
      <div className="flex items-start gap-3">
        <div className="min-w-0 flex-1">
          <h2 className="flex flex-wrap items-baseline gap-x-2">
            <Link
              to={`/workspaces/${workspace}/tools/${t.id}`}
              aria-current={chosen}
              className="break-words hover:underline"
            >
              {t.name}
            </Link>
            {t.output !== undefined && <Tag>{t.stale.length > 0 ? 'stale' : 'fresh'}</Tag>}
          </h2>
          <p className="break-words text-ink-2">{aboutTool(t)}</p>
          <p className="text-ink-2">{t.last ? runWords(t.last) : 'It has not been run yet.'}</p>
        </div>
        {running && job ? (
          <Button look="warning" disabled={cancel.isPending} onClick={() => cancel.mutate(job.id)}>
            <Square size={13} aria-hidden="true" /> Stop it
          </Button>
        ) : (
          <Button
            look="strong"
            disabled={run.isPending || job !== undefined || t.waitsFor.length > 0}
            onClick={() => run.mutate(t.id)}
          >
            <Play size={14} aria-hidden="true" /> {run.isPending ? 'Running …' : 'Run it'}
          </Button>
        )}
      </div>
      {t.stale.length > 0 && (
        <ul className="mt-1.5 rounded-lg border border-ochre/50 bg-ochre-soft px-3 py-1.5">
          {t.stale.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ul>
      )}
      {t.waitsFor.length > 0 && !running && (
        <p className="mt-1.5">
          <b className="font-semibold">It cannot run now:</b> {t.waitsFor.join(' ')}{' '}
          {t.waitsFor.some((w) => w.includes('as you arranged it')) && (
            <Link to={`/workspaces/${workspace}/deploy`} className="text-woad underline">
              Review and deploy
            </Link>
          )}
        </p>
      )}
    </li>
  )
}

function LastToolRun({ workspace, tool: t }: { workspace: number; tool: Tool }) {
  const [chosen, choose] = useState<{ tool: number; run: number }>()
  const shown = chosen?.tool === t.id ? chosen.run : t.last?.id
  const run = useToolRun(workspace, shown)
  const runs = useToolRuns(workspace, t.id)
  const live = useLines(workspace, `tool-${shown ?? 0}`)
  if (!t.last)
    return (
      <div className="card flex-1">
        <Empty icon={Play} title={`${t.name} has not been run yet`}>
          What it prints appears here while it runs, and then which files were taken in.
        </Empty>
      </div>
    )
  const r = run.data
  const text = r?.state === 'RUNNING' && live.length > 0 ? live.join('\n') : (r?.output ?? '')
  return (
    <section aria-label="Run" className="card flex min-h-0 flex-1 flex-col overflow-y-auto">
      <header className="flex items-baseline gap-3 px-4 pt-3">
        <h2 className="flex-1">{shown === t.last.id ? 'Its last run' : 'An earlier run'}</h2>
        {runs.data && runs.data.length > 1 && (
          <label>
            <span className="sr-only">Which run</span>
            <select
              value={shown}
              onChange={(e) => choose({ tool: t.id, run: Number(e.target.value) })}
              className="h-7 rounded-md border border-line-2 bg-card px-1.5"
            >
              {runs.data.map((x) => (
                <option key={x.id} value={x.id}>
                  {runWords(x)}
                </option>
              ))}
            </select>
          </label>
        )}
      </header>
      {r && (
        <div className="px-4 py-1.5">
          {r.why && <p className="text-madder">{r.why}</p>}
          <Paths title="Taken in" paths={r.taken} />
          <Paths title="It wrote beside them" paths={r.beside}>
            <Link to={`/workspaces/${workspace}/deploy/drift`} className="text-woad underline">
              Check the folder
            </Link>
          </Paths>
          <Paths title="It removed" paths={r.removed} />
        </div>
      )}
      <pre
        tabIndex={0}
        role="log"
        aria-label="What it printed"
        className="mono min-h-24 flex-1 overflow-auto whitespace-pre-wrap break-all border-line border-t px-4 py-2 leading-relaxed"
      >
        {text || (r?.state === 'RUNNING' ? '…' : 'It printed nothing.')}
      </pre>
    </section>
  )
}

const MOST_SHOWN = 12

function Paths({
  title,
  paths,
  children,
}: {
  title: string
  paths: readonly string[]
  children?: React.ReactNode
}) {
  if (paths.length === 0) return null
  return (
    <div className="py-0.5">
      <h3 className="inline">
        {title}: {count(paths.length, 'file')}
      </h3>{' '}
      {children}
      <ul>
        {paths.slice(0, MOST_SHOWN).map((p) => (
          <li key={p} className="flex">
            <PathText path={p} />
          </li>
        ))}
        {paths.length > MOST_SHOWN && <li className="text-ink-2">and {paths.length - MOST_SHOWN} more</li>}
      </ul>
    </div>
  )
}

function ToolAside({ workspace, tool: t }: { workspace: number; tool: Tool }) {
  const [changing, setChanging] = useState(false)
  const go = useNavigate()
  const [forgetting, setForgetting] = useState(false)
  const remove = useRemoveTool(workspace, () => {
    setForgetting(false)
    go(`/workspaces/${workspace}/tools`)
  })
  return (
    <Aside label="About the tool">
      <h2 className="break-words">{t.name}</h2>
      <AsidePart title="How it is started">
        <ol aria-label="Program and arguments">
          {t.command.map((c, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: an argument is known by its place alone
            <li key={i} className="mono break-all border-line border-b border-dotted py-0.5">
              {c}
            </li>
          ))}
        </ol>
        <p className="mt-1 text-ink-2">
          In <span className="mono">{t.folder || '{game}'}</span>, never by a shell.
        </p>
      </AsidePart>
      {Object.keys(t.environment).length > 0 && (
        <AsidePart title="Environment">
          {Object.entries(t.environment).map(([name, value]) => (
            <p key={name} className="mono break-all">
              {name}={value}
            </p>
          ))}
        </AsidePart>
      )}
      <AsidePart title="What it wrote">
        {t.output === undefined ? (
          <p className="text-ink-2">
            Nothing has been taken in yet. It will be a mod of its own, on top of the layers.
          </p>
        ) : (
          <Link to={`/workspaces/${workspace}/layers/${t.output}`} className="text-woad underline">
            Output of {t.name}
          </Link>
        )}
      </AsidePart>
      <p className="mt-4 flex flex-wrap gap-1.5">
        <Button onClick={() => setChanging(true)}>Change it</Button>
        <Button onClick={() => setForgetting(true)}>Forget it</Button>
      </p>
      <Dialog
        open={forgetting}
        onOpenChange={setForgetting}
        title={`Forget “${t.name}”?`}
        says="How it is started and its runs are gone then, and cannot be brought back. The mod with what it wrote stays."
      >
        <Button look="warning" disabled={remove.isPending} onClick={() => remove.mutate(t.id)}>
          Forget it
        </Button>
      </Dialog>
      {changing && (
        <ToolDialog
          key={t.id}
          workspace={workspace}
          tool={t}
          onClose={() => setChanging(false)}
          onSaved={() => setChanging(false)}
        />
      )}
    </Aside>
  )
}
