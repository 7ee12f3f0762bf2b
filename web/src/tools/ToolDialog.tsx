import { type ReactNode, useId } from 'react'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { useKept } from '../ui/kept'
import { useSaveTool } from './queries'
import { linesOf, textOfVariables, variablesOf } from './words'

const FIELD = 'w-full rounded-md border border-line-2 bg-card px-2 py-1 outline-offset-1'

/** A tool as it is to be: what is started, with what, and what it reads and writes. */
export function ToolDialog({
  workspace,
  tool,
  onSaved,
  onClose,
}: {
  workspace: number
  tool?: Schema['ToolView']
  onSaved: (tool: number) => void
  onClose: () => void
}) {
  const start = {
    name: tool?.name ?? '',
    command: tool?.command.join('\n') ?? '',
    folder: tool?.folder ?? '',
    environment: textOfVariables(tool?.environment ?? {}),
    reads: tool?.reads.join('\n') ?? '',
    writes: tool?.writes.join('\n') ?? '',
  }
  const [typed, write, drop] = useKept(`tool ${workspace}/${tool?.id ?? 'new'}`, start)
  const put = (field: keyof typeof start) => (text: string) => write({ ...typed, [field]: text })
  const halfTyped = JSON.stringify(typed) !== JSON.stringify(start)
  const save = useSaveTool(workspace, (saved) => {
    drop()
    onSaved(saved)
  })
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={tool ? `Change “${tool.name}”` : 'A new tool'}
      says="{game} stands for the game folder, {output} for an empty folder of the run’s own."
    >
      <form
        onSubmit={(e) => {
          e.preventDefault()
          save.mutate({
            tool: tool?.id,
            body: {
              name: typed.name,
              command: linesOf(typed.command),
              folder: typed.folder,
              environment: variablesOf(typed.environment),
              reads: linesOf(typed.reads),
              writes: linesOf(typed.writes),
            },
          })
        }}
      >
        <Line title="Name">
          {(id) => (
            <input
              id={id}
              value={typed.name}
              onChange={(e) => put('name')(e.target.value)}
              className={FIELD}
            />
          )}
        </Line>
        <Line title="Program and arguments" hint="One on each line, as they are: nothing is quoted.">
          {(id) => <Text id={id} value={typed.command} put={put('command')} rows={4} />}
        </Line>
        <Line title="Starts in" hint="A folder; the game folder where nothing is said.">
          {(id) => (
            <input
              id={id}
              value={typed.folder}
              placeholder="{game}"
              onChange={(e) => put('folder')(e.target.value)}
              className={`${FIELD} mono`}
            />
          )}
        </Line>
        <Line title="Environment" hint="NAME=value, one on each line.">
          {(id) => <Text id={id} value={typed.environment} put={put('environment')} rows={2} />}
        </Line>
        <div className="grid grid-cols-2 gap-3">
          <Line title="Reads" hint="Patterns, such as data/*.plug.">
            {(id) => <Text id={id} value={typed.reads} put={put('reads')} rows={3} />}
          </Line>
          <Line title="Writes" hint="What is there then becomes a mod.">
            {(id) => <Text id={id} value={typed.writes} put={put('writes')} rows={3} />}
          </Line>
        </div>
        <p className="mt-3 flex gap-2">
          <Button type="submit" look="strong" disabled={save.isPending}>
            {save.isPending ? 'Keeping it …' : tool ? 'Keep the change' : 'Add the tool'}
          </Button>
          {halfTyped && <Button onClick={drop}>Discard changes</Button>}
        </p>
      </form>
    </Dialog>
  )
}

function Line({
  title,
  hint,
  children,
}: {
  title: string
  hint?: string
  children: (id: string) => ReactNode
}) {
  const id = useId()
  return (
    <div className="mt-2.5">
      <label htmlFor={id} className="font-medium">
        {title}
      </label>
      {hint && <p className="text-[12px] text-ink-2">{hint}</p>}
      <div className="mt-0.5">{children(id)}</div>
    </div>
  )
}

function Text({
  id,
  value,
  put,
  rows,
}: {
  id: string
  value: string
  put: (text: string) => void
  rows: number
}) {
  return (
    <textarea
      id={id}
      rows={rows}
      spellCheck={false}
      value={value}
      onChange={(e) => put(e.target.value)}
      className={`${FIELD} mono resize-y`}
    />
  )
}
