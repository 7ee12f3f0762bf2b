import { type QueryClient, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import type { Schema } from '../api/client'
import { lookAtFolderAgain } from '../deploy/queries'
import { keepLine } from '../test-run/lines'
import { makeOld } from './old'
import { followsAnyway } from './revision'
import { of } from './workspace'

type Job = Schema['Job']

/** Which answers an event makes old. */
const TOUCHED: Record<string, readonly string[] | 'all'> = {
  library: 'all',
  profiles: 'all',
  deployment: 'all',
  lists: ['lists', 'list', 'timeline'],
  'pair-notes': ['pair-notes', 'timeline'],
  inbox: ['inbox'],
  tools: ['tools', 'tool-run', 'tool-runs', 'deploy-status'],
  run: ['runs', 'run', 'saves', 'deploy-status', 'overview', 'layers', 'load-order', 'library'],
}

/**
 * Follows what happens in a workspace: changes made here, in another tab, or by a script, and long work
 * as it goes on.
 *
 * @returns whether the server can be heard
 */
export function useLive(workspace: number): boolean {
  const queries = useQueryClient()
  const [heard, setHeard] = useState(true)
  useEffect(() => {
    const source = new EventSource(`/api/workspaces/${workspace}/events`)
    let lost = false
    source.addEventListener('hello', () => {
      setHeard(true)
      // what happened while nobody listened is not told again: after a break that may be anything, at
      // first only what changes by itself
      touch(queries, workspace, lost ? 'all' : ['overview', 'runs', 'run', 'jobs', 'tools', 'tool-run'])
      if (lost) lookAtFolderAgain(queries, workspace)
      lost = false
    })
    source.onerror = () => {
      lost = true
      setHeard(false)
    }
    for (const [kind, touched] of Object.entries(TOUCHED)) {
      source.addEventListener(kind, () => touch(queries, workspace, touched))
    }
    source.addEventListener('arrangement', (e) => {
      const { revision } = JSON.parse(e.data) as { revision: number }
      if (!followsAnyway(queries, workspace, revision)) touch(queries, workspace, 'all')
    })
    for (const kind of ['deployment', 'run', 'tools']) {
      source.addEventListener(kind, () => lookAtFolderAgain(queries, workspace))
    }
    source.addEventListener('job', (e) => keepJob(queries, workspace, JSON.parse(e.data) as Job))
    source.addEventListener('run-line', (e) => {
      const said = JSON.parse(e.data) as { run: number; line: string }
      keepLine(workspace, said.run, said.line)
    })
    source.addEventListener('tool-line', (e) => {
      const said = JSON.parse(e.data) as { run: number; line: string }
      keepLine(workspace, `tool-${said.run}`, said.line)
    })
    return () => source.close()
  }, [workspace, queries])
  return heard
}

function touch(queries: QueryClient, workspace: number, touched: readonly string[] | 'all') {
  if (touched === 'all') makeOld(queries, of(workspace))
  else for (const name of touched) makeOld(queries, of(workspace, name))
}

function keepJob(queries: QueryClient, workspace: number, job: Job) {
  queries.setQueryData<Job[]>(of(workspace, 'jobs'), (jobs = []) =>
    jobs.some((j) => j.id === job.id) ? jobs.map((j) => (j.id === job.id ? job : j)) : [job, ...jobs],
  )
  // an answer under way may be from before its end, and would say that it still goes on
  if (job.state !== 'RUNNING') touch(queries, workspace, ['jobs'])
}
