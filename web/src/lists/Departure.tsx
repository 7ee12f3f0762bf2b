import { type FormEvent, useState } from 'react'
import { useParams } from 'react-router'
import { Button } from '../ui/Button'
import { type Kind, useDepart } from './queries'
import type { Entry } from './steps'

/** Whether an entry shall be otherwise here than the list says, and why. */
export function Departure({ workspace, kind, entry: e }: { workspace: number; kind: Kind; entry: Entry }) {
  const depart = useDepart(workspace, kind, Number(useParams().list))
  const [asked, ask] = useState(false)
  const [reason, setReason] = useState('')
  if (e.departure !== undefined)
    return (
      <>
        <span className="break-words text-right text-[12px] text-ink-2">
          left so{e.departure && `: ${e.departure}`}
        </span>
        <Button
          look="quiet"
          className="h-6"
          aria-label={`Follow the list again: ${e.name}`}
          disabled={depart.isPending}
          onClick={() => depart.mutate({ number: e.number })}
        >
          Follow it
        </Button>
      </>
    )
  if (!asked)
    return (
      <Button look="quiet" className="h-6" aria-label={`Leave it so: ${e.name}`} onClick={() => ask(true)}>
        Leave it so …
      </Button>
    )
  const submit = (event: FormEvent) => {
    event.preventDefault()
    depart.mutate({ number: e.number, reason }, { onSuccess: () => ask(false) })
  }
  return (
    <form className="flex flex-col items-end gap-1" onSubmit={submit}>
      <input
        // the field was asked for just now
        // biome-ignore lint/a11y/noAutofocus: the focus goes where one is to write next
        autoFocus
        aria-label={`Why ${e.name} is otherwise here`}
        placeholder="why, if you like"
        maxLength={500}
        className="h-6 w-full rounded-md border border-line-2 bg-card px-1.5 text-[12px] text-ink"
        value={reason}
        onChange={(event) => setReason(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && ask(false)}
      />
      <Button type="submit" className="h-6" disabled={depart.isPending}>
        Remember it
      </Button>
    </form>
  )
}
