import { Link } from 'react-router'

/** A way to another screen that stands among buttons and looks like one. */
export function ButtonLink({ to, children }: { to: string; children: string }) {
  return (
    <Link
      to={to}
      className="inline-flex h-[30px] items-center rounded-[7px] border border-line bg-card px-2.5 hover:bg-sunk"
    >
      {children}
    </Link>
  )
}
