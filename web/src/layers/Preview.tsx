import { useState } from 'react'
import type { Schema } from '../api/client'
import { Dialog } from '../ui/Dialog'
import { PathText } from '../ui/PathText'
import { number } from '../ui/text'
import { type LayerChange, usePreview } from './queries'
import { differenceWords } from './sentence'

/** What a change would do, asked of the server; nothing while there is nothing to ask. */
export function Preview({
  workspace,
  revision,
  change,
}: {
  workspace: number
  revision: number
  change: LayerChange | null
}) {
  const preview = usePreview(workspace, revision, change)
  return (
    <p role="status" className="mt-3 min-h-[2.6em] text-ink-2 leading-snug">
      {preview.data ? (
        <DifferenceSaid difference={preview.data} tense="would" />
      ) : (
        change && 'Looking what that would change …'
      )}
    </p>
  )
}

/** The sentence about a difference, with the paths and plugins behind it one click away. */
export function DifferenceSaid({
  difference,
  tense,
}: {
  difference: Schema['DifferenceView']
  tense: 'would' | 'does'
}) {
  const [open, setOpen] = useState(false)
  const any = difference.files + difference.pluginsCome.length + difference.pluginsGo.length > 0
  return (
    <>
      {differenceWords(difference, tense)}{' '}
      {any && (
        <button type="button" onClick={() => setOpen(true)} className="underline">
          Show which
        </button>
      )}
      {open && <DifferenceDialog difference={difference} onClose={() => setOpen(false)} />}
    </>
  )
}

function DifferenceDialog({
  difference: d,
  onClose,
}: {
  difference: Schema['DifferenceView']
  onClose: () => void
}) {
  return (
    <Dialog
      open
      onOpenChange={(o) => !o && onClose()}
      title={`${number(d.files)} ${d.files === 1 ? 'file' : 'files'} in the game`}
      says={d.samples.length < d.files ? `The first ${number(d.samples.length)} of them.` : undefined}
    >
      {d.pluginsCome.length > 0 && <p>Join the load order: {d.pluginsCome.join(', ')}.</p>}
      {d.pluginsGo.length > 0 && <p>Leave it: {d.pluginsGo.join(', ')}.</p>}
      <table className="mt-1 w-full">
        <thead>
          <tr className="text-left text-[11px] text-ink-3">
            <th className="font-normal">path</th>
            <th className="font-normal">from</th>
            <th className="font-normal">to</th>
          </tr>
        </thead>
        <tbody>
          {d.samples.map((s) => (
            <tr key={s.path} className="border-line border-t">
              <td className="py-0.5 pr-2">
                <PathText path={s.path} most={42} />
              </td>
              <td className="max-w-[120px] truncate pr-2 text-ink-2">{s.before ?? 'nobody'}</td>
              <td className="max-w-[120px] truncate">{s.after ?? 'nobody'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Dialog>
  )
}
