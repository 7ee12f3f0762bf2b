// A long list in the page of a running Ironing, two thousand layers or four thousand plugins: the longest tasks of the page's
// thread while it scrolls, carries a row and, in Layers, filters, and how long a letter in the filter takes to the rows that it
// leaves. Usage: node large-list.mjs URL WORKSPACE layers|load-order
import { createRequire } from 'node:module'

const e2e = createRequire(new URL('../e2e/package.json', import.meta.url))
const { chromium } = e2e('@playwright/test')
const args = e2e('./support/chromium-args.json')
const [url, workspace, view] = process.argv.slice(2)

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.addInitScript(() => {
  window.tasks = []
  new PerformanceObserver((list) => {
    for (const e of list.getEntries()) window.tasks.push(e.duration)
  }).observe({ type: 'longtask', buffered: true })
})
const began = performance.now()
await page.goto(`${url}/workspaces/${workspace}/${view}`, { waitUntil: 'commit' })
const row = page.locator('[role=row][aria-label]')
await row.first().waitFor()
const openedMs = performance.now() - began
await page.waitForTimeout(3000)

/** The longest task while something is done; one under 50 ms is not told by the browser, and counts as 0. */
async function longest(act) {
  await page.evaluate(() => {
    window.tasks = []
  })
  await act()
  await page.waitForTimeout(300)
  return Math.round(await page.evaluate(() => Math.max(0, ...window.tasks)))
}

const box = await row.nth(6).boundingBox()
const scrollMs = await longest(async () => {
  await page.mouse.move(box.x + 300, box.y + 10)
  for (let i = 0; i < 60; i++) {
    await page.mouse.wheel(0, 300)
    await page.waitForTimeout(16)
  }
})
const dragMs = await longest(async () => {
  await page.mouse.move(box.x + 300, box.y + 10)
  await page.mouse.down()
  for (let i = 1; i < 60; i++) {
    await page.mouse.move(box.x + 300, box.y + 10 + ((i * 7) % 300))
    await page.waitForTimeout(16)
  }
  await page.keyboard.press('Escape')
  await page.mouse.up()
})
// from the key to the frame in which the count of what is shown has changed
const filterTimes = []
const filters = view === 'layers'
if (filters) await page.getByLabel('Show only layers that').focus()
const filterMs = await longest(async () => {
  for (const letter of filters ? 'mod 17 on' : '') {
    await page.evaluate(() => {
      const input = document.activeElement
      window.filtered = new Promise((done) => {
        input.addEventListener(
          'input',
          () => {
            const pressed = performance.now()
            requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - pressed)))
          },
          { once: true },
        )
      })
    })
    await page.keyboard.press(letter === ' ' ? 'Space' : letter)
    filterTimes.push(await page.evaluate(() => window.filtered))
    await page.waitForTimeout(120)
  }
})
await browser.close()
console.log(
  JSON.stringify({
    openedMs: Math.round(openedMs),
    scrollMs,
    dragMs,
    filterMs,
    letterMs: Math.round(Math.max(0, ...filterTimes)),
  }),
)
