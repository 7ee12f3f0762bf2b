/** A word that narrows what a list shows, to turn on and off. */
export function Chip({ says, on, onTurn }: { says: string; on: boolean; onTurn: () => void }) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onTurn}
      className="min-h-6 rounded-full border border-line bg-card px-2.5 text-[12px] text-ink-2 hover:border-line-2 aria-pressed:border-woad aria-pressed:bg-woad-soft aria-pressed:text-ink"
    >
      {says}
    </button>
  )
}
