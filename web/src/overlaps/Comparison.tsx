import { useMemo, useState } from 'react'
import { asProblems, type Schema } from '../api/client'
import { kindOf } from '../library/kind'
import { Problems } from '../ui/Problems'
import { Segments } from '../ui/Segments'
import { Loading } from '../ui/States'
import { bytes, count } from '../ui/text'
import { ComparedBytes } from './ComparedBytes'
import { ComparedImages } from './ComparedImages'
import { ComparedPlaces } from './ComparedPlaces'
import { ComparedTexts } from './ComparedTexts'
import { jsonPlaces, type Place, tablePlaces } from './compare'
import { useContents } from './queries'

type Holder = Schema['Holder']

export interface ComparisonProps {
  workspace: number
  path: string
  left: Holder
  right: Holder
}

/** Two contenders beside one another, as their kind can best be compared. */
export function Comparison(props: ComparisonProps) {
  const { left, right, path } = props
  if (left.sha256 === right.sha256)
    return (
      <div className="card grid flex-1 place-items-center p-6 text-center text-ink-2">
        {left === right
          ? 'It is the same file on both sides. Choose another one.'
          : 'Both have the same content: to the game it makes no difference.'}
      </div>
    )
  if (kindOf(path, []) === 'image') return <ComparedImages {...props} />
  return <Contents {...props} />
}

function Contents({ workspace, path, left, right }: ComparisonProps) {
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
        <ComparedBytes left={x} right={y} />
      ) : places && shown === 'places' ? (
        <ComparedPlaces places={places} left={left.name} right={right.name} />
      ) : (
        <ComparedTexts left={x.text ?? ''} right={y.text ?? ''} notes={[notesOf(x), notesOf(y)]} />
      )}
    </>
  )
}

function notesOf(c: Schema['Contents']): string {
  const ends = c.text?.includes('\r\n') ? ', CR LF' : ''
  return `${bytes(c.sizeBytes)}, ${c.encoding}${ends}`
}
