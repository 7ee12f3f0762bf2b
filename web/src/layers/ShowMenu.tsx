import clsx from 'clsx'
import { Columns3 } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { exportsOf } from '../lists/exports'
import { Button } from '../ui/Button'
import { COLUMNS, type Column, SORTS, type Sort } from './rows'

const MENU = 'z-50 min-w-48 rounded-lg border border-line bg-card p-1 shadow-lift'
const ITEM =
  'flex cursor-pointer items-center gap-2 rounded-md px-2.5 py-1 outline-none data-[highlighted]:bg-woad-soft data-[state=checked]:font-semibold'

/** Which columns are shown and by what the rows are sorted, and the order as a file. */
export function ShowMenu({
  workspace,
  sort,
  columns,
  turned,
  onSort,
  onColumns,
  onTurned,
}: {
  workspace: number
  sort: Sort
  columns: readonly Column[]
  turned: boolean
  onSort: (sort: Sort) => void
  onColumns: (columns: readonly Column[]) => void
  onTurned: (turned: boolean) => void
}) {
  // one that comes is the last, wherever the others were put
  const turn = (c: Column) =>
    onColumns(columns.includes(c) ? columns.filter((x) => x !== c) : [...columns, c])
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button icon aria-label="Columns, sorting and export">
          <Columns3 size={15} aria-hidden="true" />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className={MENU}>
          <DropdownMenu.Label className="px-2.5 py-1 text-[11px] text-ink-3">Columns</DropdownMenu.Label>
          {(Object.keys(COLUMNS) as Column[]).map((c) => (
            <DropdownMenu.CheckboxItem
              key={c}
              checked={columns.includes(c)}
              onCheckedChange={() => turn(c)}
              onSelect={(e) => e.preventDefault()}
              className={ITEM}
            >
              <span aria-hidden="true" className="w-3">
                {columns.includes(c) ? '✓' : ''}
              </span>
              {COLUMNS[c].name}
            </DropdownMenu.CheckboxItem>
          ))}
          <DropdownMenu.Label className="px-2.5 pt-2 pb-1 text-[11px] text-ink-3">
            Sorted by (the order itself stays)
          </DropdownMenu.Label>
          <DropdownMenu.RadioGroup value={sort} onValueChange={(v) => onSort(v as Sort)}>
            {(Object.keys(SORTS) as Sort[]).map((s) => (
              <DropdownMenu.RadioItem key={s} value={s} className={ITEM}>
                <span aria-hidden="true" className="w-3">
                  {sort === s ? '✓' : ''}
                </span>
                {SORTS[s].name}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
          <DropdownMenu.CheckboxItem
            checked={turned}
            onCheckedChange={(c) => onTurned(c === true)}
            className={clsx(ITEM, 'mt-1 border-line border-t pt-1.5')}
          >
            <span aria-hidden="true" className="w-3">
              {turned ? '✓' : ''}
            </span>
            Turn the stack over: the game on top
          </DropdownMenu.CheckboxItem>
          <DropdownMenu.Label className="px-2.5 pt-2 pb-1 text-[11px] text-ink-3">
            Export the order as
          </DropdownMenu.Label>
          {exportsOf(workspace, 'layers').map((l) => (
            <DropdownMenu.Item key={l.name} asChild>
              <a href={l.address} download className={ITEM}>
                <span className="w-3" /> {l.name}
              </a>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
