import { useState } from 'react'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { count } from '../ui/text'
import { type LoadChange, useLoadPreview } from './queries'
import { loadWords } from './sentence'

const PLACES = [
  { value: 'before', label: 'directly before' },
  { value: 'behind', label: 'directly behind' },
  { value: 'number', label: 'as number' },
] as const

/** How many plugins are offered at once. */
const OFFERED = 300

/** Asks where plugins are to load: beside another one, or as a number. */
export function PlaceDialog({
  workspace,
  view,
  names,
  onChange,
  onClose,
}: {
  workspace: number
  view: Schema['LoadOrderView']
  names: readonly string[]
  onChange: (change: LoadChange) => void
  onClose: () => void
}) {
  const moving = new Set(names)
  const rest = view.plugins.filter((p) => !moving.has(p.name))
  const [place, setPlace] = useState<(typeof PLACES)[number]['value']>('behind')
  const [find, setFind] = useState('')
  const [other, setOther] = useState('')
  const [number, setNumber] = useState('')
  const holds = (text: string) => (p: Schema['PluginView']) =>
    p.name.toLowerCase().includes(text.trim().toLowerCase())
  const at = rest.findIndex((p) => p.name === other)
  const to = place === 'number' ? Number(number) : at < 0 ? 0 : at + (place === 'behind' ? 2 : 1)
  const change: LoadChange | null = to >= 1 ? { kind: 'move', names, to } : null
  const preview = useLoadPreview(workspace, view.revision, change).data
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={names.length === 1 ? `Move ${names[0]}` : `Move ${count(names.length, 'plugin')}`}
    >
      <form
        onSubmit={(e) => {
          e.preventDefault()
          if (!change) return
          onChange(change)
          onClose()
        }}
      >
        <div className="flex gap-1.5" role="radiogroup" aria-label="Where to">
          {PLACES.map((p) => (
            <label
              key={p.value}
              className="flex items-center gap-1.5 rounded-md border border-line px-2 py-1"
            >
              <input
                type="radio"
                name="place"
                checked={place === p.value}
                onChange={() => setPlace(p.value)}
                className="accent-(--woad)"
              />
              {p.label}
            </label>
          ))}
        </div>
        {place === 'number' ? (
          <label className="mt-3 flex items-center gap-2">
            Number of the first of them
            <input
              autoFocus
              type="number"
              min={1}
              max={rest.length + 1}
              value={number}
              onChange={(e) => setNumber(e.target.value)}
              className="num h-[30px] w-24 rounded-md border border-line-2 bg-card px-2"
            />
          </label>
        ) : (
          <>
            <input
              autoFocus
              type="search"
              value={find}
              onChange={(e) => {
                setFind(e.target.value)
                setOther(rest.find(holds(e.target.value))?.name ?? '')
              }}
              placeholder="Find the other plugin"
              aria-label="Find the other plugin"
              className="mt-3 h-[30px] w-full rounded-md border border-line-2 bg-card px-2.5"
            />
            <select
              size={8}
              aria-label="The other plugin"
              value={other}
              onChange={(e) => setOther(e.target.value)}
              className="mt-2 w-full rounded-md border border-line-2 bg-card p-1"
            >
              {rest
                .filter(holds(find))
                .slice(0, OFFERED)
                .map((p) => (
                  <option key={p.name} value={p.name}>
                    {p.position} {p.name}
                  </option>
                ))}
            </select>
          </>
        )}
        <p className="mt-2 min-h-[38px] text-ink-2" aria-live="polite">
          {change && preview && loadWords(preview, 'would')}
        </p>
        <Button type="submit" look="strong" disabled={!change} className="mt-1">
          Move there
        </Button>
      </form>
    </Dialog>
  )
}
