import type { Schema } from '../api/client'

/** A chain or a ring of reasons about plugins, each with who said it. */
export function LoadReasons({
  reasons,
  about,
}: {
  reasons: readonly Schema['ReasonView'][]
  /** Whose name stands out. */
  about?: string
}) {
  return (
    <ol className="mt-0.5 flex flex-col gap-0.5 leading-snug">
      {reasons.map((r) => (
        <li key={`${r.earlier} ${r.later} ${r.reason}`} className="break-words">
          <Name on={r.later === about}>{r.later}</Name> after{' '}
          <Name on={r.earlier === about}>{r.earlier}</Name>:{' '}
          <span className="text-ink-2">
            {r.reason}. {r.from === 'the file' ? 'Fixed by the file.' : `So says ${r.from}.`}
          </span>
        </li>
      ))}
    </ol>
  )
}

function Name({ on, children }: { on: boolean; children: string }) {
  return on ? <b className="font-semibold">{children}</b> : <span className="font-medium">{children}</span>
}
