import { useDeferredValue, useId, useState } from 'react'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { useKept } from '../ui/kept'
import { spoken } from './keys'
import { useRecordNames } from './queries'
import { typedFrom, written } from './value'

interface ValueEditorProps {
  workspace: number
  /** Under which name what is half typed is kept. */
  name: string
  title: string
  kind: Schema['FieldKind']
  /** The value to begin with, in the text form of plugins. */
  text: string | undefined
  onWrite: (text: string) => void
  onRemove: (() => void) | undefined
  onClose: () => void
}

/** Writes a value of the user's own: a reference is picked by name, the rest is typed. */
export function ValueEditor(props: ValueEditorProps) {
  if (props.kind.kind === 'REF') return <ReferencePicker {...props} />
  return <TypedValue {...props} />
}

function TypedValue({ name, title, kind, text, onWrite, onRemove, onClose }: ValueEditorProps) {
  const [typed, setTyped, drop] = useKept(name, typedFrom(text, kind))
  const value = written(typed, kind)
  const id = useId()
  const long =
    kind.kind === 'SET' || kind.kind === 'ROWS' || kind.kind === 'SEQUENCE' || kind.kind === 'WHOLE'
  const field = {
    id,
    value: typed,
    'aria-invalid': value === null,
    'aria-describedby': `${id}-how`,
    // the button that opened it was pressed: the next thing is to type
    autoFocus: true,
    className:
      'w-full rounded-md border border-line-2 bg-card px-2 py-1 outline-offset-1 aria-[invalid=true]:border-ochre',
  }
  return (
    <form
      className="mt-1.5 flex flex-col gap-1.5"
      onSubmit={(e) => {
        e.preventDefault()
        if (value === null) return
        drop()
        onWrite(value)
      }}
      onKeyDown={(e) => e.key === 'Escape' && onClose()}
    >
      <label htmlFor={id} className="font-semibold text-[11.5px]">
        {title}
        {kind.unit && ` in ${kind.unit}`}
      </label>
      {long ? (
        <textarea {...field} rows={3} spellCheck={false} onChange={(e) => setTyped(e.target.value)} />
      ) : (
        <input {...field} onChange={(e) => setTyped(e.target.value)} />
      )}
      <p id={`${id}-how`} className="text-[11.5px] text-ink-2">
        {how(kind)}
      </p>
      <Acts
        disabled={value === null}
        onRemove={onRemove}
        onClose={() => {
          drop()
          onClose()
        }}
      />
    </form>
  )
}

function how(kind: Schema['FieldKind']): string {
  switch (kind.kind) {
    case 'NUMBER': {
      const from = kind.min === undefined ? '' : ` from ${kind.min}`
      const to = kind.max === undefined ? '' : ` up to ${kind.max}`
      return `A number${from}${to}.`
    }
    case 'TEXT':
      return 'A text.'
    case 'TRUTH':
      return 'yes or no.'
    case 'PATH':
      return 'A path in the game, such as textures/hulls/small.png.'
    default:
      return 'In the text form of plugins: a list is [ … ], a reference {"ref":"Skerry.plug/420"}.'
  }
}

function ReferencePicker({ workspace, title, kind, text, onWrite, onRemove, onClose }: ValueEditorProps) {
  const [typed, setTyped] = useState('')
  const find = useDeferredValue(typed)
  const names = useRecordNames(workspace, find, kind.to, true).data ?? []
  const [picked, setPicked] = useState<string | null>(() => refIn(text))
  const id = useId()
  return (
    <form
      className="mt-1.5 flex flex-col gap-1.5"
      onSubmit={(e) => {
        e.preventDefault()
        if (picked) onWrite(JSON.stringify({ ref: picked }))
      }}
      onKeyDown={(e) => e.key === 'Escape' && onClose()}
    >
      <label htmlFor={id} className="font-semibold text-[11.5px]">
        {title}: find by name
      </label>
      <input
        id={id}
        type="search"
        value={typed}
        // biome-ignore lint/a11y/noAutofocus: the button that opened it was pressed, and typing is next
        autoFocus
        onChange={(e) => setTyped(e.target.value)}
        className="w-full rounded-md border border-line-2 bg-card px-2 py-1 outline-offset-1"
      />
      <fieldset className="max-h-36 overflow-y-auto rounded-md border border-line bg-card">
        <legend className="sr-only">Records of that name</legend>
        {names.map((n) => (
          <label
            key={n.key}
            className="flex cursor-pointer items-baseline gap-2 px-2 py-1 hover:bg-sunk has-checked:bg-woad-soft"
          >
            <input
              type="radio"
              name={id}
              checked={picked === n.key}
              onChange={() => setPicked(n.key)}
              className="translate-y-[1px] accent-(--woad)"
            />
            <span className="min-w-0">
              {n.label} <small className="break-all text-ink-2">{spoken(n.key)}</small>
            </span>
          </label>
        ))}
        {names.length === 0 && <p className="px-2 py-1.5 text-ink-2">No record of that name.</p>}
      </fieldset>
      <Acts disabled={picked === null} onRemove={onRemove} onClose={onClose} />
    </form>
  )
}

function refIn(text: string | undefined): string | null {
  const found = text && /^\{"ref":"([^"]+)"\}$/.exec(text)
  return found ? (found[1] ?? null) : null
}

function Acts({
  disabled,
  onRemove,
  onClose,
}: {
  disabled: boolean
  onRemove: (() => void) | undefined
  onClose: () => void
}) {
  return (
    <div className="flex flex-wrap gap-1.5">
      <Button type="submit" look="strong" className="h-7" disabled={disabled}>
        Write it
      </Button>
      {onRemove && (
        <Button className="h-7" onClick={onRemove}>
          Take the field out
        </Button>
      )}
      <Button look="quiet" className="h-7" onClick={onClose}>
        Cancel
      </Button>
    </div>
  )
}
