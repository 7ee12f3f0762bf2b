import clsx from 'clsx'

/**
 * How far long work has come.
 *
 * @param label what is going on, for a reader
 * @param total of it; 0 while nobody can tell
 */
export function Progress(props: { label: string; done: number; total: number; className?: string }) {
  const known = props.total > 0
  const share = known ? Math.min(100, (100 * props.done) / props.total) : 100
  return (
    <span
      role="progressbar"
      aria-label={props.label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={known ? Math.floor(share) : undefined}
      className={clsx('block overflow-hidden rounded-full bg-sunk', props.className)}
    >
      <span
        className={clsx('block h-full rounded-full bg-woad', !known && 'animate-pulse')}
        style={{ width: `${share}%` }}
      />
    </span>
  )
}
