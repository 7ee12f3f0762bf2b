import { carry, expect, rows, said, test } from '../support/test'

test.describe('Load order', () => {
  let workspace: number

  test.beforeEach(async ({ page, world }) => {
    workspace = await world.skerryLine()
    await page.goto(`/workspaces/${workspace}/load-order`)
    await expect(page.getByRole('row', { name: 'NightFerry.plug' })).toBeVisible()
  })

  test('slots, masters and a late master are told', async ({ page }) => {
    await expect(page.getByText(/^\d+ of 93 slots used by mods$/)).toBeVisible()
    await page.getByRole('row', { name: 'NightFerry.plug' }).click()
    const aside = page.getByRole('complementary')
    await expect(aside).toContainText('Lamplight.plug')
    await expect(aside).toContainText('loads after it')
  })

  test('a plugin is dragged after its master, and the trouble is gone', async ({ page }) => {
    await carry(page, 'NightFerry.plug', 'Lamplight.plug')
    await said(page, /NightFerry\.plug loads as \d+ now/)
    await expect(page.getByRole('row', { name: 'NightFerry.plug' })).not.toContainText('master')
    await page.goto(`/workspaces/${workspace}`)
    await expect(page.getByText('each after its masters')).toBeVisible()
  })

  test('the keyboard carries a plugin; what a stage or the game’s own stand in the way of is told', async ({
    page,
  }) => {
    const before = await rows(page)
    expect(before.slice(0, 4)).toEqual(['Skerry.plug', 'Isles.plug', 'RopeLocker.plug', 'HullsLarge.plug'])
    await page.getByRole('row', { name: 'Caulking.plug' }).focus()
    await page.keyboard.press('Space')
    await said(page, 'Caulking.plug is taken up.')
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Enter')
    await expect.poll(async () => (await rows(page)).indexOf('Caulking.plug')).toBe(5)
    await page.getByRole('row', { name: 'RopeLocker.plug' }).focus()
    await page.keyboard.press('Alt+ArrowDown')
    await said(page, /RopeLocker\.plug .*stage/)
    await expect.poll(async () => (await rows(page)).indexOf('RopeLocker.plug')).toBe(2)
  })

  test('switching a master off tells which plugin misses it, with a way to mend that', async ({ page }) => {
    const toggle = page.getByRole('row', { name: 'Lamplight.plug' }).getByRole('switch')
    await toggle.click()
    await said(page, /Lamplight\.plug switched off/)
    await page.goto(`/workspaces/${workspace}`)
    const wrinkle = page.getByRole('listitem').filter({ hasText: 'NightFerry.plug' })
    await expect(wrinkle.first()).toContainText('stops the game')
    await wrinkle.first().getByRole('button').first().click()
    await expect(page.getByRole('listitem').filter({ hasText: 'Lamplight.plug is off' })).toHaveCount(0)
  })

  test('a proposal changes nothing until it is taken, and can be left', async ({ page }) => {
    const before = await rows(page)
    await page.getByRole('button', { name: /See the proposal:/ }).click()
    await expect(page.getByText('Nothing changes until you take it.')).toBeVisible()
    await expect(page.getByRole('complementary')).toContainText('Fixed by the file')
    await page.getByRole('button', { name: 'Leave it' }).click()
    await expect.poll(() => rows(page)).toEqual(before)
  })
})
