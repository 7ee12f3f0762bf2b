import { X } from 'lucide-react'
import { Dialog as Radix } from 'radix-ui'
import type { ReactNode } from 'react'
import { Button } from './Button'

interface DialogProps {
  open: boolean
  onOpenChange: (open: boolean) => void
  title: string
  says?: ReactNode
  children: ReactNode
}

/** A question in front of everything else. Only where an answer is needed before going on. */
export function Dialog({ open, onOpenChange, title, says, children }: DialogProps) {
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Radix.Content
          aria-describedby={undefined}
          className="fixed top-[14vh] left-1/2 z-50 flex max-h-[72vh] w-[min(560px,92vw)] -translate-x-1/2 flex-col rounded-xl border border-line bg-card shadow-lift"
        >
          <div className="flex items-start gap-3 px-5 pt-4 pb-1">
            <div className="flex-1">
              <Radix.Title className="font-semibold text-[15px]">{title}</Radix.Title>
              {says && <p className="mt-0.5 text-ink-2">{says}</p>}
            </div>
            <Radix.Close asChild>
              <Button look="quiet" aria-label="Close" icon>
                <X size={16} />
              </Button>
            </Radix.Close>
          </div>
          <div className="overflow-y-auto px-5 pt-2 pb-5">{children}</div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}
