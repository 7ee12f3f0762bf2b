import { useState } from 'react'
import { useNotices } from '../frame/Notices'
import { Button } from '../ui/Button'
import { CopyButton } from '../ui/CopyButton'
import { Dialog } from '../ui/Dialog'
import { Failed, Loading } from '../ui/States'
import { type Search, useQuestion, useWriteFinding } from './queries'
import { WhatToDo } from './Ways'
import { outcomeWords, partName, proofOf } from './words'

/** What a search has come to, what shows it, and what can be done. */
export function Outcome({ workspace, search: s }: { workspace: number; search: Search }) {
  const found = s.parts.filter((p) => p.standing === 'FOUND')
  const proof = proofOf(s)
  return (
    <section
      aria-label="What came of it"
      className={`card shrink-0 px-4 py-3 ${s.search.state === 'FOUND' ? 'border-madder/50' : ''}`}
    >
      <h2>{s.search.state === 'FOUND' ? 'Found' : 'Nothing was found'}</h2>
      <p>{outcomeWords(s)}</p>
      {found.length > 0 && (
        <ul className="mt-1.5">
          {found.map((p) => (
            <li key={p.number} className="flex flex-wrap items-baseline gap-x-3 border-line border-t py-1">
              <b className="min-w-0 break-all font-semibold">{partName(p)}</b>
              {(p.path || p.record) && <span className="text-ink-2">of {p.modName}</span>}
              {p.isNeeded && <span className="text-ink-2">others of them need it</span>}
              <span className="ml-auto">
                <WhatToDo workspace={workspace} part={p} level={s.search.level} />
              </span>
            </li>
          ))}
        </ul>
      )}
      {proof.length > 0 && s.search.state === 'FOUND' && (
        <details className="mt-2">
          <summary className="cursor-pointer text-ink-2">
            The proof: {proof.length} runs, each by the hash of all that the game could read
          </summary>
          <ul className="mt-1">
            {proof.map((t) => (
              <li key={t.id} className="flex items-baseline gap-2 py-0.5">
                <span className="w-28 shrink-0">{t.answer === 'FAILS' ? 'shows' : 'does not show'}</span>
                <code className="mono min-w-0 truncate text-[11.5px]">{t.picture || 'not known'}</code>
                {t.picture && <CopyButton text={t.picture} what="the hash of the set" />}
              </li>
            ))}
          </ul>
        </details>
      )}
      {found.length > 0 && <TellOthers workspace={workspace} search={s.search.id} />}
    </section>
  )
}

/** What was found as a finding, and as a question to a mod's author. */
function TellOthers({ workspace, search }: { workspace: number; search: number }) {
  const { say } = useNotices()
  const [asking, ask] = useState(false)
  const finding = useWriteFinding(workspace, search, () => say('Written down among your findings.'))
  const question = useQuestion(workspace, search, asking)
  return (
    <div className="mt-2.5 flex flex-wrap gap-2 border-line border-t pt-2.5">
      <Button disabled={finding.isPending || finding.isSuccess} onClick={() => finding.mutate(undefined)}>
        {finding.isSuccess ? 'It is among your findings' : 'Keep it as a finding'}
      </Button>
      <Button onClick={() => ask(true)}>Ask a mod’s author</Button>
      <Dialog
        open={asking}
        onOpenChange={ask}
        title="A question with facts"
        says="Every line that leaves: no folder of yours, and of mods only those that are behind it."
      >
        {question.isPending ? (
          <Loading what="the question" />
        ) : question.isError ? (
          <Failed error={question.error} retry={() => question.refetch()} />
        ) : (
          <>
            <pre
              tabIndex={0}
              role="document"
              aria-label="The question"
              className="mono max-h-[38vh] overflow-auto whitespace-pre-wrap break-words rounded-md border border-line bg-sunk p-2 text-[11.5px]"
            >
              {question.data.markdown}
            </pre>
            <div className="mt-3 flex items-center gap-2">
              <CopyButton text={question.data.markdown} what="the question" />
              <span className="text-ink-2">copies it as Markdown</span>
              <a
                className="ml-auto text-woad underline"
                download="question.json"
                href={`data:application/json;charset=utf-8,${encodeURIComponent(
                  JSON.stringify(question.data.facts, null, 2),
                )}`}
              >
                Save as JSON
              </a>
            </div>
          </>
        )}
      </Dialog>
    </div>
  )
}
