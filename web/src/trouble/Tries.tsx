import clsx from 'clsx'
import { Link } from 'react-router'
import { Button } from '../ui/Button'
import { bytes, timeWords, when } from '../ui/text'
import { type Search, type Try, useGoesOn, useTakeBack } from './queries'
import { ANSWERS, partName, partsWords, whyWords } from './words'

/** What was tried so far, the newest first. */
export function Tries({ workspace, search: s }: { workspace: number; search: Search }) {
  const back = useTakeBack(workspace, s.search.id)
  const busy = useGoesOn(workspace)
  const going = busy || (s.search.state === 'SEARCHING' && s.search.automatic)
  if (s.tries.length === 0) return null
  return (
    <section aria-label="What was tried" className="card shrink-0 px-4 py-2">
      <h2 className="py-1">What was tried</h2>
      <ol reversed>
        {s.tries.toReversed().map((t) => (
          <li key={t.id} className="flex flex-wrap items-baseline gap-x-3 border-line border-t py-1">
            <span
              className={clsx(
                'w-32 shrink-0 font-medium',
                t.answer === 'FAILS' && 'text-madder',
                t.answer === 'WORKS' && 'text-moss',
                t.answer !== 'FAILS' && t.answer !== 'WORKS' && 'text-ochre',
              )}
            >
              {s.measured && t.answer === 'WORKS' ? 'measured' : ANSWERS[t.answer]}
            </span>
            <span className="min-w-0 flex-1 break-words">
              {whyWords(t, s.search.level, missing(s, t), s.always)}
              <span className="text-ink-2">
                {' '}
                {s.measured &&
                  t.ms !== undefined &&
                  ` · ${timeWords(t.ms)}${t.peakBytes === undefined ? '' : `, ${bytes(t.peakBytes)}`}`}{' '}
                · {partsWords(t.members.length, s.search.level)} in play
                {t.note && `. ${t.note}`}
              </span>
            </span>
            <span className="shrink-0 text-[12px] text-ink-2">
              {t.byUser ? 'you said so' : ''} {when(t.at)}{' '}
              {t.run !== undefined && (
                <Link to={`/workspaces/${workspace}/test-run/${t.run}`} className="text-woad underline">
                  its run
                </Link>
              )}
            </span>
            {!going && s.inside === undefined && (
              <Button
                look="quiet"
                className="h-6"
                disabled={back.isPending}
                aria-label={`Take back: ${ANSWERS[t.answer]}, ${whyWords(t, s.search.level, missing(s, t), s.always)}`}
                onClick={() => back.mutate(t.id)}
              >
                Take back
              </Button>
            )}
          </li>
        ))}
      </ol>
    </section>
  )
}

/** What a proof leaves out of what was found, in words. */
function missing(s: Search, t: Try): string | undefined {
  const members = new Set(t.members)
  const names = s.parts.filter((p) => p.standing === 'FOUND' && !members.has(p.number)).map(partName)
  return names.length > 0 ? names.join(' and ') : undefined
}
