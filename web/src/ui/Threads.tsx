import clsx from 'clsx'

/** One thread from the selected row to another; solid runs to what it covers, dashed to what covers it. */
export interface Thread {
  key: string
  fromY: number
  toY: number
  weight: number
  dashed: boolean
  text: string
}

/** Arcs in the gutter of a list, as wide as the gutter; a narrow page has none. Decoration: the same is said in words beside. */
export function Threads({
  threads,
  width,
  height,
  leave = 0,
}: {
  threads: readonly Thread[]
  width: number
  /** So much at the left is something else's. */
  leave?: number
  height: number
}) {
  const most = Math.max(1, ...threads.map((t) => t.weight))
  const reaches = reachesOf(threads, width - leave)
  return (
    <svg
      aria-hidden="true"
      width={width}
      height={height}
      className="pointer-events-none absolute top-0 left-0 max-lg:hidden"
    >
      {threads.map((t) => {
        const reach = reaches.get(t.key) ?? 20
        const x = width - 4
        const middle = (t.fromY + t.toY) / 2
        const stroke = t.dashed ? 'stroke-ochre' : 'stroke-woad'
        return (
          <g key={t.key}>
            <path
              d={`M${x} ${t.fromY} C${x - reach} ${t.fromY},${x - reach} ${t.toY},${x} ${t.toY}`}
              fill="none"
              className={stroke}
              strokeWidth={1.2 + (2.8 * t.weight) / most}
              strokeDasharray={t.dashed ? '4 3' : undefined}
            />
            <circle cx={x} cy={t.toY} r="3" className={t.dashed ? 'fill-ochre' : 'fill-woad'} />
            <text
              x={x - reach * 0.75}
              y={middle + 4}
              textAnchor="middle"
              paintOrder="stroke"
              strokeWidth={5}
              strokeLinejoin="round"
              className={clsx(
                'num stroke-card font-medium text-[11px]',
                t.dashed ? 'fill-ochre' : 'fill-woad',
              )}
            >
              {t.text}
            </text>
          </g>
        )
      })}
    </svg>
  )
}

/** How far out each thread bows: the further it goes, the further out, so that their numbers stay apart. */
function reachesOf(threads: readonly Thread[], width: number): Map<string, number> {
  const byLength = [...threads].sort((a, b) => Math.abs(a.toY - a.fromY) - Math.abs(b.toY - b.fromY))
  const widest = (width - 18) / 0.75
  const step = Math.min(24, (widest - 28) / Math.max(1, byLength.length - 1))
  return new Map(byLength.map((t, i) => [t.key, 28 + i * step]))
}
