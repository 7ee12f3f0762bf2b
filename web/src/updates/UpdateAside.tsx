import { lazy, Suspense, useState } from 'react'
import { api, got } from '../api/client'
import { choiceAddress } from '../choice/wanted'
import { useNotices } from '../frame/Notices'
import { useAct } from '../library/queries'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { ButtonLink } from '../ui/ButtonLink'
import { Dialog } from '../ui/Dialog'
import { list } from '../ui/text'
import type { LeftKind, Update } from './queries'
import { howWords, LEAVES } from './words'

const Markdown = lazy(() => import('../ui/Markdown'))

/** One update: what is new in it, what is known of it, and leaving it. */
export function UpdateAside({ workspace, update: u }: { workspace: number; update: Update }) {
  const [leaving, setLeaving] = useState(false)
  const n = u.newest
  return (
    <Aside label="The update that is selected">
      <h2 className="break-words">{u.name}</h2>
      <p className="num text-ink-2">
        {u.version} is here{n && `, ${n.version} is the newest`}
      </p>
      {u.withdrawn && <p className="mt-1 break-words text-madder">Yours is withdrawn: {u.withdrawn}</p>}
      {n && (
        <div className="mt-2.5 flex flex-wrap gap-2">
          <ButtonLink
            to={choiceAddress(workspace, { wishes: [{ mod: u.catalogueMod, release: n.release }] })}
          >
            Is it worth it?
          </ButtonLink>
          <Button onClick={() => setLeaving(true)}>Leave it …</Button>
        </div>
      )}
      <AsidePart title="What is new since yours">
        <ul className="flex flex-col gap-2">
          {u.since.map((s) => (
            <li key={s.version} className="border-line border-t pt-1.5">
              <p>
                <b className="num">{s.version}</b> <span className="num text-ink-2">{s.at}</span>
              </p>
              {s.changes ? (
                <Suspense fallback={<p className="text-ink-2">{s.changes}</p>}>
                  <div className="text-[12.5px]">
                    <Markdown text={s.changes} />
                  </div>
                </Suspense>
              ) : (
                <p className="text-[12px] text-ink-2">Its author says nothing of it.</p>
              )}
            </li>
          ))}
        </ul>
      </AsidePart>
      {u.otherVariants.length > 0 && (
        <p className="mt-2 text-[12px] text-ink-2">
          There {u.otherVariants.length === 1 ? 'is' : 'are'} also{' '}
          {list(u.otherVariants.map((v) => v || 'the plain one'))}, which{' '}
          {u.otherVariants.length === 1 ? 'is' : 'are'} no update of yours.
        </p>
      )}
      <Identity workspace={workspace} update={u} />
      {leaving && <LeaveDialog workspace={workspace} update={u} onClose={() => setLeaving(false)} />}
    </Aside>
  )
}

/** Which mod of the catalogues it is, and how that is known. */
function Identity({ workspace, update: u }: { workspace: number; update: Update }) {
  const [typed, setTyped] = useState<string | null>(null)
  const path = { workspace, mod: u.mod }
  const set = useAct(
    workspace,
    (id: string | null) =>
      id === null
        ? got(api.DELETE('/api/workspaces/{workspace}/updates/{mod}/identity', { params: { path } }))
        : got(
            api.PUT('/api/workspaces/{workspace}/updates/{mod}/identity', {
              params: { path },
              body: { catalogueMod: id.trim() },
            }),
          ),
    () => setTyped(null),
  )
  return (
    <AsidePart title="In the catalogues">
      <p className="break-words">
        <span className="mono text-[12px]">{u.catalogueMod}</span>, {howWords(u)}
      </p>
      {typed === null ? (
        <p className="mt-1.5 flex flex-wrap gap-2">
          <Button onClick={() => setTyped(u.catalogueMod)}>Correct this</Button>
          {u.how.startsWith('SAID') && <Button onClick={() => set.mutate(null)}>Take that back</Button>}
        </p>
      ) : (
        <form
          className="mt-1.5 flex flex-wrap gap-2"
          onSubmit={(e) => {
            e.preventDefault()
            set.mutate(typed)
          }}
        >
          <input
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            aria-label="Its id in the catalogues; empty for none"
            placeholder="in none of them"
            className="mono h-[30px] w-full rounded-[7px] border border-line-2 bg-card px-2 text-[12px]"
          />
          <Button type="submit" disabled={set.isPending}>
            It is this one
          </Button>
          <Button look="quiet" onClick={() => setTyped(null)}>
            Leave it as it is
          </Button>
        </form>
      )}
    </AsidePart>
  )
}

function LeaveDialog(props: { workspace: number; update: Update; onClose: () => void }) {
  const { workspace, update: u, onClose } = props
  const [kind, setKind] = useState<LeftKind>('VERSION')
  const [reason, setReason] = useState('')
  const { say } = useNotices()
  const path = { workspace, mod: u.mod }
  const again = useAct(workspace, () =>
    got(api.DELETE('/api/workspaces/{workspace}/updates/{mod}/left', { params: { path } })),
  )
  const leave = useAct(
    workspace,
    () =>
      got(
        api.PUT('/api/workspaces/{workspace}/updates/{mod}/left', {
          params: { path },
          body: { kind, reason: reason.trim() },
        }),
      ),
    () => {
      onClose()
      say(`${u.name}: the update is left.`, { label: 'Offer it again', run: () => again.mutate(undefined) })
    },
  )
  return (
    <Dialog open onOpenChange={onClose} title={`Leave ${u.newest?.version} of ${u.name}?`}>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          leave.mutate(undefined)
        }}
      >
        <fieldset>
          <legend className="sr-only">What is left</legend>
          {LEAVES.map((l) => (
            <label key={l.kind} className="flex items-baseline gap-2 py-1">
              <input
                type="radio"
                name="left"
                className="accent-(--woad)"
                checked={kind === l.kind}
                onChange={() => setKind(l.kind)}
              />
              <span>
                {l.says} <span className="text-ink-2">{l.about}</span>
              </span>
            </label>
          ))}
        </fieldset>
        <label className="mt-2 block">
          Why
          <input
            value={reason}
            maxLength={400}
            onChange={(e) => setReason(e.target.value)}
            className="mt-1 h-[32px] w-full rounded-[7px] border border-line-2 bg-card px-2.5"
          />
        </label>
        <div className="mt-3 flex justify-end gap-2">
          <Button type="submit" look="strong" disabled={leave.isPending}>
            Leave it
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
