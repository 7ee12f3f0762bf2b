import { useState } from 'react'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useSweep, useSweepPreview } from '../mends/queries'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { count } from '../ui/text'
import { sweptWords } from './sweep'

type Kind = NonNullable<Schema['SettleAllRequest']['kinds']>[number]

const KINDS: Partial<Record<Kind, string>> = {
  CHANGED: 'changed in different ways',
  ADDED: 'added in different ways',
  REMOVED: 'removed by one, changed by another',
  ALIKE: 'alike in all, and not as the game has it',
}

interface SweepDialogProps {
  workspace: number
  file: Schema['CandidateFile']
  carry?: string
  onClose: () => void
}

/** Asks whose version is to be taken at all that is still asked: in this file, in its folder, or everywhere. */
export function SweepDialog({ workspace, file, carry, onClose }: SweepDialogProps) {
  const folder = file.path.slice(0, file.path.lastIndexOf('/') + 1)
  const [take, setTake] = useState(file.contenders.at(-1)?.id ?? '')
  const [where, setWhere] = useState<'file' | 'folder' | 'all'>('file')
  const [kinds, setKinds] = useState<ReadonlySet<Kind>>(new Set(Object.keys(KINDS) as Kind[]))
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const wish: Schema['SettleAllRequest'] = {
    take,
    kinds: [...kinds],
    ...(where === 'file' ? { path: file.path } : where === 'folder' ? { below: folder } : {}),
    ...(carry === undefined ? {} : { carry }),
  }
  const preview = useSweepPreview(workspace, kinds.size > 0 ? wish : null).data
  const sweep = useSweep(workspace, (done) => {
    say(sweptWords(done, 'does'), { label: 'Undo', run: undo })
    onClose()
  })
  const turn = (kind: Kind) => {
    const next = new Set(kinds)
    if (!next.delete(kind)) next.add(kind)
    setKinds(next)
  }
  const radio = (name: string, checked: boolean, says: string, onChange: () => void) => (
    <label key={says} className="flex min-h-6 items-center gap-2">
      <input type="radio" name={name} checked={checked} onChange={onChange} className="accent-(--woad)" />
      <span className="min-w-0 break-all">{says}</span>
    </label>
  )
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="One answer for the rest"
      says="What you have settled already stays as it is."
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          sweep.mutate(wish)
        }}
      >
        <fieldset>
          <legend className="font-semibold">Take the version of</legend>
          {file.contenders.map((c) => radio('take', take === c.id, c.name, () => setTake(c.id)))}
        </fieldset>
        <fieldset>
          <legend className="font-semibold">at all that is asked</legend>
          {radio('where', where === 'file', 'in this file', () => setWhere('file'))}
          {folder && radio('where', where === 'folder', `in ${folder}`, () => setWhere('folder'))}
          {radio('where', where === 'all', 'in all files', () => setWhere('all'))}
        </fieldset>
        <fieldset>
          <legend className="font-semibold">where it is</legend>
          {(Object.keys(KINDS) as Kind[]).map((kind) => (
            <label key={kind} className="flex min-h-6 items-center gap-2">
              <input
                type="checkbox"
                checked={kinds.has(kind)}
                onChange={() => turn(kind)}
                className="accent-(--woad)"
              />
              {KINDS[kind]}
            </label>
          ))}
        </fieldset>
        <p role="status" className="min-h-[38px] text-ink-2">
          {kinds.size === 0
            ? 'Choose at least one kind of places.'
            : preview
              ? sweptWords(preview, 'would')
              : 'Looking what that would settle …'}
        </p>
        <Button
          type="submit"
          look="strong"
          className="self-start"
          disabled={!preview || preview.places === 0 || sweep.isPending}
        >
          {preview && preview.places > 0 ? `Settle ${count(preview.places, 'place')}` : 'Nothing to settle'}
        </Button>
      </form>
    </Dialog>
  )
}
