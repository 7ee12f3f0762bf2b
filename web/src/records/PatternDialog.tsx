import { useState } from 'react'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useLoadOrder } from '../load-order/queries'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { count } from '../ui/text'
import { spoken } from './keys'
import { type Pattern, usePattern, usePatternPreview } from './queries'

const FIELD = 'h-[30px] w-full min-w-0 rounded-md border border-line-2 bg-card px-2 outline-offset-1'

/** One decision for many records, with every record that it touches shown before. */
export function PatternDialog({
  workspace,
  view,
  onClose,
}: {
  workspace: number
  view: Schema['RecordsView']
  onClose: () => void
}) {
  const { say } = useNotices()
  const plugins =
    useLoadOrder(workspace)
      .data?.plugins.filter((p) => p.on)
      .map((p) => p.name) ?? []
  const [type, setType] = useState(view.types[0]?.type ?? '')
  const [field, setField] = useState('')
  const [comesFrom, setComesFrom] = useState('')
  const [take, setTake] = useState('')
  const [from, setFrom] = useState('')
  const whole = type && take.trim() && from && (!field.trim() || comesFrom)
  const pattern: Pattern | null = whole
    ? { type, take: take.trim(), from, ...(field.trim() && { field: field.trim(), comesFrom }) }
    : null
  const preview = usePatternPreview(workspace, pattern)
  const apply = usePattern(workspace, (total) => {
    say(`Decided on ${count(total, 'record')}. A patch holds the outcome.`)
    onClose()
  })
  const title = view.types.find((t) => t.type === type)?.title ?? type
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Decide by pattern"
      says="Take one field of many records from one plugin. It is one step, and can be undone."
    >
      <form
        className="grid grid-cols-[130px_minmax(0,1fr)] items-center gap-x-3 gap-y-2"
        onSubmit={(e) => {
          e.preventDefault()
          if (pattern) apply.mutate(pattern)
        }}
      >
        <label htmlFor="pattern-type">For all</label>
        <select id="pattern-type" value={type} onChange={(e) => setType(e.target.value)} className={FIELD}>
          {view.types.map((t) => (
            <option key={t.type} value={t.type}>
              {t.title}
            </option>
          ))}
        </select>
        <label htmlFor="pattern-field">whose field</label>
        <span className="flex gap-2">
          <input
            id="pattern-field"
            value={field}
            onChange={(e) => setField(e.target.value)}
            placeholder="any, or a name such as speed"
            className={FIELD}
          />
          <Plugins
            label="comes from"
            value={comesFrom}
            plugins={plugins}
            onChange={setComesFrom}
            off={!field.trim()}
          />
        </span>
        <label htmlFor="pattern-take">take the field</label>
        <span className="flex gap-2">
          <input
            id="pattern-take"
            value={take}
            onChange={(e) => setTake(e.target.value)}
            placeholder="such as berth"
            className={FIELD}
          />
          <Plugins label="from" value={from} plugins={plugins} onChange={setFrom} off={false} />
        </span>
        <div className="col-span-2 mt-1">
          <Button
            type="submit"
            look="strong"
            disabled={!pattern || preview.isPlaceholderData || !preview.data?.total || apply.isPending}
          >
            {preview.data && pattern ? `Decide on ${count(preview.data.total, 'record')}` : 'Decide'}
          </Button>
        </div>
      </form>
      {pattern && preview.data && (
        <section aria-label="What it touches" className="mt-3">
          <h3>
            {preview.data.total === 0
              ? `It touches no ${title.toLowerCase()}.`
              : `It touches ${count(preview.data.total, 'record')}:`}
          </h3>
          <ul className="mt-1 max-h-52 overflow-y-auto">
            {preview.data.records.map((r) => (
              <li key={r.key} className="border-line border-b py-1">
                <b className="font-medium">{r.label}</b> <span className="text-ink-2">{spoken(r.key)}</span>
                <span className="block">
                  <span className="text-ink-2">{r.now.text}</span> → {r.then.text}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </Dialog>
  )
}

function Plugins({
  label,
  value,
  plugins,
  onChange,
  off,
}: {
  label: string
  value: string
  plugins: readonly string[]
  onChange: (plugin: string) => void
  off: boolean
}) {
  return (
    <select
      aria-label={label}
      value={value}
      disabled={off}
      onChange={(e) => onChange(e.target.value)}
      className={`${FIELD} disabled:opacity-50`}
    >
      <option value="">{label} …</option>
      {plugins.map((p) => (
        <option key={p} value={p}>
          {label} {p}
        </option>
      ))}
    </select>
  )
}
