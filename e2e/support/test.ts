import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { test as base, expect, type Page } from '@playwright/test'
import { withProduct } from './product'

export { expect }

/** The order in which the demo brings its archives in, the lowest first. */
export const INSTALL_ORDER = [
  'community-caulking-5.2.zip',
  'rope-locker-1.3.zip',
  'hull-textures-large-2.0.7z',
  'clearer-charts-1.6.tar.gz',
  'fogbound-weather-4.0.1.zip',
  'Bigger Bollards 1.0.zip',
  'harbourmasters-ledger-2.1.0.zip',
  'wheelhouse-panel-3.2.0.zip',
  'night-ferry-0.4.zip',
  'lamplight-1.0.tar.gz',
  'quiet-gulls-0.9.zip',
  'steady-compass-1.0.zip',
  'winter-timetable-1.0.4.zip',
] as const

/** A file to drop or to send. */
export interface GivenFile {
  name: string
  bytes: Buffer
}

/** One test's own copy of the sample game, and what a script would do with it. */
export class World {
  readonly folder = mkdtempSync(join(tmpdir(), 'ironing-world-'))
  private readonly packed = process.env.IRONING_WORLD ?? ''

  constructor(readonly url: string) {}

  get game(): string {
    return join(this.folder, 'game')
  }

  copyGame(): string {
    cpSync(join(this.packed, 'game'), this.game, { recursive: true })
    return this.game
  }

  archive(name: string): GivenFile {
    return { name, bytes: readFileSync(join(this.packed, 'archives', name)) }
  }

  /** One of the archives that wait in the demo's inbox. */
  waiting(name: string): GivenFile {
    return { name, bytes: readFileSync(join(this.packed, 'inbox', name)) }
  }

  archivesFolder(): string {
    const to = join(this.folder, 'archives')
    cpSync(join(this.packed, 'archives'), to, { recursive: true })
    return to
  }

  /** Sends a request; gives the body. */
  async api(method: string, path: string, body?: unknown, headers: Record<string, string> = {}) {
    const raw = Buffer.isBuffer(body)
    const answer = await fetch(`${this.url}/api${path}`, {
      method,
      headers: { 'Content-Type': raw ? 'application/octet-stream' : 'application/json', ...headers },
      body: raw ? new Uint8Array(body) : body === undefined ? undefined : JSON.stringify(body),
    })
    const text = await answer.text()
    if (!answer.ok) throw new Error(`${method} ${path}: ${text}`)
    return text ? JSON.parse(text) : undefined
  }

  async job(path: string, body?: unknown) {
    const job = await this.api('POST', path, body, { Prefer: 'wait=120' })
    if (job.state !== 'DONE') throw new Error(JSON.stringify(job))
    return job.result as number
  }

  async makeWorkspace(folder: string, definition?: string): Promise<number> {
    return this.job('/workspaces', { folder, definition })
  }

  /** Sends an archive into the inbox; gives its number. */
  async send(workspace: number, file: GivenFile): Promise<number> {
    const path = `/workspaces/${workspace}/archives?name=${encodeURIComponent(file.name)}`
    return (await this.api('POST', path, file.bytes)).id
  }

  async install(workspace: number, file: GivenFile): Promise<number> {
    const archive = await this.send(workspace, file)
    return this.job(`/workspaces/${workspace}/mods`, { archive })
  }

  /** The sample game with all of its mods but one, as the demo has them; gives the workspace. */
  async skerryLine(): Promise<number> {
    const workspace = await this.makeWorkspace(this.copyGame())
    for (const name of INSTALL_ORDER) await this.install(workspace, this.archive(name))
    return workspace
  }

  /** A change of the arrangement as it is now. */
  async change(workspace: number, method: string, path: string, body?: unknown) {
    const { revision } = await this.api('GET', `/workspaces/${workspace}`)
    const headers = { 'If-Match': `"${revision}"` }
    return this.api(method, `/workspaces/${workspace}${path}`, body, headers)
  }

  files(below: string): string[] {
    return readdirSync(join(this.game, below), { recursive: true, encoding: 'utf8' }).sort()
  }

  read(path: string): Buffer {
    return readFileSync(join(this.game, path))
  }

  /** A file of the game as it was before anything was deployed. */
  unmodded(path: string): Buffer {
    return readFileSync(join(this.packed, 'game', path))
  }

  remove(): void {
    rmSync(this.folder, { recursive: true, force: true })
  }
}

interface Fixtures {
  world: World
  /** Statuses that a test provokes; any other trouble in the page’s console fails it. */
  expectRefusals: boolean
  /** Whether the test has the server fail; its answers of 5xx are in the console then. */
  expectFailures: boolean
}

interface WorkerFixtures {
  /** The address of a product that no other worker uses. */
  product: string
}

export const test = base.extend<Fixtures, WorkerFixtures>({
  // biome-ignore lint/correctness/noEmptyPattern: Playwright wants a pattern here
  product: [async ({}, use) => withProduct(use), { scope: 'worker', timeout: 400_000 }],
  expectRefusals: [false, { option: true }],
  expectFailures: [false, { option: true }],
  world: async ({ product }, use) => {
    const world = new World(product)
    await use(world)
    world.remove()
  },
  baseURL: async ({ product }, use) => use(product),
  page: async ({ page, expectRefusals, expectFailures }, use) => {
    const troubles: string[] = []
    page.on('pageerror', (e) => troubles.push(e.message))
    page.on('console', (m) => {
      const refusal = /the server responded with a status of 4\d\d|net::ERR_/.test(m.text())
      const failure = /the server responded with a status of 5\d\d|dynamically imported module/.test(m.text())
      const expected = (refusal && expectRefusals) || (failure && expectFailures)
      if (['error', 'warning'].includes(m.type()) && !expected) troubles.push(m.text())
    })
    const lost: string[] = []
    await page.exposeBinding('focusLost', (_, after: string) => lost.push(after))
    await page.addInitScript(watchFocus)
    await use(page)
    expect(troubles, 'what the page’s console has to complain of').toEqual([])
    expect(lost, 'acts after which nothing has the focus').toEqual([])
  },
})

/**
 * In the page: after each act something has the focus, or a keyboard would begin at the top again. Some time is
 * given, since a control may be on its way.
 */
function watchFocus() {
  const nobody = () => document.activeElement === null || document.activeElement === document.body
  // a page that was just loaded begins at its top
  let touched = false
  addEventListener(
    'focusin',
    () => {
      touched = true
    },
    true,
  )
  const look = (after: string, tries: number) => {
    if (!nobody() || !touched) return
    if (tries > 0) setTimeout(look, 200, after, tries - 1)
    else (window as unknown as { focusLost: (after: string) => void }).focusLost(after)
  }
  const acted = (e: Event) => {
    const at = e.target as Element
    // Tab at the end of the page leads to the browser's own controls
    if (!e.isTrusted || (e as KeyboardEvent).key === 'Tab') return
    const name = at.getAttribute?.('aria-label') ?? at.textContent?.trim().slice(0, 60)
    setTimeout(look, 200, `${e.type} ${(e as KeyboardEvent).key ?? ''} “${name}” at ${location.pathname}`, 4)
  }
  addEventListener('click', acted, true)
  addEventListener('keyup', acted, true)
}

/** Drops files on a part of the page, as a file manager would. */
export async function drop(page: Page, selector: string, files: readonly GivenFile[]): Promise<void> {
  const given = files.map((f) => ({ name: f.name, base64: f.bytes.toString('base64') }))
  const transfer = await page.evaluateHandle((all) => {
    const data = new DataTransfer()
    for (const f of all) {
      const bytes = Uint8Array.from(atob(f.base64), (c) => c.charCodeAt(0))
      data.items.add(new File([bytes], f.name))
    }
    return data
  }, given)
  const target = page.locator(selector)
  // a screen that is on its way takes nothing
  await target.waitFor()
  await expect(page.getByRole('status', { name: /^Loading/ })).toHaveCount(0)
  await target.dispatchEvent('dragover', { dataTransfer: transfer })
  await target.dispatchEvent('drop', { dataTransfer: transfer })
  await transfer.dispose()
}

/** In the inbox: installs what needs no decision, once so many archives have been looked into. */
export async function installReady(page: Page, archives: number): Promise<void> {
  const needs = archives === 1 ? 'needs' : 'need'
  await page
    .getByRole('button', { name: `Install ${archives} that ${needs} no decision` })
    .click({ timeout: 120_000 })
  await expect(page.getByRole('listitem').filter({ hasText: 'needs no decision' })).toHaveCount(0)
  const over = page.getByRole('button', { name: 'Clear what is over' })
  if (await over.isVisible()) await over.click()
}

/** Carries a row by the pointer over others. */
export async function carry(page: Page, row: string, to: string, look?: () => Promise<void>): Promise<void> {
  const from = await page.getByRole('row', { name: row, exact: true }).boundingBox()
  const over = await page.getByRole('row', { name: to, exact: true }).boundingBox()
  if (!from || !over) throw new Error(`${row} or ${to} is not on the screen`)
  const x = from.x + 260
  await page.mouse.move(x, from.y + from.height / 2)
  await page.mouse.down()
  await page.mouse.move(x, from.y + from.height / 2 + 8, { steps: 2 })
  await page.mouse.move(x, over.y + over.height / 2, { steps: 8 })
  await look?.()
  await page.mouse.up()
}

/** The names of the rows of a list from the top down. */
export async function rows(page: Page): Promise<string[]> {
  await expect(page.locator('[role=row][aria-label]').first()).toBeVisible()
  return page
    .locator('[role=row][aria-label]')
    .evaluateAll((all) =>
      all
        .sort((a, b) => Number(a.getAttribute('aria-rowindex')) - Number(b.getAttribute('aria-rowindex')))
        .map((r) => r.getAttribute('aria-label') ?? ''),
    )
}

/**
 * Waits until the rows stand as they are expected to: a list is drawn anew some time after what
 * changed it has been said.
 *
 * @param expected what is to hold, with the place at which a row stands
 */
export async function inOrder(page: Page, expected: (at: (name: string) => number) => void): Promise<void> {
  await expect(async () => {
    const now = await rows(page)
    expected((name) => now.indexOf(name))
  }).toPass({ timeout: 60_000 })
}

/** Goes to a screen by the rail. */
export async function open(page: Page, screen: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Screens' })
    .getByRole('link', { name: new RegExp(`^${screen}`) })
    .click()
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
}

/** Waits until the page has said so in a notice. */
export async function said(page: Page, text: string | RegExp): Promise<void> {
  await expect(page.getByText(text).first()).toBeVisible()
}
