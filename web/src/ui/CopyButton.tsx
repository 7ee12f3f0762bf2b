import { Copy } from 'lucide-react'
import { Button } from './Button'
import { useCopy } from './copy'

/**
 * A small button beside something that can be copied.
 *
 * @param what in the middle of a sentence, such as “the path”
 */
export function CopyButton({ what, text }: { what: string; text: string }) {
  const copy = useCopy()
  return (
    <Button
      look="quiet"
      icon
      className="h-6 w-6 shrink-0"
      aria-label={`Copy ${what}`}
      title={`Copy ${what}`}
      onClick={() => copy(text)}
    >
      <Copy size={13} aria-hidden="true" />
    </Button>
  )
}
