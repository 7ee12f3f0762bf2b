import { useState } from 'react'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Hint } from '../ui/Hint'
import { count, number } from '../ui/text'
import { type LoadChange, useSlotTakers } from './queries'

/** With so few left it is said before there are none. */
const FEW = 5

/** How many plugins the game can hold, how many it does, and what counts. */
export function Slots({
  workspace,
  slots: s,
  onChange,
}: {
  workspace: number
  slots: Schema['SlotsView']
  onChange: (change: LoadChange) => void
}) {
  const [open, setOpen] = useState(false)
  if (s.total === undefined) {
    return <p className="mb-2 text-ink-2">{count(s.used, 'plugin')} on. This game has no limit.</p>
  }
  const mods = s.used - s.own
  const left = s.left ?? 0
  const says = `${s.total} in all: ${s.own} for the game’s own plugins, ${s.reserved} for the save, ${s.total - s.own - s.reserved} for mods. Every plugin that is on takes one; one that is off takes none.`
  const percent = (n: number) => `${(100 * n) / (s.total ?? 1)}%`
  return (
    <div className="mb-2 flex items-center gap-3 text-ink-2">
      <Hint text={says} side="bottom">
        <div tabIndex={0} className="flex flex-1 items-center gap-3">
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
      {left <= FEW && left >= 0 && (
        <b className="whitespace-nowrap font-semibold text-ochre">
          {left === 0 ? 'no slot left' : `${count(left, 'slot')} left`}
        </b>
      )}
      <button
        type="button"
        className="whitespace-nowrap min-h-6 text-woad underline"
        onClick={() => setOpen(true)}
      >
        Who takes them?
      </button>
      {open && <TakersDialog workspace={workspace} onClose={() => setOpen(false)} onChange={onChange} />}
    </div>
  )
}

/** Who takes the slots, what comes free cheapest, and what merging would free. */
function TakersDialog({
  workspace,
  onClose,
  onChange,
}: {
  workspace: number
  onClose: () => void
  onChange: (change: LoadChange) => void
}) {
  const takers = useSlotTakers(workspace, true).data
  const [chosen, choose] = useState<ReadonlySet<string>>(new Set())
  const turn = (name: string) => {
    const next = new Set(chosen)
    if (!next.delete(name)) next.add(name)
    choose(next)
  }
  return (
    <Dialog open onOpenChange={(o) => !o && onClose()} title="Who takes the slots">
      {takers && (
        <>
          <ul className="mt-1">
            {takers.takers.slice(0, 12).map((t) => (
              <li key={t.mod} className="flex justify-between py-0.5">
                <span className="truncate">{t.name}</span>
                <span className="num text-ink-2">{count(t.plugins, 'plugin')}</span>
              </li>
            ))}
          </ul>
          <h3 className="mt-3">Cheapest to free: few records, and nobody builds on them</h3>
          <ul className="mt-1">
            {takers.cheapest.map((c) => (
              <li key={c.name}>
                <label className="flex items-center gap-2 py-0.5">
                  <input
                    type="checkbox"
                    className="accent-(--woad)"
                    checked={chosen.has(c.name)}
                    onChange={() => turn(c.name)}
                  />
                  <span className="min-w-0 flex-1 truncate">
                    <b className="font-medium">{c.name}</b> <span className="text-ink-2">{c.modName}</span>
                  </span>
                  <span className="num text-ink-2">{count(c.records, 'record')}</span>
                </label>
              </li>
            ))}
          </ul>
          <p role="status" className="mt-2 text-ink-2">
            {chosen.size === 0
              ? 'Choose some to see what they would free.'
              : `Switched off they free ${number(chosen.size)}; merged into one, ${number(chosen.size - 1)}.`}
          </p>
          <Button
            className="mt-2"
            disabled={chosen.size === 0}
            onClick={() => {
              onChange({ kind: 'switch', names: [...chosen], on: false })
              onClose()
            }}
          >
            Switch {chosen.size === 1 ? 'it' : 'them'} off
          </Button>
        </>
      )}
    </Dialog>
  )
}
