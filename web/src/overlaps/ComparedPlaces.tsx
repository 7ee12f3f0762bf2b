import type { Place } from './compare'

const MOST_PLACES = 2_000

/** Two structured files place by place: only those that differ. */
export function ComparedPlaces({
  places,
  left,
  right,
}: {
  places: readonly Place[]
  left: string
  right: string
}) {
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
