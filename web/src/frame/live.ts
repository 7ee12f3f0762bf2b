import { type QueryClient, useQueryClient } from '@tanstack/react-query'
import { useEffect, useSyncExternalStore } from 'react'
import type { Schema } from '../api/client'
import { lookAtFolderAgain } from '../deploy/queries'
import { keepLine } from '../test-run/lines'
import { notify } from './notify'
import { makeOld } from './old'
import { useJobs } from './queries'
import { followsAnyway } from './revision'
import { events, type Told } from './stream'
import { tellEnd } from './title'
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
  catalogues: [
    'catalogues',
    'offered',
    'choice',
    'updates',
    'bridges',
    'standings',
    'mod-findings',
    'timeline',
  ],
  findings: ['mod-findings', 'standings', 'timeline'],
  'game-words': ['standings', 'timeline'],
  downloads: ['downloads'],
  'layers-shown': ['layers-shown'],
  tools: ['tools', 'tool-run', 'tool-runs', 'deploy-status'],
  search: ['searches', 'search'],
  signs: ['signs', 'timeline'],
  run: [
    'suspects',
    'search',
    'signs',
    'runs',
    'run',
    'saves',
    'deploy-status',
    'overview',
    'layers',
    'load-order',
    'library',
  ],
}

/** What changes by itself, while a page is still on its way. */
const AT_FIRST = ['overview', 'runs', 'run', 'searches', 'search', 'signs', 'jobs', 'tools', 'tool-run']

const ENDS: Record<Exclude<Job['state'], 'RUNNING'>, string> = {
  DONE: 'done',
  FAILED: 'failed',
  CANCELLED: 'cancelled',
}

const TOUCHES_FOLDER = ['deployment', 'run', 'tools']

/**
 * Follows what happens in a workspace: changes made here, in another tab, or by a script, and long work
 * as it goes on.
 *
 * @returns whether the server can be heard
 */
export function useLive(workspace: number): boolean {
  const queries = useQueryClient()
  const stream = events()
  const busy = useJobs(workspace).data?.some((j) => j.state === 'RUNNING') ?? false
  useEffect(() => {
    stream.setBusy(busy)
    return () => stream.setBusy(false)
  }, [stream, busy])
  useEffect(
    () =>
      stream.listen({
        told: (event) => event.workspace === workspace && follow(queries, event),
        opened: (missed) => {
          // what happened while nobody listened is not told again: that may be anything
          touch(queries, workspace, missed ? 'all' : AT_FIRST)
          if (missed) lookAtFolderAgain(queries, workspace)
        },
      }),
    [stream, workspace, queries],
  )
  return useSyncExternalStore(stream.watch, () => stream.heard)
}

function follow(queries: QueryClient, { workspace, kind, data }: Told) {
  const touched = TOUCHED[kind]
  if (touched) touch(queries, workspace, touched)
  if (TOUCHES_FOLDER.includes(kind)) lookAtFolderAgain(queries, workspace)
  if (kind === 'arrangement') {
    const { revision } = data as { revision: number }
    if (!followsAnyway(queries, workspace, revision)) touch(queries, workspace, 'all')
  } else if (kind === 'job') {
    keepJob(queries, workspace, data as Job)
  } else if (kind === 'run-line' || kind === 'tool-line') {
    const said = data as { run: number; line: string }
    keepLine(workspace, kind === 'run-line' ? said.run : `tool-${said.run}`, said.line)
  }
}

function touch(queries: QueryClient, workspace: number, touched: readonly string[] | 'all') {
  if (touched === 'all') makeOld(queries, of(workspace))
  else for (const name of touched) makeOld(queries, of(workspace, name))
}

function keepJob(queries: QueryClient, workspace: number, job: Job) {
  queries.setQueryData<Job[]>(of(workspace, 'jobs'), (jobs = []) =>
    jobs.some((j) => j.id === job.id) ? jobs.map((j) => (j.id === job.id ? job : j)) : [job, ...jobs],
  )
  if (job.state === 'RUNNING') return
  // an answer under way may be from before its end, and would say that it still goes on
  touch(queries, workspace, ['jobs'])
  if (job.kind === 'look') return
  const words = `${job.title}: ${ENDS[job.state]}`
  tellEnd(words)
  notify(words, `job ${job.id}`)
}
