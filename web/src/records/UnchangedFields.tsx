import { useState } from 'react'
import type { Schema } from '../api/client'
import { count } from '../ui/text'
import { type Decision, REMOVED } from './decision'
import { ValueEditor } from './ValueEditor'

/** The fields that nobody changed: to look at, and to write another value into. */
export function UnchangedFields({
  workspace,
  name,
  board: b,
  onChoose,
}: {
  workspace: number
  name: string
  board: Schema['Board']
  onChoose: (place: string, decision: Decision | null) => void
}) {
  const [edited, setEdited] = useState<string | null>(null)
  if (b.same.length === 0) return null
  return (
    <details className="border-line border-b px-3.5 py-2" open={b.places.length === 0}>
      <summary className="cursor-pointer text-ink-2">
        {count(b.same.length, b.places.length > 0 ? 'more field' : 'field')}{' '}
        {b.versions.length > 1 && b.state !== 'ODD'
          ? b.same.length === 1
            ? 'is the same everywhere'
            : 'are the same everywhere'
          : `as ${b.usedBy} has it`}
      </summary>
      <dl className="mt-1.5 grid grid-cols-[110px_minmax(0,1fr)] gap-x-3 gap-y-1">
        {b.same.map((f) => (
          <div key={f.place} className="contents">
            <dt className="break-words py-0.5 text-ink-2">{f.title}</dt>
            <dd className="min-w-0 py-0.5">
              <span className="break-words">{f.value.text}</span>{' '}
              {edited === f.place ? (
                <ValueEditor
                  workspace={workspace}
                  name={`${name} ${f.place}`}
                  title={f.title}
                  kind={f.kind}
                  text={f.text}
                  onWrite={(text) => {
                    onChoose(f.place, { own: text })
                    setEdited(null)
                  }}
                  onRemove={() => {
                    onChoose(f.place, REMOVED)
                    setEdited(null)
                  }}
                  onClose={() => setEdited(null)}
                />
              ) : (
                <button
                  type="button"
                  aria-label={`Write another ${f.title}`}
                  onClick={() => setEdited(f.place)}
                  className="text-[11.5px] min-h-6 text-woad underline"
                >
                  write another
                </button>
              )}
            </dd>
          </div>
        ))}
      </dl>
    </details>
  )
}
