import { Gavel } from 'lucide-react'
import { useState } from 'react'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { DifferenceSaid } from '../layers/Preview'
import { useRulingOrder, useRulings, useTakeRulingOrder, useVerdict } from '../overlaps/queries'
import { Button } from '../ui/Button'
import { PathText } from '../ui/PathText'
import { Empty, Failed, Loading } from '../ui/States'
import { count, number } from '../ui/text'

/** What the user has ruled, and the order that would say the same by itself. */
export function RulingsPart({ workspace }: { workspace: number }) {
  const rulings = useRulings(workspace)
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const [asked, setAsked] = useState(false)
  const order = useRulingOrder(workspace, asked)
  const takeBack = useVerdict(workspace, (d) =>
    say(
      <>
        <b>The ruling is taken back.</b> <DifferenceSaid difference={d} tense="does" />
      </>,
      { label: 'Undo', run: undo },
    ),
  )
  const take = useTakeRulingOrder(workspace, (d) => {
    setAsked(false)
    say(
      <>
        <b>The layers are moved.</b> <DifferenceSaid difference={d} tense="does" />
      </>,
      { label: 'Undo', run: undo },
    )
  })
  if (rulings.isPending)
    return (
      <div className="card flex-1">
        <Loading what="the rulings" />
      </div>
    )
  if (rulings.isError) return <Failed error={rulings.error} retry={() => rulings.refetch()} />
  const all = rulings.data.rulings
  if (all.length === 0)
    return (
      <div className="card flex-1">
        <Empty icon={Gavel} title="Nothing is ruled">
          A ruling says whose file is in play at a path, whatever the order says. Open a contested path to
          make one.
        </Empty>
      </div>
    )
  const o = order.data
  return (
    <div className="card min-h-0 flex-1 overflow-y-auto px-4 py-3">
      <div className="flex items-center gap-3">
        <p className="flex-1 text-ink-2">
          A ruling holds whatever the order says. Where layers can be moved so that the order says the same,
          it is needless.
        </p>
        <Button onClick={() => setAsked(true)} disabled={asked && order.isFetching}>
          Which order would satisfy them?
        </Button>
      </div>
      {asked && o && (
        <section aria-label="The order that would satisfy them" className="mt-3 rounded-lg bg-sunk px-4 py-3">
          {o.needless.length === 0 ? (
            <p>No move would make a ruling needless.</p>
          ) : (
            <>
              <p>
                {o.moves.length === 0
                  ? `The order says the same already: ${count(o.needless.length, 'ruling')} can be taken back.`
                  : `With ${count(o.moves.length, 'move')} the order says by itself what ${count(o.needless.length, 'ruling')} ${o.needless.length === 1 ? 'says' : 'say'}.`}{' '}
                <DifferenceSaid difference={o.difference} tense="would" />
              </p>
              <ul className="mt-2">
                {o.moves.map((m) => (
                  <li key={m.mod} className="flex gap-3 py-0.5">
                    <b className="w-[220px] truncate font-semibold">{m.name}</b>
                    <span className="num w-20">
                      {m.from} → {m.to}
                    </span>
                    <span className="min-w-0 flex-1 text-ink-2">{m.because.join('; ')}</span>
                  </li>
                ))}
              </ul>
              <Button
                look="strong"
                className="mt-2"
                disabled={take.isPending}
                onClick={() => take.mutate(null)}
              >
                Move them, and take those rulings back
              </Button>
            </>
          )}
          {o.contradictions.map((c) => (
            <p key={`${c.at} ${c.name}`} className="mt-2">
              <b className="font-semibold">{c.at}</b> from {c.name} contradicts others: {c.ring.join('; ')}.
            </p>
          ))}
          {o.packed.length > 0 && (
            <p className="mt-2 text-ink-2">
              No order can say what {count(o.packed.length, 'ruling')}{' '}
              {o.packed.length === 1 ? 'says' : 'say'}: the game lies lowest always, and loose files stand
              before packed ones.
            </p>
          )}
        </section>
      )}
      <ul className="mt-3">
        {all.map((r) => (
          <li key={r.at} className="flex items-center gap-3 border-line border-b py-1.5">
            <PathText path={r.at} most={54} className="min-w-0 flex-1 truncate" />
            <span className="w-[190px] truncate font-medium">{r.name}</span>
            <span className="w-[210px] text-[12px] text-ink-2">
              {r.idle ??
                (r.decides > 0
                  ? `decides ${count(r.decides, 'path')}${r.needless > 0 ? `, needless at ${number(r.needless)}` : ''}`
                  : `needless: the order says the same at ${count(r.needless, 'path')}`)}
            </span>
            <Button look="quiet" className="h-7" onClick={() => takeBack.mutate({ takeBack: [r.at] })}>
              Take back
            </Button>
          </li>
        ))}
      </ul>
    </div>
  )
}
