import { createContext, useContext } from 'react'

/** The workspace of the address bar. */
export const WorkspaceContext = createContext<number | null>(null)

export function useWorkspace(): number {
  const workspace = useContext(WorkspaceContext)
  if (workspace === null) throw new Error('useWorkspace needs a workspace above it')
  return workspace
}

/** Every query of a workspace begins so: one change of it makes all of them old. */
export function of(workspace: number, ...rest: readonly unknown[]): unknown[] {
  return ['workspace', workspace, ...rest]
}
