/** The way of a workspace, in the order in which it is gone. */
const STEPS: readonly { name: string; says: string }[] = [
  { name: 'Bring mods in', says: 'Archives come into the inbox; you see what the game would get from each.' },
  {
    name: 'Put them in order',
    says: 'Each mod is a layer: what lies higher covers (overwrites) what lies lower.',
  },
  {
    name: 'Order the plugins',
    says: 'The load order, held against masters and rules; a proposal shows its reasons.',
  },
  {
    name: 'Combine records',
    says: 'Where plugins change the same record, a patch keeps the changes of all.',
  },
  { name: 'Deploy', says: 'The game folder gets what you decided, and can be made as it was at any time.' },
  { name: 'Test run', says: 'The game starts from here, and you see what of each mod it has read.' },
]

/** What there is to do from a game to one that runs with its mods. */
export function SixSteps() {
  return (
    <section className="card px-5 py-4">
      <h2>Six steps</h2>
      <ol className="mt-2 flex flex-col gap-2">
        {STEPS.map((s, i) => (
          <li key={s.name} className="flex gap-3">
            <span className="num grid size-[22px] shrink-0 place-items-center rounded-full border border-line-2 text-[12px] text-ink-2">
              {i + 1}
            </span>
            <span>
              <b className="font-semibold">{s.name}</b>
              <span className="block text-ink-2">{s.says}</span>
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-2.5 text-ink-2">
        A game without plugins has four of them. The overview of a workspace says which is next.
      </p>
    </section>
  )
}
