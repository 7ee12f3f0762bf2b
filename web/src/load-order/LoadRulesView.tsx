import clsx from 'clsx'
import { Ruler } from 'lucide-react'
import { useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { Aside } from '../ui/Aside'
import { Button } from '../ui/Button'
import { Menu, type MenuAct } from '../ui/Menu'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { count } from '../ui/text'
import { type RuleAct, useLoadOrder, useLoadRules, useRuleAct, useRuleEffect } from './queries'
import { RuleForm } from './RuleForm'
import { GROUPS, type Group, groupOf } from './rules'

type Rule = Schema['LoadRuleView']

/** Every rule of the load order with who said it, how strong it is, and what the user makes of it. */
export function LoadRulesView() {
  const workspace = useWorkspace()
  const rules = useLoadRules(workspace)
  const order = useLoadOrder(workspace).data
  const go = useNavigate()
  const { undo } = useUndo(workspace)
  const { say } = useNotices()
  const [address, setAddress] = useSearchParams()
  const about = address.get('about') ?? ''
  const [making, setMaking] = useState(about !== '')
  const [chosen, choose] = useState<string | null>(null)
  const [find, setFind] = useState('')
  const act = useRuleAct(workspace, (a) => say(doneWords(a), { label: 'Undo', run: undo }))
  const close = () => {
    setMaking(false)
    setAddress({}, { replace: true })
  }
  const all = rules.data?.rules ?? []
  const words = find.toLowerCase().split(/\s+/).filter(Boolean)
  const shown = all.filter((r) =>
    words.every((w) => `${r.what} ${r.from} ${r.reason}`.toLowerCase().includes(w)),
  )
  const broken = all.filter((r) => r.broken && !r.muted && !r.dropped).length
  const rule = all.find((r) => r.key === chosen)
  return (
    <Screen
      title="Rules of the load order"
      says={
        rules.data &&
        `${count(all.length, 'rule')}${broken > 0 ? `, ${broken} of them not kept now` : ', all of them kept'}. The stronger come first.`
      }
      actions={
        <>
          <Button onClick={() => go(`/workspaces/${workspace}/load-order`)}>Back to the load order</Button>
          <Button look="strong" onClick={() => setMaking(true)}>
            Make a rule …
          </Button>
        </>
      }
      aside={
        rule ? (
          <Effect workspace={workspace} rule={rule} />
        ) : (
          <Aside label="About rules">
            <h2>What holds first</h2>
            <p className="mt-1.5 text-ink-2">
              Masters and stages are fixed. Then come your own rules, then the cards of mods, then the bands.
              Where two contradict one another the weaker gives way, and the proposal says so.
            </p>
            <p className="mt-2 text-ink-2">Choose a rule to see whom it concerns and what it changes.</p>
          </Aside>
        )
      }
    >
      {rules.isPending ? (
        <div className="card flex-1">
          <Loading what="the rules" />
        </div>
      ) : rules.isError ? (
        <Failed error={rules.error} retry={() => rules.refetch()} />
      ) : all.length === 0 && !making ? (
        <div className="card flex-1">
          <Empty icon={Ruler} title="No rules yet">
            Plugins name their masters and cards of mods ask for places; you can make rules of your own.
          </Empty>
        </div>
      ) : (
        <div className="card flex min-h-0 flex-1 flex-col overflow-hidden">
          {making && (
            <RuleForm
              names={order?.plugins.map((p) => p.name) ?? []}
              first={about}
              onClose={close}
              onRule={(made) => {
                close()
                act.mutate({ kind: 'add', rule: made })
              }}
            />
          )}
          <div className="flex items-center gap-3 border-line border-b px-3.5 py-1.5">
            <input
              value={find}
              onChange={(e) => setFind(e.target.value)}
              placeholder="Find a rule by plugin, reason or who said it"
              aria-label="Find a rule"
              className="h-[28px] min-w-0 flex-1 rounded-md border border-line-2 bg-card px-2.5"
            />
            {rules.data.bands && (
              <label className="flex items-center gap-2 whitespace-nowrap">
                <input
                  type="checkbox"
                  className="accent-(--woad)"
                  checked={!rules.data.bandsMuted}
                  onChange={() => act.mutate({ kind: 'mute', key: 'bands', muted: !rules.data.bandsMuted })}
                />
                bands count in this profile
              </label>
            )}
          </div>
          <div className="min-h-0 flex-1 overflow-y-auto px-3.5 pb-2">
            {(Object.keys(GROUPS) as Group[]).map((g) => {
              const these = shown
                .filter((r) => groupOf(r) === g)
                .sort((a, b) => Number(b.broken) - Number(a.broken))
              if (these.length === 0) return null
              return (
                <section key={g} aria-label={GROUPS[g]}>
                  <h2 className="mt-3 mb-1">
                    {GROUPS[g]} · {these.length}
                  </h2>
                  {g === 'fixed' && rules.data.stages.length > 1 && (
                    <p className="mb-1 px-1.5 text-ink-2">
                      The game’s own plugins load first, then stage after stage:{' '}
                      {rules.data.stages.join(', ')}.
                    </p>
                  )}
                  <ul>
                    {these.slice(0, MOST).map((r) => (
                      <RuleRow
                        key={r.key}
                        rule={r}
                        chosen={r.key === chosen}
                        onChoose={() => choose(r.key === chosen ? null : r.key)}
                        onAct={(a) => {
                          // nobody asks for the effect of a rule that is gone
                          if (a.kind === 'take-back' && a.key === chosen) choose(null)
                          act.mutate(a)
                        }}
                      />
                    ))}
                  </ul>
                  {these.length > MOST && (
                    <p className="text-ink-2">The first {MOST}. Find the others by a word.</p>
                  )}
                </section>
              )
            })}
          </div>
        </div>
      )}
    </Screen>
  )
}

/** More rows of one group than anybody reads through. */
const MOST = 200

function doneWords(a: RuleAct): string {
  switch (a.kind) {
    case 'add':
      return 'The rule is made. Nothing has moved yet: the proposal heeds it.'
    case 'take-back':
      return 'The rule is taken back.'
    case 'mute':
      return a.muted ? 'It no longer counts in this profile.' : 'It counts again in this profile.'
    case 'word':
      return a.word === 'COUNTS'
        ? 'The rule counts again.'
        : a.word === 'DROPPED'
          ? 'The rule is dropped for this workspace.'
          : 'The rule is turned about.'
  }
}

function RuleRow({
  rule: r,
  chosen,
  onChoose,
  onAct,
}: {
  rule: Rule
  chosen: boolean
  onChoose: () => void
  onAct: (act: RuleAct) => void
}) {
  const treated = r.dropped || r.reversed
  const acts: MenuAct[] =
    r.strength === 'FIXED'
      ? []
      : [
          r.muted
            ? {
                label: 'Let it count in this profile',
                run: () => onAct({ kind: 'mute', key: r.key, muted: false }),
              }
            : { label: 'Mute in this profile', run: () => onAct({ kind: 'mute', key: r.key, muted: true }) },
          ...(r.own
            ? [{ label: 'Take back', run: () => onAct({ kind: 'take-back', key: r.key }) }]
            : treated
              ? [
                  {
                    label: 'Let it count as it was',
                    run: () => onAct({ kind: 'word', key: r.key, word: 'COUNTS' }),
                  },
                ]
              : [
                  { label: 'Turn about', run: () => onAct({ kind: 'word', key: r.key, word: 'REVERSED' }) },
                  { label: 'Drop', run: () => onAct({ kind: 'word', key: r.key, word: 'DROPPED' }) },
                ]),
        ]
  const quiet = r.dropped || r.muted
  return (
    <li
      className={clsx(
        'flex items-center gap-2 rounded-md border-line border-b px-1.5 py-1',
        chosen && 'bg-woad-soft',
      )}
    >
      <button
        type="button"
        aria-pressed={chosen}
        onClick={onChoose}
        className={clsx('min-w-0 flex-1 text-left leading-snug', quiet && 'text-ink-2')}
      >
        <b className={clsx('break-words font-semibold', r.dropped && 'line-through')}>{r.what}</b>
        <span className="ml-2 break-words text-ink-2">
          {r.reason} ({r.from})
        </span>
      </button>
      {r.dropped && <Tag>dropped</Tag>}
      {r.reversed && <Tag>turned about</Tag>}
      {r.muted && <Tag>muted here</Tag>}
      {r.concerns === 0 && <Tag>concerns nobody now</Tag>}
      {r.broken && !quiet && (
        <span className="whitespace-nowrap rounded-[5px] bg-ochre-soft px-1.5 text-[11px] text-ochre">
          not kept now
        </span>
      )}
      {r.strength === 'FIXED' ? (
        <small className="text-ink-2">fixed</small>
      ) : (
        <Menu label={`What to make of ${r.what}`} acts={acts} />
      )}
    </li>
  )
}

/** Whom a rule concerns, and what the proposal would be without it. */
function Effect({ workspace, rule }: { workspace: number; rule: Rule }) {
  const fixed = rule.strength === 'FIXED'
  const ordered = rule.kind === 'AFTER' || rule.kind === 'BEFORE'
  const effect = useRuleEffect(workspace, fixed ? null : rule.key)
  const e = effect.data
  return (
    <Aside label={rule.what}>
      <h2 className="break-words">{rule.what}</h2>
      <p className="mt-1 text-ink-2">
        {rule.reason}. {fixed ? 'Fixed by the file; no rule can undo it.' : `So says ${rule.from}.`}
      </p>
      {!fixed && ordered && (
        <p className="mt-2.5 leading-snug" role="status">
          {!e
            ? 'Looking what it changes …'
            : e.gaveWay
              ? 'It gives way to stronger rules, so it changes nothing.'
              : e.effects.length === 0
                ? 'The proposal is the same with it and without it.'
                : `Without it ${count(e.effects.length, 'plugin')} would be proposed for another place.`}
        </p>
      )}
      {e && e.effects.length > 0 && (
        <ul className="mt-1">
          {e.effects.slice(0, 30).map((x) => (
            <li key={x.name} className="flex justify-between gap-3 py-0.5">
              <span className="truncate font-medium">{x.name}</span>
              <span className="num whitespace-nowrap text-ink-2">
                {x.with}, without it {x.without}
              </span>
            </li>
          ))}
        </ul>
      )}
      {e && e.concerns.length > 0 && (
        <>
          <h3 className="mt-3">It concerns {count(e.concerns.length, 'plugin')}</h3>
          <p className="break-words text-ink-2">{e.concerns.slice(0, 40).join(', ')}</p>
        </>
      )}
    </Aside>
  )
}
