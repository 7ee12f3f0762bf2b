import { useState } from 'react'
import { Button } from '../ui/Button'
import { Hint } from '../ui/Hint'
import { list, number } from '../ui/text'
import { about, label, type Remedy, toWhom } from './remedies'
import { useRemedy, useRemedyPreview } from './useRemedy'

/** How many of those that an act is done to are named in its preview. */
const NAMED = 8

/** The act that mends something, and on pointing at it what it would change in the game. */
export function RemedyButton({
  workspace,
  remedy,
  className,
}: {
  workspace: number
  remedy: Remedy
  className?: string
}) {
  const act = useRemedy(workspace)
  const [open, setOpen] = useState(false)
  const preview = useRemedyPreview(workspace, remedy, open)
  const names = toWhom(remedy)
  const rest = names.length - NAMED
  const whom = list([...names.slice(0, NAMED), ...(rest > 0 ? [`${number(rest)} more`] : [])])
  return (
    <Hint
      side="bottom"
      onOpenChange={setOpen}
      text={
        <>
          {whom && <p className="mb-1">{whom}.</p>}
          <p>{preview ?? about(remedy)}</p>
        </>
      }
    >
      <Button className={className} onClick={() => act.run(remedy)} disabled={act.busy}>
        {label(remedy)}
      </Button>
    </Hint>
  )
}
