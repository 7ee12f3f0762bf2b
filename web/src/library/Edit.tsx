import { api, asProblems, got } from '../api/client'
import { useNotices } from '../frame/Notices'
import { Button } from '../ui/Button'
import { useKept } from '../ui/kept'
import { Problems } from '../ui/Problems'
import { Loading } from '../ui/States'
import { useAct, useText } from './queries'

/** Under which name what is half typed of a file is kept: once the file is another, it is of no use. */
export const editOf = (workspace: number, mod: number, path: string, sha256: string) =>
  `file ${workspace}/${mod}/${path} ${sha256}`

/** A text file of a mod, being edited. What came in the archive is kept. */
export function Edit(props: {
  workspace: number
  mod: number
  path: string
  sha256: string
  done: () => void
}) {
  const text = useText(props.workspace, props.mod, props.path, props.sha256)
  if (text.isPending) return <Loading what="the text" />
  if (text.isError)
    return (
      <div className="p-4">
        <Problems problems={asProblems(text.error)} />
      </div>
    )
  return <Editor {...props} text={text.data.text} encoding={text.data.encoding} />
}

function Editor(props: {
  workspace: number
  mod: number
  path: string
  sha256: string
  text: string
  encoding: string
  done: () => void
}) {
  const [text, setText, drop] = useKept(
    editOf(props.workspace, props.mod, props.path, props.sha256),
    props.text,
  )
  const { say } = useNotices()
  const save = useAct(
    props.workspace,
    () =>
      got(
        api.PUT('/api/workspaces/{workspace}/mods/{mod}/text', {
          params: { path: { workspace: props.workspace, mod: props.mod } },
          body: { path: props.path, text: restoredEnds(props.text, text), sha256: props.sha256 },
        }),
      ),
    () => {
      drop()
      say('Saved. The file as it came can be put back at any time.')
      props.done()
    },
  )
  return (
    <form
      className="flex min-h-0 flex-1 flex-col"
      onSubmit={(e) => {
        e.preventDefault()
        save.mutate(undefined)
      }}
    >
      <textarea
        aria-label={`Text of ${props.path}`}
        value={text}
        onChange={(e) => setText(e.target.value)}
        spellCheck={false}
        className="mono min-h-0 flex-1 resize-none bg-card p-4 leading-[1.55] outline-offset-[-2px]"
      />
      <div className="flex items-center gap-2 border-line border-t px-3.5 py-2">
        <span className="flex-1 text-ink-2">In every profile; written as {props.encoding}.</span>
        <Button
          onClick={() => {
            drop()
            props.done()
          }}
        >
          Discard changes
        </Button>
        <Button type="submit" look="strong" disabled={save.isPending || text === props.text}>
          Save
        </Button>
      </div>
    </form>
  )
}

/** A field of the page has plain line ends, whatever the file had. */
export function restoredEnds(before: string, after: string): string {
  return before.includes('\r\n') ? after.replace(/\r?\n/g, '\r\n') : after
}
