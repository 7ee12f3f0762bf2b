// What somebody feels who works in Layers of a running Ironing: from the address to the first row with a fresh browser, two hundred
// acts by keys and pointer (how long the browser took to draw what each came to, the longest task of its thread, how far things
// jumped), what one move asks of the server, and ten tabs at once. Usage: node hands.mjs URL WORKSPACE
import { createRequire } from 'node:module'

const e2e = createRequire(new URL('../e2e/package.json', import.meta.url))
const { chromium } = e2e('@playwright/test')
const args = e2e('./support/chromium-args.json')
const [url, workspace] = process.argv.slice(2)
const layers = `${url}/workspaces/${workspace}/layers`
const ROWS = '[role=row][aria-label]'
const SIZE = { viewport: { width: 1280, height: 800 } }

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args })

/** In the page: notes how long events took to the frame that they led to, long tasks, and shifts of the layout. */
function watch() {
  window.seen = { events: [], tasks: [], shift: 0 }
  const note = (type, options, each) =>
    new PerformanceObserver((list) => list.getEntries().forEach(each)).observe({
      type,
      buffered: true,
      ...options,
    })
  note('event', { durationThreshold: 16 }, (e) => {
    if (e.interactionId) window.seen.events.push(e.duration)
  })
  note('longtask', {}, (e) => window.seen.tasks.push(e.duration))
  note('layout-shift', {}, (e) => {
    if (!e.hadRecentInput) window.seen.shift += e.value
  })
}

/** From the address to the first row, in a browser that has never been there. */
async function firstRow() {
  const context = await browser.newContext(SIZE)
  const page = await context.newPage()
  const began = performance.now()
  await page.goto(layers, { waitUntil: 'commit' })
  await page.locator(ROWS).first().waitFor()
  const took = performance.now() - began
  await context.close()
  return Math.round(took)
}

const median = (all) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)]
const firstRows = []
for (let i = 0; i < 5; i++) firstRows.push(await firstRow())

const context = await browser.newContext(SIZE)
await context.addInitScript(watch)
const page = await context.newPage()
await page.goto(layers)
await page.locator(ROWS).first().waitFor()
await page.waitForTimeout(3000)
await page.evaluate(() => {
  window.seen.tasks = []
})

let acts = 0
async function act(does) {
  await does()
  acts++
  await page.waitForTimeout(60)
}
const press = (key) => act(() => page.keyboard.press(key))
const repeat = async (times, does) => {
  for (let i = 0; i < times; i++) await does(i)
}
await act(() => page.locator(ROWS).nth(3).click())
await repeat(40, () => press('ArrowDown'))
await repeat(8, () => press('PageUp'))
await repeat(20, () => press('Shift+ArrowDown'))
await press('Escape')
await repeat(4, async () => {
  await act(() => page.locator(ROWS).nth(5).click({ button: 'right' }))
  await press('Escape')
})
await repeat(10, (i) =>
  act(() =>
    page
      .locator(ROWS)
      .nth(2 + i)
      .click(),
  ),
)
await press('/')
for (const letter of 'not off and on') await press(letter === ' ' ? 'Space' : letter)
await repeat(14, () => press('Backspace'))
await act(() => page.locator(ROWS).nth(4).click())
await repeat(10, (i) => press(i % 2 ? 'Alt+ArrowDown' : 'Alt+ArrowUp'))
for (const screen of ['Library', 'Overlaps', 'Mends', 'Deploy', 'Layers'])
  await act(() =>
    page
      .getByRole('navigation', { name: 'Screens' })
      .getByRole('link', { name: new RegExp(`^${screen}`) })
      .click(),
  )
await page.locator(ROWS).first().waitFor()
await act(() => page.locator(ROWS).nth(3).click())
while (acts < 200) await press(acts % 3 ? 'ArrowDown' : 'End')
await page.waitForTimeout(1500)
const seen = await page.evaluate(() => window.seen)
const events = seen.events.sort((a, b) => a - b)
// events that took less than 16 ms are not told: they count as that
const all = [...Array(Math.max(0, acts - events.length)).fill(16), ...events]

/** What a move asks of the server until nothing more is asked. */
await page.keyboard.press('Home')
await page.waitForTimeout(1500)
const asked = []
const listen = (r) => asked.push(r)
page.on('requestfinished', listen)
await page.keyboard.press('ArrowDown')
await page.waitForTimeout(1500)
asked.length = 0
await page.keyboard.press('Alt+ArrowDown')
await page.waitForTimeout(4000)
page.off('requestfinished', listen)
const ofApi = asked.filter((r) => r.url().includes('/api/'))
const asks = []
for (const r of ofApi)
  asks.push({
    ask: `${r.method()} ${new URL(r.url()).pathname}`,
    bytes: (await r.sizes()).responseBodySize,
  })
await page.keyboard.press('Control+z')
await page.waitForTimeout(1500)

// ten tabs of one browser: a move in the first, until the last has heard of it
const tabs = [page]
for (let i = 1; i < 10; i++) {
  const tab = await context.newPage()
  await tab.goto(layers)
  await tab.locator(ROWS).first().waitFor()
  tabs.push(tab)
}
const last = tabs[9]
const name = await page.locator(ROWS).nth(1).getAttribute('aria-label')
await page.bringToFront()
await page.locator(ROWS).nth(1).click()
const began = performance.now()
await page.keyboard.press('Alt+ArrowDown')
await last.bringToFront()
await last
  .locator(`${ROWS}[aria-rowindex="4"]`)
  .and(last.getByRole('row', { name, exact: true }))
  .waitFor()
const tenTabsMs = Math.round(performance.now() - began)
await last.keyboard.press('Control+z')
await last.waitForTimeout(1000)
await browser.close()
console.log(
  JSON.stringify({
    firstRowMs: median(firstRows),
    firstRows,
    acts,
    eventP95Ms: all[Math.ceil(all.length * 0.95) - 1],
    longestEventMs: all.at(-1),
    longestTaskMs: Math.round(Math.max(0, ...seen.tasks)),
    shift: Math.round(seen.shift * 1000) / 1000,
    moveRequests: ofApi.length,
    moveBytes: asks.reduce((n, a) => n + a.bytes, 0),
    moveAsks: asks,
    tenTabsMs,
  }),
)
