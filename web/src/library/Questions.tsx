import clsx from 'clsx'
import { TriangleAlert } from 'lucide-react'
import { useId, useState } from 'react'
import type { Schema } from '../api/client'
import { entryAddress } from './queries'

type QuestionView = Schema['QuestionView']
type AnswerView = Schema['AnswerView']

/** The questions of one page of a fitting. */
export function Questions({
  workspace,
  archive,
  questions,
  onAnswer,
}: {
  workspace: number
  archive: number
  questions: readonly QuestionView[]
  onAnswer: (question: QuestionView, answer: string) => void
}) {
  const chapter = questions[0]?.chapter
  return (
    <div className="flex flex-col gap-5 p-4">
      {chapter && <h2>{chapter}</h2>}
      {questions.map((q) => (
        <Question key={q.id} question={q} onAnswer={(a) => onAnswer(q, a)}>
          {q.answers.map((a) => (
            <Answer
              key={a.id}
              answer={a}
              single={q.max === 1}
              name={q.id}
              image={a.image ? entryAddress(workspace, archive, a.image) : null}
              onTake={() => onAnswer(q, a.id)}
            />
          ))}
        </Question>
      ))}
    </div>
  )
}

function mayTake(q: QuestionView): string {
  if (q.min === 1 && q.max === 1) return 'Take one.'
  if (q.max === 1) return 'Take one, or none.'
  if (q.min === 0) return q.max >= q.answers.length ? 'Take any.' : `Take up to ${q.max}.`
  return q.min === q.max ? `Take ${q.min}.` : `Take ${q.min} to ${q.max}.`
}

function Question(props: {
  question: QuestionView
  onAnswer: (answer: string) => void
  children: React.ReactNode
}) {
  const q = props.question
  const id = useId()
  return (
    <fieldset aria-describedby={id}>
      <legend className="font-semibold text-[14px]">{q.ask}</legend>
      <p id={id} className={clsx('mb-2', q.amiss ? 'font-medium text-madder' : 'text-ink-2')}>
        {q.amiss ?? mayTake(q)}
      </p>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-2.5">{props.children}</div>
    </fieldset>
  )
}

function Answer(props: {
  answer: AnswerView
  single: boolean
  name: string
  image: string | null
  onTake: () => void
}) {
  const a = props.answer
  const [broken, setBroken] = useState(false)
  return (
    <label
      className={clsx(
        'flex cursor-pointer flex-col overflow-hidden rounded-[10px] border bg-card has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-woad has-[:focus-visible]:outline-offset-2',
        a.taken ? 'border-woad ring-1 ring-woad' : 'border-line hover:border-line-2',
      )}
    >
      {props.image && !broken && (
        <img
          src={props.image}
          alt=""
          onError={() => setBroken(true)}
          className="h-28 w-full border-line border-b bg-sunk object-cover"
        />
      )}
      <span className="flex flex-col gap-1 px-3 py-2.5">
        <span className="flex items-baseline gap-2">
          <input
            type={props.single ? 'radio' : 'checkbox'}
            name={props.name}
            checked={a.taken}
            onChange={props.onTake}
            className="accent-woad"
          />
          <b className="font-semibold">{a.say}</b>
          {a.offered && <small className="ml-auto text-ink-3">offered</small>}
        </span>
        {a.about && <span className="text-ink-2">{a.about}</span>}
        {a.why && (
          <span className="text-[12px] text-ink-3">
            {a.offered ? 'Offered because' : 'Would be offered if'} {a.why}.
          </span>
        )}
        {a.cost && (
          <span className="flex items-start gap-1.5 text-[12px] text-ochre">
            <TriangleAlert size={14} className="mt-px shrink-0" aria-hidden="true" />
            {a.cost}
          </span>
        )}
      </span>
    </label>
  )
}
