import { CircleCheck } from 'lucide-react'
import type { ReactNode } from 'react'
import type { Schema } from '../api/client'
import { Empty } from '../ui/States'
import { count, list } from '../ui/text'
import { aheadWords, recordWords } from './ahead'

type Ahead = Schema['AheadView']

const LONG = 8

/** What following the choice would do to this set of mods. */
export function AheadPart({ ahead: a }: { ahead: Ahead }) {
  if (aheadWords(a) === '')
    return (
      <Empty icon={CircleCheck} title="The game would read the same">
        No file, record or wrinkle would be another.
      </Empty>
    )
  return (
    <div>
      <h2>What it would do to this set</h2>
      <p className="text-ink-2">{aheadWords(a)}</p>
      <Wrinkles title="New wrinkles" look="text-madder" all={a.wrinklesNew} />
      <Wrinkles title="Wrinkles that would be gone" look="text-moss" all={a.wrinklesGone} />
      {a.meetings.length > 0 && (
        <Part title="Mods that would meet at other paths">
          {a.meetings.slice(0, 30).map((m) => (
            <li key={`${m.mod} ${m.other}`} className="py-0.5">
              <b className="font-medium">{m.name}</b> and <b className="font-medium">{m.otherName}</b>{' '}
              <span className="num text-ink-2">
                {list([m.come > 0 && `${m.come} new`, m.gone > 0 && `${m.gone} gone`].filter(isText))}
              </span>
            </li>
          ))}
        </Part>
      )}
      {a.records.length > 0 && (
        <Part title={`${count(a.recordsInAll, 'record')} would be others`} folded={a.recordsInAll > LONG}>
          {a.records.slice(0, 60).map((r) => (
            <li key={r.key} className="flex gap-2 py-0.5">
              <span className="w-16 shrink-0 text-ink-2">{recordWords(r.becomes)}</span>
              <span className="min-w-0 truncate">
                {r.label} <span className="text-ink-3">{r.type}</span>
              </span>
            </li>
          ))}
        </Part>
      )}
      {a.decisions.length > 0 && (
        <Part title="Decisions of yours to look at again">
          {a.decisions.map((key) => (
            <li key={key} className="mono py-0.5 text-[12px]">
              {key}
            </li>
          ))}
        </Part>
      )}
      {a.difference.samples.length > 0 && (
        <Part title={count(a.difference.files, 'file')} folded={a.difference.files > LONG}>
          {a.difference.samples.slice(0, 60).map((s) => (
            <li key={s.path} className="flex gap-2 py-0.5">
              <span className="mono min-w-0 flex-1 truncate text-[12px]">{s.path}</span>
              <span className="max-w-[50%] shrink-0 truncate text-ink-2">
                {s.before ?? 'nobody'} {s.after !== s.before && `, then ${s.after ?? 'nobody'}`}
              </span>
            </li>
          ))}
        </Part>
      )}
    </div>
  )
}

function isText(x: string | false): x is string {
  return x !== false
}

function Wrinkles(props: { title: string; look: string; all: Ahead['wrinklesNew'] }) {
  if (props.all.length === 0) return null
  return (
    <Part title={props.title} look={props.look}>
      {props.all.map((w) => (
        <li key={w.key} className="py-0.5">
          {w.title} <span className="text-ink-2">{w.reason}</span>
        </li>
      ))}
    </Part>
  )
}

/** A part of it; long ones are opened on asking. */
function Part({
  title,
  look,
  folded,
  children,
}: {
  title: string
  look?: string
  folded?: boolean
  children: ReactNode
}) {
  return (
    <details aria-label={title} open={!folded} className="mt-2">
      <summary className={`font-semibold text-[12.5px] ${look ?? ''}`}>{title}</summary>
      <ul className="mt-0.5">{children}</ul>
    </details>
  )
}
