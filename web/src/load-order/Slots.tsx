import type { Schema } from '../api/client'
import { Hint } from '../ui/Hint'
import { count } from '../ui/text'

/** How many plugins the game can hold, how many it does, and what counts. */
export function Slots({ slots: s }: { slots: Schema['SlotsView'] }) {
  if (s.total === undefined) {
    return <p className="mb-2 text-ink-2">{count(s.used, 'plugin')} on. This game has no limit.</p>
  }
  const mods = s.used - s.own
  const left = s.left ?? 0
  const says = `${s.total} in all: ${s.own} for the game’s own plugins, ${s.reserved} for the save, ${s.total - s.own - s.reserved} for mods. Every plugin that is on takes one; one that is off takes none.`
  const percent = (n: number) => `${(100 * n) / (s.total ?? 1)}%`
  return (
    <Hint text={says} side="bottom">
      <div tabIndex={0} className="mb-2 flex items-center gap-3 text-ink-2">
        <span className={`num whitespace-nowrap ${left < 0 ? 'font-semibold text-madder' : ''}`}>
          {mods} of {s.total - s.own - s.reserved} slots used by mods{left < 0 && `: ${-left} too many`}
        </span>
        <span
          aria-hidden="true"
          className="flex h-4 flex-1 overflow-hidden rounded border border-line-2 bg-card"
        >
          <span className="way-game border-card border-r" style={{ width: percent(s.own) }} />
          <span
            className={left < 0 ? 'bg-madder' : 'way-in-play'}
            style={{ width: percent(Math.min(mods, s.total - s.own)) }}
          />
          <span className="flex-1 bg-[repeating-linear-gradient(90deg,transparent_0_6px,var(--line)_6px_7px)]" />
          <span
            className="way-covered border-line-2 border-l"
            style={{ width: percent(s.reserved), minWidth: 5 }}
          />
        </span>
      </div>
    </Hint>
  )
}
