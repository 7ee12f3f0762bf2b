// The page of a running Ironing, measured in Chromium: one line of JSON for each figure, in milliseconds.
// Usage: node page.mjs URL WORLD FOLDER, where FOLDER holds the “game” of a workspace.
import { mkdtempSync, realpathSync, rmSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

// the browser is driven by what the tests of the page drive it with
const e2e = createRequire(new URL('../e2e/package.json', import.meta.url))
const { chromium } = e2e('@playwright/test')
const args = e2e('./support/chromium-args.json')
const [url, world, folder] = process.argv.slice(2)
const ROWS = '[role=row][aria-label]'

function report(measure, millis) {
  const sorted = [...millis].sort((a, b) => a - b)
  const at = (i) => Math.round(sorted[i] * 10) / 10
  const line = {
    measure,
    world,
    times: sorted.length,
    medianMs: at(Math.floor(sorted.length / 2)),
    p95Ms: at(Math.ceil(sorted.length * 0.95) - 1),
  }
  console.log(JSON.stringify(line))
}

/** From the address, in a new tab, to the first thing of a kind. */
async function opened(browser, address, first) {
  const page = await browser.newPage()
  const began = performance.now()
  await page.goto(address, { waitUntil: 'commit' })
  await page.locator(first).first().waitFor()
  const took = performance.now() - began
  await page.close()
  return took
}

/** From the key to the frame in which the row stands in its new place, and to the one that says what changed. */
async function move(page, key) {
  const row = page.locator(`${ROWS}[aria-selected=true]`)
  await row.focus()
  await page.evaluate(() => {
    const label = document.activeElement.getAttribute('aria-label')
    const place = () =>
      document.querySelector(`[role=row][aria-selected=true]`)?.getAttribute('aria-rowindex')
    const before = place()
    window.moved = new Promise((resolve) => {
      const seen = {}
      let pressed = 0
      let number = ''
      const note = (what) => {
        if (seen[what] !== undefined) return
        seen[what] = null
        requestAnimationFrame(() => {
          seen[what] = performance.now() - pressed
          if (seen.shown && seen.said) {
            observer.disconnect()
            resolve(seen)
          }
        })
      }
      const observer = new MutationObserver(() => {
        if (!pressed) return
        if (place() !== before) note('shown')
        const text = [...document.querySelectorAll('li b')].find((b) =>
          b.textContent.startsWith(`${label} is layer`),
        )
        if (text && text.textContent !== number) note('said')
      })
      const old = [...document.querySelectorAll('li b')].find((b) =>
        b.textContent.startsWith(`${label} is layer`),
      )
      number = old?.textContent ?? ''
      addEventListener(
        'keydown',
        (e) => {
          pressed = e.timeStamp
        },
        { capture: true, once: true },
      )
      observer.observe(document.body, {
        subtree: true,
        childList: true,
        characterData: true,
        attributes: true,
      })
    })
  })
  await page.keyboard.press(key)
  const seen = await page.evaluate(() => window.moved)
  // what follows the change on the page is not part of the next one
  await page.waitForTimeout(400)
  return seen
}

/** A browser as people have one: with a profile on disk, which keeps compiled scripts from visit to visit. */
async function browserWith(profile) {
  return chromium.launchPersistentContext(profile, {
    viewport: { width: 1280, height: 800 },
    executablePath: process.env.IRONING_CHROMIUM ?? '/usr/bin/chromium',
    args,
  })
}

const workspaces = await (await fetch(`${url}/api/workspaces`)).json()
const workspace = workspaces.find((w) => w.folder === join(realpathSync(folder), 'game'))
const layers = `${url}/workspaces/${workspace.id}/layers`

const profiles = []
const newProfile = () => {
  profiles.push(mkdtempSync(join(tmpdir(), 'ironing-bench-profile-')))
  return browserWith(profiles.at(-1))
}

const firsts = []
for (let i = 0; i < 5; i++) {
  const fresh = await newProfile()
  firsts.push(await opened(fresh, layers, ROWS))
  await fresh.close()
}
report('page: Layers, the first visit of a browser', firsts)

const browser = await newProfile()
await opened(browser, layers, ROWS)
const empty = []
const pages = []
for (let i = 0; i < 9; i++) {
  empty.push(await opened(browser, `${url}/icon.svg`, 'svg'))
  pages.push(await opened(browser, layers, ROWS))
}
// the browser keeps compiled scripts from the second visit on
report('page: Layers, a later visit, in a new tab', pages.slice(2))
report('page: a picture alone in a new tab, for comparison', empty.slice(2))

const page = await browser.newPage()
page.setDefaultTimeout(20_000)
await page.goto(layers)
await page.locator(ROWS).first().waitFor()
const clicks = []
for (let i = 0; i < 8; i++) {
  await page.getByRole('link', { name: /^Deploy/ }).click()
  await page.waitForTimeout(500)
  const began = performance.now()
  await page.getByRole('link', { name: /^Layers/ }).click()
  await page.locator(`${ROWS}[aria-rowindex="2"]`).waitFor()
  clicks.push(performance.now() - began)
}
report('page: Layers, by a click from another screen', clicks.slice(2))

await page.locator(ROWS).nth(3).click()
const moves = []
for (let i = 0; i < 24; i++) moves.push(await move(page, i % 2 ? 'Alt+ArrowUp' : 'Alt+ArrowDown'))
report(
  'page: a move, from the key to the new order',
  moves.slice(4).map((m) => m.shown),
)
report(
  'page: a move, from the key to what it changed',
  moves.slice(4).map((m) => m.said),
)
await browser.close()
for (const p of profiles) rmSync(p, { recursive: true, force: true })
