import clsx from 'clsx'
import { Check, CircleAlert } from 'lucide-react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { HowFar, pluginDetail } from '../ui/HowFar'
import { count } from '../ui/text'
import { RemedyButton } from '../wrinkles/RemedyButton'
import { remedyOf } from '../wrinkles/remedies'
import type { LoadChange } from './queries'
import { hasStages } from './rows'
import { WhyHere } from './WhyHere'

interface PluginAsideProps {
  workspace: number
  view: Schema['LoadOrderView']
  plugin: Schema['PluginView'] | undefined
  onChange: (change: LoadChange) => void
}

/** More of one kind than anybody reads through beside the list. */
const MOST = 60

const MASTERS: Record<Schema['MasterView']['state'], string> = {
  FINE: 'loads before it',
  LATE: 'loads after it',
  OFF: 'is switched off',
  MISSING: 'is not in play',
}

/** About the selected plugin; with none selected, what is wrong with the order. */
export function PluginAside({ workspace, view, plugin: p, onChange }: PluginAsideProps) {
  if (!p) {
    return (
      <Aside label="About the load order">
        <h2>{view.troubles.length === 0 ? 'The order holds' : count(view.troubles.length, 'trouble')}</h2>
        {view.troubles.length === 0 && (
          <p className="mt-1.5 text-ink-2">
            Every plugin that is on has its masters before it. Choose a plugin to read about it.
          </p>
        )}
        <Troubles workspace={workspace} troubles={view.troubles} />
        {view.hints.length > 0 && (
          <AsidePart title="Good to know">
            <Troubles workspace={workspace} troubles={view.hints} />
          </AsidePart>
        )}
      </Aside>
    )
  }
  const staged = hasStages(view.plugins)
  return (
    <Aside label={p.name}>
      <h2 className="break-words">{p.title ?? p.name}</h2>
      <p className="mt-0.5 break-words text-ink-2">
        {p.name}
        {p.version && ` · ${p.version}`}
        {p.own ? ' · the game’s own' : staged ? ` · stage ${p.stage}` : ''}
      </p>
      <p className="mt-1.5">
        <HowFar reached={p.journey.reached} detail={pluginDetail(p.journey)} withWords />
      </p>
      {p.about && <p className="mt-2.5 break-words text-[13.5px] leading-snug">{p.about}</p>}
      <p className="mt-2.5">
        {p.flaw ?? `It holds ${count(p.records, 'record')}, ${p.overrides} of them of other plugins.`}
        {p.slot !== undefined && ` It takes slot ${p.slot}.`}
      </p>
      {!p.own && (
        <p className="mt-2.5 flex flex-wrap gap-1.5">
          <Button
            className="h-7"
            aria-pressed={p.kept}
            onClick={() => onChange({ kind: 'keep', names: [p.name], kept: !p.kept })}
          >
            {p.kept ? 'No longer keep here' : 'Keep here'}
          </Button>
          <Link
            to={`/workspaces/${workspace}/load-order/rules?about=${encodeURIComponent(p.name)}`}
            className="inline-flex h-7 items-center px-1.5 text-woad underline"
          >
            Make a rule of it
          </Link>
        </p>
      )}
      {p.fresh && (
        <p className="mt-2 text-ink-2">
          It has just come: switched on, the last of its stage. The next move in the load order gives it this
          place for good.
        </p>
      )}
      {p.alsoFrom.length > 0 && (
        <p className="mt-2 text-ink-2">
          {p.modName}’s is in play; {p.alsoFrom.join(', ')} {p.alsoFrom.length === 1 ? 'brings' : 'bring'} a
          plugin of this name too.
        </p>
      )}
      <Troubles
        workspace={workspace}
        troubles={[...view.troubles, ...view.hints].filter((t) => t.plugin === p.name)}
      />
      <WhyHere workspace={workspace} plugin={p.name} />
      <AsidePart
        title={
          p.masters.length === 0
            ? 'It has no masters'
            : p.masters.length > MOST
              ? `The first ${MOST} of its ${p.masters.length} masters, which must load before it`
              : 'Its masters, which must load before it'
        }
      >
        <ul>
          {p.masters.slice(0, MOST).map((m) => (
            <li key={m.name} className="flex items-baseline justify-between gap-3 py-0.5">
              <Link
                to={`/workspaces/${workspace}/load-order/${encodeURIComponent(m.name)}`}
                className="truncate font-medium hover:underline"
              >
                {m.name}
              </Link>
              <span className="flex items-center gap-1 whitespace-nowrap text-ink-2">
                {m.state === 'FINE' ? (
                  <Check size={13} className="text-moss" aria-hidden="true" />
                ) : (
                  <CircleAlert size={13} className="text-madder" aria-hidden="true" />
                )}
                {MASTERS[m.state]}
              </span>
            </li>
          ))}
        </ul>
      </AsidePart>
      <DependantsOf view={view} name={p.name} workspace={workspace} />
      {p.game && (
        <AsidePart title="Made for the game">
          <p className="num">{p.game}</p>
        </AsidePart>
      )}
      {p.packs.length > 0 && (
        <AsidePart title="Packs that it names">
          <p className="mono break-words">{p.packs.join(', ')}</p>
        </AsidePart>
      )}
      {p.mod !== 0 && (
        <p className="mt-4">
          It comes with{' '}
          <Link to={`/workspaces/${workspace}/layers/${p.mod}`} className="text-woad underline">
            {p.modName}
          </Link>
          .
        </p>
      )}
    </Aside>
  )
}

function DependantsOf({
  view,
  name,
  workspace,
}: {
  view: Schema['LoadOrderView']
  name: string
  workspace: number
}) {
  const dependants = view.plugins.filter((p) => p.masters.some((m) => m.name === name))
  if (dependants.length === 0) return null
  return (
    <AsidePart title="Plugins that have it as a master">
      <ul>
        {dependants.slice(0, MOST).map((p) => (
          <li key={p.name} className="py-0.5">
            <Link
              to={`/workspaces/${workspace}/load-order/${encodeURIComponent(p.name)}`}
              className="font-medium hover:underline"
            >
              {p.name}
            </Link>
          </li>
        ))}
      </ul>
    </AsidePart>
  )
}

function Troubles({
  workspace,
  troubles,
}: {
  workspace: number
  troubles: readonly Schema['TroubleView'][]
}) {
  if (troubles.length === 0) return null
  return (
    <ul className="mt-2.5 flex flex-col gap-2">
      {troubles.slice(0, MOST).map((t) => (
        <li
          key={t.code + t.plugin + t.other}
          className={clsx(
            'rounded-lg border px-3 py-2',
            t.stops ? 'border-madder/40 bg-madder-soft' : 'border-ochre/40 bg-ochre-soft',
          )}
        >
          <p className="break-words font-semibold">{t.text}</p>
          <p className="text-ink-2">{t.remedy}</p>
          <TroubleFix workspace={workspace} trouble={t} />
        </li>
      ))}
      {troubles.length > MOST && <li className="text-ink-2">… and {troubles.length - MOST} more.</li>}
    </ul>
  )
}

function TroubleFix({ workspace, trouble }: { workspace: number; trouble: Schema['TroubleView'] }) {
  const remedy = trouble.fix ? remedyOf([{ fix: trouble.fix }]) : null
  return remedy && <RemedyButton workspace={workspace} remedy={remedy} className="mt-1.5" />
}
