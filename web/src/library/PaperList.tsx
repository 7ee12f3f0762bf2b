import clsx from 'clsx'

/** One thing to read. */
export interface PaperName {
  path: string
  says: string
}

/** A choice of things to read, beside the one that is read. */
export function PaperList(props: {
  papers: readonly PaperName[]
  chosen: string
  onChoose: (path: string) => void
  children: React.ReactNode
}) {
  return (
    <div className="mt-2 grid min-h-0 flex-1 grid-cols-[220px_minmax(0,1fr)] gap-3 max-lg:grid-cols-1">
      <ul aria-label="To read" className="card min-h-0 overflow-y-auto py-1 max-lg:max-h-40">
        {props.papers.map((p) => (
          <li key={p.path}>
            <button
              type="button"
              aria-current={p.path === props.chosen}
              title={p.path}
              onClick={() => props.onChoose(p.path)}
              className={clsx(
                'w-full px-3.5 py-1.5 text-left outline-offset-[-2px]',
                p.path === props.chosen ? 'bg-woad-soft' : 'hover:bg-sunk/60',
              )}
            >
              <span className="block truncate font-medium">{p.path.slice(p.path.lastIndexOf('/') + 1)}</span>
              <small className="text-ink-2">{p.says}</small>
            </button>
          </li>
        ))}
      </ul>
      <article aria-label={props.chosen} className="card flex min-h-0 flex-col overflow-hidden max-lg:h-96">
        {props.children}
      </article>
    </div>
  )
}
