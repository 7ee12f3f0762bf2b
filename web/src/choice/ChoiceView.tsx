import { Check, CircleDot, Download, RefreshCw, ToggleRight, X } from 'lucide-react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { useAddress } from '../frame/address'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { useAct } from '../library/queries'
import { Button } from '../ui/Button'
import { ButtonLink } from '../ui/ButtonLink'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { bytes, list } from '../ui/text'
import { AheadPart } from './AheadPart'
import { asked, useChoice } from './queries'
import { choiceAddress, held, printed, type Wanted, wanted, without } from './wanted'
import { type Brought, becomesWords, GROUPS, type Member, sumWords, whyWords } from './words'

const ICONS = { FETCHED: Download, CHANGED: RefreshCw, SWITCHED_ON: ToggleRight, STAYS: Check }

/** What a choice brings with it, before anything of it happens; and getting it in one act. */
export function ChoiceView() {
  const workspace = useWorkspace()
  const [query] = useAddress()
  const w = wanted(query)
  const nothing = w.wishes.length === 0 && !w.missing
  const choice = useChoice(workspace, w)
  const brought = choice.data
  const [seen, setSeen] = useState<Seen | null>(null)
  return (
    <Screen
      title={w.missing ? 'What is missing' : 'What it brings with it'}
      says={brought?.answer === 'FOUND' && sumWords(brought)}
      actions={
        <>
          <ButtonLink to={`/workspaces/${workspace}/catalogue`}>Find mods</ButtonLink>
          {brought?.answer === 'FOUND' && (
            <>
              <LookAheadButton workspace={workspace} wanted={w} brought={brought} onSeen={setSeen} />
              <GetButton workspace={workspace} wanted={w} brought={brought} />
            </>
          )}
        </>
      }
    >
      {brought && <Asked workspace={workspace} wanted={w} brought={brought} />}
      <section aria-label="What comes of it" tabIndex={0} className="card min-h-0 flex-1 overflow-y-auto">
        {nothing ? (
          <Empty icon={CircleDot} title="Nothing is chosen">
            Choose mods in the catalogue; what they bring with them stands here before anything happens.
          </Empty>
        ) : choice.isPending ? (
          <Loading what="what it brings with it" />
        ) : choice.isError ? (
          <Failed error={choice.error} retry={() => choice.refetch()} />
        ) : choice.data.answer === 'NONE' ? (
          <Contradiction workspace={workspace} wanted={w} brought={choice.data} />
        ) : choice.data.answer === 'WHICH_VARIANT' ? (
          <WhichVariant workspace={workspace} wanted={w} brought={choice.data} />
        ) : (
          <>
            {seen?.mark === choice.data.mark && (
              <div className="border-line border-b px-4 py-3">
                <AheadPart ahead={seen.ahead} />
              </div>
            )}
            <Members brought={choice.data} />
          </>
        )}
      </section>
    </Screen>
  )
}

/** What was asked for, each part of it to be taken back. */
function Asked({
  workspace,
  wanted: w,
  brought: b,
}: {
  workspace: number
  wanted: Wanted
  brought: Brought
}) {
  const go = useNavigate()
  const take = (next: Wanted) => go(choiceAddress(workspace, next))
  if (b.wanted.length + b.notHeld.length === 0) return null
  return (
    <ul className="mb-2 flex flex-wrap gap-1.5" aria-label="What was asked for">
      {w.wishes.map((x, i) => (
        <AskedFor
          key={JSON.stringify(x)}
          says={[b.wanted[i] ?? x.mod, x.variant].filter(Boolean).join(', ')}
          onRemove={() => take({ ...w, wishes: w.wishes.filter((y) => y !== x) })}
        />
      ))}
      {b.notHeld.map((s) => (
        <AskedFor key={s.text} says={`need not hold: ${s.text}`} onRemove={() => take(held(w, s))} />
      ))}
    </ul>
  )
}

function AskedFor({ says, onRemove }: { says: string; onRemove: () => void }) {
  return (
    <li className="flex min-w-0 items-center gap-1 rounded-full border border-line bg-card pl-2.5 text-[12px]">
      <span className="min-w-0 truncate">{says}</span>
      <button
        type="button"
        aria-label={`Take back: ${says}`}
        onClick={onRemove}
        className="grid h-6 w-6 place-items-center rounded-full text-ink-2 hover:bg-sunk"
      >
        <X size={12} aria-hidden="true" />
      </button>
    </li>
  )
}

/** What was seen ahead, and of which answer. */
interface Seen {
  mark: string
  ahead: Schema['AheadView']
}

/** Fetches what is not here, and tells what following the choice would do; the profile stays as it is. */
function LookAheadButton(props: {
  workspace: number
  wanted: Wanted
  brought: Brought
  onSeen: (seen: Seen) => void
}) {
  const { workspace, wanted: w, brought, onSeen } = props
  const look = useAct(
    workspace,
    async () => {
      const body = asked(w)
      const path = { workspace }
      if (brought.bytesToFetch > 0)
        await finished(
          got(
            api.POST('/api/workspaces/{workspace}/choice/get', {
              params: { path },
              body: { choice: body, mark: brought.mark, fetchOnly: true },
            }),
          ),
        )
      // what was fetched is of the library now, which is another answer
      const now = await got(api.POST('/api/workspaces/{workspace}/choice', { params: { path }, body }))
      if (now.answer !== 'FOUND') return null
      const ahead = await got(
        api.POST('/api/workspaces/{workspace}/choice/ahead', { params: { path }, body }),
      )
      return { mark: now.mark, ahead }
    },
    (seen) => seen && onSeen(seen),
  )
  return (
    <Button
      title="Nothing of the profile changes by this."
      disabled={look.isPending}
      onClick={() => look.mutate(undefined)}
    >
      {look.isPending ? 'Looking ahead…' : 'Look ahead'}
    </Button>
  )
}

function GetButton({
  workspace,
  wanted: w,
  brought,
}: {
  workspace: number
  wanted: Wanted
  brought: Brought
}) {
  const go = useNavigate()
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const idle = brought.off.length === 0 && brought.members.every((m) => m.becomes === 'STAYS')
  const get = useAct(
    workspace,
    () =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/choice/get', {
            params: { path: { workspace } },
            body: { choice: asked(w), mark: brought.mark },
          }),
        ),
      ),
    () => {
      say('All of it is here and on.', { label: 'Undo', run: undo })
      go(`/workspaces/${workspace}/layers`)
    },
  )
  const size = brought.bytesToFetch > 0 ? `, ${bytes(brought.bytesToFetch)}` : ''
  return (
    <Button look="strong" disabled={idle || get.isPending} onClick={() => get.mutate(undefined)}>
      {get.isPending ? 'Getting it…' : `Get all of it${size}`}
    </Button>
  )
}

function Members({ brought }: { brought: Brought }) {
  const groups = GROUPS.map((g) => ({ ...g, all: brought.members.filter((m) => m.becomes === g.becomes) }))
  return (
    <>
      {!brought.sure && (
        <p className="px-4 pt-3 text-ochre">
          Ten seconds were not enough to be sure: this is the best that was found, a better one may exist.
        </p>
      )}
      {brought.off.length > 0 && (
        <section aria-label="To switch off" className="border-line border-b px-4 py-3">
          <h2>To switch off</h2>
          <ul>
            {brought.off.map((o) => (
              <li key={o.mod} className="py-1">
                <b className="font-medium">{o.name}</b> <span className="num">{o.version}</span>
                {o.because && (
                  <span className="ml-2 text-ink-2">else this would not hold: {o.because.text}</span>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {groups
        .filter((g) => g.all.length > 0)
        .map((g) => (
          <section
            key={g.becomes}
            aria-label={g.title}
            className="border-line border-b px-4 py-3 last:border-b-0"
          >
            <h2>{g.title}</h2>
            <ul>
              {g.all.map((m) => (
                <MemberLine key={m.mod} member={m} />
              ))}
            </ul>
          </section>
        ))}
      {brought.unmet.length > 0 && (
        <section aria-label="Not met" className="px-4 py-3">
          <h2>What does not hold, and will not by this</h2>
          <ul>
            {brought.unmet.map((s) => (
              <li key={s.text} className="py-0.5 text-ink-2">
                {s.text}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  )
}

function MemberLine({ member: m }: { member: Member }) {
  const Icon = ICONS[m.becomes]
  return (
    <li className="flex items-baseline gap-2.5 py-1">
      <Icon size={15} className="shrink-0 translate-y-0.5 text-ink-3" aria-hidden="true" />
      <span className="min-w-0 flex-1 break-words">
        <b className="font-medium">{m.name}</b> <span className="num">{m.version}</span>{' '}
        {m.variant && <Tag>{m.variant}</Tag>}
        <span className="ml-1 text-ink-2">
          {whyWords(m)}; {becomesWords(m)}
        </span>
      </span>
      {m.sizeBytes > 0 && <span className="num shrink-0 text-ink-2">{bytes(m.sizeBytes)}</span>}
    </li>
  )
}

function Contradiction(props: { workspace: number; wanted: Wanted; brought: Brought }) {
  const go = useNavigate()
  const { brought: b } = props
  const take = (way: Brought['waysOut'][number]) =>
    go({ search: `?${printed(without(props.wanted, way))}` }, { replace: false })
  return (
    <div className="px-4 py-3.5">
      <h2>This cannot all hold together</h2>
      {!b.sure && (
        <p className="text-ochre">The time was up: there may be a shorter reason, or a smaller way out.</p>
      )}
      <ul className="mt-1 mb-3.5 list-disc pl-5">
        {b.together.map((s) => (
          <li key={s.text}>{s.text}</li>
        ))}
      </ul>
      <h2>Ways out</h2>
      <p className="text-ink-2">Each is enough. What is given up then does not have to hold.</p>
      <ul className="mt-1.5 flex flex-col gap-1.5">
        {b.waysOut.map((way) => {
          const says = list(way.map((s) => s.text ?? ''))
          return (
            <li key={says} className="flex items-center gap-2.5">
              <Button onClick={() => take(way)}>
                {way.every((s) => s.kind === 'WISH') ? 'Do without' : 'Let it not hold'}
              </Button>
              <span className="min-w-0 break-words">{says}</span>
            </li>
          )
        })}
      </ul>
    </div>
  )
}

function WhichVariant(props: { workspace: number; wanted: Wanted; brought: Brought }) {
  const go = useNavigate()
  const { brought: b, wanted: w } = props
  const take = (variant: string) =>
    go({
      search: `?${printed({
        ...w,
        wishes: w.wishes.map((x) => (x.mod === b.variantOf && !x.release ? { mod: x.mod, variant } : x)),
      })}`,
    })
  return (
    <div className="px-4 py-3.5">
      <h2>Which variant of {b.variantOf}?</h2>
      <p className="text-ink-2">None of them is meant by itself, and one is no update of another.</p>
      <div className="mt-2 flex flex-wrap gap-2">
        {b.variants.map((v) => (
          <Button key={v} onClick={() => take(v)}>
            {v || 'plain'}
          </Button>
        ))}
      </div>
    </div>
  )
}
