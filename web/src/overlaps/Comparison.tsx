import { useVirtualizer } from '@tanstack/react-virtual'
import clsx from 'clsx'
import { useEffect, useMemo, useRef, useState } from 'react'
import { asProblems, type Schema } from '../api/client'
import { kindOf } from '../library/kind'
import { Problems } from '../ui/Problems'
import { Segments } from '../ui/Segments'
import { Loading } from '../ui/States'
import { bytes, count } from '../ui/text'
import { hexRows, jsonPlaces, type Line, type Piece, type Place, sideBySide, tablePlaces } from './compare'
import { contentsAddress, useContents } from './queries'

type Holder = Schema['Holder']

interface Props {
  workspace: number
  path: string
  left: Holder
  right: Holder
}

/** Two contenders beside one another, as their kind can best be compared. */
export function Comparison(props: Props) {
  const { left, right, path } = props
  if (left.sha256 === right.sha256)
    return (
      <div className="card grid flex-1 place-items-center p-6 text-center text-ink-2">
        {left === right
          ? 'It is the same file on both sides. Choose another one.'
          : 'Both have the same content: to the game it makes no difference.'}
      </div>
    )
  if (kindOf(path, []) === 'image') return <Images {...props} />
  return <Contents {...props} />
}

function Contents({ workspace, path, left, right }: Props) {
  const a = useContents(workspace, path, left)
  const b = useContents(workspace, path, right)
  const [as, setAs] = useState<'text' | 'places' | null>(null)
  const places = useMemo<Place[] | null>(() => {
    const x = a.data?.text
    const y = b.data?.text
    if (x === undefined || y === undefined) return null
    if (/\.(csv|tsv)$/i.test(path)) return tablePlaces(x, y)
    return /\.json$/i.test(path) ? jsonPlaces(x, y) : null
  }, [a.data, b.data, path])
  if (a.isPending || b.isPending)
    return (
      <div className="card flex-1">
        <Loading what="the two files" />
      </div>
    )
  if (a.isError || b.isError)
    return (
      <div className="card flex-1 p-4">
        <Problems problems={asProblems(a.error ?? b.error)} />
      </div>
    )
  const x = a.data
  const y = b.data
  const hasText = x.text !== undefined && y.text !== undefined
  const shown = as ?? (places ? 'places' : 'text')
  return (
    <>
      {places && hasText && (
        <Segments
          label="How to compare"
          value={shown}
          onChange={setAs}
          options={[
            { value: 'places', label: count(places.length, 'place') },
            { value: 'text', label: 'As text' },
          ]}
        />
      )}
      {!hasText ? (
        <Bytes left={x} right={y} />
      ) : places && shown === 'places' ? (
        <Places places={places} left={left.name} right={right.name} />
      ) : (
        <Texts left={x.text ?? ''} right={y.text ?? ''} notes={[notesOf(x), notesOf(y)]} />
      )}
    </>
  )
}

function notesOf(c: Schema['Contents']): string {
  const ends = c.text?.includes('\r\n') ? ', CR LF' : ''
  return `${bytes(c.sizeBytes)}, ${c.encoding}${ends}`
}

const LINE = 19

function Texts({ left, right, notes }: { left: string; right: string; notes: [string, string] }) {
  const lines = useMemo(() => sideBySide(left, right), [left, right])
  const scroller = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => LINE,
    overscan: 20,
  })
  const changes = useMemo(
    () => lines.flatMap((l, i) => (!l.same && lines[i - 1]?.same !== false ? [i] : [])),
    [lines],
  )
  const [at, setAt] = useState(0)
  const go = (by: number) => {
    const next = Math.max(0, Math.min(at + by, changes.length - 1))
    setAt(next)
    virtual.scrollToIndex(changes[next] ?? 0, { align: 'center' })
  }
  return (
    <div className="card mt-2 flex min-h-0 flex-1 flex-col overflow-hidden">
      <div className="flex h-8 shrink-0 items-center gap-3 border-line border-b px-3.5 text-[12px] text-ink-2">
        <span className="flex-1">{notes[0]}</span>
        <span className="flex-1">{notes[1]}</span>
        <span className="flex items-center gap-2">
          {changes.length === 0 ? 'only line ends or encoding differ' : count(changes.length, 'change')}
          {changes.length > 1 && (
            <>
              <button type="button" className="rounded px-1.5 hover:bg-sunk" onClick={() => go(-1)}>
                before
              </button>
              <button type="button" className="rounded px-1.5 hover:bg-sunk" onClick={() => go(1)}>
                next
              </button>
            </>
          )}
        </span>
      </div>
      <div
        ref={scroller}
        tabIndex={0}
        role="region"
        aria-label="The two texts, line by line"
        className="min-h-0 flex-1 overflow-auto"
      >
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const l = lines[item.index]
            return (
              l && (
                <div
                  key={item.key}
                  className={clsx(
                    'mono absolute right-0 left-0 flex text-[12px] leading-[19px]',
                    !l.same && 'bg-sunk',
                  )}
                  style={{ top: item.start, height: LINE }}
                >
                  <Side side={l.left} mark="−" same={l.same} />
                  <Side side={l.right} mark="+" same={l.same} />
                </div>
              )
            )
          })}
        </div>
      </div>
    </div>
  )
}

function Side({ side, mark, same }: { side: Line['left']; mark: string; same: boolean }) {
  return (
    <span className="flex min-w-0 flex-1 overflow-hidden border-line border-r">
      <span className="num w-11 shrink-0 pr-2 text-right text-ink-3">{side?.number ?? ''}</span>
      <span className="w-3 shrink-0 text-ink-3" aria-hidden="true">
        {side && !same ? mark : ''}
      </span>
      <span
        className="min-w-0 overflow-hidden text-ellipsis whitespace-pre"
        title={side?.pieces.map((p) => p.text).join('')}
      >
        {side?.pieces.map((p: Piece, i) =>
          p.marked ? (
            <mark
              // biome-ignore lint/suspicious/noArrayIndexKey: pieces have nothing else to be known by
              key={i}
              className="rounded-[2px] bg-ochre-soft font-semibold text-ink underline decoration-ochre"
            >
              {p.text}
            </mark>
          ) : (
            // biome-ignore lint/suspicious/noArrayIndexKey: pieces have nothing else to be known by
            <span key={i}>{p.text}</span>
          ),
        )}
      </span>
    </span>
  )
}

const MOST_PLACES = 2_000

function Places({ places, left, right }: { places: readonly Place[]; left: string; right: string }) {
  return (
    <div className="card mt-2 min-h-0 flex-1 overflow-auto">
      <table className="w-full">
        <thead>
          <tr className="text-left text-[11px] text-ink-3">
            <th className="sticky top-0 bg-card px-3.5 py-1 font-normal">place</th>
            <th className="sticky top-0 bg-card px-2 py-1 font-normal">{left}</th>
            <th className="sticky top-0 bg-card px-2 py-1 font-normal">{right}</th>
          </tr>
        </thead>
        <tbody>
          {places.slice(0, MOST_PLACES).map((p) => (
            <tr key={p.at} className="border-line border-t align-top">
              <td className="mono break-all px-3.5 py-1">{p.at}</td>
              <td className="break-words px-2 py-1">{p.left ?? <i className="text-ink-3">not there</i>}</td>
              <td className="break-words px-2 py-1 font-medium">
                {p.right ?? <i className="text-ink-3">not there</i>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {places.length === 0 && (
        <p className="p-4 text-ink-2">Only the way of writing differs: the values are the same.</p>
      )}
      {places.length > MOST_PLACES && <p className="p-4 text-ink-2">The first {MOST_PLACES} places.</p>}
    </div>
  )
}

function Bytes({ left, right }: { left: Schema['Contents']; right: Schema['Contents'] }) {
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

const WAYS = [
  { value: 'side', label: 'Side by side' },
  { value: 'slider', label: 'Slider' },
  { value: 'difference', label: 'Difference' },
] as const

const IMAGE = 'max-h-full max-w-full object-contain [image-rendering:pixelated]'
const BOARD = 'bg-[repeating-conic-gradient(var(--sunk)_0_25%,var(--card)_0_50%)] bg-[length:16px_16px]'

function Images({ workspace, path, left, right }: Props) {
  const [way, setWay] = useState<(typeof WAYS)[number]['value']>('side')
  const [split, setSplit] = useState(50)
  const a = contentsAddress(workspace, path, left)
  const b = contentsAddress(workspace, path, right)
  return (
    <>
      <Segments label="How to compare" value={way} onChange={setWay} options={WAYS} />
      <div className="card mt-2 flex min-h-0 flex-1 flex-col overflow-hidden p-3.5">
        {way === 'side' && (
          <div className="grid min-h-0 flex-1 grid-cols-2 gap-3">
            <Framed src={a} name={left.name} sizeBytes={left.sizeBytes} />
            <Framed src={b} name={right.name} sizeBytes={right.sizeBytes} />
          </div>
        )}
        {way === 'slider' && (
          <>
            <div className={clsx('relative min-h-0 flex-1', BOARD)}>
              <img
                src={a}
                alt={`of ${left.name}`}
                className="absolute inset-0 h-full w-full object-contain [image-rendering:pixelated]"
              />
              <img
                src={b}
                alt={`of ${right.name}`}
                className="absolute inset-0 h-full w-full object-contain [image-rendering:pixelated]"
                style={{ clipPath: `inset(0 0 0 ${split}%)` }}
              />
              <span
                aria-hidden="true"
                className="absolute inset-y-0 w-0.5 bg-woad"
                style={{ left: `${split}%` }}
              />
            </div>
            <label className="mt-2 flex items-center gap-3">
              <span className="text-ink-2">{left.name}</span>
              <input
                type="range"
                min={0}
                max={100}
                value={split}
                onChange={(e) => setSplit(Number(e.target.value))}
                aria-label="How much of which"
                className="flex-1 accent-(--woad)"
              />
              <span className="text-ink-2">{right.name}</span>
            </label>
          </>
        )}
        {way === 'difference' && <DifferencePicture left={a} right={b} />}
      </div>
    </>
  )
}

function Framed({ src, name, sizeBytes }: { src: string; name: string; sizeBytes: number }) {
  const [size, setSize] = useState('')
  return (
    <figure className="flex min-h-0 flex-col">
      <div className={clsx('grid min-h-0 flex-1 place-items-center overflow-hidden', BOARD)}>
        <img
          src={src}
          alt={`of ${name}`}
          onLoad={(e) => setSize(`${e.currentTarget.naturalWidth} × ${e.currentTarget.naturalHeight}`)}
          className={IMAGE}
        />
      </div>
      <figcaption className="mt-1 truncate text-ink-2">
        {name} · {size && `${size} · `}
        {bytes(sizeBytes)}
      </figcaption>
    </figure>
  )
}

/** Pixel by pixel how far the two are apart: black where they are the same, the lighter the further. */
function DifferencePicture({ left, right }: { left: string; right: string }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const [says, setSays] = useState('Comparing …')
  useEffect(() => {
    let gone = false
    const load = (src: string) =>
      new Promise<HTMLImageElement>((done, fail) => {
        const image = new Image()
        image.onload = () => done(image)
        image.onerror = () => fail(new Error('not an image'))
        image.src = src
      })
    Promise.all([load(left), load(right)])
      .then(([a, b]) => {
        const c = canvas.current
        const paint = c?.getContext('2d', { willReadFrequently: true })
        if (gone || !c || !paint) return
        c.width = Math.max(a.naturalWidth, b.naturalWidth)
        c.height = Math.max(a.naturalHeight, b.naturalHeight)
        const pixels = (image: HTMLImageElement) => {
          paint.clearRect(0, 0, c.width, c.height)
          paint.drawImage(image, 0, 0)
          return paint.getImageData(0, 0, c.width, c.height)
        }
        const x = pixels(a)
        const y = pixels(b)
        let differs = 0
        for (let i = 0; i < x.data.length; i += 4) {
          let far = 0
          for (let k = 0; k < 4; k++)
            far = Math.max(far, Math.abs((x.data[i + k] ?? 0) - (y.data[i + k] ?? 0)))
          if (far > 0) differs++
          x.data[i] = x.data[i + 1] = x.data[i + 2] = far
          x.data[i + 3] = 255
        }
        paint.putImageData(x, 0, 0)
        const share = (400 * differs) / x.data.length
        const sizes =
          a.naturalWidth === b.naturalWidth && a.naturalHeight === b.naturalHeight
            ? ''
            : ' They are of different sizes.'
        setSays(
          differs === 0
            ? `Every pixel is the same.${sizes}`
            : `${share < 0.1 ? 'Less than 0.1' : share.toFixed(1)} % of the pixels differ; the lighter, the further apart.${sizes}`,
        )
      })
      .catch(() => !gone && setSays('One of the two cannot be shown as an image.'))
    return () => {
      gone = true
    }
  }, [left, right])
  return (
    <>
      <div className="grid min-h-0 flex-1 place-items-center overflow-hidden bg-black">
        <canvas ref={canvas} className={IMAGE} role="img" aria-label="The difference of the two" />
      </div>
      <p role="status" className="mt-1 text-ink-2">
        {says}
      </p>
    </>
  )
}
