import clsx from 'clsx'
import { Ruler } from 'lucide-react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { DifferenceSaid, Preview } from '../layers/Preview'
import { useChangeLayers, useLayers, useRules } from '../layers/queries'
import { RULE_WORDS } from '../layers/words'
import { Button } from '../ui/Button'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { count } from '../ui/text'
import { keyOf } from './rules'

type Rule = Schema['RuleView']

/** Every rule of placement with who said it, those that the order breaks first, each with the move that mends it. */
export function RulesView() {
  const workspace = useWorkspace()
  const rules = useRules(workspace)
  const layers = useLayers(workspace).data
  const go = useNavigate()
  const { undo } = useUndo(workspace)
  const { say } = useNotices()
  const change = useChangeLayers(workspace, (c, d) =>
    say(
      <>
        <b>{c.kind === 'mend-rule' ? 'The rule holds again.' : 'The rule is taken back.'}</b>{' '}
        <DifferenceSaid difference={d} tense="does" />
      </>,
      { label: 'Undo', run: undo },
    ),
  )
  const all = rules.data?.rules ?? []
  const broken = all.filter((r) => r.broken)
  const holding = all.filter((r) => !r.broken)
  return (
    <Screen
      title="Rules of placement"
      says={
        rules.data &&
        `${count(all.length, 'rule')}, ${broken.length === 0 ? 'all of them hold' : `${count(broken.length, 'of them is', 'of them are')} broken`}.`
      }
      actions={<Button onClick={() => go(`/workspaces/${workspace}/layers`)}>Back to the layers</Button>}
    >
      {rules.isPending ? (
        <div className="card flex-1">
          <Loading what="the rules" />
        </div>
      ) : rules.isError ? (
        <Failed error={rules.error} retry={() => rules.refetch()} />
      ) : all.length === 0 ? (
        <div className="card flex-1">
          <Empty icon={Ruler} title="No rules yet">
            Choose a layer and make a rule of where it is to stand. Cards of mods bring rules too.
          </Empty>
        </div>
      ) : (
        <div className="card min-h-0 flex-1 overflow-y-auto px-4 py-2">
          {broken.length > 0 && <h2 className="mt-2">Broken</h2>}
          <ul>
            {broken.map((r) => (
              <li key={JSON.stringify(keyOf(r))} className="border-line border-b py-2">
                <RuleWords rule={r} />
                <Mend
                  workspace={workspace}
                  revision={layers?.revision ?? rules.data.revision}
                  rule={r}
                  onMend={() => change.mutate({ kind: 'mend-rule', rule: keyOf(r) })}
                  onDrop={r.own ? () => change.mutate({ kind: 'drop-rule', rule: keyOf(r) }) : undefined}
                />
              </li>
            ))}
          </ul>
          {holding.length > 0 && <h2 className="mt-3">Hold</h2>}
          <ul>
            {holding.map((r) => (
              <li
                key={`${JSON.stringify(keyOf(r))} ${r.reason}`}
                className="flex items-center gap-3 border-line border-b py-1"
              >
                <RuleWords rule={r} />
                {r.own && (
                  <Button
                    look="quiet"
                    className="ml-auto h-7"
                    onClick={() => change.mutate({ kind: 'drop-rule', rule: keyOf(r) })}
                  >
                    Take back
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </div>
      )}
    </Screen>
  )
}

function RuleWords({ rule: r }: { rule: Rule }) {
  return (
    <p className="min-w-0 leading-snug">
      <b className="font-semibold">{r.name}</b> {RULE_WORDS[r.kind]}{' '}
      {r.otherName && <b className="font-semibold">{r.otherName}</b>}
      <span className={clsx('ml-2 text-ink-2')}>
        {r.reason} ({r.from})
      </span>
    </p>
  )
}

function Mend({
  workspace,
  revision,
  rule,
  onMend,
  onDrop,
}: {
  workspace: number
  revision: number
  rule: Rule
  onMend: () => void
  onDrop: (() => void) | undefined
}) {
  const [open, setOpen] = useState(false)
  return (
    <div className="mt-1">
      {open && (
        <Preview
          workspace={workspace}
          revision={revision}
          change={{ kind: 'mend-rule', rule: keyOf(rule) }}
        />
      )}
      <div className="mt-1 flex gap-2">
        {open ? (
          <Button look="strong" className="h-7" onClick={onMend}>
            Make that move
          </Button>
        ) : (
          <Button className="h-7" onClick={() => setOpen(true)}>
            What would mend it?
          </Button>
        )}
        {onDrop && (
          <Button look="quiet" className="h-7" onClick={onDrop}>
            Take the rule back
          </Button>
        )}
      </div>
    </div>
  )
}
