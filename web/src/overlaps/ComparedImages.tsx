import clsx from 'clsx'
import { useEffect, useRef, useState } from 'react'
import { Segments } from '../ui/Segments'
import { bytes } from '../ui/text'
import type { ComparisonProps } from './Comparison'
import { contentsAddress } from './queries'

const WAYS = [
  { value: 'side', label: 'Side by side' },
  { value: 'slider', label: 'Slider' },
  { value: 'difference', label: 'Difference' },
] as const

const IMAGE = 'max-h-full max-w-full object-contain [image-rendering:pixelated]'
const BOARD = 'bg-[repeating-conic-gradient(var(--sunk)_0_25%,var(--card)_0_50%)] bg-[length:16px_16px]'

/** Two pictures: beside one another, one over the other, or what differs. */
export function ComparedImages({ workspace, path, left, right }: ComparisonProps) {
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
