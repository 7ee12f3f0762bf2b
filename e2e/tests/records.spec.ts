import { expect, said, test } from '../support/test'

test.describe('Records', () => {
  let workspace: number

  test.beforeEach(async ({ page, world }) => {
    workspace = await world.skerryLine()
    await world.change(workspace, 'POST', '/load-order/proposal')
    await page.goto(`/workspaces/${workspace}/records/Skerry.plug/420`)
    await expect(page.getByRole('heading', { name: /Aud Helga/ })).toBeVisible()
  })

  test('field by field: before, who changed it, the outcome and why', async ({ page }) => {
    const board = page.getByRole('region', { name: 'Aud Helga' })
    await expect(board).toContainText('First defined in Skerry.plug')
    await expect(board).toContainText('2 plugins changed it, in different ways')
    await expect(board).toContainText('all additions and removals together')
    await expect(board).toContainText(/only .* changed it/)
    await expect(board).toContainText(/loses \d+ changes? of others/)
    await expect(board.getByRole('region', { name: 'Versions' })).toContainText('Harbourmaster.plug')
    await expect(board.getByRole('region', { name: 'References' })).toContainText('Lyngholm')
  })

  test('a question is answered by the keyboard, and the answer taken back', async ({ page }) => {
    const question = page.getByRole('group', { name: 'Which one?' })
    await question.getByRole('radio').first().focus()
    await page.keyboard.press('Space')
    const taken = page.getByRole('group', { name: 'You took' })
    await expect(taken.getByRole('radio').first()).toBeChecked()
    // arrows walk through the answers and write nothing
    await page.keyboard.press('ArrowDown')
    await expect(taken.getByRole('radio').nth(1)).toBeFocused()
    await expect(taken.getByRole('radio').first()).toBeChecked()
    await page.keyboard.press('Enter')
    await expect(taken.getByRole('radio').nth(1)).toBeChecked()
    await page.reload()
    await expect(taken.getByRole('radio').nth(1)).toBeChecked()
    await taken.getByRole('button', { name: 'Take the decision back' }).click()
    await expect(question).toBeVisible()
  })

  test('a value is written, and a reference picked by name', async ({ page }) => {
    const board = page.getByRole('region', { name: 'Aud Helga' })
    await board.getByRole('button', { name: 'Write another value' }).first().click()
    await page.getByLabel('speed in kn').fill('13,5')
    await page.getByRole('button', { name: 'Write it' }).click()
    await expect(board.getByText('you wrote it')).toBeVisible()
    await expect(board.getByRole('radio', { name: '13.5 kn your own' })).toBeChecked()
    await page.getByRole('row', { name: 'Tordis' }).click()
    const tordis = page.getByRole('region', { name: 'Tordis' })
    await tordis.getByText(/more fields are the same everywhere/).click()
    await tordis.getByRole('button', { name: 'Write another berth' }).click()
    await tordis.getByLabel('berth: find by name').fill('grunn')
    await tordis.getByRole('radio', { name: /Grunnfjord/ }).check()
    await tordis.getByRole('button', { name: 'Write it' }).click()
    await expect(tordis.getByRole('radio', { name: 'Grunnfjord your own' })).toBeChecked()
  })

  test('a sequence that two lengthen is offered laid into one another', async ({ page }) => {
    await page.getByRole('row', { name: 'Tordis' }).click()
    const board = page.getByRole('region', { name: 'Tordis' })
    await board.getByRole('radio', { name: /the changes laid into one another/ }).click()
    await expect(board.getByText('you took both, laid into one another')).toBeVisible()
    await expect(
      board.getByRole('radio', { name: /Lyngholm, Krossvik, Tindesund, Maurholm, Ytre Lauvøy/ }),
    ).toBeChecked()
  })

  test('records are found by name, value and state, and by what a plugin loses', async ({ page }) => {
    const list = page.getByRole('grid', { name: 'Records' })
    const find = page.getByRole('searchbox', { name: /Find a record/ })
    await find.fill('gamle')
    await expect(list.locator('[data-row]')).toHaveCount(1)
    await find.fill('depth > 6')
    await expect(list.getByRole('row', { name: 'Lyngholm', exact: true })).toBeVisible()
    await expect(list.locator('[data-row]')).toHaveCount(1)
    await find.fill('')
    await page.getByRole('button', { name: /^all \d+/ }).click()
    await page.getByLabel('What does a plugin lose').selectOption('Lamplight.plug')
    await expect(list.getByRole('row', { name: 'Vardøya light' })).toBeVisible()
    await page.getByLabel('What does a plugin lose').selectOption('')
    await page.getByLabel('Of which type').selectOption('weather')
    await expect(list.getByRole('row', { name: 'Sea fog' })).toBeVisible()
  })

  test('one pattern decides many, after they were shown', async ({ page }) => {
    await page.getByRole('button', { name: 'Decide by pattern' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('For all').selectOption('tariff')
    await dialog.getByLabel('whose field').fill('surcharge')
    await dialog.getByLabel('comes from').selectOption('WinterTimetable.plug')
    await dialog.getByLabel('take the field').fill('fare')
    await dialog.getByLabel('from', { exact: true }).selectOption('Harbourmaster.plug')
    await expect(dialog.getByRole('region', { name: 'What it touches' })).toContainText(
      'not decided → 5 crowns',
    )
    await dialog.getByRole('button', { name: 'Decide on 2 records' }).click()
    await said(page, 'Decided on 2 records')
    // decided, it stands further down in the list
    await page.goto(`/workspaces/${workspace}/records/Isles.plug/1281`)
    await expect(page.getByRole('radio', { name: /5 crowns Harbourmaster/ })).toBeChecked()
    await page.getByRole('button', { name: 'decided', exact: true }).click()
    await expect(page.getByRole('grid', { name: 'Records' }).locator('[data-row]')).toHaveCount(2)
  })

  test('pairs, findings and whole plugins beside one another', async ({ page }) => {
    await page.getByRole('radio', { name: 'Plugin by plugin' }).click()
    await page
      .getByRole('listitem')
      .filter({ hasText: 'WinterTimetable.plug over Harbourmaster.plug' })
      .getByRole('link', { name: 'See them' })
      .click()
    await expect(page.getByText('both in Harbourmaster.plug and WinterTimetable.plug')).toBeVisible()
    await page.getByRole('radio', { name: 'What is wrong' }).click()
    await expect(page.getByText('in ClearerCharts.plug adds nothing')).toBeVisible()
    await page.getByRole('radio', { name: 'Compare plugins' }).click()
    await page.getByRole('checkbox', { name: /^Fogbound\.plug/ }).check()
    await page.getByRole('checkbox', { name: /^Lamplight\.plug/ }).check()
    await expect(page.getByRole('region', { name: 'Comparison' })).toContainText('differ in horn and range')
  })

  test('a plugin is written out as text, and comes back as a mod of its own', async ({ page }) => {
    await page.getByRole('button', { name: 'Text forms' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('Which plugin').selectOption('Wheelhouse.plug')
    const download = page.waitForEvent('download')
    await dialog.getByRole('link', { name: 'Save its text' }).click()
    const saved = await (await download).createReadStream()
    const parts: Buffer[] = []
    for await (const part of saved) parts.push(part as Buffer)
    const text = Buffer.concat(parts).toString('utf8')
    expect(text.split('\n')[1]).toContain('"id":"Skerry.plug/421"')
    await dialog.getByLabel('A file of text form').setInputFiles({
      name: 'Wheelhouse.plug.jsonl',
      mimeType: 'application/jsonl',
      buffer: Buffer.from(text.replace('brass telegraph', 'silver bell')),
    })
    await dialog.getByRole('button', { name: 'Bring it in' }).click()
    await said(
      page,
      /Wheelhouse\.plug is a mod of its own now, with 1 record\. It covers the one of Wheelhouse Panel/,
    )
    await page.goto(`/workspaces/${workspace}/records/Skerry.plug/421`)
    await expect(page.getByText('Has a silver bell now.').first()).toBeVisible()
  })
})
