import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { count } from '../../ui/text'
import { Preview } from '../Preview'
import type { LayerChange } from '../queries'
import type { AskProps } from './asking'

const PLACES = [
  { value: 'above', label: 'directly above' },
  { value: 'below', label: 'directly below' },
  { value: 'number', label: 'to the number' },
] as const

/** Asks where layers are to go: beside another one, or to a number. */
export function PlaceDialog({ workspace, view, mods, onClose, onChange }: AskProps) {
  const moving = new Set(mods)
  const others = view.layers.filter((l) => !moving.has(l.mod)).reverse()
  const [place, setPlace] = useState<(typeof PLACES)[number]['value']>('above')
  const [find, setFind] = useState('')
  const [other, setOther] = useState<number | null>(null)
  const [number, setNumber] = useState('')
  const rest = view.layers.filter((l) => !moving.has(l.mod))
  const at = rest.findIndex((l) => l.mod === other)
  const to =
    place === 'number'
      ? Math.min(Math.max(1, Number(number) || 0), rest.length + 1)
      : at < 0
        ? 0
        : place === 'above'
          ? at + 2
          : at + 1
  const ready = place === 'number' ? Number(number) >= 1 : at >= 0
  const change: LayerChange | null = ready ? { kind: 'move', mods, to } : null
  const found = others.filter((l) => l.name.toLowerCase().includes(find.trim().toLowerCase()))
  const done = () => {
    if (!change) return
    onChange(change)
    onClose()
  }
  return (
    <Dialog open onOpenChange={(o) => !o && onClose()} title={`Move ${count(mods.length, 'layer')}`}>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          done()
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
            Number of the lowest of them
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
                const only = others.filter((l) =>
                  l.name.toLowerCase().includes(e.target.value.trim().toLowerCase()),
                )
                setOther(only[0]?.mod ?? null)
              }}
              placeholder="Find the other layer"
              aria-label="Find the other layer"
              className="mt-3 h-[30px] w-full rounded-md border border-line-2 bg-card px-2.5"
            />
            <select
              size={8}
              aria-label="The other layer"
              value={other ?? ''}
              onChange={(e) => setOther(Number(e.target.value))}
              className="mt-2 w-full rounded-md border border-line-2 bg-card p-1"
            >
              {found.slice(0, 300).map((l) => (
                <option key={l.mod} value={l.mod}>
                  {l.position} {l.name}
                </option>
              ))}
            </select>
          </>
        )}
        <Preview workspace={workspace} revision={view.revision} change={change} />
        <Button type="submit" look="strong" disabled={!ready} className="mt-3">
          Move there
        </Button>
      </form>
    </Dialog>
  )
}
