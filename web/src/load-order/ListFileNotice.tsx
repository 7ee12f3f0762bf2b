import { FileWarning } from 'lucide-react'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { count } from '../ui/text'
import { type LoadChange, useListFile, useLoadPreview, usePutListBack, useStrayPlugins } from './queries'
import { loadWords } from './sentence'

/** Says when the list file in the game folder was changed by somebody else; and plugins that nobody deployed. */
export function ListFileNotice({
  workspace,
  revision,
  onTake,
}: {
  workspace: number
  revision: number
  onTake: (change: LoadChange) => void
}) {
  const list = useListFile(workspace).data
  const strays = useStrayPlugins(workspace).data ?? []
  const [open, setOpen] = useState(false)
  const { say } = useNotices()
  const back = usePutListBack(workspace, () => say('The list file is as it is wanted here again.'))
  const changed = list && (list.state === 'CHANGED' || list.state === 'GONE')
  return (
    <>
      {changed && (
        <div className="mb-2 flex items-center gap-3 rounded-lg border border-ochre/40 bg-ochre-soft px-3 py-1.5">
          <FileWarning size={16} className="shrink-0 text-ochre" aria-hidden="true" />
          <p className="min-w-0 flex-1">
            {list.state === 'GONE' ? (
              <>
                <b className="font-semibold">{list.file}</b> is gone from the game folder.
              </>
            ) : (
              <>
                <b className="font-semibold">{list.file}</b> was changed by the game or by hand: {words(list)}
                .
              </>
            )}
          </p>
          {list.state === 'CHANGED' && <Button onClick={() => setOpen(true)}>Look at it</Button>}
          <Button disabled={back.isPending} onClick={() => back.mutate(undefined)}>
            Put ours back
          </Button>
        </div>
      )}
      {strays.length > 0 && (
        <p className="mb-2 text-ink-2">
          In the game folder, deployed by nobody:{' '}
          <span className="mono">{strays.map((s) => s.path).join(', ')}</span>. Bring{' '}
          {strays.length === 1 ? 'it' : 'them'} into the library to have a say about{' '}
          {strays.length === 1 ? 'it' : 'them'}.
        </p>
      )}
      {open && list && (
        <ListDialog
          workspace={workspace}
          revision={revision}
          list={list}
          onClose={() => setOpen(false)}
          onTake={() => {
            setOpen(false)
            onTake({ kind: 'list-file' })
          }}
        />
      )}
    </>
  )
}

function words(l: Schema['ListFileView']): string {
  const parts = [
    l.moves.length > 0 ? `${count(l.moves.length, 'plugin')} at another place` : '',
    l.switches.length > 0 ? `${count(l.switches.length, 'plugin')} switched` : '',
    l.unknown.length > 0 ? `${count(l.unknown.length, 'name')} unknown here` : '',
    l.unnamed.length > 0 ? `${count(l.unnamed.length, 'plugin')} not named` : '',
  ].filter(Boolean)
  return parts.length > 0 ? parts.join(', ') : 'it says the same in other letters'
}

function ListDialog({
  workspace,
  revision,
  list: l,
  onClose,
  onTake,
}: {
  workspace: number
  revision: number
  list: Schema['ListFileView']
  onClose: () => void
  onTake: () => void
}) {
  const preview = useLoadPreview(workspace, revision, { kind: 'list-file' }).data
  return (
    <Dialog
      open
      onOpenChange={(o) => !o && onClose()}
      title={`What ${l.file} says`}
      says={
        preview ? `Taken over: ${loadWords(preview, 'would')}` : 'Looking what taking it over would change …'
      }
    >
      <Part title="At another place">{l.moves.map((m) => `${m.name}: ${m.from} here, ${m.to} there`)}</Part>
      <Part title="Switched">{l.switches.map((s) => `${s.name} is ${s.on ? 'on' : 'off'} there`)}</Part>
      <Part title="Not in play here, and passed over">{l.unknown}</Part>
      <Part title="In play here and not named there; they stay as they are">{l.unnamed}</Part>
      <Part title="Not understood">{l.remarks}</Part>
      <Button look="strong" className="mt-3" onClick={onTake}>
        Take it over
      </Button>
    </Dialog>
  )
}

function Part({ title, children }: { title: string; children: readonly string[] }) {
  if (children.length === 0) return null
  return (
    <section className="mt-2">
      <h3>{title}</h3>
      <ul>
        {children.slice(0, 60).map((c) => (
          <li key={c} className="break-words">
            {c}
          </li>
        ))}
      </ul>
      {children.length > 60 && <p className="text-ink-2">… and {children.length - 60} more.</p>}
    </section>
  )
}
