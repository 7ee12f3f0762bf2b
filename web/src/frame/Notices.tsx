import { X } from 'lucide-react'
import { Toast } from 'radix-ui'
import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from 'react'
import { asProblems, type Problem } from '../api/client'
import { Problems } from '../ui/Problems'
import { Cancelled } from './jobs'

interface Notice {
  id: number
  text?: ReactNode
  problems?: readonly Problem[]
  act?: { label: string; run: () => void }
}

interface Say {
  /** A sentence about what has just been done, with one act such as undoing it. */
  say: (text: ReactNode, act?: Notice['act']) => void
  /** A failure; it stays until it is closed. */
  fail: (error: unknown) => void
}

const NoticesContext = createContext<Say | null>(null)

export function useNotices(): Say {
  const say = useContext(NoticesContext)
  if (!say) throw new Error('useNotices needs <NoticesProvider> above it')
  return say
}

let lastId = 0

export function NoticesProvider({ children }: { children: ReactNode }) {
  const [notices, setNotices] = useState<readonly Notice[]>([])
  const add = useCallback((n: Omit<Notice, 'id'>) => {
    // the newest sentence replaces the one before; failures stay beside it
    setNotices((all) => [...all.filter((x) => x.problems), { ...n, id: ++lastId }])
  }, [])
  const say = useMemo<Say>(
    () => ({
      say: (text, act) => add({ text, act }),
      // what somebody ended is no failure
      fail: (error) =>
        add(error instanceof Cancelled ? { text: error.message } : { problems: asProblems(error) }),
    }),
    [add],
  )
  const close = (id: number) => setNotices((all) => all.filter((n) => n.id !== id))
  return (
    <NoticesContext.Provider value={say}>
      <Toast.Provider swipeDirection="down" label="Notice">
        {children}
        {notices.map((n) => (
          <Toast.Root
            key={n.id}
            duration={n.problems ? 1_000_000 : 9_000}
            onOpenChange={(open) => open || close(n.id)}
            className={
              n.problems
                ? 'relative rounded-xl bg-card pr-8 shadow-lift'
                : 'flex items-center gap-4 rounded-[10px] bg-strong py-2.5 pr-2 pl-4 text-on-strong shadow-lift'
            }
          >
            <Toast.Description asChild>
              <div className="min-w-0 flex-1">{n.problems ? <Problems problems={n.problems} /> : n.text}</div>
            </Toast.Description>
            {n.act && (
              <Toast.Action altText={n.act.label} asChild>
                <button
                  type="button"
                  onClick={n.act.run}
                  className="rounded-md border border-on-strong/30 px-2 py-0.5 font-medium hover:bg-on-strong/10"
                >
                  {n.act.label}
                </button>
              </Toast.Action>
            )}
            <Toast.Close
              aria-label="Close"
              className={
                n.problems
                  ? 'absolute top-2 right-2 rounded p-0.5 hover:bg-sunk'
                  : 'rounded p-1 hover:bg-on-strong/10'
              }
            >
              <X size={14} />
            </Toast.Close>
          </Toast.Root>
        ))}
        {/* above the bar of a list, whose acts would lie below it for as long as it is read */}
        <Toast.Viewport className="fixed bottom-[98px] left-1/2 z-50 flex w-[min(680px,90vw)] -translate-x-1/2 flex-col gap-2 outline-none" />
      </Toast.Provider>
    </NoticesContext.Provider>
  )
}
