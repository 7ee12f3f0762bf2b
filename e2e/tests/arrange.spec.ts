import { carry, expect, inOrder, rows, said, test } from '../support/test'

test.describe('Arranging layers', () => {
  let workspace: number

  test.beforeEach(async ({ page, world }) => {
    workspace = await world.skerryLine()
    await page.goto(`/workspaces/${workspace}/layers`)
    await expect(page.getByRole('row', { name: 'Skerry Line' })).toBeVisible()
  })

  const toolbar = (page: import('@playwright/test').Page) => page.getByRole('toolbar')

  test('several layers are chosen and carried together, with what that would change', async ({ page }) => {
    await page.getByRole('row', { name: 'Winter Timetable' }).click()
    await page.getByRole('row', { name: 'Quiet Gulls' }).click({ modifiers: ['Shift'] })
    await expect(toolbar(page)).toContainText('3 layers')
    await carry(page, 'Steady Compass', 'Clearer Charts', async () => {
      await expect(page.getByText(/Dropping 3 layers above/)).toContainText(
        /would change|Nothing in the game/,
      )
    })
    await said(page, /3 layers moved/)
    await inOrder(page, (at) => {
      expect(at('Steady Compass')).toBe(at('Winter Timetable') + 1)
      expect(at('Winter Timetable')).toBeGreaterThan(at('Lamplight'))
    })
    await toolbar(page).getByRole('button', { name: 'Switch off' }).click()
    await said(page, /3 layers switched off/)
    await expect(page.getByRole('switch', { checked: false })).toHaveCount(3)
  })

  test('a layer is moved directly above another one by the keyboard alone', async ({ page }) => {
    await page.getByRole('row', { name: 'Community Caulking' }).click()
    await toolbar(page).getByRole('button', { name: 'Move …' }).focus()
    await page.keyboard.press('Enter')
    const dialog = page.getByRole('dialog', { name: /Move 1 layer/ })
    await dialog.getByLabel('Find the other layer').fill('lamp')
    await expect(dialog.getByRole('status')).toContainText(/would change|Nothing in the game/)
    await page.keyboard.press('Enter')
    await said(page, /Community Caulking is layer/)
    const order = await rows(page)
    expect(order.indexOf('Community Caulking')).toBe(order.indexOf('Lamplight') - 1)
  })

  test('a section is made, folded, moved as one and dissolved', async ({ page }) => {
    await page.getByRole('row', { name: 'Fogbound Weather' }).click()
    await page.getByRole('row', { name: 'Hull Textures, large' }).click({ modifiers: ['Shift'] })
    await toolbar(page).getByRole('button', { name: 'More to do with them' }).click()
    await page.getByRole('menuitem', { name: 'Make a section of them …' }).click()
    await page.getByLabel('Name of the new section').fill('How it looks')
    await page.getByRole('button', { name: 'Put them there' }).click()
    await said(page, /3 layers put into a section/)
    await page.getByRole('button', { name: 'Fold How it looks, 3 layers' }).click()
    await expect(page.getByRole('row', { name: 'How it looks' })).toContainText('3 layers')
    await expect(page.getByRole('row', { name: 'Clearer Charts' })).toBeHidden()
    await page.getByRole('row', { name: 'How it looks' }).focus()
    await page.keyboard.press('Alt+ArrowUp')
    await said(page, /3 layers moved/)
    // how it is shown is kept a moment later: a reload before that would show it folded
    const kept = page.waitForResponse(
      (r) => r.request().method() === 'PUT' && r.url().endsWith('/layers/shown'),
    )
    await page.keyboard.press('ArrowRight')
    await expect.poll(() => rows(page)).toContain('Clearer Charts')
    await kept
    await inOrder(page, (at) => expect(at('Bigger Bollards')).toBe(at('Hull Textures, large') + 1))
    await page.reload()
    await expect(page.getByTitle('How it looks: choose its 3 layers')).toBeVisible()
    await page.getByTitle('How it looks: choose its 3 layers').click()
    await toolbar(page).getByRole('button', { name: 'More to do with them' }).click()
    await page.getByRole('menuitem', { name: 'Dissolve “How it looks”' }).click()
    await said(page, /The section How it looks is dissolved/)
    await expect(page.getByTitle(/How it looks/)).toHaveCount(0)
  })

  test('a filter is typed, seen, turned about and kept as a view; sorting leaves the order alone', async ({
    page,
  }) => {
    const before = await rows(page)
    await page.getByLabel('Show only layers that').fill('has plugin and not contested')
    const status = page.getByRole('status').filter({ hasText: 'shown' })
    await expect(status).toContainText(/of 13 layers shown/)
    await expect.poll(async () => (await rows(page)).length).toBeLessThan(before.length)
    await status.getByRole('button', { name: 'not contested', exact: true }).click()
    await expect(page.getByLabel('Show only layers that')).toHaveValue('has plugin and contested')
    await page.getByRole('button', { name: 'Saved views' }).click()
    await page.getByLabel('Name of the view').fill('Plugins in dispute')
    await page.getByRole('button', { name: 'Keep', exact: true }).click()
    await page.keyboard.press('Escape')
    await status.getByRole('button', { name: 'Show all' }).click()
    await expect.poll(() => rows(page)).toEqual(before)
    await page.getByRole('button', { name: 'Saved views' }).click()
    await page.getByRole('menuitem', { name: /Plugins in dispute has plugin/ }).click()
    await expect(page.getByLabel('Show only layers that')).toHaveValue('has plugin and contested')
    await status.getByRole('button', { name: 'Show all' }).click()
    await page.getByRole('button', { name: 'Columns, sorting and export' }).click()
    await page.getByRole('menuitemradio', { name: 'name' }).click()
    await expect.poll(async () => (await rows(page))[0]).toBe('Bigger Bollards')
    await page.getByRole('button', { name: 'install order' }).click()
    await expect.poll(() => rows(page)).toEqual(before)
  })

  test('files inside are found, and what is chosen is what is shown', async ({ page }) => {
    await page.getByLabel('Show only layers that').fill('file has tariffs')
    await expect.poll(async () => (await rows(page)).length).toBe(2)
    await page.locator('[role=row][aria-label]').first().click()
    await page.keyboard.press('Control+a')
    await expect(toolbar(page)).toContainText('2 layers')
  })

  test('a broken rule is shown with the move that mends it', async ({ page }) => {
    await page.getByRole('row', { name: 'Quiet Gulls' }).click()
    await toolbar(page).getByRole('button', { name: 'More to do with them' }).click()
    await page.getByRole('menuitem', { name: 'Make a rule …' }).click()
    const dialog = page.getByRole('dialog', { name: 'A rule for Quiet Gulls' })
    await dialog.getByLabel('Where it is to stand').selectOption('always on top')
    await dialog.getByLabel('Why').fill('the last word on gulls')
    await dialog.getByRole('button', { name: 'Make the rule' }).click()
    await said(page, /The rule is made/)
    await page.getByRole('link', { name: /broken/ }).click()
    const rule = page.getByRole('listitem').filter({ hasText: 'always on top' })
    await expect(rule).toContainText('the last word on gulls (you)')
    await rule.getByRole('button', { name: 'What would mend it?' }).click()
    await expect(rule.getByRole('status')).toContainText(/would change|Nothing in the game/)
    await rule.getByRole('button', { name: 'Make that move' }).click()
    await said(page, /The rule holds again/)
    await page.getByRole('button', { name: 'Back to the layers' }).click()
    await expect.poll(async () => (await rows(page))[0]).toBe('Quiet Gulls')
  })

  test('an order is proposed with reasons, and taken in part', async ({ page }) => {
    await page.getByRole('button', { name: 'Propose an order' }).click()
    const moves = page.getByRole('listitem').filter({ has: page.getByRole('checkbox') })
    await expect(moves.first()).toContainText('above')
    const all = await moves.count()
    await moves.first().getByRole('checkbox').uncheck()
    await page.getByRole('button', { name: `Take ${all - 1} of ${all}` }).click()
    await said(page, /The proposal is taken/)
    await page.getByRole('button', { name: 'Propose an order' }).click()
    await expect(moves).toHaveCount(1)
  })

  test('profiles: a copy has its own order and undo, is compared, and parts are carried over', async ({
    page,
  }) => {
    const before = await rows(page)
    await page.getByRole('link', { name: /profile Everyday/ }).click()
    await page.getByRole('button', { name: 'New profile' }).click()
    await page.getByLabel('Name of the new profile').fill('Trial')
    await page.getByRole('button', { name: 'Copy Everyday' }).click()
    await page.getByRole('listitem').filter({ hasText: 'Trial' }).getByRole('button', { name: 'Use' }).click()
    await said(page, /The profile is in use/)
    await page.goto(`/workspaces/${workspace}/layers`)
    await page.getByRole('row', { name: 'Community Caulking' }).click()
    await toolbar(page).getByRole('button', { name: 'More to do with them' }).click()
    await page.getByRole('menuitem', { name: 'To the top' }).click()
    await expect.poll(async () => (await rows(page))[0]).toBe('Community Caulking')
    await page.goto(`/workspaces/${workspace}/profiles`)
    await page
      .getByRole('listitem')
      .filter({ hasText: 'Everyday' })
      .getByRole('button', { name: 'Use' })
      .click()
    await said(page, /The profile is in use/)
    await expect(page.getByRole('region', { name: 'Order' })).toContainText('Community Caulking')
    await page.goto(`/workspaces/${workspace}/layers`)
    await expect.poll(() => rows(page)).toEqual(before)
    await page.goto(`/workspaces/${workspace}/profiles`)
    await page.getByRole('checkbox', { name: /at another place/ }).check()
    await page.getByRole('button', { name: 'Carry what is ticked over into Everyday' }).click()
    await said(page, /Carried over/)
    await expect(page.getByText('The two are the same.')).toBeVisible()
  })

  test('the timeline goes back to a place that was given a name', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/timeline`)
    await page.getByLabel(/Name of a restore point/).fill('As it came')
    await page.getByRole('button', { name: 'Keep' }).click()
    await said(page, /This place is called/)
    await page.goto(`/workspaces/${workspace}/layers`)
    const before = await rows(page)
    await page.getByRole('row', { name: 'Winter Timetable' }).click()
    await page.keyboard.press('Alt+ArrowDown')
    await said(page, /is layer/)
    await page.goto(`/workspaces/${workspace}/timeline`)
    await expect(page.locator('[data-row]').first()).toContainText('Moved “Winter Timetable”')
    await page.getByRole('button', { name: /As it came/ }).click()
    await expect(
      page.getByRole('status').filter({ hasText: /would change|Nothing in the game/ }),
    ).toBeVisible()
    await page.getByRole('button', { name: 'Go back to it' }).click()
    await said(page, /Gone back/)
    await page.goto(`/workspaces/${workspace}/layers`)
    await expect.poll(() => rows(page)).toEqual(before)
  })
})
