import { useState } from 'react'
import type { Problem } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useLoadOrder } from '../load-order/queries'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Problems } from '../ui/Problems'
import { count } from '../ui/text'
import { useImportText } from './queries'
import { decodeUtf8 } from './utf8'

/** Plugins written out as text, one record a line, and brought back from it. */
export function TextFormDialog({ workspace, onClose }: { workspace: number; onClose: () => void }) {
  const plugins = useLoadOrder(workspace).data?.plugins ?? []
  const [plugin, setPlugin] = useState('')
  const [wrong, setWrong] = useState<Problem>()
  const { say } = useNotices()
  const bring = useImportText(workspace, (r) => {
    const covers = r.covers ? ` It covers the one of ${r.covers}.` : ''
    say(`${r.plugin} is a mod of its own now, with ${count(r.records, 'record')}.${covers}`)
    onClose()
  })
  const chosen = plugin || plugins[0]?.name
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Text forms"
      says="A plugin as text (.plug.jsonl): its header, then one record a line. What is brought back becomes a mod of its own, and covers the original; that one is not touched."
    >
      <h3 className="mb-1">Write one out</h3>
      <div className="flex gap-2">
        <select
          aria-label="Which plugin"
          value={chosen}
          onChange={(e) => setPlugin(e.target.value)}
          className="h-[30px] min-w-0 flex-1 rounded-md border border-line-2 bg-card px-2"
        >
          {plugins.map((p) => (
            <option key={p.name} value={p.name}>
              {p.name}
            </option>
          ))}
        </select>
        {chosen && (
          <a
            href={`/api/workspaces/${workspace}/plugins/${encodeURIComponent(chosen)}/text`}
            download={`${chosen}.jsonl`}
            className="inline-flex h-[30px] items-center rounded-[7px] border border-line bg-card px-2.5 hover:bg-sunk"
          >
            Save its text
          </a>
        )}
      </div>
      <h3 className="mt-4 mb-1">Bring one back</h3>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          setWrong(undefined)
          const file = new FormData(e.currentTarget).get('file')
          if (file instanceof File && file.name)
            file.arrayBuffer().then((bytes) => {
              const read = decodeUtf8(new Uint8Array(bytes))
              if ('text' in read) bring.mutate({ name: file.name, text: read.text })
              else
                setWrong({
                  code: 'not-utf8',
                  thing: `${file.name}, line ${read.line}, byte ${read.byte}`,
                  reason: 'This is not UTF-8.',
                  remedy: 'Save the file as UTF-8, and bring it in again.',
                })
            })
        }}
        className="flex items-center gap-2"
      >
        <input
          type="file"
          name="file"
          accept=".jsonl"
          required
          aria-label="A file of text form"
          className="min-w-0 flex-1"
        />
        <Button type="submit" look="strong" disabled={bring.isPending}>
          Bring it in
        </Button>
      </form>
      {wrong && (
        <div className="mt-2">
          <Problems problems={[wrong]} />
        </div>
      )}
    </Dialog>
  )
}
