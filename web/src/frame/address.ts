import { useSearchParams } from 'react-router'

/**
 * What the address says behind the question mark, and a way to change it in place: the state of a screen that
 * a link can carry.
 */
export function useAddress(): [URLSearchParams, (change: (query: URLSearchParams) => void) => void] {
  const [query, setQuery] = useSearchParams()
  const put = (change: (q: URLSearchParams) => void) =>
    setQuery(
      (q) => {
        change(q)
        return q
      },
      { replace: true },
    )
  return [query, put]
}
