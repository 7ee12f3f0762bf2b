/** A word about a thing, beside its name. */
export function Tag({ children }: { children: string }) {
  return (
    <span className="shrink-0 whitespace-nowrap rounded-[9px] border border-line-2 px-1.5 text-[10.5px] text-ink-2">
      {children}
    </span>
  )
}
