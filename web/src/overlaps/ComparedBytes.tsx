import type { Schema } from '../api/client'
import { bytes } from '../ui/text'
import { hexRows } from './compare'

/** Two files that are no text, byte by byte. */
export function ComparedBytes({ left, right }: { left: Schema['Contents']; right: Schema['Contents'] }) {
  const a = hexRows(left.hex ?? '')
  const b = hexRows(right.hex ?? '')
  return (
    <div className="card mt-2 min-h-0 flex-1 overflow-auto p-3.5">
      <p className="text-ink-2">
        {bytes(left.sizeBytes)} beside {bytes(right.sizeBytes)}. No text on both sides: the first 4,096 bytes,
        those that differ underlined.
      </p>
      <div className="mono mt-2 grid grid-cols-2 gap-x-6 text-[11.5px] leading-[18px]">
        {Array.from({ length: Math.max(a.length, b.length) }, (_, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by where it begins
          <HexPair key={i} a={a[i]} b={b[i]} />
        ))}
      </div>
    </div>
  )
}

type HexRow = ReturnType<typeof hexRows>[number]

function HexPair({ a, b }: { a: HexRow | undefined; b: HexRow | undefined }) {
  return (
    <>
      <HexSide row={a} other={b} />
      <HexSide row={b} other={a} />
    </>
  )
}

function HexSide({ row, other }: { row: HexRow | undefined; other: HexRow | undefined }) {
  if (!row) return <span />
  return (
    <span className="whitespace-pre">
      <span className="text-ink-3">{row.at} </span>
      {row.bytes.map((x, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a byte is known by its place
        <span key={i} className={x === other?.bytes[i] ? '' : 'font-semibold underline decoration-ochre'}>
          {x}{' '}
        </span>
      ))}
      <span className="text-ink-2"> {row.letters}</span>
    </span>
  )
}
