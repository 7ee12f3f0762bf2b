import { Link } from 'react-router'

/** The way back from what lies beside the load order. */
export function BackToOrder({ workspace }: { workspace: number }) {
  return (
    <Link to={`/workspaces/${workspace}/load-order`} className="text-woad underline">
      Back to the load order
    </Link>
  )
}
