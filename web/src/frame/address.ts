import { useEffect } from 'react'
import { useLocation, useNavigationType, useSearchParams } from 'react-router'

/** What was put into the address of a screen and is not drawn yet: a change that comes meanwhile goes on from it. */
let ahead: { path: string; query: URLSearchParams } | undefined

/**
 * What the address says behind the question mark, and a way to change it in place: the state of a screen that
 * a link can carry.
 */
export function useAddress(): [URLSearchParams, (change: (query: URLSearchParams) => void) => void] {
  const { pathname } = useLocation()
  const [query, setQuery] = useSearchParams()
  const went = useNavigationType()
  useEffect(() => {
    // drawn by now, or given up by going back
    const over = ahead?.path !== pathname || ahead.query.toString() === query.toString()
    if (over || went === 'POP') ahead = undefined
  }, [pathname, query, went])
  const put = (change: (q: URLSearchParams) => void) => {
    const next = new URLSearchParams(ahead?.path === pathname ? ahead.query : query)
    change(next)
    ahead = { path: pathname, query: next }
    setQuery(next, { replace: true })
  }
  return [query, put]
}
