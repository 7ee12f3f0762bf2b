import { X } from 'lucide-react'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Hint } from '../ui/Hint'
import { Menu, type MenuAct } from '../ui/Menu'
import { count } from '../ui/text'
import { Preview } from './Preview'
import { type LayerChange, usePreview } from './queries'
import { differenceWords } from './sentence'

interface LayerActsProps {
  workspace: number
  view: Schema['LayersView']
  /** From the lowest. */
  mods: readonly number[]
  onChange: (change: LayerChange) => void
  onClear: () => void
}

type Asking = 'place' | 'section' | 'rename' | 'rule' | null

/** What can be done with the layers that are chosen, each act with what it would change. */
export function LayerActs({ workspace, view, mods, onChange, onClear }: LayerActsProps) {
  const [asking, setAsking] = useState<Asking>(null)
  const layers = view.layers.filter((l) => mods.includes(l.mod))
  const first = layers[0]
  if (!first) return null
  const many = layers.length > 1
  const section = layers.every((l) => l.section === first.section) ? first.section : 0
  const whole = section !== 0 && view.layers.filter((l) => l.section === section).length === layers.length
  const named = view.sections.find((s) => s.id === section)
  const someOff = layers.some((l) => !l.on)
  const top = view.layers.length - layers.length + 1
  const move = (to: number): LayerChange => ({ kind: 'move', mods, to })
  const acts: MenuAct[] = [
    { label: 'To the top', run: () => onChange(move(top)) },
    { label: 'To the bottom', run: () => onChange(move(1)) },
    { label: 'To a place …', run: () => setAsking('place') },
    null,
    { label: many ? 'Make a section of them …' : 'Put into a section …', run: () => setAsking('section') },
    ...(named
      ? [
          { label: `Take out of “${named.name}”`, run: () => onChange({ kind: 'leave', mods }) },
          ...(whole || !many
            ? [
                { label: `Rename “${named.name}” …`, run: () => setAsking('rename') },
                {
                  label: `Dissolve “${named.name}”`,
                  run: () => onChange({ kind: 'dissolve', section: named.id, name: named.name }),
                },
              ]
            : []),
        ]
      : []),
    null,
    layers.every((l) => l.kept)
      ? { label: 'No longer keep here', run: () => onChange({ kind: 'keep', mods, kept: false }) }
      : { label: 'Keep here', run: () => onChange({ kind: 'keep', mods, kept: true }) },
    ...(many ? [] : [{ label: 'Make a rule …', run: () => setAsking('rule') }]),
  ]
  return (
    <div
      role="toolbar"
      aria-label={many ? `${layers.length} layers chosen` : first.name}
      className="flex shrink-0 items-center gap-1.5 border-line border-t bg-woad-soft px-3.5 py-1.5"
    >
      <b className="min-w-0 truncate font-semibold">{many ? count(layers.length, 'layer') : first.name}</b>
      <span className="ml-auto" />
      <ActButton
        workspace={workspace}
        revision={view.revision}
        label={someOff ? 'Switch on' : 'Switch off'}
        change={{ kind: 'switch', mods, on: someOff }}
        onChange={onChange}
      />
      {someOff && layers.some((l) => l.on) && (
        <ActButton
          workspace={workspace}
          revision={view.revision}
          label="Switch off"
          change={{ kind: 'switch', mods, on: false }}
          onChange={onChange}
        />
      )}
      <Button className="h-7" onClick={() => setAsking('place')}>
        Move …
      </Button>
      <Menu label="More to do with them" acts={acts} />
      {many && (
        <Button look="quiet" icon className="h-7 w-7" aria-label="Choose none" onClick={onClear}>
          <X size={14} />
        </Button>
      )}
      {asking === 'place' && (
        <PlaceDialog
          workspace={workspace}
          view={view}
          mods={mods}
          onClose={() => setAsking(null)}
          onChange={onChange}
        />
      )}
      {asking === 'section' && (
        <SectionDialog
          workspace={workspace}
          view={view}
          mods={mods}
          onClose={() => setAsking(null)}
          onChange={onChange}
        />
      )}
      {asking === 'rename' && named && (
        <RenameDialog
          name={named.name}
          onClose={() => setAsking(null)}
          onName={(name) => onChange({ kind: 'rename', section: named.id, name })}
        />
      )}
      {asking === 'rule' && (
        <RuleDialog view={view} mod={first} onClose={() => setAsking(null)} onChange={onChange} />
      )}
    </div>
  )
}

/** A button that says what it would change when it is pointed at. */
function ActButton({
  workspace,
  revision,
  label,
  change,
  onChange,
}: {
  workspace: number
  revision: number
  label: string
  change: LayerChange
  onChange: (change: LayerChange) => void
}) {
  const [open, setOpen] = useState(false)
  const preview = usePreview(workspace, revision, open ? change : null)
  return (
    <Hint
      side="bottom"
      onOpenChange={setOpen}
      text={preview.data ? differenceWords(preview.data, 'would') : 'Looking what that would change …'}
    >
      <Button className="h-7" onClick={() => onChange(change)}>
        {label}
      </Button>
    </Hint>
  )
}

interface AskProps {
  workspace: number
  view: Schema['LayersView']
  mods: readonly number[]
  onClose: () => void
  onChange: (change: LayerChange) => void
}

const PLACES = [
  { value: 'above', label: 'directly above' },
  { value: 'below', label: 'directly below' },
  { value: 'number', label: 'to the number' },
] as const

function PlaceDialog({ workspace, view, mods, onClose, onChange }: AskProps) {
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

function SectionDialog({ workspace, view, mods, onClose, onChange }: AskProps) {
  const [section, setSection] = useState<number | null>(view.sections[0]?.id ?? null)
  const [name, setName] = useState('')
  const change: LayerChange | null =
    section === null && !name.trim() ? null : { kind: 'gather', mods, section, name: name.trim() }
  return (
    <Dialog
      open
      onOpenChange={(o) => !o && onClose()}
      title="Put into a section"
      says="A section is a named stretch of neighbouring layers that folds and moves as one."
    >
      <form
        onSubmit={(e) => {
          e.preventDefault()
          if (change) onChange(change)
          onClose()
        }}
      >
        {view.sections.map((s) => (
          <label key={s.id} className="flex items-center gap-2 py-0.5">
            <input
              type="radio"
              name="section"
              checked={section === s.id}
              onChange={() => setSection(s.id)}
              className="accent-(--woad)"
            />
            {s.name}
          </label>
        ))}
        <label className="flex items-center gap-2 py-0.5">
          <input
            type="radio"
            name="section"
            checked={section === null}
            onChange={() => setSection(null)}
            className="accent-(--woad)"
          />
          a new one
          <input
            value={name}
            onFocus={() => setSection(null)}
            onChange={(e) => setName(e.target.value)}
            maxLength={80}
            aria-label="Name of the new section"
            placeholder="its name"
            className="h-[30px] flex-1 rounded-md border border-line-2 bg-card px-2.5"
          />
        </label>
        <Preview workspace={workspace} revision={view.revision} change={change} />
        <Button type="submit" look="strong" disabled={!change} className="mt-3">
          Put them there
        </Button>
      </form>
    </Dialog>
  )
}

function RenameDialog({
  name,
  onClose,
  onName,
}: {
  name: string
  onClose: () => void
  onName: (name: string) => void
}) {
  const [next, setNext] = useState(name)
  return (
    <Dialog open onOpenChange={(o) => !o && onClose()} title="Rename the section">
      <form
        className="flex gap-2"
        onSubmit={(e) => {
          e.preventDefault()
          onName(next.trim())
          onClose()
        }}
      >
        <input
          autoFocus
          value={next}
          onChange={(e) => setNext(e.target.value)}
          maxLength={80}
          aria-label="Name of the section"
          className="h-[30px] flex-1 rounded-md border border-line-2 bg-card px-2.5"
        />
        <Button type="submit" look="strong" disabled={!next.trim()}>
          Rename
        </Button>
      </form>
    </Dialog>
  )
}

export const RULE_WORDS: Record<Schema['RuleView']['kind'], string> = {
  ABOVE: 'above',
  BELOW: 'below',
  DIRECTLY_ABOVE: 'directly above',
  DIRECTLY_BELOW: 'directly below',
  TOP: 'always on top',
  BOTTOM: 'always lowest',
}

function RuleDialog({
  view,
  mod,
  onClose,
  onChange,
}: {
  view: Schema['LayersView']
  mod: Schema['LayerView']
  onClose: () => void
  onChange: (change: LayerChange) => void
}) {
  const [kind, setKind] = useState<Schema['RuleView']['kind']>('ABOVE')
  const [other, setOther] = useState<number | null>(null)
  const [reason, setReason] = useState('')
  const needsOther = kind !== 'TOP' && kind !== 'BOTTOM'
  return (
    <Dialog
      open
      onOpenChange={(o) => !o && onClose()}
      title={`A rule for ${mod.name}`}
      says="It is held against the order after every change, in every profile; what breaks it is shown with the move that mends it."
    >
      <form
        onSubmit={(e) => {
          e.preventDefault()
          onChange({
            kind: 'rule',
            rule: { kind, mod: mod.mod, ...(needsOther && other ? { other } : {}) },
            reason: reason.trim(),
          })
          onClose()
        }}
      >
        <div className="flex gap-2">
          <select
            value={kind}
            onChange={(e) => setKind(e.target.value as typeof kind)}
            aria-label="Where it is to stand"
            className="h-[30px] rounded-md border border-line-2 bg-card px-2"
          >
            {Object.entries(RULE_WORDS).map(([k, words]) => (
              <option key={k} value={k}>
                {words}
              </option>
            ))}
          </select>
          {needsOther && (
            <select
              value={other ?? ''}
              onChange={(e) => setOther(Number(e.target.value) || null)}
              aria-label="The other layer"
              className="h-[30px] min-w-0 flex-1 rounded-md border border-line-2 bg-card px-2"
            >
              <option value="">which layer?</option>
              {[...view.layers]
                .filter((l) => l.mod !== mod.mod)
                .reverse()
                .map((l) => (
                  <option key={l.mod} value={l.mod}>
                    {l.position} {l.name}
                  </option>
                ))}
            </select>
          )}
        </div>
        <input
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          maxLength={300}
          placeholder="Why? (for your later self)"
          aria-label="Why"
          className="mt-2 h-[30px] w-full rounded-md border border-line-2 bg-card px-2.5"
        />
        <Button type="submit" look="strong" disabled={needsOther && !other} className="mt-3">
          Make the rule
        </Button>
      </form>
    </Dialog>
  )
}
