import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useAddPatch } from '../mends/queries'
import { CopyButton } from '../ui/CopyButton'
import { Menu } from '../ui/Menu'
import { Tag } from '../ui/Tag'
import { count } from '../ui/text'
import { spoken } from './keys'
import { useBring, useUndecide } from './queries'
import { STATES } from './states'

/** What the record is called, where it stands, and what can be done with it as a whole. */
export function BoardHead({ workspace, board: b }: { workspace: number; board: Schema['Board'] }) {
  const { say } = useNotices()
  const bring = useBring(workspace, (total) =>
    say(`Taken whole: ${count(total, 'record')}. A patch holds what loses today.`),
  )
  const undecide = useUndecide(workspace)
  const alone = useAddPatch(workspace, () => say(`A patch of “${b.label}” alone is made.`))
  const lost = b.places.filter((p) => p.lost).length
  const acts = b.versions
    .filter((v) => !v.patch && b.versions.length > 1)
    .flatMap((v) => [
      {
        label: `Take the whole record from ${v.plugin}`,
        run: () => bring.mutate({ plugin: v.plugin, keys: [b.key], withReferences: false }),
      },
      {
        label: `… with all that it refers to in ${v.plugin}`,
        run: () => bring.mutate({ plugin: v.plugin, keys: [b.key], withReferences: true }),
      },
    ])
  const patch = b.patched
    ? [
        {
          label: 'Make a patch of this record alone',
          run: () => alone.mutate({ name: `Patch of ${b.label}`, records: [b.key] }),
        },
      ]
    : []
  const back =
    b.decisions > 0
      ? [null, { label: `Take back ${count(b.decisions, 'decision')}`, run: () => undecide.mutate([b.key]) }]
      : []
  return (
    <header className="flex shrink-0 items-start gap-3 border-line border-b px-4 py-2.5">
      <div className="min-w-0 flex-1">
        <h2 className="flex flex-wrap items-baseline gap-x-2">
          <span className="break-words">
            {b.title} “{b.label}”
          </span>
          <span className="inline-flex items-center font-normal text-[12px] text-ink-2">
            {spoken(b.key) !== b.label && spoken(b.key)}
            <CopyButton what="the key of the record" text={b.key} />
          </span>
          {(b.versions.length > 1 || b.state === 'ODD') && <Tag>{STATES[b.state].word}</Tag>}
        </h2>
        <p className="text-ink-2">
          First defined in {b.definedBy}
          {b.base === ''
            ? ', and none of those who change it saw it there: each began with nothing'
            : b.base !== b.definedBy && `, measured against ${b.base}`}{' '}
          · today the game reads <b className="font-semibold text-ink">{b.usedBy}</b>
          {b.state !== 'ODD' &&
            (lost > 0 ? ` and loses ${count(lost, 'change')} of others` : ', and nothing is lost')}
        </p>
        {b.odd.map((why) => (
          <p key={why} className="text-ochre">
            {why}
          </p>
        ))}
      </div>
      {acts.length + patch.length + back.length > 0 && (
        <Menu label="More for this record" acts={[...acts, ...patch, ...back]} />
      )}
    </header>
  )
}
