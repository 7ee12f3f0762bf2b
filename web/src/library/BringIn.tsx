import { FolderInput, Upload } from 'lucide-react'
import { type FormEvent, useRef, useState } from 'react'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { FolderField } from './FolderField'
import { useBringInFolder } from './queries'

/** The two buttons that bring archives in: picked in the browser, or from a folder of the server's machine. */
export function BringIn({
  workspace,
  strong,
  onFiles,
}: {
  workspace: number
  strong: boolean
  onFiles: (files: File[]) => void
}) {
  const picker = useRef<HTMLInputElement>(null)
  const [folder, setFolder] = useState(false)
  return (
    <>
      <Button onClick={() => setFolder(true)}>
        <FolderInput size={15} aria-hidden="true" /> From a folder
      </Button>
      <Button look={strong ? 'strong' : 'plain'} onClick={() => picker.current?.click()}>
        <Upload size={15} aria-hidden="true" /> Bring in archives
      </Button>
      <input
        ref={picker}
        type="file"
        multiple
        hidden
        aria-label="Archives to bring in"
        onChange={(e) => {
          onFiles([...(e.target.files ?? [])])
          e.target.value = ''
        }}
      />
      <FolderDialog workspace={workspace} open={folder} onOpenChange={setFolder} />
    </>
  )
}

function FolderDialog({
  workspace,
  open,
  onOpenChange,
}: {
  workspace: number
  open: boolean
  onOpenChange: (open: boolean) => void
}) {
  const [folder, setFolder] = useState('')
  const [plain, setPlain] = useState(false)
  const bring = useBringInFolder(workspace, () => onOpenChange(false))
  const submit = (e: FormEvent) => {
    e.preventDefault()
    bring.mutate({ folder, plain })
  }
  return (
    <Dialog
      open={open}
      onOpenChange={onOpenChange}
      title="Bring in from a folder"
      says="It is only read: whatever lies in it stays as it is."
    >
      <form onSubmit={submit} className="flex flex-col gap-3">
        <FolderField
          label="Folder, as a full path on the machine where Ironing runs"
          value={folder}
          onChange={setFolder}
          placeholder="/home/me/downloads/mods"
        />
        <fieldset className="flex flex-col gap-1.5">
          <legend className="sr-only">What the folder is</legend>
          <Choice
            checked={!plain}
            onChange={() => setPlain(false)}
            title="It holds archives"
            about="Each that needs no decision becomes a mod, in the order of their names; the others wait in the inbox."
          />
          <Choice
            checked={plain}
            onChange={() => setPlain(true)}
            title="It is a mod itself, unpacked"
            about="A copy of it is kept as an archive and waits in the inbox."
          />
        </fieldset>
        <Button
          type="submit"
          look="strong"
          className="self-start"
          disabled={!folder.trim() || bring.isPending}
        >
          {plain ? 'Bring it in' : 'Bring them in'}
        </Button>
      </form>
    </Dialog>
  )
}

function Choice(props: { checked: boolean; onChange: () => void; title: string; about: string }) {
  return (
    <label className="flex items-baseline gap-2">
      <input type="radio" name="folder-kind" checked={props.checked} onChange={props.onChange} />
      <span>
        <span className="font-medium">{props.title}</span>
        <span className="block text-ink-2">{props.about}</span>
      </span>
    </label>
  )
}
