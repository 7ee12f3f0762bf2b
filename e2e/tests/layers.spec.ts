import { carry, expect, rows, said, test } from '../support/test'

test.describe('Layers', () => {
  let workspace: number

  test.beforeEach(async ({ page, world }) => {
    workspace = await world.skerryLine()
    await page.goto(`/workspaces/${workspace}/layers`)
    await expect(page.getByRole('row', { name: 'Skerry Line' })).toBeVisible()
  })

  test('the highest layer is on top, the game at the bottom, and it stays there', async ({ page }) => {
    const order = await rows(page)
    expect(order[0]).toBe('Winter Timetable')
    expect(order.at(-1)).toBe('Skerry Line')
    await carry(page, 'Community Caulking', 'Skerry Line')
    await expect.poll(async () => (await rows(page)).at(-1)).toBe('Skerry Line')
  })

  test('a row is carried by the keyboard, says what would change, and Escape leaves it', async ({ page }) => {
    const before = await rows(page)
    await page.getByRole('row', { name: 'Winter Timetable' }).focus()
    await page.keyboard.press('Space')
    await said(page, 'Winter Timetable is taken up.')
    for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowDown')
    await expect(page.getByText(/Dropping Winter Timetable above/)).toContainText('would')
    await page.keyboard.press('Escape')
    await expect(page.getByText(/Dropping Winter Timetable/)).toBeHidden()
    await expect.poll(() => rows(page)).toEqual(before)
    await page.keyboard.press('Space')
    await said(page, 'Winter Timetable is taken up.')
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Space')
    await expect.poll(async () => (await rows(page)).indexOf('Winter Timetable')).toBe(1)
  })

  test('Alt with an arrow moves a layer by one, and Ctrl Z takes it back', async ({ page }) => {
    const before = await rows(page)
    const name = before[2] as string
    await page.getByRole('row', { name }).click()
    await expect(page.getByRole('complementary', { name })).toBeVisible()
    await page.keyboard.press('Alt+ArrowUp')
    await said(page, new RegExp(`${name} is layer ${before.length - 2} now`))
    await expect.poll(async () => (await rows(page)).indexOf(name)).toBe(1)
    await page.keyboard.press('Control+z')
    await said(page, /Undone/)
    await expect.poll(() => rows(page)).toEqual(before)
    await page.keyboard.press('Control+Shift+z')
    await expect.poll(async () => (await rows(page)).indexOf(name)).toBe(1)
  })

  test('arrows walk the rows and typing finds one', async ({ page }) => {
    await page.getByRole('row', { name: 'Winter Timetable' }).focus()
    await page.keyboard.press('End')
    await expect(page.getByRole('row', { name: 'Skerry Line' })).toBeFocused()
    await page.keyboard.type('fog')
    await expect(page.getByRole('row', { name: 'Fogbound Weather' })).toBeFocused()
    await expect(page).toHaveURL(/layers\/\d+$/)
    await expect(page.getByRole('complementary', { name: 'Fogbound Weather' })).toBeVisible()
  })

  test('in a window of a few rows the focus goes with the keys, to rows that were not drawn yet', async ({
    page,
  }) => {
    await page.setViewportSize({ width: 1280, height: 400 })
    await page.getByRole('row', { name: 'Winter Timetable' }).focus()
    await page.keyboard.press('End')
    await expect(page.getByRole('row', { name: 'Skerry Line' })).toBeFocused()
    await page.keyboard.press('Home')
    await expect(page.getByRole('row', { name: 'Winter Timetable' })).toBeFocused()
    await page.keyboard.press('PageDown')
    await page.keyboard.press('PageDown')
    await page.keyboard.press('PageDown')
    await expect(page.locator('[role=row]:focus')).toBeInViewport({ ratio: 0.9 })
  })

  test('a bar that is pointed at says how the files stand', async ({ page }) => {
    const bar = page
      .getByRole('row', { name: 'Winter Timetable' })
      .getByRole('img', { name: /in play/ })
      .first()
    const words = await bar.getAttribute('aria-label')
    await bar.hover()
    await expect(page.getByRole('tooltip')).toContainText(words ?? '?')
    await page.keyboard.press('Escape')
    await expect(page.getByRole('tooltip')).toBeHidden()
    await page.mouse.move(5, 5)
    await bar.hover()
    await expect(page.getByRole('tooltip')).toBeVisible()
    await page.mouse.move(5, 5)
    await expect(page.getByRole('tooltip')).toBeHidden()
  })

  test('switching a layer off says what it does, and its relations with it go', async ({ page }) => {
    await page.getByRole('row', { name: 'Harbourmaster’s Ledger' }).click()
    // what is said beside the list makes it narrower: the switch stands still only then
    await expect(page.getByRole('complementary', { name: 'Harbourmaster’s Ledger' })).toContainText(
      'It covers',
    )
    const toggle = page.getByRole('row', { name: 'Harbourmaster’s Ledger' }).getByRole('switch')
    await expect(toggle).toBeChecked()
    await toggle.click()
    await said(page, /Harbourmaster’s Ledger switched off/)
    await expect(page.getByRole('complementary')).toContainText(
      'Switched off: nothing of it reaches the game.',
    )
    await page.getByRole('row', { name: 'Community Caulking' }).click()
    await expect(page.getByRole('complementary')).not.toContainText('Harbourmaster')
  })

  test('relations count the paths, and a click on a count keeps only those of the two', async ({ page }) => {
    await page.getByRole('row', { name: 'Community Caulking' }).click()
    const aside = page.getByRole('complementary')
    const covered = aside.getByRole('region', { name: 'Covered (overwritten) by' })
    const related = covered.getByRole('listitem').filter({ hasText: 'Harbourmaster’s Ledger' })
    const count = related.getByRole('button', { name: /path/ })
    const paths = Number((await count.textContent())?.replace(/\D/g, ''))
    expect(paths).toBeGreaterThan(1)
    await count.click()
    await expect(count).toHaveAttribute('aria-pressed', 'true')
    const shown = aside
      .getByRole('region', { name: /contested paths with Harbourmaster/ })
      .getByRole('listitem')
    await expect(shown).toHaveCount(paths)
  })

  test('a second tab follows what is done in the first', async ({ page, context }) => {
    const second = await context.newPage()
    await second.goto(`/workspaces/${workspace}/layers`)
    await expect(second.getByRole('row', { name: 'Winter Timetable' })).toBeVisible()
    await page.getByRole('row', { name: 'Winter Timetable' }).focus()
    await page.keyboard.press('Alt+ArrowDown')
    await expect.poll(async () => (await rows(second)).indexOf('Winter Timetable')).toBe(1)
  })

  test('overlaps: every contested path with the file in play; finding and comparing', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/overlaps?show=list`)
    const list = page.getByRole('grid', { name: 'Contested paths' })
    await expect(list.locator('[data-row]').first()).toBeVisible()
    await page.getByLabel('Part of a path').fill('bollards')
    await expect(list.locator('[data-row]')).toHaveCount(2)
    await expect(list.locator('[data-row]').filter({ hasText: 'iron.png' })).toContainText(
      'Harbourmaster’s Ledger',
    )
    await list
      .getByRole('link', { name: /Harbourmaster/ })
      .first()
      .hover()
    await expect(page.getByRole('tooltip')).toContainText('stands above layer')
  })
})
