import { CornerLeftUp, Folder } from 'lucide-react'
import { useState } from 'react'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { count } from '../ui/text'
import { useFolders } from './queries'

/** Choosing a folder on the machine where Ironing runs; games among them are told. */
export function FolderDialog({
  title = 'Choose the folder of the game',
  start,
  onChoose,
  onClose,
}: {
  title?: string
  start: string
  onChoose: (folder: string) => void
  onClose: () => void
}) {
  const [path, setPath] = useState(start)
  const folders = useFolders(path)
  const f = folders.data
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={title}
      says="Folders on the machine where Ironing runs. Those that are a game say which."
    >
      <p className="flex items-center gap-2 border-line border-b pb-2">
        <Button
          icon
          look="quiet"
          aria-label="The folder above"
          disabled={!f?.above}
          onClick={() => f?.above && setPath(f.above)}
        >
          <CornerLeftUp size={15} aria-hidden="true" />
        </Button>
        <span className="mono min-w-0 flex-1 truncate" title={f?.path}>
          {f?.path ?? path}
        </span>
        {f?.game && <Tag>{f.game}</Tag>}
        <Button look="strong" disabled={!f} onClick={() => f && onChoose(f.path)}>
          Take this one
        </Button>
      </p>
      {folders.isPending ? (
        <Loading what="folders" />
      ) : !f ? (
        <div>
          <Failed error={folders.error} retry={() => folders.refetch()} />
          <Button className="ml-4" onClick={() => setPath('')}>
            Begin at home
          </Button>
        </div>
      ) : f.folders.length === 0 ? (
        <p className="py-3 text-ink-2">No folder lies in it.</p>
      ) : (
        <ul aria-label="Folders" className="py-1">
          {f.folders.map((x) => (
            <li key={x.path}>
              <button
                type="button"
                onClick={() => (x.game ? onChoose(x.path) : setPath(x.path))}
                className="flex w-full items-center gap-2 rounded px-2 py-1 text-left hover:bg-sunk"
              >
                <Folder size={14} strokeWidth={1.6} className="shrink-0 text-ink-3" aria-hidden="true" />
                <span className="min-w-0 flex-1 truncate">{x.name}</span>
                {x.game && <Tag>{x.game}</Tag>}
              </button>
            </li>
          ))}
          {f.inAll > f.folders.length && (
            <li className="px-2 py-1 text-ink-2">
              and {count(f.inAll - f.folders.length, 'folder')} more; type the path instead
            </li>
          )}
        </ul>
      )}
    </Dialog>
  )
}
