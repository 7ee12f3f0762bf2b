import { Command } from 'cmdk'
import { type RefObject, useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useLayers } from '../layers/queries'
import { useLoadOrder } from '../load-order/queries'
import { recordPath, spoken } from '../records/keys'
import { useRecordNames } from '../records/queries'
import { fitting, type Group } from './fitting'
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
  const [selected, setSelected] = useState('')
  // Whether the user has gone to an entry, which is then not left for a better one that comes late.
  const walked = useRef(false)
  return (
    <Command.Dialog
      open={open}
      onOpenChange={(next) => {
        walked.current = false
        onOpenChange(next)
      }}
      label="Find"
      shouldFilter={false}
      value={selected}
      onValueChange={setSelected}
      onKeyDownCapture={(event) => {
        if (event.key !== 'Shift') walked.current = WALKING.has(event.key)
      }}
      onPointerMoveCapture={() => {
        walked.current = true
      }}
      overlayClassName="fixed inset-0 z-40 bg-black/35"
      contentClassName="fixed top-[12vh] left-1/2 z-50 w-[min(620px,92vw)] -translate-x-1/2 overflow-hidden rounded-xl border border-line bg-card shadow-lift"
    >
      {open && (
        <Found
          workspace={workspace}
          close={() => {
            walked.current = false
            onOpenChange(false)
          }}
          onKeys={onKeys}
          walked={walked}
          select={setSelected}
        />
      )}
    </Command.Dialog>
  )
}

const WALKING = new Set(['ArrowUp', 'ArrowDown', 'Home', 'End', 'PageUp', 'PageDown'])

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
    path: 'catalogue/updates',
    name: 'Updates',
    about: 'What is newer of your mods, whether it is worth it, and bridges',
    words: ['new versions', 'outdated', 'update all', 'changelog'],
  },
  {
    path: 'catalogue/findings',
    name: 'Findings',
    about: 'What you and others have found out about mods',
    words: ['works', 'broken', 'compatibility', 'reports'],
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
    path: 'test-run/signs',
    name: 'Signs',
    about: 'What shows in the game that each mod works',
    words: ['checklist', 'does it work', 'verify mods'],
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

interface FoundProps {
  workspace: number
  close: () => void
  onKeys: () => void
  walked: RefObject<boolean>
  select: (value: string) => void
}

function Found(props: FoundProps) {
  const { close, walked, select } = props
  const [typed, setTyped] = useState('')
  const found = fitting(useGroups(props, typed), typed)
  const best = found[0]?.entries[0]?.value ?? ''
  // What fits best is selected, also when its names came late: Enter would go elsewhere.
  useEffect(() => {
    if (!walked.current) select(best)
  }, [best, walked, select])
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
        {found.map((group) => (
          <Command.Group key={group.heading} heading={group.heading} className={GROUP}>
            {group.entries.map((entry) => (
              <Command.Item
                key={entry.value}
                value={entry.value}
                onSelect={() => {
                  close()
                  entry.run()
                }}
                className={ITEM}
              >
                {entry.name} <span className="truncate text-ink-2">{entry.about}</span>
              </Command.Item>
            ))}
          </Command.Group>
        ))}
      </Command.List>
    </>
  )
}

/** All that can be found, in groups. */
function useGroups({ workspace, onKeys }: FoundProps, typed: string): Group[] {
  const steps = useOverview(workspace).data?.steps
  const go = useNavigate()
  const layers = useLayers(workspace).data?.layers
  const plugins = useLoadOrder(workspace).data?.plugins
  const [chosen] = useState(offeredNow)
  const records = useRecordNames(workspace, typed, undefined, typed.trim().length > 1).data
  const { undoes, redoes, undo, redo } = useUndo(workspace)
  const base = `/workspaces/${workspace}`
  const to = (path: string) => () => go(path ? `${base}/${path}` : base)
  const views = viewsOf(steps)
  const below = BELOW.filter(
    (v) => views.some((w) => w.path && v.path.startsWith(w.path)) || !v.path.match(/^(load-order|records)/),
  )
  const acts = chosen?.acts().filter((act) => act !== null) ?? []
  return [
    {
      heading: `With ${chosen?.name}`,
      entries: acts.map((act) => ({
        value: `${act.label} ${chosen?.name}`,
        name: act.label,
        about: chosen?.name ?? '',
        run: act.run,
      })),
    },
    {
      heading: 'Go to',
      entries: [...views, ...below].map((v) => ({
        value: `go ${v.name}`,
        name: v.name,
        about: v.about,
        words: v.words,
        run: to(v.path),
      })),
    },
    {
      heading: 'Mods',
      entries: (layers ?? []).map((l) => ({
        value: `mod ${l.name} ${l.mod}`,
        name: l.name,
        about: `${l.version ? `${l.version}, ` : ''}layer ${l.position}`,
        run: to(`layers/${l.mod}`),
      })),
    },
    {
      heading: 'Plugins',
      entries: (plugins ?? []).map((p) => ({
        value: `plugin ${p.name}`,
        name: p.name,
        about: `loads as ${p.position}`,
        run: to(`load-order/${encodeURIComponent(p.name)}`),
      })),
    },
    {
      heading: 'Records',
      entries: (records ?? []).map((c) => ({
        value: `record ${c.label} ${c.key}`,
        name: c.label,
        about: `${c.title}, ${spoken(c.key)}`,
        run: () => go(recordPath(workspace, c.key)),
      })),
    },
    {
      heading: 'Actions',
      entries: [
        ...(undoes ? [{ value: 'undo the last change', name: 'Undo', about: undoes, run: undo }] : []),
        ...(redoes ? [{ value: 'redo do again', name: 'Redo', about: redoes, run: redo }] : []),
        ...THEMES.map((t) => ({
          value: `theme ${t.says}`,
          name: t.says,
          words: ['colours', 'appearance', t.theme],
          run: () => setTheme(t.theme),
        })),
        { value: 'keys', name: 'Keys', words: ['shortcuts', 'keyboard', 'help'], run: onKeys },
        {
          value: 'bring in mods archives',
          name: 'Bring in mods',
          words: ['install', 'add'],
          run: to('library'),
        },
        {
          value: 'another workspace game',
          name: 'Open another workspace',
          run: () => go('/workspaces'),
        },
      ],
    },
  ]
}
