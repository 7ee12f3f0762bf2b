import { asProblems, type Schema } from '../api/client'
import { Button } from '../ui/Button'
import { Problems } from '../ui/Problems'
import { useConfirmFormat, useForgetFormat, useFormats } from './queries'

/** Jars with formats of plugins: each is used only when its sum was confirmed. */
export function Formats() {
  const formats = useFormats()
  const confirm = useConfirmFormat()
  if (!formats.data || formats.data.jars.length === 0) return null
  return (
    <section aria-labelledby="formats" className="card flex flex-col gap-2 px-5 py-4">
      <div>
        <h2 id="formats">Formats of plugins</h2>
        <p className="text-ink-2">
          A format is a program, and can do all that you can. Use one only from somebody you trust, when its
          SHA-256 is the one that they say.
        </p>
      </div>
      {confirm.error !== null && <Problems problems={asProblems(confirm.error)} />}
      <ul>
        {formats.data.jars.map((j) => (
          <Jar key={j.sha256} jar={j} busy={confirm.isPending} onConfirm={() => confirm.mutate(j.sha256)} />
        ))}
      </ul>
      <p className="mono break-all text-ink-3">{formats.data.folder}</p>
    </section>
  )
}

function Jar({
  jar: j,
  busy,
  onConfirm,
}: {
  jar: Schema['FormatJarView']
  busy: boolean
  onConfirm: () => void
}) {
  const forget = useForgetFormat()
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-line border-t py-2">
      <div className="min-w-0 flex-1">
        <p className="truncate font-medium" title={j.name}>
          {j.name}
        </p>
        <p className="mono break-all text-[11px] text-ink-2">{j.sha256}</p>
        {j.confirmed && j.why === undefined && <p className="text-ink-2">In use: {j.formats.join(', ')}</p>}
        {j.why !== undefined && <p className="text-madder">{j.why}</p>}
      </div>
      {j.confirmed ? (
        <Button onClick={() => forget.mutate(j.sha256)} disabled={forget.isPending}>
          Take it out of use
        </Button>
      ) : (
        <Button look="strong" onClick={onConfirm} disabled={busy}>
          I trust it: use it
        </Button>
      )}
    </li>
  )
}
