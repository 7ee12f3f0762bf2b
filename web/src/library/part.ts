import type { Schema } from '../api/client'
import type { TreeNode } from '../ui/tree'
import { leavesOf } from '../ui/tree'
import type { PartRequest } from './queries'

type Gets = Schema['Gets']

/** Whether a path is an entry itself or, ending in a slash, a folder above it. */
function covers(path: string, entry: string): boolean {
  return path.endsWith('/') ? entry.startsWith(path) : entry === path
}

/**
 * The entries of an archive behind a file or a folder of the outcome: its own folder where they all lie in
 * one, else each by itself.
 */
export function entriesOf(node: TreeNode<Gets>, all: readonly Gets[]): string[] {
  if (node.leaf) return [node.leaf.entry]
  const leaves = leavesOf(node)
  const folders = new Set(
    leaves.map((l) => {
      const below = l.path.slice(node.path.length)
      return l.entry.endsWith(`/${below}`) ? l.entry.slice(0, -below.length) : ''
    }),
  )
  const [only] = folders
  const within = new Set(leaves)
  if (folders.size === 1 && only && all.every((g) => within.has(g) || !g.entry.startsWith(only)))
    return [only]
  return leaves.map((l) => l.entry)
}

export function leftOut(part: PartRequest, entries: readonly string[]): PartRequest {
  const kept = (part.leaveOut ?? []).filter((l) => !entries.some((e) => e.endsWith('/') && l.startsWith(e)))
  const sendTo = Object.fromEntries(
    Object.entries(part.sendTo ?? {}).filter(([path]) => !entries.some((e) => covers(e, path) || e === path)),
  )
  return { ...part, leaveOut: [...new Set([...kept, ...entries])], sendTo }
}

/** Takes back that an entry was left out, by itself or with a folder above it. */
export function letIn(part: PartRequest, entry: string, all: readonly string[]): PartRequest {
  const next: string[] = []
  for (const l of part.leaveOut ?? []) {
    if (!covers(l, entry)) next.push(l)
    // a folder that was left out is split into its other files
    else if (l.endsWith('/') && l !== entry)
      next.push(...all.filter((e) => e.startsWith(l) && !covers(entry, e)))
  }
  return { ...part, leaveOut: next }
}

export function sentTo(part: PartRequest, entry: string, mount: string, all: readonly string[]): PartRequest {
  return { ...letIn(part, entry, all), sendTo: { ...part.sendTo, [entry]: mount } }
}

export function beginningAt(part: PartRequest, root: string): PartRequest {
  return { ...part, root }
}

/** The answers after a click: one of a question that takes one replaces the other. */
export function answered(
  question: Schema['QuestionView'],
  answers: Record<string, string[]>,
  id: string,
): Record<string, string[]> {
  const taken = question.answers.filter((a) => a.taken).map((a) => a.id)
  const has = taken.includes(id)
  const single = question.max === 1
  const next = single
    ? has && question.min === 0
      ? []
      : [id]
    : has
      ? taken.filter((t) => t !== id)
      : [...taken, id]
  return { ...answers, [question.id]: next }
}

/** Questions that are shown together: neighbours of one chapter; one without a chapter stands alone. */
export function pagesOf(questions: readonly Schema['QuestionView'][]): Schema['QuestionView'][][] {
  const pages: Schema['QuestionView'][][] = []
  for (const q of questions) {
    const last = pages.at(-1)
    if (last && q.chapter && last[0]?.chapter === q.chapter) last.push(q)
    else pages.push([q])
  }
  return pages
}

const READING: Record<Schema['Paper']['kind'], string> = {
  READ_ME: 'read-me',
  CHANGES: 'changes',
  LICENCE: 'licence',
  TEXT: 'text',
  IMAGE: 'image',
}

/** What a file is for its reader, in a word. */
export function readingWords(kind: Schema['Paper']['kind']): string {
  return READING[kind]
}

/** A path that a text names, from the text's own folder. */
export function resolved(folder: string, path: string): string {
  const steps: string[] = []
  for (const step of `${folder}${path}`.split('/')) {
    if (step === '..') steps.pop()
    else if (step && step !== '.') steps.push(step)
  }
  return steps.join('/')
}
