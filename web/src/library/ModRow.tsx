import clsx from 'clsx'
import type { Schema } from '../api/client'
import { Cell, HeadRow } from '../ui/Cell'
import { EXPLAINED } from '../ui/explained'
import { HowFar, modDetail } from '../ui/HowFar'
import { SortHead } from '../ui/list/SortHead'
import { bytes, count, number } from '../ui/text'
import { SORTS, type Sort } from './mods'

type ModView = Schema['ModView']

const COLUMNS =
  'grid grid-cols-[minmax(0,1fr)_88px_56px_64px_92px_70px] items-center gap-3 px-3.5 max-lg:grid-cols-[minmax(0,1fr)_72px_56px_50px]'

const SHOWN: readonly { sort: Sort; look?: string }[] = [
  { sort: 'name' },
  { sort: 'version' },
  { sort: 'files', look: 'text-right' },
  { sort: 'size', look: 'text-right max-lg:hidden' },
  { sort: 'plugins', look: 'max-lg:hidden' },
  { sort: 'far' },
]

/** The names of the columns, by which the mods can be sorted. */
export function ModHead({ sort, down, onSort }: { sort: Sort; down: boolean; onSort: (sort: Sort) => void }) {
  return (
    <HeadRow className={clsx(COLUMNS, 'h-[26px] border-line border-b text-[11px] text-ink-3')}>
      {SHOWN.map((c) => (
        <SortHead
          key={c.sort}
          says={SORTS[c.sort].says}
          way={c.sort !== sort ? null : down ? 'down' : 'up'}
          onSort={() => onSort(c.sort)}
          explains={c.sort === 'far' ? EXPLAINED.far : c.sort === 'version' ? EXPLAINED.fitted : undefined}
          className={c.look ?? ''}
        />
      ))}
    </HeadRow>
  )
}

/** What is special about a mod, in a word or two each. */
function marks(m: ModView): string[] {
  return [
    m.betterFitting && 'a better fitting exists',
    m.heldBack > 0 && `${count(m.heldBack, 'path')} held back`,
    m.edited > 0 && `${count(m.edited, 'file')} edited`,
  ].filter((w): w is string => typeof w === 'string')
}

/** A mod of the library in its columns. */
export function ModRow({ mod: m }: { mod: ModView }) {
  return (
    <div className={clsx(COLUMNS, 'h-full')}>
      <Cell className="min-w-0">
        <span className="block truncate font-medium" title={m.name}>
          {m.name}
          {m.inferred && <small className="ml-2 font-normal text-ink-3">name from its archive</small>}
          {marks(m).map((mark) => (
            <small key={mark} className="ml-2 font-normal text-ochre">
              {mark}
            </small>
          ))}
          {m.tags.map((t) => (
            <small key={t} className="ml-1.5 rounded-full border border-line px-1.5 font-normal text-ink-2">
              {t}
            </small>
          ))}
        </span>
        <span className="block truncate text-[11.5px] text-ink-2">{m.summary || m.archiveName}</span>
      </Cell>
      <Cell
        className="num truncate text-ink-2"
        title={m.versions > 1 ? `${m.versions} versions are here` : undefined}
      >
        {m.version}
        {m.versions > 1 && <small className="text-ink-3"> of {m.versions}</small>}
      </Cell>
      <Cell className="num text-right text-ink-2">{number(m.files)}</Cell>
      <Cell className="num text-right text-ink-2 max-lg:hidden">{bytes(m.sizeBytes)}</Cell>
      <Cell className="truncate text-ink-2 max-lg:hidden" title={m.plugins.join(', ')}>
        {m.plugins.length === 0
          ? 'none'
          : m.plugins.length === 1
            ? m.plugins[0]
            : count(m.plugins.length, 'plugin')}
      </Cell>
      <Cell>
        <HowFar reached={m.journey.reached} detail={modDetail(m.journey)} />
      </Cell>
    </div>
  )
}
