import { cutMiddle } from './text'

/** A path in fixed width, cut in the middle; the whole of it on hover and for copying. */
export function PathText({
  path,
  most = 46,
  className = '',
}: {
  path: string
  most?: number
  className?: string
}) {
  const slash = path.lastIndexOf('/')
  const shown = cutMiddle(path, most)
  const cut = shown.lastIndexOf('/')
  return (
    <span className={`mono ${className}`} title={path}>
      {slash < 0 || cut < 0 ? (
        shown
      ) : (
        <>
          <span className="text-ink-3">{shown.slice(0, cut + 1)}</span>
          {shown.slice(cut + 1)}
        </>
      )}
    </span>
  )
}
