import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import {
  carry,
  drop,
  expect,
  INSTALL_ORDER,
  inOrder,
  installReady,
  open,
  rows,
  said,
  test,
} from '../support/test'

/** Every file of a folder by its content, Ironing's own note-keeping aside. */
function sums(folder: string): Map<string, string> {
  const all = readdirSync(folder, { recursive: true, withFileTypes: true })
  const files = all.filter((e) => e.isFile()).map((e) => join(e.parentPath, e.name).slice(folder.length + 1))
  const own = files.filter((f) => !f.startsWith('.ironing/'))
  return new Map(
    own.sort().map((f) => [
      f,
      createHash('sha256')
        .update(readFileSync(join(folder, f)))
        .digest('hex'),
    ]),
  )
}

test('from archives dropped on the page to a game that reports the combined outcome, and back', async ({
  page,
  world,
}) => {
  test.setTimeout(600_000)
  const folder = world.copyGame()
  const unmodded = sums(folder)

  await test.step('a workspace of the game’s folder', async () => {
    await page.goto('/workspaces')
    await page.getByLabel('Folder of the game').fill(folder)
    await page.getByRole('button', { name: 'Look at it' }).click()
    await expect(page.getByText('It brings its own definition.')).toBeVisible()
    await page.getByRole('button', { name: 'Make a workspace of it' }).click()
    await expect(page).toHaveURL(/\/workspaces\/\d+$/)
  })

  await test.step('the overview says to bring mods in', async () => {
    await expect(page.getByRole('link', { name: /Bring mods in/ })).toContainText('next')
    await page.getByRole('link', { name: /Bring mods in/ }).click()
    await expect(page.getByText('Drop the archives of your mods here')).toBeVisible()
  })

  await test.step('2: archives are dropped on the page, and each becomes a mod', async () => {
    await drop(
      page,
      'main',
      INSTALL_ORDER.map((name) => world.archive(name)),
    )
    await installReady(page, INSTALL_ORDER.length)
    await expect(page.getByText('Nothing waits here')).toBeVisible({ timeout: 120_000 })
    await open(page, 'Library')
    await expect(page.locator('[data-row]')).toHaveCount(INSTALL_ORDER.length)
    await expect(page.getByRole('row', { name: 'Harbourmaster’s Ledger' })).toContainText('2.1.0')
    await expect(page.getByRole('row', { name: 'Harbourmaster’s Ledger' })).toContainText(
      'Harbourmaster.plug',
    )
    await page.getByRole('row', { name: 'Night Ferry' }).click()
    await expect(page.getByRole('complementary')).toContainText('NightFerry.plug')
  })

  await test.step('3: layers: a drag puts the right files in play', async () => {
    await open(page, 'Layers')
    await expect(page.getByRole('grid')).toBeVisible()
    expect((await rows(page))[0]).toBe('Winter Timetable')
    await page.getByRole('row', { name: 'Community Caulking' }).click()
    const aside = page.getByRole('complementary')
    await expect(aside).toContainText('Covered (overwritten) by')
    await expect(aside.getByRole('button', { name: 'Harbourmaster’s Ledger' })).toBeVisible()
    await carry(page, 'Winter Timetable', 'Harbourmaster’s Ledger', async () => {
      await expect(page.getByText(/Dropping Winter Timetable above .* would/)).toBeVisible()
    })
    await said(page, /Winter Timetable is layer \d+ now/)
    await page.getByRole('row', { name: 'Harbourmaster’s Ledger' }).click()
    await expect(aside).toContainText('It covers (overwrites)')
    await expect(aside.getByText('this one').first()).toBeVisible()
  })

  await test.step('4: load order: the late master is told, and the proposal mends it', async () => {
    await open(page, 'Load order')
    await expect(page.getByRole('row', { name: 'NightFerry.plug' })).toContainText('master')
    await page.getByRole('button', { name: /See the proposal:/ }).click()
    await expect(page.getByRole('complementary')).toContainText('after Lamplight.plug')
    await page.getByRole('button', { name: /Take the move/ }).click()
    await expect(page).toHaveURL(/load-order$/)
    await inOrder(page, (at) => expect(at('NightFerry.plug')).toBeGreaterThan(at('Lamplight.plug')))
  })

  await test.step('5: records: what asks is decided, and the outcome goes into a patch', async () => {
    await open(page, 'Records')
    await page.getByRole('row', { name: 'Aud Helga' }).click()
    await expect(page.getByText('Which one?')).toBeVisible()
    await page.getByRole('radio', { name: /12 kn/ }).click()
    await expect(page.getByText('You took')).toBeVisible()
    await page.getByRole('row', { name: 'Lyngholm to Vardøya, by night' }).click()
    await page.getByRole('radio', { name: /6\.5/ }).click()
    await page.getByRole('button', { name: /Put the \d+ records into a patch/ }).click()
    await said(page, 'The patch is made')
    await expect(page.getByRole('button', { name: 'The patch is fresh' })).toBeVisible()
    await open(page, 'Load order')
    await expect.poll(async () => (await rows(page)).at(-1)).toBe('Everyday patch.plug')
  })

  await test.step('6: deploy: the plan, and the folder as it says', async () => {
    await page.getByRole('link', { name: 'Review and deploy' }).click()
    await expect(page.getByRole('listitem').filter({ hasText: /^\d+ to replace$/ })).toBeVisible()
    await page.getByRole('button', { name: /Deploy \d+ changes/ }).click()
    await expect(page.getByText('The game folder is as you arranged it').first()).toBeVisible()
    const list = readFileSync(join(folder, 'settings/roster.txt'), 'utf8')
    expect(list.trim().split('\n').at(-1)).toBe('use Everyday patch.plug')
  })

  await test.step('7: test run: the game reports the combined outcome', async () => {
    await open(page, 'Test run')
    await page.getByRole('button', { name: 'Start the game' }).click()
    await expect(page.getByText('played to its end').first()).toBeVisible({ timeout: 90_000 })
    const report = page.getByRole('region', { name: 'The day’s report' })
    await expect(report.getByText('Aud Helga').first()).toBeVisible()
    const told = await report.locator('section').evaluateAll((groups) =>
      groups.flatMap((g) =>
        Array.from(g.querySelectorAll('dl > div'), (line) => {
          const value = line.querySelector('dd:last-of-type')?.textContent
          return `${g.querySelector('h3')?.textContent}, ${line.querySelector('dt')?.textContent} = ${value}`
        }),
      ),
    )
    // one plugin gives the speed, others crew and hold: only the patch has all of them
    expect(told).toContain('Aud Helga, speed = 12.0kn')
    expect(told.find((t) => t.startsWith('Aud Helga, crew'))).toContain('Torfinn')
    expect(told.find((t) => t.startsWith('Aud Helga, hold'))).toContain('Rope 1')
    expect(told.join('\n')).toContain('7.5kn')
    await expect(report.getByTitle(/as Everyday patch\.plug has it/).first()).toBeVisible()
    await open(page, 'Overview')
    await expect(page.getByText('read by the game in the last run')).toBeVisible()
  })

  await test.step('and back: undeploying leaves the game as it was, and names what the game wrote', async () => {
    await page.getByRole('link', { name: 'Review and deploy' }).click()
    await page.getByRole('button', { name: 'Undeploy everything' }).click()
    await expect(page.getByText('Nothing is deployed: the game is as it was.')).toBeVisible()
    await page.getByRole('link', { name: 'Check the folder' }).click()
    await expect(page.getByRole('region', { name: /set aside/ })).toContainText('skerry.ini')
    const after = sums(folder)
    for (const path of after.keys()) {
      if (!unmodded.has(path)) {
        expect(path).toMatch(/^(logs|saves)\//)
        after.delete(path)
      }
    }
    // the game wrote to its saves: those are protected, and its own
    for (const path of unmodded.keys())
      if (path.startsWith('saves/')) [unmodded, after].map((m) => m.delete(path))
    expect(after).toEqual(unmodded)
  })
})
