import { useId, useState } from 'react'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { KINDS, whoOf } from './rules'

type Kind = Schema['LoadRuleView']['kind']

/** A rule being made: about one plugin, or a group by pattern or tag. */
export function RuleForm({
  names,
  first = '',
  onRule,
  onClose,
}: {
  /** Of the plugins in play, to choose from. */
  names: readonly string[]
  first?: string
  onRule: (rule: Schema['LoadRuleRequest']) => void
  onClose: () => void
}) {
  const list = useId()
  const [plugin, setPlugin] = useState(first)
  const [kind, setKind] = useState<Kind>('AFTER')
  const [other, setOther] = useState('')
  const [reason, setReason] = useState('')
  const field = 'h-[30px] min-w-0 rounded-md border border-line-2 bg-card px-2.5'
  return (
    <form
      aria-label="A new rule"
      className="border-line border-b bg-woad-soft/60 px-3.5 py-2.5"
      onKeyDown={(e) => e.key === 'Escape' && onClose()}
      onSubmit={(e) => {
        e.preventDefault()
        onRule({ kind, plugin: whoOf(plugin), other: whoOf(other), reason: reason.trim() })
      }}
    >
      <div className="flex flex-wrap items-center gap-1.5">
        <input
          // biome-ignore lint/a11y/noAutofocus: the first thing to fill in
          autoFocus={!first}
          list={list}
          value={plugin}
          onChange={(e) => setPlugin(e.target.value)}
          aria-label="Whom the rule is about"
          placeholder="plugin, fog*.plug or #tag"
          className={`${field} flex-1`}
        />
        <select
          value={kind}
          onChange={(e) => setKind(e.target.value as Kind)}
          aria-label="What it asks for"
          className={field}
        >
          {(Object.keys(KINDS) as Kind[]).map((k) => (
            <option key={k} value={k}>
              {KINDS[k]}
            </option>
          ))}
        </select>
        <input
          // biome-ignore lint/a11y/noAutofocus: the first thing that is still empty
          autoFocus={!!first}
          list={list}
          value={other}
          onChange={(e) => setOther(e.target.value)}
          aria-label="The other one"
          placeholder="plugin, fog*.plug or #tag"
          className={`${field} flex-1`}
        />
      </div>
      <div className="mt-1.5 flex gap-1.5">
        <input
          value={reason}
          maxLength={200}
          onChange={(e) => setReason(e.target.value)}
          aria-label="Why"
          placeholder="Why, so that you know it later"
          className={`${field} flex-1`}
        />
        <Button type="submit" look="strong" disabled={!plugin.trim() || !other.trim()}>
          Make the rule
        </Button>
        <Button look="quiet" onClick={onClose}>
          Leave it
        </Button>
      </div>
      <datalist id={list}>
        {names.slice(0, 500).map((n) => (
          <option key={n} value={n} />
        ))}
      </datalist>
    </form>
  )
}
