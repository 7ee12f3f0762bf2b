import { Combine, Search } from 'lucide-react'
import type { Schema } from '../api/client'
import { useAddress } from '../frame/address'
import { useNotices } from '../frame/Notices'
import { useSearch } from '../frame/search'
import { useWorkspace } from '../frame/workspace'
import { useCandidateFiles, useCombine } from '../mends/queries'
import { Button } from '../ui/Button'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { count, list } from '../ui/text'
import { LeftOut, Reach, useReached } from './Carrying'
import { FileBoard } from './FileBoard'
import { FilesList, inStates } from './FilesList'

type File = Schema['CandidateFile']

/** Files that several mods change: one of each is made, and what that takes is settled here. */
export function FilesView() {
  const workspace = useWorkspace()
  const [query, put] = useAddress()
  const carry = query.get('carry') ?? undefined
  const files = useCandidateFiles(workspace, carry)
  const mods = modsOf(useCandidateFiles(workspace, undefined).data?.files ?? [])
  const { say } = useNotices()
  const combine = useCombine(workspace, () => say('The files are combined, in a layer of their own.'))
  const all = files.data?.files ?? []
  const { typed, type, wanted: find } = useSearch()
  const [reached] = useReached()
  const others = modsOf(all).filter((m) => m.id !== carry)
  const seen = inStates(all.filter((f) => matches(f, find) && (!carry || reaches(f, carry, reached))))
  const ready = seen.filter((f) => f.state === 'COMBINES' && !f.written).map((f) => f.path)
  const wished = query.get('path')
  const shown = all.find((f) => f.path === wished) ?? seen[0]
  const path = shown?.path ?? ''
  const choose = (p: string) => put((q) => q.set('path', p))
  // from the last question of a file one goes on to the next file that has one
  const asking = seen.filter((f) => f.state === 'NEEDS_YOU' || f.path === path)
  const at = asking.findIndex((f) => f.path === path)
  return (
    <Screen
      title="Combine files"
      says={files.data ? says(all, mods.find((m) => m.id === carry)?.name) : undefined}
      actions={
        ready.length > 0 && (
          <Button
            look="strong"
            // what was settled a moment ago is in the list first: the button does what it says
            disabled={combine.isPending || files.isFetching}
            onClick={() => combine.mutate({ paths: ready, carry })}
          >
            {combine.isPending
              ? 'Combining …'
              : `${carry ? 'Carry over into' : 'Combine'} ${count(ready.length, 'file')} without a question`}
          </Button>
        )
      }
    >
      {files.isPending ? (
        <div className="card flex-1">
          <Loading what="files" />
        </div>
      ) : !files.data ? (
        <div className="card flex-1">
          <Failed error={files.error} retry={() => files.refetch()} />
        </div>
      ) : all.length === 0 && !carry ? (
        <div className="card flex-1">
          <Empty icon={Combine} title="No file has to be combined">
            Two mods would have to change the same script, table, screen or settings file.
          </Empty>
        </div>
      ) : (
        <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-col">
          <nav
            aria-label="Files"
            className="card flex min-h-0 w-[330px] shrink-0 flex-col overflow-hidden max-lg:h-56 max-lg:w-full"
          >
            <label className="flex h-9 items-center gap-2 border-line border-b px-3">
              <Search size={14} className="shrink-0 text-ink-3" aria-hidden="true" />
              <input
                type="search"
                value={typed}
                onChange={(e) => type(e.target.value)}
                placeholder="Folder, file, kind or mod"
                aria-label="Find files by folder, name, kind or mod"
                className="w-full bg-transparent outline-none"
              />
            </label>
            <label className="flex items-center gap-2 border-line border-b px-3 py-1.5 text-ink-2">
              <span className="shrink-0">Changes of</span>
              <select
                value={carry ?? ''}
                onChange={(e) =>
                  put((q) => {
                    q.delete('path')
                    q.delete('into')
                    if (e.target.value) q.set('carry', e.target.value)
                    else q.delete('carry')
                  })
                }
                className="h-7 min-w-0 flex-1 rounded-md border border-line-2 bg-card px-1.5 text-ink"
              >
                <option value="">all mods</option>
                {mods.map((m) => (
                  <option key={m.id} value={m.id}>
                    {m.name} only
                  </option>
                ))}
              </select>
            </label>
            {carry && <Reach mods={others} />}
            {seen.length === 0 && (
              <p className="px-3 py-2 text-ink-2">
                {carry && all.length === 0
                  ? 'It has no change to carry into a file of others.'
                  : 'No file is left under what you look for.'}
              </p>
            )}
            <FilesList files={seen} path={path} choose={choose} />
            {carry && <LeftOut left={files.data.left} inAll={files.data.leftInAll} />}
          </nav>
          {path && !files.isPlaceholderData && (
            <FileBoard
              key={path + carry}
              workspace={workspace}
              path={path}
              carry={carry}
              before={asking[at - 1]?.path}
              after={asking[at + 1]?.path}
              choose={choose}
            />
          )}
        </div>
      )}
    </Screen>
  )
}

/** The mods that change some of the files, by name. */
function modsOf(files: readonly File[]): Schema['FileVersion'][] {
  const all = new Map(files.flatMap((f) => f.contenders).map((c) => [c.id, c]))
  return [...all.values()].sort((a, b) => a.name.localeCompare(b.name))
}

/** Whether what one mod changes is wanted in the file as another of these has it. */
function reaches(f: File, carry: string, reached: ReadonlySet<string> | null): boolean {
  return reached === null || f.contenders.some((c) => c.id !== carry && reached.has(c.id))
}

/** Whether every word is in its path, its kind or the names of those who change it. */
function matches(f: File, find: string): boolean {
  const about = `${f.path} ${f.way} ${f.contenders.map((c) => c.name).join(' ')}`.toLowerCase()
  return find
    .toLowerCase()
    .split(/\s+/)
    .every((word) => about.includes(word))
}

function says(files: readonly File[], carried: string | undefined): string {
  const of = (state: File['state']) => files.filter((f) => f.state === state).length
  const you = of('NEEDS_YOU')
  const combine = of('COMBINES')
  const parts = [
    you > 0 && `${you} ${you === 1 ? 'needs' : 'need'} a decision`,
    combine > 0 && `${combine} ${combine === 1 ? 'combines' : 'combine'} without a question`,
  ].filter((p): p is string => typeof p === 'string')
  const all = carried
    ? `What ${carried} changes, carried into ${count(files.length, 'file')} as in play without it`
    : `${count(files.length, 'file')} that several mods change`
  return parts.length > 0 ? `${all}: ${list(parts)}.` : `${all}.`
}
