import { Search } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { useAddress } from '../frame/address'
import { useNotices } from '../frame/Notices'
import { useSearch } from '../frame/search'
import { useMends } from '../mends/queries'
import { boardOf } from '../mends/words'
import { Button } from '../ui/Button'
import { copyAct, useCopy } from '../ui/copy'
import { FileTree } from '../ui/FileTree'
import { kept } from '../ui/kept'
import { Menu, type MenuAct } from '../ui/Menu'
import { PathText } from '../ui/PathText'
import { Failed, Loading } from '../ui/States'
import { bytes, number } from '../ui/text'
import type { TreeNode } from '../ui/tree'
import type { ShownFile } from './allFiles'
import { Edit, editOf } from './Edit'
import { useHold } from './hold'
import { kindOf } from './kind'
import { Preview } from './Preview'
import { fileAddress, useAct, useFiles } from './queries'

/** More files than this are found by more letters. */
const MOST_FOUND = 1_000

/** The files of a mod as a tree, and the one that is selected beside it. */
export default function FilesPart({ workspace, mod: m }: { workspace: number; mod: Schema['ModDetail'] }) {
  const files = useFiles(workspace, m.id)
  const [query, put] = useAddress()
  const { typed, type, wanted } = useSearch()
  const copy = useCopy()
  // per file: whoever has begun to write in one finds it so again
  const [asked, setAsked] = useState<{ path: string; on: boolean }>()
  const path = query.get('path')
  const hold = useHold(workspace, m.id)
  const restore = useRestore(workspace, m.id)
  const held = useMemo(() => new Set(m.heldBack), [m.heldBack])
  const words = wanted.trim().toLowerCase()
  const found = useMemo(() => {
    if (!words || !files.data) return null
    return files.data.files.filter((f) => f.lower.includes(words))
  }, [files.data, words])
  const shown = useMemo(() => found?.slice(0, MOST_FOUND) ?? files.data?.tree ?? [], [found, files.data])
  if (files.isPending) return <Loading what="the files" />
  if (files.isError) return <Failed error={files.error} retry={() => files.refetch()} />
  const at = files.data.files.find((f) => f.path === path)
  const editing =
    at !== undefined &&
    (asked?.path === at.path
      ? asked.on
      : kept<string>(editOf(workspace, m.id, at.path, at.sha256)) !== undefined)
  const packed = (n: TreeNode<ShownFile>) => Boolean(n.leaf?.pack) || n.path.includes(' (pack)/')
  const acts = (n: TreeNode<ShownFile>): MenuAct[] => [
    isHeld(held, n.path)
      ? { label: 'Let it in again', run: () => hold.mutate({ paths: [n.path], hold: false }) }
      : { label: 'Hold it back from the game', run: () => hold.mutate({ paths: [n.path], hold: true }) },
    ...(n.leaf?.edited ? [{ label: 'Put it back as it came', run: () => restore.mutate(n.path) }] : []),
  ]
  return (
    <div className="mt-2 grid min-h-0 flex-1 grid-cols-[minmax(0,5fr)_minmax(0,6fr)] gap-3 max-lg:grid-cols-1">
      <div className="card flex min-h-0 flex-col overflow-hidden max-lg:h-72">
        <label className="flex items-center gap-2 border-line border-b px-3 py-1.5">
          <Search size={14} className="text-ink-3" aria-hidden="true" />
          <input
            type="search"
            aria-label="Find a file of the mod"
            placeholder="Find a file"
            value={typed}
            onChange={(e) => type(e.target.value)}
            className="min-w-0 flex-1 bg-transparent outline-none"
          />
          {found && (
            <span className="num text-ink-2">
              {found.length > MOST_FOUND && `the first ${number(MOST_FOUND)} of `}
              {number(found.length)} of {number(files.data.files.length)}
              {!files.data.whole && ' so far'}
            </span>
          )}
          {!found && !files.data.whole && (
            <span className="num text-ink-2">{number(files.data.files.length)} so far</span>
          )}
        </label>
        <FileTree
          label="Files of the mod"
          files={shown}
          selected={path}
          onSelect={(n) => {
            setAsked(undefined)
            put((q) => q.set('path', n.path))
          }}
          faded={(n) => isHeld(held, n.path)}
          acts={(n) => [
            ...(packed(n) ? [] : acts(n)),
            copyAct(copy, 'the path', n.path),
            ...(n.leaf ? [copyAct(copy, 'its SHA-256', n.leaf.sha256)] : []),
          ]}
          detail={(n) => (
            <>
              {isHeld(held, n.path) && <small className="shrink-0 text-ochre">held back</small>}
              {n.leaf?.edited && <small className="shrink-0 text-woad">edited</small>}
              {!packed(n) && <Menu label={`Decide about ${n.name}`} acts={() => acts(n)} />}
            </>
          )}
        />
      </div>
      <div className="card flex min-h-0 flex-col overflow-hidden max-lg:h-96">
        {at ? (
          <FileHead
            workspace={workspace}
            mod={m.id}
            file={at}
            combined={m.kind === 'combined'}
            editable={
              kindOf(at.path, m.plugins) !== 'image' && kindOf(at.path, m.plugins) !== 'plugin' && !at.pack
            }
            editing={editing}
            onEdit={() => setAsked({ path: at.path, on: true })}
          >
            {at.pack ? (
              <p className="p-4 text-ink-2">It lies in a pack, which the game reads as it is.</p>
            ) : editing ? (
              <Edit
                workspace={workspace}
                mod={m.id}
                path={at.path}
                sha256={at.sha256}
                done={() => setAsked({ path: at.path, on: false })}
              />
            ) : (
              <Preview
                workspace={workspace}
                mod={m.id}
                path={at.path}
                kind={kindOf(at.path, m.plugins)}
                version={at.sha256}
              />
            )}
          </FileHead>
        ) : path && !path.endsWith('/') && !files.data.whole ? (
          <Loading what="the file" />
        ) : (
          <p className="m-auto max-w-72 p-6 text-center text-ink-2">
            Choose a file to look at it. Folders and files can be held back from the game and let in again.
          </p>
        )}
      </div>
    </div>
  )
}

/** Whether a path is held back by itself or with a folder above it. */
export function isHeld(held: ReadonlySet<string>, path: string): boolean {
  if (held.has(path)) return true
  for (let s = path.indexOf('/'); s >= 0; s = path.indexOf('/', s + 1))
    if (held.has(path.slice(0, s + 1))) return true
  return false
}

function FileHead(props: {
  workspace: number
  mod: number
  file: ShownFile
  combined: boolean
  editable: boolean
  editing: boolean
  onEdit: () => void
  children: React.ReactNode
}) {
  const f = props.file
  return (
    <>
      <div className="flex items-center gap-2 border-line border-b px-3.5 py-1.5">
        <div className="min-w-0 flex-1">
          <PathText path={f.own} most={60} className="block truncate" />
          <small className="block truncate text-ink-2" title={f.entry}>
            {bytes(f.sizeBytes)}
            {f.entry && (
              <>
                , from <span className="mono">{f.entry}</span> of the archive
              </>
            )}
            {f.edited && ', edited here'}
          </small>
        </div>
        {props.combined && <WhoBroughtWhat workspace={props.workspace} mod={props.mod} path={f.path} />}
        {props.editable && !props.editing && (
          <Button className="h-7" onClick={props.onEdit}>
            Edit
          </Button>
        )}
        {!f.pack && (
          <a
            href={fileAddress(props.workspace, props.mod, f.path, true)}
            download
            className="inline-flex h-7 items-center whitespace-nowrap rounded-[7px] border border-line px-2.5 hover:bg-sunk"
          >
            Download a copy
          </a>
        )}
      </div>
      {props.children}
    </>
  )
}

/** Leads from a combined file to where it says what came from whom. */
function WhoBroughtWhat({ workspace, mod, path }: { workspace: number; mod: number; path: string }) {
  const mend = useMends(workspace).data?.find((m) => m.mod === mod)
  return (
    <Link to={boardOf(workspace, path, mend)} className="whitespace-nowrap text-woad underline">
      What came from whom
    </Link>
  )
}

function useRestore(workspace: number, mod: number) {
  const { say } = useNotices()
  return useAct(
    workspace,
    (path: string) =>
      got(
        api.POST('/api/workspaces/{workspace}/mods/{mod}/restore', {
          params: { path: { workspace, mod } },
          body: { path },
        }),
      ),
    () => say('It is as it came in the archive again.'),
  )
}
