import { Bookmark, ListFilter, Plus, X } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { count, number } from '../ui/text'
import { type Filter, filterText, joined, parseFilter } from './filter'

interface FilterBarProps {
  text: string
  onText: (text: string) => void
  shown: number
  total: number
  sections: readonly Schema['SectionView'][]
  tags: readonly string[]
  views: readonly SavedView[]
  onSave: (name: string) => void
  onView: (view: SavedView) => void
  onForget: (name: string) => void
}

/** A filter under a name, with how the list was shown. */
export interface SavedView {
  name: string
  filter: string
  sort: string
  columns: readonly string[]
}

const ITEM = 'cursor-pointer rounded-md px-2.5 py-1 outline-none data-[highlighted]:bg-woad-soft'
const MENU =
  'z-50 max-h-[60vh] min-w-48 overflow-y-auto rounded-lg border border-line bg-card p-1 shadow-lift'

/** Narrows the list: typed, by chips that can be turned about or taken away, and by views kept under a name. */
export function FilterBar(props: FilterBarProps) {
  const { text, onText, shown, total } = props
  const filter = parseFilter(text)
  const parts: readonly Filter[] = filter ? (filter.kind === 'and' ? filter.parts : [filter]) : []
  const put = (next: readonly Filter[]) => {
    const f = joined('and', next)
    onText(f ? filterText(f) : '')
  }
  const add = (more: string) => onText(filter ? `${filterText(wrapped(filter))} and ${more}` : more)
  return (
    <div className="mb-2 flex flex-wrap items-center gap-1.5">
      <label className="flex h-[30px] min-w-[240px] flex-1 items-center gap-2 rounded-[7px] border border-line-2 bg-card px-2.5 focus-within:outline focus-within:outline-2 focus-within:outline-woad">
        <ListFilter size={14} className="text-ink-3" aria-hidden="true" />
        <input
          type="search"
          value={text}
          onChange={(e) => onText(e.target.value)}
          placeholder="Show only: a name, or such as “on and not contested”"
          aria-label="Show only layers that"
          className="w-full bg-transparent outline-none"
        />
      </label>
      <AddMenu sections={props.sections} tags={props.tags} onAdd={add} />
      <ViewsMenu {...props} />
      {filter && (
        <div
          role="status"
          className="flex basis-full flex-wrap items-center gap-1.5 rounded-lg border border-ochre bg-ochre-soft px-2.5 py-1"
        >
          <b className="font-semibold">
            {number(shown)} of {count(total, 'layer')} shown
          </b>
          {parts.map((p, i) => (
            <span
              // biome-ignore lint/suspicious/noArrayIndexKey: two parts may say the same
              key={`${i} ${filterText(p)}`}
              className="flex items-center rounded-md border border-line-2 bg-card"
            >
              <button
                type="button"
                title={p.kind === 'not' ? 'Turn about: those that are' : 'Turn about: those that are not'}
                onClick={() => put(parts.map((x, j) => (j === i ? turned(x) : x)))}
                className="max-w-[320px] truncate rounded-l-md px-1.5 hover:bg-sunk"
              >
                {filterText(p)}
              </button>
              <button
                type="button"
                aria-label={`Take away: ${filterText(p)}`}
                onClick={() => put(parts.filter((_, j) => j !== i))}
                className="rounded-r-md px-1 py-1 text-ink-3 hover:bg-sunk hover:text-ink"
              >
                <X size={12} />
              </button>
            </span>
          ))}
          <Button look="quiet" className="ml-auto h-6" onClick={() => onText('')}>
            Show all
          </Button>
        </div>
      )}
    </div>
  )
}

function wrapped(f: Filter): Filter {
  return f.kind === 'or' ? { kind: 'and', parts: [f] } : f
}

function turned(f: Filter): Filter {
  return f.kind === 'not' ? f.part : { kind: 'not', part: f }
}

const CRITERIA = [
  'on',
  'off',
  'contested',
  'adds nothing',
  'needs attention',
  'has plugin',
  'holds back files',
  'kept here',
  'patch',
]

function AddMenu({
  sections,
  tags,
  onAdd,
}: {
  sections: readonly Schema['SectionView'][]
  tags: readonly string[]
  onAdd: (text: string) => void
}) {
  const week = new Date(Date.now() - 7 * 86_400_000).toISOString().slice(0, 10)
  const quoted = (t: string) => (/^[^\s()"]+$/.test(t) ? t : `"${t}"`)
  const all = [
    ...CRITERIA,
    ...sections.map((s) => `section is ${quoted(s.name)}`),
    ...tags.map((t) => `tag is ${quoted(t)}`),
    `since ${week}`,
    'size over 100 MiB',
    'files over 100',
  ]
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button>
          <Plus size={14} aria-hidden="true" /> Criterion
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className={MENU}>
          {all.map((c) => (
            <DropdownMenu.Item key={c} onSelect={() => onAdd(c)} className={ITEM}>
              {c}
            </DropdownMenu.Item>
          ))}
          <p className="max-w-64 px-2.5 py-1.5 text-[11.5px] text-ink-3">
            Also to type: file has TEXT, name has TEXT; and, or, not, brackets.
          </p>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

function ViewsMenu(props: FilterBarProps) {
  const [name, setName] = useState('')
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button aria-label="Saved views">
          <Bookmark size={14} aria-hidden="true" /> Views
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className={MENU}>
          {props.views.length === 0 && (
            <p className="max-w-60 px-2.5 py-1.5 text-ink-2">
              A view keeps what is shown, the columns and the sorting under a name.
            </p>
          )}
          {props.views.map((v) => (
            <div key={v.name} className="flex items-center">
              <DropdownMenu.Item onSelect={() => props.onView(v)} className={`${ITEM} min-w-0 flex-1`}>
                <span className="block truncate">{v.name}</span>
                <small className="block truncate text-ink-3">{v.filter || 'all layers'}</small>
              </DropdownMenu.Item>
              <DropdownMenu.Item
                aria-label={`Forget the view ${v.name}`}
                onSelect={(e) => {
                  e.preventDefault()
                  props.onForget(v.name)
                }}
                className={ITEM}
              >
                <X size={13} />
              </DropdownMenu.Item>
            </div>
          ))}
          <DropdownMenu.Separator className="my-1 h-px bg-line" />
          <form
            className="flex gap-1 p-1"
            onSubmit={(e) => {
              e.preventDefault()
              if (name.trim()) props.onSave(name.trim())
              setName('')
            }}
          >
            <input
              value={name}
              onChange={(e) => setName(e.target.value)}
              onKeyDown={(e) => e.stopPropagation()}
              placeholder="Keep this view as …"
              aria-label="Name of the view"
              maxLength={60}
              className="h-[28px] w-40 rounded-md border border-line-2 bg-card px-2"
            />
            <Button type="submit" disabled={!name.trim()} className="h-[28px]">
              Keep
            </Button>
          </form>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
