import { Command, defaultFilter } from 'cmdk'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useLayers } from '../layers/queries'
import { useLoadOrder } from '../load-order/queries'
import { useRecordNames } from '../records/queries'
import { offeredNow } from './offered'
import { useOverview, useUndo } from './queries'
import { setTheme, type Theme } from './theme'
import { viewsOf } from './views'

interface PaletteProps {
  workspace: number
  open: boolean
  onOpenChange: (open: boolean) => void
  /** Tells the keys. */
  onKeys: () => void
}

/** Ctrl K: every screen, mod, plugin, record and action by a few letters of its name. */
export function Palette({ workspace, open, onOpenChange, onKeys }: PaletteProps) {
  return (
    <Command.Dialog
      open={open}
      onOpenChange={onOpenChange}
      label="Find"
      filter={fits}
      overlayClassName="fixed inset-0 z-40 bg-black/35"
      contentClassName="fixed top-[12vh] left-1/2 z-50 w-[min(620px,92vw)] -translate-x-1/2 overflow-hidden rounded-xl border border-line bg-card shadow-lift"
    >
      {open && <Found workspace={workspace} close={() => onOpenChange(false)} onKeys={onKeys} />}
    </Command.Dialog>
  )
}

/** How well something fits what is typed: by its name, or else by the beginning of a word of the trade. */
function fits(value: string, typed: string, words?: string[]): number {
  const asked = typed.trim().toLowerCase()
  const byWord = words?.some((w) => w.startsWith(asked) || w.includes(` ${asked}`)) ? 0.2 : 0
  return Math.max(defaultFilter(value, typed), byWord)
}

/** Screens below others. */
const BELOW = [
  {
    path: 'library/inbox',
    name: 'Inbox',
    about: 'Archives that have come in and wait to be installed',
    words: ['install', 'downloads', 'archives'],
  },
  {
    path: 'catalogue/places',
    name: 'Catalogues',
    about: 'Where mods are offered: add, look again, whom to believe',
    words: ['repository', 'source', 'refresh'],
  },
  {
    path: 'catalogue/choice?missing',
    name: 'Fill what is missing',
    about: 'Whatever the mods that are on need, and is not there or not on',
    words: ['requirements', 'dependencies', 'missing'],
  },
  {
    path: 'library/storage',
    name: 'Storage',
    about: 'What the library takes, where it lies, and the bin',
    words: ['disk space', 'bin', 'trash', 'size'],
  },
  {
    path: 'layers/suggestion',
    name: 'Proposed order of layers',
    about: 'An order that keeps all rules with the fewest moves',
    words: ['sort', 'auto sort'],
  },
  {
    path: 'layers/rules',
    name: 'Rules of placement',
    about: 'Where layers are to stand, and who said so',
    words: ['before', 'after', 'constraints'],
  },
  {
    path: 'layers/lists',
    name: 'Lists',
    about: 'Published install orders: what is missing, and following them',
    words: ['import', 'export', 'share', 'csv'],
  },
  {
    path: 'load-order/proposal',
    name: 'Proposal',
    about: 'An order of the plugins that keeps all rules with the fewest moves',
    words: ['sort plugins'],
  },
  {
    path: 'load-order/rules',
    name: 'Rules of the load order',
    about: 'Who loads before whom, who goes with whom, and who said so',
    words: ['before', 'after', 'groups'],
  },
  {
    path: 'load-order/lists',
    name: 'Load orders of others',
    about: 'Published load orders, and taking yours away',
    words: ['import', 'export', 'share'],
  },
  {
    path: 'mends/combined-files',
    name: 'Combine files',
    about: 'One script, table or screen from several mods',
    words: ['conflict', 'overwrite', 'merge files'],
  },
  {
    path: 'mends/merge',
    name: 'Merge plugins',
    about: 'Several plugins made one, to save slots',
    words: ['limit', 'slots', 'combine plugins'],
  },
  {
    path: 'records?show=findings',
    name: 'What is wrong with records',
    about: 'References, paths, numbers',
    words: ['errors', 'check'],
  },
  {
    path: 'deploy/drift',
    name: 'Check the folder',
    about: 'What is missing, changed or extra in the game folder',
    words: ['verify', 'changed files', 'external changes'],
  },
  {
    path: 'deploy/game-version',
    name: 'Game version',
    about: 'What an update of the game means for the mods',
    words: ['update', 'patch of the game'],
  },
  {
    path: 'definition',
    name: 'Definition of the game',
    about: 'Where mods go and what files are: to read, and to correct',
    words: ['game.yaml', 'settings'],
  },
  {
    path: 'profiles',
    name: 'Profiles',
    about: 'Use, copy and compare arrangements',
    words: ['copy', 'compare', 'switch', 'settings'],
  },
  {
    path: 'guide',
    name: 'Guide',
    about: 'What each screen is for, the words, the keys',
    words: ['help', 'manual', 'documentation'],
  },
  {
    path: 'timeline',
    name: 'Timeline',
    about: 'Every change, restore points, going back',
    words: ['history', 'backup', 'restore'],
  },
]

const THEMES: readonly { theme: Theme; says: string }[] = [
  { theme: 'light', says: 'Light theme' },
  { theme: 'dark', says: 'Dark theme' },
  { theme: 'system', says: 'Theme as this machine says' },
]

const ITEM =
  'flex cursor-pointer items-baseline gap-3 rounded-md px-2.5 py-1.5 data-[selected=true]:bg-woad-soft'
const GROUP =
  '[&_[cmdk-group-heading]]:px-2.5 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-[11px] [&_[cmdk-group-heading]]:font-semibold [&_[cmdk-group-heading]]:text-ink-3'

function Found(props: { workspace: number; close: () => void; onKeys: () => void }) {
  const { workspace, close } = props
  const views = viewsOf(useOverview(workspace).data?.steps)
  const go = useNavigate()
  const layers = useLayers(workspace).data
  const plugins = useLoadOrder(workspace).data
  const [typed, setTyped] = useState('')
  const [chosen] = useState(offeredNow)
  const records = useRecordNames(workspace, typed, undefined, typed.trim().length > 1).data
  const { undoes, redoes, undo, redo } = useUndo(workspace)
  const base = `/workspaces/${workspace}`
  const pick = (act: () => void) => () => {
    close()
    act()
  }
  return (
    <>
      <Command.Input
        placeholder="Find a mod, plugin, record or action"
        value={typed}
        onValueChange={setTyped}
        className="w-full border-line border-b bg-transparent px-4 py-3 text-[14px] outline-none placeholder:text-ink-3"
      />
      <Command.List className="max-h-[52vh] overflow-y-auto p-1.5">
        <Command.Empty className="px-3 py-6 text-center text-ink-2">
          Nothing of that name is here.
        </Command.Empty>
        {chosen && (
          <Command.Group heading={`With ${chosen.name}`} className={GROUP}>
            {chosen.acts().map(
              (act) =>
                act && (
                  <Command.Item
                    key={act.label}
                    value={`${act.label} ${chosen.name}`}
                    onSelect={pick(act.run)}
                    className={ITEM}
                  >
                    {act.label} <span className="truncate text-ink-2">{chosen.name}</span>
                  </Command.Item>
                ),
            )}
          </Command.Group>
        )}
        <Command.Group heading="Go to" className={GROUP}>
          {views.map((v) => (
            <Command.Item
              key={v.path}
              keywords={[...v.words]}
              value={`go ${v.name}`}
              onSelect={pick(() => go(v.path ? `${base}/${v.path}` : base))}
              className={ITEM}
            >
              {v.name} <span className="truncate text-ink-2">{v.about}</span>
            </Command.Item>
          ))}
          {BELOW.filter(
            (v) =>
              views.some((w) => w.path && v.path.startsWith(w.path)) ||
              !v.path.match(/^(load-order|records)/),
          ).map((v) => (
            <Command.Item
              key={v.path}
              keywords={v.words}
              value={`go ${v.name}`}
              onSelect={pick(() => go(`${base}/${v.path}`))}
              className={ITEM}
            >
              {v.name} <span className="truncate text-ink-2">{v.about}</span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Mods" className={GROUP}>
          {layers?.layers.map((l) => (
            <Command.Item
              key={l.mod}
              value={`mod ${l.name} ${l.mod}`}
              onSelect={pick(() => go(`${base}/layers/${l.mod}`))}
              className={ITEM}
            >
              {l.name}{' '}
              <span className="text-ink-3">
                {l.version && `${l.version}, `}layer {l.position}
              </span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Plugins" className={GROUP}>
          {plugins?.plugins.map((p) => (
            <Command.Item
              key={p.name}
              value={`plugin ${p.name}`}
              onSelect={pick(() => go(`${base}/load-order/${encodeURIComponent(p.name)}`))}
              className={ITEM}
            >
              {p.name} <span className="text-ink-3">loads as {p.position}</span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Records" className={GROUP}>
          {records?.map((c) => (
            <Command.Item
              key={c.key}
              value={`record ${c.label} ${c.key}`}
              onSelect={pick(() => go(`${base}/records/${c.key}`))}
              className={ITEM}
            >
              {c.label}{' '}
              <span className="text-ink-3">
                {c.title}, {c.key}
              </span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Actions" className={GROUP}>
          {undoes && (
            <Command.Item value="undo the last change" onSelect={pick(undo)} className={ITEM}>
              Undo <span className="truncate text-ink-2">{undoes}</span>
            </Command.Item>
          )}
          {redoes && (
            <Command.Item value="redo do again" onSelect={pick(redo)} className={ITEM}>
              Redo <span className="truncate text-ink-2">{redoes}</span>
            </Command.Item>
          )}
          {THEMES.map((t) => (
            <Command.Item
              key={t.theme}
              value={`theme ${t.says}`}
              keywords={['colours', 'appearance', t.theme]}
              onSelect={pick(() => setTheme(t.theme))}
              className={ITEM}
            >
              {t.says}
            </Command.Item>
          ))}
          <Command.Item
            value="keys"
            keywords={['shortcuts', 'keyboard', 'help']}
            onSelect={pick(props.onKeys)}
            className={ITEM}
          >
            Keys
          </Command.Item>
          <Command.Item
            value="bring in mods archives"
            keywords={['install', 'add']}
            onSelect={pick(() => go(`${base}/library`))}
            className={ITEM}
          >
            Bring in mods
          </Command.Item>
          <Command.Item
            value="another workspace game"
            onSelect={pick(() => go('/workspaces'))}
            className={ITEM}
          >
            Open another workspace
          </Command.Item>
        </Command.Group>
      </Command.List>
    </>
  )
}
