import { useQuery } from '@tanstack/react-query'
import clsx from 'clsx'
import { CircleCheck } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { useNavigate } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { addressOf } from '../frame/views'
import { of } from '../frame/workspace'
import { useAct } from '../library/queries'
import { Button } from '../ui/Button'
import { copyAct, useCopy } from '../ui/copy'
import { ContextMenu, Menu, type MenuAct } from '../ui/Menu'
import { count, number, when } from '../ui/text'
import { type Group, grouped } from './groups'
import { RemedyButton } from './RemedyButton'
import { remedyOf } from './remedies'

type Wrinkle = Schema['Wrinkle']

const WEIGHTS: Record<Wrinkle['weight'], { look: string; says: string }> = {
  STOPS: { look: 'bg-madder-soft text-madder', says: 'stops the game' },
  LOSES: { look: 'bg-ochre-soft text-ochre', says: 'loses something' },
  HINT: { look: 'bg-sunk text-ink-2', says: 'good to know' },
}

function useWrinkles(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'wrinkles'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/wrinkles', { params: { path: { workspace } }, signal })),
  })
}

/**
 * What is wrong in the workspace, each with what remedies it, and what was set aside.
 *
 * @param open as the overview has them; those that were set aside are asked for here
 */
export function Wrinkles({
  workspace,
  open,
  empty,
}: {
  workspace: number
  open: readonly Wrinkle[]
  /** Whether there is nothing yet that could have any. */
  empty: boolean
}) {
  const aside = useWrinkles(workspace).data?.setAside ?? []
  const [showAside, setShowAside] = useState(false)
  const { say } = useNotices()
  const takeUp = useAct(workspace, (key: string) =>
    got(
      api.DELETE('/api/workspaces/{workspace}/wrinkles/set-aside/{key}', {
        params: { path: { workspace, key } },
      }),
    ),
  )
  const setAside = useAct(
    workspace,
    (body: { key: string; why: string }) =>
      got(
        api.POST('/api/workspaces/{workspace}/wrinkles/set-aside', { params: { path: { workspace } }, body }),
      ),
    (_, body) =>
      say('Set aside: it stays quiet until its facts change.', {
        label: 'Take it up again',
        run: () => takeUp.mutate(body.key),
      }),
  )
  return (
    <section className="card px-4 py-3">
      <h2 className="mb-1">Wrinkles{open.length > 0 && ` · ${open.length}`}</h2>
      {open.length === 0 && (
        <p className="flex items-center gap-2 py-3 text-ink-2">
          <CircleCheck size={16} className="text-moss" aria-hidden="true" />
          {empty ? 'Nothing to find fault with yet.' : 'All is smooth.'}
        </p>
      )}
      <ol>
        {grouped(open).map((g) => (
          <Together
            key={g.key}
            workspace={workspace}
            group={g}
            one={(w) => (
              <OpenWrinkle
                key={w.key}
                number={open.indexOf(w) + 1}
                wrinkle={w}
                workspace={workspace}
                onSetAside={(why) => setAside.mutate({ key: w.key, why })}
              />
            )}
          />
        ))}
      </ol>
      {aside.length > 0 && (
        <div className="border-line border-t pt-2">
          <button
            type="button"
            aria-expanded={showAside}
            onClick={() => setShowAside(!showAside)}
            className="text-ink-2 underline"
          >
            {aside.length} set aside
          </button>
          {showAside && (
            <ul aria-label="Set aside">
              {aside.map((s) => (
                <li key={s.wrinkle.key} className="flex items-start gap-3 py-1.5">
                  <div className="min-w-0 flex-1">
                    <p className="break-words">{s.wrinkle.title}</p>
                    <p className="break-words text-[12px] text-ink-2">
                      {s.why ? `“${s.why}”, ` : ''}
                      {when(s.at)}
                    </p>
                  </div>
                  <Button look="quiet" className="h-6" onClick={() => takeUp.mutate(s.wrinkle.key)}>
                    Take up again
                  </Button>
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
    </section>
  )
}

/** Wrinkles that one remedy mends: a few of them, the rest when it is asked for, and one act for them all. */
function Together({
  workspace,
  group,
  one,
}: {
  workspace: number
  group: Group
  one: (w: Wrinkle) => ReactNode
}) {
  const [all, setAll] = useState(false)
  const rest = group.more.length
  const remedy = rest > 0 ? remedyOf(group.all) : null
  return (
    <>
      {group.shown.map(one)}
      {all && group.more.map(one)}
      {rest > 0 && (
        <li className="flex items-center gap-3 pb-2.5 pl-[30px]">
          <button
            type="button"
            aria-expanded={all}
            onClick={() => setAll(!all)}
            className="min-h-6 text-ink-2 underline"
          >
            {all ? 'Show only the first of these' : moreWords(group)}
          </button>
          {remedy && (
            <span className="ml-auto flex items-center gap-2 text-ink-2">
              {count(group.all.length, 'wrinkle')} at once:
              <RemedyButton workspace={workspace} remedy={remedy} />
            </span>
          )}
        </li>
      )}
    </>
  )
}

function moreWords(group: Group): string {
  const alike = group.more.every((w) => w.code === group.first.code)
  return `and ${number(group.more.length)} more ${alike ? 'like it' : 'that are mended alike'}`
}

function OpenWrinkle({
  workspace,
  number: n,
  wrinkle: w,
  onSetAside,
}: {
  workspace: number
  number: number
  wrinkle: Wrinkle
  onSetAside: (why: string) => void
}) {
  const go = useNavigate()
  const [asking, setAsking] = useState(false)
  const copy = useCopy()
  const weight = WEIGHTS[w.weight]
  const place =
    w.mod !== undefined && w.place === 'LAYERS'
      ? `${addressOf(workspace, w.place)}/${w.mod}`
      : addressOf(workspace, w.place)
  const both =
    w.mod !== undefined && w.other !== undefined
      ? `/workspaces/${workspace}/overlaps?show=list&mod=${w.mod}&mod=${w.other}`
      : null
  const remedy = remedyOf([w])
  const acts: MenuAct[] = [
    ...(remedy ? [{ label: 'Show where it is', run: () => go(place) }] : []),
    ...(both ? [{ label: 'Show the paths of the two', run: () => go(both) }] : []),
    { label: 'Set aside …', run: () => setAsking(true) },
    copyAct(copy, 'it as text', `${w.title} ${w.reason} ${w.remedy}`),
  ]
  return (
    <ContextMenu acts={() => acts}>
      <li className="border-line border-t py-2.5">
        <div className="flex gap-3">
          <span
            className={clsx(
              'num grid size-[18px] shrink-0 place-items-center rounded-[5px] font-semibold text-[11px]',
              weight.look,
            )}
          >
            {n}
          </span>
          <div className="min-w-0 flex-1">
            <p className="break-words font-semibold">
              {w.title} <small className="ml-1 whitespace-nowrap font-normal text-ink-3">{weight.says}</small>
            </p>
            <p className="break-words text-ink-2">
              {w.reason} {w.remedy}
            </p>
          </div>
          {remedy ? (
            <RemedyButton workspace={workspace} remedy={remedy} />
          ) : (
            <Button onClick={() => go(place)}>Show</Button>
          )}
          {/* the menu gives the focus back to its button, which must not take it from the form */}
          {!asking && <Menu label={`More to do with wrinkle ${n}`} acts={acts} />}
        </div>
        {asking && (
          <SetAsideForm
            onClose={() => setAsking(false)}
            onWhy={(why) => {
              setAsking(false)
              onSetAside(why)
            }}
          />
        )}
      </li>
    </ContextMenu>
  )
}

function SetAsideForm({ onWhy, onClose }: { onWhy: (why: string) => void; onClose: () => void }) {
  const [why, setWhy] = useState('')
  return (
    <form
      className="mt-2 ml-[30px] flex gap-1.5"
      onSubmit={(e) => {
        e.preventDefault()
        onWhy(why.trim())
      }}
    >
      <input
        // biome-ignore lint/a11y/noAutofocus: the one thing to fill in
        autoFocus
        value={why}
        maxLength={400}
        onChange={(e) => setWhy(e.target.value)}
        onKeyDown={(e) => e.key === 'Escape' && onClose()}
        aria-label="Why it may stay as it is"
        placeholder="Why it may stay as it is"
        className="h-[30px] min-w-0 flex-1 rounded-md border border-line-2 bg-card px-2.5"
      />
      <Button type="submit" look="strong">
        Set aside
      </Button>
      <Button look="quiet" onClick={onClose}>
        Leave it
      </Button>
    </form>
  )
}
