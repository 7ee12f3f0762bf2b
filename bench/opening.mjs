// How long Layers takes to its first rows when it is asked for as soon as a server that is starting answers. Start it before the
// server, so that the browser is there by then. Usage: node opening.mjs URL WORKSPACE
import { createRequire } from 'node:module'

const e2e = createRequire(new URL('../e2e/package.json', import.meta.url))
const { chromium } = e2e('@playwright/test')
const args = e2e('./support/chromium-args.json')
const [url, workspace] = process.argv.slice(2)

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })

const answers = async () => {
  try {
    return (await fetch(`${url}/actuator/health`)).ok
  } catch {
    return false
  }
}
const asked = performance.now()
while (!(await answers())) {
  if (performance.now() - asked > 120_000) throw new Error(`${url} does not answer`)
  await new Promise((r) => setTimeout(r, 50))
}

const began = performance.now()
const row = page.locator('[role=row][aria-label]').first()
await page.goto(`${url}/workspaces/${workspace}/layers`, { waitUntil: 'commit' })
await row.waitFor({ timeout: 120_000 })
const rowsMs = performance.now() - began
await browser.close()
console.log(JSON.stringify({ rowsMs: Math.round(rowsMs) }))
