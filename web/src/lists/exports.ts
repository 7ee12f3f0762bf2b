import type { Kind } from './queries'

/** Where an order is to be had as a file, in each of its forms. */
export function exportsOf(workspace: number, kind: Kind): { name: string; address: string }[] {
  return kind === 'layers'
    ? [
        { name: 'CSV', address: `/api/workspaces/${workspace}/layers/list/csv` },
        { name: 'JSON', address: `/api/workspaces/${workspace}/layers/list/json` },
        { name: 'Markdown', address: `/api/workspaces/${workspace}/layers/list/markdown` },
      ]
    : [
        { name: 'CSV', address: `/api/workspaces/${workspace}/load-order/lists/csv` },
        { name: 'JSON', address: `/api/workspaces/${workspace}/load-order/lists/json` },
        { name: 'Markdown', address: `/api/workspaces/${workspace}/load-order/lists/markdown` },
      ]
}
