import type { Schema } from '../api/client'

/** A chain or a ring of reasons, each with who said it. */
export function Reasons({ reasons, about }: { reasons: readonly Schema['LayerReason'][]; about?: number }) {
  return (
    <ol className="mt-1 flex flex-col gap-0.5 leading-snug">
      {reasons.map((r) => (
        <li key={`${r.lower} ${r.upper} ${r.reason}`}>
          <Name on={r.upper === about}>{r.upperName}</Name> above{' '}
          <Name on={r.lower === about}>{r.lowerName}</Name>:{' '}
          <span className="text-ink-2">
            {r.reason} ({r.from})
          </span>
        </li>
      ))}
    </ol>
  )
}

function Name({ on, children }: { on: boolean; children: string }) {
  return on ? <b className="font-semibold">{children}</b> : <span className="font-medium">{children}</span>
}
