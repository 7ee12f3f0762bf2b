import { NotebookPen } from 'lucide-react'
import { type FormEvent, useId, useRef } from 'react'
import { api, got } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useWorkspace } from '../frame/workspace'
import { useAct } from '../library/queries'
import { Button } from '../ui/Button'
import { useKept } from '../ui/kept'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { count } from '../ui/text'
import { type Update, useUpdates } from '../updates/queries'
import { type ModFinding, useFindings, type Verdict } from './queries'
import { scopeWords, tallyWords, VERDICTS, verdictWords } from './words'

/** What the user and others have found out about mods. */
export function FindingsView() {
  const workspace = useWorkspace()
  const findings = useFindings(workspace)
  const mods = useUpdates(workspace).data ?? []
  const names = new Map(mods.map((m) => [m.catalogueMod, m.name]))
  const nameOf = (mod: string) => names.get(mod) ?? mod
  const all = findings.data ?? []
  const byMod = new Map<string, ModFinding[]>()
  for (const f of all) byMod.set(f.mod, [...(byMod.get(f.mod) ?? []), f])
  const others = all.filter((f) => !f.own && f.id !== undefined).length
  return (
    <Screen
      title="Findings"
      says="What you and others have found out about the mods that are on"
      actions={
        <>
          <BringIn workspace={workspace} />
          <a
            href={`/api/workspaces/${workspace}/findings/text`}
            download="findings.jsonl"
            className="inline-flex h-[30px] items-center rounded-[7px] border border-line bg-card px-2.5 hover:bg-sunk"
          >
            Save yours
          </a>
          {others > 0 && <TakeAway workspace={workspace} count={others} />}
        </>
      }
    >
      <WriteOne workspace={workspace} mods={mods} />
      {findings.isPending ? (
        <div className="card flex-1">
          <Loading what="the findings" />
        </div>
      ) : findings.isError ? (
        <Failed error={findings.error} retry={() => findings.refetch()} />
      ) : all.length === 0 ? (
        <div className="card flex-1">
          <Empty icon={NotebookPen} title="Nothing has been found out yet">
            Write down what works and what does not. Catalogues bring the findings of others, and a file of
            them can be brought in.
          </Empty>
        </div>
      ) : (
        <section
          aria-label="All findings"
          tabIndex={0}
          className="card min-h-0 flex-1 overflow-y-auto px-4 py-2"
        >
          {[...byMod].map(([mod, found]) => (
            <OfMod key={mod} workspace={workspace} name={nameOf(mod)} found={found} nameOf={nameOf} />
          ))}
        </section>
      )}
    </Screen>
  )
}

function OfMod(props: {
  workspace: number
  name: string
  found: readonly ModFinding[]
  nameOf: (mod: string) => string
}) {
  const own = props.found.filter((f) => f.own)
  const others = props.found.filter((f) => !f.own)
  return (
    <section aria-label={props.name} className="border-line border-b py-2 last:border-b-0">
      <div className="flex flex-wrap items-baseline gap-2">
        <h2 className="min-w-0 truncate">{props.name}</h2>
        {others.length > 0 && <span className="text-[12px] text-ink-2">others: {tallyWords(others)}</span>}
      </div>
      <ul>
        {[...own, ...others].map((f) => (
          <OneFinding
            key={f.id ?? `${f.by} ${f.at} ${f.says} ${f.verdict}`}
            workspace={props.workspace}
            finding={f}
            nameOf={props.nameOf}
          />
        ))}
      </ul>
    </section>
  )
}

function OneFinding(props: { workspace: number; finding: ModFinding; nameOf: (mod: string) => string }) {
  const { workspace, finding: f } = props
  const remove = useAct(workspace, (finding: number) =>
    got(
      api.DELETE('/api/workspaces/{workspace}/findings/{finding}', {
        params: { path: { workspace, finding } },
      }),
    ),
  )
  const look = VERDICTS.find((v) => v.verdict === f.verdict)?.look
  const scope = scopeWords(f, props.nameOf)
  return (
    <li className="flex items-baseline gap-2 py-1">
      <span className={`w-28 shrink-0 font-medium ${look}`}>{verdictWords(f.verdict)}</span>
      <span className="min-w-0 flex-1 break-words">
        {f.says}
        {scope && <span className="ml-1 text-ink-2">({scope})</span>}
        {!f.speaks && <span className="ml-1 text-[12px] text-ink-3">not about what is on now</span>}
      </span>
      <span className="shrink-0 text-[12px] text-ink-2">
        {f.own ? <Tag>yours</Tag> : f.by || 'unsigned'} <span className="num">{f.at}</span>
      </span>
      {f.id !== undefined && (
        <Button
          look="quiet"
          aria-label={`Take away: ${verdictWords(f.verdict)}, ${f.says}`}
          onClick={() => remove.mutate(f.id as number)}
        >
          Take away
        </Button>
      )}
    </li>
  )
}

interface Draft {
  mod: string
  verdict: Verdict
  says: string
  withMod: string
  by: string
}

const BLANK: Draft = { mod: '', verdict: 'WORKS', says: '', withMod: '', by: '' }

/** Writing one in a sentence: which mod, what of it, with whom. */
function WriteOne({ workspace, mods }: { workspace: number; mods: readonly Update[] }) {
  const [draft, write, drop] = useKept<Draft>(`finding of ${workspace}`, BLANK)
  const list = useId()
  const { say } = useNotices()
  const find = (name: string) => mods.find((m) => m.name === name || m.catalogueMod === name)
  const add = useAct(
    workspace,
    () => {
      const mod = find(draft.mod)
      const other = find(draft.withMod)
      return got(
        api.POST('/api/workspaces/{workspace}/findings', {
          params: { path: { workspace } },
          body: {
            mod: mod?.catalogueMod ?? draft.mod.trim(),
            verdict: draft.verdict,
            says: draft.says.trim(),
            ...(mod ? { versions: `=${mod.version}` } : {}),
            with: draft.withMod.trim()
              ? [{ mod: other?.catalogueMod ?? draft.withMod.trim(), versions: '*' }]
              : [],
            ...(draft.by.trim() ? { by: draft.by.trim() } : {}),
          },
        }),
      )
    },
    () => {
      drop()
      say('Written down.')
    },
  )
  const submit = (e: FormEvent) => {
    e.preventDefault()
    if (draft.mod.trim()) add.mutate(undefined)
  }
  const field = 'h-[30px] rounded-[7px] border border-line-2 bg-card px-2.5'
  return (
    <form
      onSubmit={submit}
      className="mb-3 flex flex-wrap items-center gap-2"
      aria-label="A finding of yours"
    >
      <datalist id={list}>
        {mods.map((m) => (
          <option key={m.mod} value={m.name} />
        ))}
      </datalist>
      <input
        list={list}
        value={draft.mod}
        onChange={(e) => write({ ...draft, mod: e.target.value })}
        aria-label="Which mod"
        placeholder="which mod"
        className={`${field} w-44`}
      />
      <select
        value={draft.verdict}
        onChange={(e) => write({ ...draft, verdict: e.target.value as Verdict })}
        aria-label="What of it"
        className={field}
      >
        {VERDICTS.map((v) => (
          <option key={v.verdict} value={v.verdict}>
            {v.says}
          </option>
        ))}
      </select>
      <input
        list={list}
        value={draft.withMod}
        onChange={(e) => write({ ...draft, withMod: e.target.value })}
        aria-label="Together with"
        placeholder="together with (any)"
        className={`${field} w-40`}
      />
      <input
        value={draft.says}
        maxLength={2000}
        onChange={(e) => write({ ...draft, says: e.target.value })}
        aria-label="In a sentence"
        placeholder="in a sentence"
        className={`${field} min-w-48 flex-1`}
      />
      <input
        value={draft.by}
        maxLength={200}
        onChange={(e) => write({ ...draft, by: e.target.value })}
        aria-label="Your name, if you want it said"
        placeholder="your name, or none"
        className={`${field} w-36`}
      />
      <Button type="submit" look="strong" disabled={!draft.mod.trim() || add.isPending}>
        Write it down
      </Button>
    </form>
  )
}

function BringIn({ workspace }: { workspace: number }) {
  const file = useRef<HTMLInputElement>(null)
  const { say } = useNotices()
  const bring = useAct(
    workspace,
    async (f: File) =>
      got(
        api.POST('/api/workspaces/{workspace}/findings/text', {
          params: { path: { workspace } },
          body: { text: await f.text() },
        }),
      ),
    (r) => say(`${count(r.count, 'finding')} came in.`),
  )
  return (
    <>
      <input
        ref={file}
        type="file"
        accept=".jsonl,.json,.txt"
        aria-label="A file of findings"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          const f = e.target.files?.[0]
          if (f) bring.mutate(f)
          e.target.value = ''
        }}
      />
      <Button onClick={() => file.current?.click()} disabled={bring.isPending}>
        Bring findings in
      </Button>
    </>
  )
}

function TakeAway({ workspace, count: n }: { workspace: number; count: number }) {
  const take = useAct(workspace, () =>
    got(api.DELETE('/api/workspaces/{workspace}/findings', { params: { path: { workspace } } })),
  )
  return (
    <Button onClick={() => take.mutate(undefined)}>
      Take away the {n} that {n === 1 ? 'was' : 'were'} brought in
    </Button>
  )
}
