import { list, number, when } from '../ui/text'
import { useSaves } from './queries'

const MOST = 3

/** Which saves were made with some plugins: they may need what is about to change or go. */
export function SavesNote({ workspace, plugins }: { workspace: number; plugins: readonly string[] }) {
  const saves = useSaves(workspace, plugins).data
  if (!saves) return null
  if (saves.length === 0)
    return (
      <p className="text-ink-2">
        No save is known to have been made with {plugins.length === 1 ? 'it' : 'them'}, as far as the runs
        recorded here tell.
      </p>
    )
  const shown = saves.slice(0, MOST).map((s) => `${s.path} (${when(s.at)})`)
  const more = saves.length - shown.length
  return (
    <p>
      <b className="font-semibold">
        {saves.length === 1 ? '1 save was' : `${number(saves.length)} saves were`} made with{' '}
        {plugins.length === 1 ? 'it' : 'some of them'}:
      </b>{' '}
      {list(more > 0 ? [...shown, `${number(more)} more`] : shown)}. They may not load as before.
    </p>
  )
}
