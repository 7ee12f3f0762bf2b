import { ExternalLink, Pencil } from 'lucide-react'
import { type FormEvent, lazy, type ReactNode, Suspense, useState } from 'react'
import { Link } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { KnownOf } from '../findings/KnownOf'
import { Button } from '../ui/Button'
import { CopyButton } from '../ui/CopyButton'
import { kept, useKept } from '../ui/kept'
import { PathText } from '../ui/PathText'
import { bytes, count, list, number, when } from '../ui/text'
import { NeedsList } from './NeedsList'
import { useAct } from './queries'
import { Tags } from './Tags'

const Markdown = lazy(() => import('../ui/Markdown'))
type Mod = Schema['ModDetail']

/** Who a mod is and what its user says of it. */
export function AboutPart({ workspace, mod: m }: { workspace: number; mod: Mod }) {
  return (
    <div className="mt-2 grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(0,1fr)] items-start gap-3 overflow-y-auto max-lg:grid-cols-1">
      <div className="flex flex-col gap-3">
        {m.better && <BetterFitting workspace={workspace} mod={m} />}
        <Card workspace={workspace} mod={m} />
        <Box title="Tags">
          <Tags workspace={workspace} mod={m.id} tags={m.tags} />
        </Box>
        <Box title="Where it came from">
          <p className="break-words text-ink-2">
            {m.archiveName ? (
              <>
                <span className="mono">{m.archiveName}</span>, installed {when(m.installedAt)}. It begins at{' '}
                {m.contentRoot ? <span className="mono">{m.contentRoot}/</span> : 'the top of the archive'}:{' '}
                {m.rootReason}.
              </>
            ) : (
              `Made here, ${when(m.installedAt)}.`
            )}
          </p>
          <NeedsList detail={m} />
        </Box>
      </div>
      <div className="flex flex-col gap-3">
        <Notes key={m.id} workspace={workspace} mod={m} />
        <Box title="What is known of it">
          <KnownOf workspace={workspace} mod={m.id} cardId={m.cardId} />
        </Box>
        {m.leftOut.length > 0 && (
          <Box title={`Left out: ${number(m.leftOut.length)}`}>
            <ul className="max-h-72 overflow-y-auto">
              {m.leftOut.map((l) => (
                <li
                  key={l.entry}
                  className="flex items-baseline gap-2 border-line border-b border-dotted py-[3px]"
                >
                  <span className="min-w-0 flex-1">
                    <PathText path={l.entry} most={52} />
                    <span className="block text-[11.5px] text-ink-2">{l.reason}</span>
                  </span>
                  <span className="num text-[11.5px] text-ink-2">{bytes(l.sizeBytes)}</span>
                </li>
              ))}
            </ul>
          </Box>
        )}
      </div>
    </div>
  )
}

function Box({ title, actions, children }: { title: string; actions?: ReactNode; children: ReactNode }) {
  return (
    <section className="card px-4 py-3">
      <div className="mb-1.5 flex items-center gap-2">
        <h2 className="flex-1 text-[13px]">{title}</h2>
        {actions}
      </div>
      {children}
    </section>
  )
}

function BetterFitting({ workspace, mod: m }: { workspace: number; mod: Mod }) {
  const b = m.better
  if (!b) return null
  const parts = [
    b.added.length > 0 && `${count(b.added.length, 'file')} would come`,
    b.gone.length > 0 && `${count(b.gone.length, 'file')} would go`,
    b.different.length > 0 && `${count(b.different.length, 'file')} would differ`,
  ].filter((p): p is string => typeof p === 'string')
  return (
    <section
      aria-label="A better fitting"
      className="rounded-[10px] border border-ochre/50 bg-ochre-soft px-4 py-3"
    >
      <h2 className="text-[13px]">Another choice of its contents would fit better by now</h2>
      <p className="mt-1">{b.because.join(' ')}</p>
      <p className="mt-1 text-ink-2">{list(parts)}. Your own answers are where you start.</p>
      <Link
        className="mt-2 inline-flex h-[30px] items-center rounded-[7px] bg-strong px-2.5 text-on-strong"
        to={`/workspaces/${workspace}/library/inbox/${m.archive}?instead=${m.id}`}
      >
        Fit again
      </Link>
    </section>
  )
}

function Card({ workspace, mod: m }: { workspace: number; mod: Mod }) {
  const [editing, setEditing] = useState(() => kept(cardOf(workspace, m)) !== undefined)
  const c = m.card
  if (editing) return <CardForm workspace={workspace} mod={m} done={() => setEditing(false)} />
  const edited = (Object.keys(c) as (keyof typeof c)[]).filter((k) => String(c[k]) !== String(m.given[k]))
  return (
    <Box
      title="Card"
      actions={
        <Button look="quiet" className="h-6" onClick={() => setEditing(true)}>
          <Pencil size={13} aria-hidden="true" /> Edit
        </Button>
      }
    >
      <p className="text-[13.5px] leading-snug">
        {c.summary || <span className="text-ink-3">No summary.</span>}
      </p>
      <dl className="mt-2 grid grid-cols-[88px_1fr] gap-x-3 gap-y-1">
        <Row term="id">
          <span className="inline-flex items-center gap-1">
            <span className="mono">{m.cardId}</span>
            <CopyButton what="the id of the mod" text={m.cardId} />
          </span>
        </Row>
        <Row term="authors">{c.authors.length > 0 ? list(c.authors) : 'not said'}</Row>
        {m.band && <Row term="band">{m.band}</Row>}
        {m.plugins.length > 0 && <Row term="plugins">{list(m.plugins)}</Row>}
        <Row term="from">
          {c.url && /^https?:\/\//i.test(c.url) ? (
            <a href={c.url} target="_blank" rel="noreferrer" className="break-all text-woad underline">
              {c.url} <ExternalLink size={12} className="inline" aria-hidden="true" />
            </a>
          ) : (
            c.item || c.url || 'not said'
          )}
          {c.release && <span className="text-ink-2"> · release {c.release}</span>}
        </Row>
      </dl>
      <p className="mt-2 text-[12px] text-ink-2">
        {m.inferred
          ? 'It came without a card: name and version are taken from its archive.'
          : 'As its author gave it'}
        {edited.length > 0
          ? `${m.inferred ? ' ' : ', but '}you have edited ${list(edited)}; as it came: ${edited.map((k) => `“${String(m.given[k]) || 'nothing'}”`).join(', ')}.`
          : m.inferred
            ? ''
            : '.'}
      </p>
    </Box>
  )
}

function Row({ term, children }: { term: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-ink-3">{term}</dt>
      <dd className="min-w-0 break-words">{children}</dd>
    </>
  )
}

const FIELDS: readonly { key: keyof Schema['CardText']; label: string }[] = [
  { key: 'name', label: 'Name' },
  { key: 'version', label: 'Version' },
  { key: 'summary', label: 'Summary' },
  { key: 'authors', label: 'Authors, separated by commas' },
  { key: 'url', label: 'Address of its page' },
  { key: 'item', label: 'Its item there' },
  { key: 'release', label: 'Its release there' },
]

/** Under which name a card that is half edited is kept. */
const cardOf = (workspace: number, m: Mod) => `card ${workspace}/${m.id}`

function CardForm({ workspace, mod: m, done }: { workspace: number; mod: Mod; done: () => void }) {
  const [text, setText, drop] = useKept<Record<string, string>>(cardOf(workspace, m), {
    ...m.card,
    authors: m.card.authors.join(', '),
  } as Record<string, string>)
  const end = () => {
    drop()
    done()
  }
  const save = useAct(
    workspace,
    (body: Schema['CardText']) =>
      got(
        api.PUT('/api/workspaces/{workspace}/mods/{mod}/card', {
          params: { path: { workspace, mod: m.id } },
          body,
        }),
      ),
    end,
  )
  const submit = (e: FormEvent) => {
    e.preventDefault()
    const authors = (text.authors ?? '')
      .split(',')
      .map((a) => a.trim())
      .filter(Boolean)
    save.mutate({ ...m.card, ...text, authors })
  }
  return (
    <Box title="Card">
      <form onSubmit={submit} className="flex flex-col gap-2">
        {FIELDS.map(({ key, label }) => (
          <label key={key} className="flex flex-col gap-0.5 text-ink-2">
            {label}
            <input
              value={text[key] ?? ''}
              onChange={(e) => setText({ ...text, [key]: e.target.value })}
              className="h-8 rounded-[7px] border border-line-2 bg-card px-2 text-ink"
            />
          </label>
        ))}
        <div className="flex flex-wrap gap-2">
          <Button type="submit" look="strong" disabled={save.isPending}>
            Save
          </Button>
          <Button onClick={end}>Discard changes</Button>
          <Button look="quiet" onClick={() => save.mutate(m.given)}>
            As it came
          </Button>
        </div>
      </form>
    </Box>
  )
}

function Notes({ workspace, mod: m }: { workspace: number; mod: Mod }) {
  const name = `notes ${workspace}/${m.id}`
  const [editing, setEditing] = useState(() => kept<string>(name) !== undefined)
  const [text, setText, drop] = useKept(name, m.notes)
  const end = () => {
    drop()
    setEditing(false)
  }
  const save = useAct(
    workspace,
    (notes: string) =>
      got(
        api.PUT('/api/workspaces/{workspace}/mods/{mod}/notes', {
          params: { path: { workspace, mod: m.id } },
          body: { notes },
        }),
      ),
    end,
  )
  return (
    <Box
      title="Your notes"
      actions={
        !editing && (
          <Button look="quiet" className="h-6" onClick={() => setEditing(true)}>
            <Pencil size={13} aria-hidden="true" /> {m.notes ? 'Edit' : 'Write'}
          </Button>
        )
      }
    >
      {editing ? (
        <form
          className="flex flex-col gap-2"
          onSubmit={(e) => {
            e.preventDefault()
            save.mutate(text)
          }}
        >
          <textarea
            aria-label="Your notes, in Markdown"
            value={text}
            onChange={(e) => setText(e.target.value)}
            rows={8}
            className="mono rounded-[7px] border border-line-2 bg-card p-2"
          />
          <div className="flex gap-2">
            <Button type="submit" look="strong" disabled={save.isPending}>
              Save
            </Button>
            <Button onClick={end}>Discard changes</Button>
          </div>
        </form>
      ) : m.notes ? (
        <Suspense>
          <Markdown text={m.notes} />
        </Suspense>
      ) : (
        <p className="text-ink-2">None. They stay with the mod, whichever version is in use.</p>
      )}
    </Box>
  )
}
