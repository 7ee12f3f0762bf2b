import {
  Download,
  House,
  Layers,
  LibraryBig,
  ListOrdered,
  type LucideIcon,
  Play,
  Scissors,
  SquaresIntersect,
  Stethoscope,
  Table2,
  Telescope,
  Wrench,
} from 'lucide-react'

/** A screen of a workspace. The path is the same word as in the API. */
export interface View {
  path: string
  name: string
  icon: LucideIcon
  /** What it is for, in a line. */
  about: string
  /** Words of the trade by which it is looked for. */
  words: readonly string[]
}

const VIEWS: readonly View[] = [
  {
    path: '',
    name: 'Overview',
    icon: House,
    about: 'How far it is, and what to do next',
    words: ['wrinkles', 'problems', 'progress', 'start'],
  },
  {
    path: 'library',
    name: 'Library',
    icon: LibraryBig,
    about: 'Bring mods in and look at them',
    words: ['install', 'uninstall', 'archives', 'download', 'add mod', 'remove mod'],
  },
  {
    path: 'catalogue',
    name: 'Catalogue',
    icon: Telescope,
    about: 'Find mods, see what they bring with them, and get them',
    words: ['download', 'browse', 'search mods', 'requirements', 'dependencies', 'update'],
  },
  {
    path: 'layers',
    name: 'Layers',
    icon: Layers,
    about: 'The install order: who covers (overwrites) whom',
    words: ['install order', 'overwrite', 'priority', 'conflict', 'move', 'enable', 'disable', 'switch'],
  },
  {
    path: 'overlaps',
    name: 'Overlaps',
    icon: SquaresIntersect,
    about: 'Every path that several mods bring',
    words: ['conflict', 'overwrite', 'files', 'hidden'],
  },
  {
    path: 'load-order',
    name: 'Load order',
    icon: ListOrdered,
    about: 'The order in which plugins load',
    words: ['masters', 'plugins', 'sort', 'slots', 'limit'],
  },
  {
    path: 'records',
    name: 'Records',
    icon: Table2,
    about: 'Records that several plugins change, and how they combine',
    words: ['conflict', 'fields'],
  },
  {
    path: 'mends',
    name: 'Mends',
    icon: Scissors,
    about: 'Patches, merges and combined files, and which are called for',
    words: ['patch', 'merge', 'conflict resolution'],
  },
  {
    path: 'deploy',
    name: 'Deploy',
    icon: Download,
    about: 'Put all of it into the game folder, or take it out',
    words: ['undeploy', 'take out', 'link', 'restore', 'vanilla'],
  },
  {
    path: 'tools',
    name: 'Tools',
    icon: Wrench,
    about: 'Programs of yours that work on the deployed game',
    words: ['run', 'program', 'external'],
  },
  {
    path: 'test-run',
    name: 'Test run',
    icon: Play,
    about: 'Start the game and see whether it worked',
    words: ['launch', 'play', 'crash', 'log', 'start the game'],
  },
  {
    path: 'trouble',
    name: 'Trouble',
    icon: Stethoscope,
    about: 'From a fault in the game to what causes it',
    words: ['crash', 'bug', 'culprit', 'bisect', 'broken', 'troubleshoot', 'find the mod'],
  },
]

/**
 * The screens that a workspace has: a game without plugins has neither a load order nor records.
 *
 * @param steps of its overview; undefined until they are known
 */
export function viewsOf(steps: readonly { id: string }[] | undefined): readonly View[] {
  if (!steps || steps.some((s) => s.id === 'LOAD_ORDER')) return VIEWS
  return VIEWS.filter((v) => v.path !== 'load-order' && v.path !== 'records')
}

const BY_PLACE: Record<string, string> = {
  OVERVIEW: '',
  LIBRARY: 'library',
  MISSING: 'catalogue/choice?missing',
  LAYERS: 'layers',
  LOAD_ORDER: 'load-order',
  RECORDS: 'records',
  MENDS: 'mends',
  COMBINE_FILES: 'mends/combined-files',
  DEPLOY: 'deploy',
  TOOLS: 'tools',
  GAME_VERSION: 'deploy/game-version',
  TEST_RUN: 'test-run',
}

/** The address of a screen that the API names. */
export function addressOf(workspace: number, place: string): string {
  const path = BY_PLACE[place] ?? ''
  return path ? `/workspaces/${workspace}/${path}` : `/workspaces/${workspace}`
}
