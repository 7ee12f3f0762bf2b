import clsx from 'clsx'
import { Scissors } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { spoken } from '../records/keys'
import { Button } from '../ui/Button'
import { ButtonLink } from '../ui/ButtonLink'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { count, list, when } from '../ui/text'
import { CalledFor } from './CalledFor'
import { ConditionsDialog } from './ConditionsDialog'
import { useMendDifference, useMends, useRebuild, useRebuildStale, useTakeBack } from './queries'
import { boardOf, madeOf, scope } from './words'

type Mend = Schema['MendView']

/** Generated mods: patches, merges and combined files, how each stands, and which the set still calls for. */
export function MendsView() {
  const workspace = useWorkspace()
  const mends = useMends(workspace)
  const { say } = useNotices()
  const rebuild = useRebuildStale(workspace, () => say('All stale mends are rebuilt.'))
  const stale = mends.data?.filter((m) => m.stale && m.kind !== 'TOOL').length ?? 0
  return (
    <Screen
      title="Mends"
      says="Mods that are made of others: combined records, several plugins made one, combined files, and what tools wrote."
      actions={
        <>
          {stale > 0 && (
            <Button look="strong" disabled={rebuild.isPending} onClick={() => rebuild.mutate(undefined)}>
              {rebuild.isPending ? 'Rebuilding …' : `Rebuild ${count(stale, 'stale mend')}`}
            </Button>
          )}
          <ButtonLink to={`/workspaces/${workspace}/mends/combined-files`}>Combine files</ButtonLink>
          <ButtonLink to={`/workspaces/${workspace}/mends/merge`}>Merge plugins</ButtonLink>
        </>
      }
    >
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)] gap-3 max-lg:grid-cols-1">
        <section aria-label="Mends" className="card min-h-0 overflow-y-auto">
          {mends.isPending ? (
            <Loading what="mends" />
          ) : !mends.data ? (
            <Failed error={mends.error} retry={() => mends.refetch()} />
          ) : mends.data.length === 0 ? (
            <Empty icon={Scissors} title="No patches or merges yet">
              Settle in{' '}
              <Link to={`/workspaces/${workspace}/records`} className="text-woad underline">
                Records
              </Link>{' '}
              what needs a decision, and put the outcome into a patch.
            </Empty>
          ) : (
            <ul>
              {mends.data.map((m) => (
                <MendCard key={m.mod} workspace={workspace} mend={m} />
              ))}
            </ul>
          )}
        </section>
        <CalledFor workspace={workspace} />
      </div>
    </Screen>
  )
}

const KINDS: Record<Mend['kind'], string> = {
  PATCH: 'patch',
  MERGE: 'merge',
  COMBINED: 'combined files',
  TOOL: 'output of a tool',
}

function MendCard({ workspace, mend: m }: { workspace: number; mend: Mend }) {
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const rebuild = useRebuild(workspace, () => say(`“${m.name}” is rebuilt.`))
  const back = useTakeBack(workspace, () =>
    say(`“${m.name}” is taken back: its plugins are on again.`, { label: 'Undo', run: undo }),
  )
  const [shown, setShown] = useState(false)
  const [conditions, setConditions] = useState(false)
  const busy = rebuild.isPending || back.isPending
  return (
    <li className="border-line border-b px-4 py-3">
      <h2 className="flex flex-wrap items-baseline gap-x-2">
        <Link to={`/workspaces/${workspace}/layers/${m.mod}`} className="hover:underline">
          {m.name}
        </Link>
        <Tag>{KINDS[m.kind]}</Tag>
        {!m.on && <Tag>off</Tag>}
        {m.on && <Tag>{m.stale ? 'stale' : 'fresh'}</Tag>}
      </h2>
      <p className="text-ink-2">
        {m.kind === 'COMBINED' ? (
          <Link to={`/workspaces/${workspace}/mends/combined-files`} className="text-woad underline">
            {count(m.records, 'file')}
          </Link>
        ) : m.kind === 'TOOL' ? (
          count(m.records, 'file')
        ) : (
          `${m.plugin} · ${count(m.records, 'record')} · ${scope(m)}`
        )}{' '}
        · made {when(m.builtAt)}
      </p>
      {m.stale && <Notes notes={m.reasons} tone="stale" />}
      {m.wrong.length > 0 && <Notes notes={m.wrong} tone="wrong" />}
      {m.on && !m.needed && (
        <p className="mt-1.5 text-ink-2">Nothing here needs it: the game reads the same without it.</p>
      )}
      {m.conditions.length > 0 && (
        <p className="mt-1.5 text-ink-2">
          Right {list(m.conditions.map((c) => c.text + (c.met ? '' : ' (not so now)')))}.
        </p>
      )}
      <details className="mt-1.5">
        <summary className="cursor-pointer text-ink-2">
          Made of {count(m.ingredients.length, madeOf(m))}
          {m.decisions > 0 && ` and your decisions on ${count(m.decisions, 'record')}`}
          {m.credits.length > 0 && `, with the work of ${list(m.credits)}`}
        </summary>
        <ul className="mt-1">
          {m.ingredients.map((i) => (
            <li key={i.plugin + i.modName} className="py-0.5">
              {m.kind === 'COMBINED' ? (
                <Link to={boardOf(workspace, i.plugin, m)} className="text-woad underline">
                  {i.plugin}
                </Link>
              ) : (
                i.plugin
              )}{' '}
              <span className="text-ink-2">
                {i.modName && `of ${i.modName} ${i.modVersion}`}
                {i.state === 'CHANGED' && ', has changed since'}
                {i.state === 'GONE' && ', is not there any more'}
              </span>{' '}
              <code className="text-[11px] text-ink-3" title={i.made}>
                {i.made.slice(0, 12)}
              </code>
            </li>
          ))}
        </ul>
      </details>
      <p className="mt-2 flex flex-wrap gap-1.5">
        {m.kind === 'TOOL' ? (
          <ButtonLink to={`/workspaces/${workspace}/tools/${m.tool}`}>
            {m.stale ? 'Run the tool again' : 'Go to the tool'}
          </ButtonLink>
        ) : (
          <Button className="h-7" disabled={busy || !m.on} onClick={() => rebuild.mutate(m.mod)}>
            {rebuild.isPending ? 'Rebuilding …' : 'Rebuild'}
          </Button>
        )}
        {m.stale && m.kind !== 'TOOL' && (
          <Button className="h-7" aria-expanded={shown} onClick={() => setShown(!shown)}>
            {shown ? 'Hide the difference' : 'See the difference'}
          </Button>
        )}
        {m.kind === 'PATCH' && (
          <Button className="h-7" onClick={() => setConditions(true)}>
            When it is right
          </Button>
        )}
        {m.kind === 'MERGE' && m.on && (
          <Button className="h-7" disabled={busy} onClick={() => back.mutate(m.mod)}>
            {back.isPending ? 'Taking it back …' : 'Take the merge back'}
          </Button>
        )}
        {m.kind === 'MERGE' && (
          <a
            href={`/api/workspaces/${workspace}/mends/merges/${m.mod}/renumbered`}
            download="renumbered.csv"
            className="inline-flex h-7 items-center px-1.5 text-woad underline"
          >
            Old and new ids
          </a>
        )}
      </p>
      {shown && <Difference workspace={workspace} mod={m.mod} />}
      {conditions && <ConditionsDialog workspace={workspace} mend={m} onClose={() => setConditions(false)} />}
    </li>
  )
}

function Notes({ notes, tone }: { notes: readonly string[]; tone: 'stale' | 'wrong' }) {
  return (
    <ul
      className={clsx(
        'mt-1.5 rounded-lg border px-3 py-1.5',
        tone === 'stale' ? 'border-ochre/50 bg-ochre-soft' : 'border-madder/50 bg-madder-soft',
      )}
    >
      {notes.map((n) => (
        <li key={n}>{n}</li>
      ))}
    </ul>
  )
}

/** What making a mend anew would change in it, record by record. */
function Difference({ workspace, mod }: { workspace: number; mod: number }) {
  const difference = useMendDifference(workspace, mod, true)
  if (difference.isPending) return <Loading what="the difference" />
  if (!difference.data) return <Failed error={difference.error} retry={() => difference.refetch()} />
  const { inAll, records } = difference.data
  if (inAll === 0) return <p className="mt-2 text-ink-2">It would hold the same.</p>
  return (
    <ul aria-label="Difference" className="mt-2 max-h-60 overflow-y-auto rounded-lg border border-line">
      {records.map((d) => (
        <li key={d.key} className="border-line border-b px-3 py-1.5">
          <b className="font-medium">{d.label}</b> <span className="text-ink-2">{spoken(d.key)}</span>
          {d.before === undefined && ' comes in'}
          {d.after === undefined && ' goes'}
          {d.before !== undefined && d.after !== undefined && (
            <span className="block whitespace-pre-wrap break-all font-mono text-[11px]">
              <span className="text-ink-2">{d.before}</span> → {d.after}
            </span>
          )}
        </li>
      ))}
      {inAll > records.length && (
        <li className="px-3 py-1.5 text-ink-2">and {count(inAll - records.length, 'record')} more</li>
      )}
    </ul>
  )
}
