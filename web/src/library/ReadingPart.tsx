import { BookOpenText } from 'lucide-react'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { Empty, Failed, Loading } from '../ui/States'
import { PaperList } from './PaperList'
import { Preview } from './Preview'
import { readingWords } from './part'
import { usePapers } from './queries'

/** What there is to read of a mod, whether the game gets it or not. */
export default function ReadingPart({ workspace, mod: m }: { workspace: number; mod: Schema['ModDetail'] }) {
  const papers = usePapers(workspace, m.id)
  const [chosen, setChosen] = useState<string | null>(null)
  if (papers.isPending) return <Loading what="what there is to read" />
  if (papers.isError) return <Failed error={papers.error} retry={() => papers.refetch()} />
  const at = papers.data.find((p) => p.path === chosen) ?? papers.data[0]
  if (!at) {
    return (
      <div className="card mt-2 flex-1">
        <Empty icon={BookOpenText} title="There is nothing to read in it">
          Neither a read-me, nor a licence, nor images came with this mod.
        </Empty>
      </div>
    )
  }
  return (
    <PaperList
      papers={papers.data.map((p) => ({
        path: p.path,
        says: `${readingWords(p.kind)}${p.inGame ? ', in the game too' : ''}`,
      }))}
      chosen={at.path}
      onChoose={setChosen}
    >
      <Preview
        key={at.path}
        workspace={workspace}
        mod={m.id}
        path={at.path}
        kind={at.kind === 'IMAGE' ? 'image' : at.markdown ? 'markdown' : 'text'}
      />
    </PaperList>
  )
}
