import { useState } from 'react'
import { asProblems, type Schema } from '../api/client'
import Markdown from '../ui/Markdown'
import { Problems } from '../ui/Problems'
import { Loading } from '../ui/States'
import { PaperList } from './PaperList'
import { readingWords, resolved } from './part'
import { entryAddress, useEntryText } from './queries'

const ORDER: readonly Schema['Paper']['kind'][] = ['READ_ME', 'CHANGES', 'LICENCE', 'TEXT', 'IMAGE']

/** What there is to read in an archive, before anything of it is installed. */
export default function IntakeReading(props: {
  workspace: number
  archive: number
  papers: readonly Schema['StaysOut'][]
}) {
  const { workspace, archive } = props
  const [chosen, setChosen] = useState<string | null>(null)
  const kind = (p: Schema['StaysOut']) => p.reading ?? 'TEXT'
  const papers = [...props.papers].sort((a, b) => ORDER.indexOf(kind(a)) - ORDER.indexOf(kind(b)))
  const at = papers.find((p) => p.entry === chosen) ?? papers[0]
  if (!at) return null
  return (
    <PaperList
      papers={papers.map((p) => ({ path: p.entry, says: readingWords(kind(p)) }))}
      chosen={at.entry}
      onChoose={setChosen}
    >
      {at.reading === 'IMAGE' ? (
        <div className="grid min-h-0 flex-1 place-items-center overflow-auto p-4">
          <img
            src={entryAddress(workspace, archive, at.entry)}
            alt={at.entry}
            className="max-h-full max-w-full"
          />
        </div>
      ) : (
        <Text key={at.entry} workspace={workspace} archive={archive} path={at.entry} />
      )}
    </PaperList>
  )
}

function Text({ workspace, archive, path }: { workspace: number; archive: number; path: string }) {
  const text = useEntryText(workspace, archive, path)
  if (text.isPending) return <Loading what="the text" />
  if (text.isError)
    return (
      <div className="p-4">
        <Problems problems={asProblems(text.error)} />
      </div>
    )
  const folder = path.slice(0, path.lastIndexOf('/') + 1)
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4">
      {/\.(md|markdown)$/i.test(path) ? (
        <Markdown
          text={text.data.text}
          image={(src) => entryAddress(workspace, archive, resolved(folder, src))}
        />
      ) : (
        <pre className="mono whitespace-pre-wrap leading-[1.55]">{text.data.text}</pre>
      )}
    </div>
  )
}
