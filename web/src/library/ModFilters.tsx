import { Chip } from '../ui/Chip'
import { SearchField } from '../ui/SearchField'
import { number } from '../ui/text'
import { KINDS, type Kind } from './mods'

interface ModFiltersProps {
  find: string
  onFind: (text: string) => void
  kinds: readonly Kind[]
  /** Those that some mod is of. */
  allKinds: readonly Kind[]
  onKinds: (kinds: readonly Kind[]) => void
  tags: readonly string[]
  /** All tags that there are. */
  allTags: readonly string[]
  onTags: (tags: readonly string[]) => void
  shown: number
  total: number
}

/** What of the library is shown. */
export function ModFilters(props: ModFiltersProps) {
  const { kinds, allKinds, tags, allTags, shown, total } = props
  const filtered = props.find.trim() !== '' || kinds.length + tags.length > 0
  const turned = <T,>(all: readonly T[], one: T) =>
    all.includes(one) ? all.filter((x) => x !== one) : [...all, one]
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <SearchField label="Name, author, tag, plugin" value={props.find} onChange={props.onFind} />
      <fieldset aria-label="Show only" className="flex flex-wrap gap-1.5">
        {allKinds.map((k) => (
          <Chip
            key={k}
            says={KINDS[k].says}
            on={kinds.includes(k)}
            onTurn={() => props.onKinds(turned(kinds, k))}
          />
        ))}
        {allTags.map((t) => (
          <Chip
            key={`tag ${t}`}
            says={`# ${t}`}
            on={tags.includes(t)}
            onTurn={() => props.onTags(turned(tags, t))}
          />
        ))}
      </fieldset>
      {filtered && (
        <span className="num ml-auto text-ink-2">
          {number(shown)} of {number(total)}
        </span>
      )}
    </div>
  )
}
