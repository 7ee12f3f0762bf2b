import clsx from 'clsx'
import type { Schema } from '../api/client'
import { Hint } from '../ui/Hint'
import { PathText } from '../ui/PathText'

type PathView = Schema['PathView']
type Holder = Schema['Holder']

const WAYS: Record<Holder['way'], { look: string; says: string }> = {
  IN_PLAY: { look: 'way-in-play', says: 'in play' },
  COVERING: { look: 'way-covering', says: 'in play' },
  COVERED: { look: 'way-covered', says: 'covered' },
  TWIN: { look: 'way-twin', says: 'same content' },
}

/** Who holds a path, the one in play first. */
export function Holders({ path }: { path: PathView }) {
  return (
    <ul>
      {path.holders.map((h) => (
        <li key={`${h.mod} ${h.pack ?? ''}`}>
          {h.position}: {h.name}
          {h.pack && ` (in ${h.pack.split('/').at(-1)})`}, {WAYS[h.way].says}
        </li>
      ))}
    </ul>
  )
}

export function WayMark({ way }: { way: Holder['way'] }) {
  return (
    <span
      role="img"
      aria-label={WAYS[way].says}
      className={clsx(
        WAYS[way].look,
        'inline-block h-2.5 w-[16px] shrink-0 rounded-[2px] border border-line-2',
      )}
    />
  )
}

/** One contested path beside a mod: how the mod's own file stands there, and whose is in play. */
export function PathRow({ path, mod }: { path: PathView; mod: number }) {
  const own = path.holders.find((h) => h.mod === mod)
  const top = path.holders[0]
  if (!own || !top) return null
  return (
    <li className="border-line border-b border-dotted py-[3px]">
      <Hint
        side="left"
        text={
          <>
            <p className="mb-1 font-semibold">{path.why}</p>
            <Holders path={path} />
          </>
        }
      >
        <div tabIndex={0} className="flex items-center gap-2">
          <WayMark way={own.way} />
          <PathText path={path.path} most={top.mod === mod ? 29 : 21} className="min-w-0 flex-1 truncate" />
          <span className="max-w-[110px] shrink-0 truncate text-[11.5px] text-ink-2">
            {top.mod === mod ? 'this one' : top.name}
          </span>
        </div>
      </Hint>
    </li>
  )
}
