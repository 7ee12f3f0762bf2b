// A mod of very many files, opened in the page of a running Ironing: the longest task of the page's thread, and how long
// its tree takes. Usage: node large-mod.mjs URL FOLDER ARCHIVE, where FOLDER holds the “game” of a workspace.
import { readFileSync, realpathSync } from 'node:fs'
import { createRequire } from 'node:module'
import { basename, join } from 'node:path'

const e2e = createRequire(new URL('../e2e/package.json', import.meta.url))
const { chromium } = e2e('@playwright/test')
const args = e2e('./support/chromium-args.json')
const [url, folder, archive] = process.argv.slice(2)

async function api(method, path, body, headers = {}) {
  const raw = Buffer.isBuffer(body)
  const answer = await fetch(`${url}/api${path}`, {
    method,
    headers: { 'Content-Type': raw ? 'application/octet-stream' : 'application/json', ...headers },
    body: raw ? body : JSON.stringify(body),
  })
  if (!answer.ok) throw new Error(`${method} ${path}: ${await answer.text()}`)
  return answer.json()
}

const workspaces = await (await fetch(`${url}/api/workspaces`)).json()
const game = realpathSync(join(folder, 'game'))
const workspace = workspaces.find((w) => w.folder === game).id
const base = `/workspaces/${workspace}`
const sent = await api('POST', `${base}/archives?name=${basename(archive)}`, readFileSync(archive))
const job = await api('POST', `${base}/mods`, { archive: sent.id }, { Prefer: 'wait=600' })

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.addInitScript(() => {
  window.tasks = []
  new PerformanceObserver((list) => {
    for (const e of list.getEntries()) window.tasks.push(e.duration)
  }).observe({ type: 'longtask', buffered: true })
})
// the page itself is read and compiled first: what counts is the mod
await page.goto(`${url}${base}/library/${job.result}/about`)
await page.getByRole('radio', { name: '50,000 files' }).waitFor()
await page.waitForTimeout(1500)
const began = await page.evaluate(() => {
  window.tasks = []
  return performance.now()
})
await page.getByRole('radio', { name: '50,000 files' }).click()
await page.getByRole('treeitem').first().waitFor()
const openedMs = Math.round((await page.evaluate(() => performance.now())) - began)
for (const name of ['textures', 'quarter0', 'street0']) {
  const item = page.getByRole('treeitem', { name, exact: true })
  await item.click()
  if ((await item.getAttribute('aria-expanded')) === 'false') await page.keyboard.press('ArrowRight')
}
for (let i = 0; i < 20; i++) await page.mouse.wheel(0, 900)
await page
  .getByRole('searchbox', { name: 'Find a file of the mod' })
  .pressSequentially('house12', { delay: 60 })
await page.waitForTimeout(1000)
const tasks = await page.evaluate(() => window.tasks)
await browser.close()
console.log(
  JSON.stringify({ openedMs, longestTaskMs: Math.round(Math.max(0, ...tasks)), longTasks: tasks.length }),
)
