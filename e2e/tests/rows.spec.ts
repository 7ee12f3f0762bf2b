import { zipOf } from '../support/archives'
import { drop, expect, inOrder, open, rows, said, test } from '../support/test'

test.describe('Rows of lists', () => {
  let workspace: number

  test.beforeEach(async ({ world }) => {
    workspace = await world.skerryLine()
  })

  test('several mods are switched, tagged, checked, removed and brought back together', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/library`)
    const list = page.getByRole('grid', { name: 'Mods in the library' })
    await list.getByRole('row', { name: 'Clearer Charts' }).click()
    await list.getByRole('row', { name: 'Fogbound Weather' }).click({ modifiers: ['Shift'] })
    const bar = page.getByRole('toolbar', { name: '3 mods chosen' })
    await bar.getByRole('button', { name: 'Switch off' }).click()
    await said(page, /3 mods switched off\./)
    await page.getByRole('button', { name: 'Undo', exact: true }).click()
    await said(page, /Undone/)
    await bar.getByRole('button', { name: 'Tags …' }).click()
    await page.getByLabel('A new tag').fill('sea')
    await page.keyboard.press('Enter')
    await said(page, '3 mods: tags saved.')
    await bar.getByRole('button', { name: 'More to do with them' }).click()
    await page.getByRole('menuitem', { name: 'Check their files' }).click()
    await said(page, /files read: all as they were installed/)

    // what is looked for stands in the address
    await page.getByRole('button', { name: '# sea' }).click()
    await page.getByRole('searchbox', { name: /^Name, author/ }).fill('fog')
    await expect(list.locator('[data-row]')).toHaveCount(1)
    await page.reload()
    await expect(page.getByRole('searchbox', { name: /^Name, author/ })).toHaveValue('fog')
    await expect(list.locator('[data-row]')).toHaveCount(1)
    await page.getByRole('searchbox', { name: /^Name, author/ }).fill('')
    await expect(list.locator('[data-row]')).toHaveCount(3)

    await list.getByRole('row').nth(1).click()
    await page.keyboard.press('Control+a')
    await page
      .getByRole('toolbar', { name: '3 mods chosen' })
      .getByRole('button', { name: 'Remove …' })
      .click()
    await page.getByRole('button', { name: 'Remove them' }).click()
    await said(page, '3 mods in the bin.')
    await page.getByRole('button', { name: 'Bring them back' }).click()
    await expect(list.locator('[data-row]')).toHaveCount(3)
  })

  test('the library is sorted by its columns, and a row opens by a double click and by Enter', async ({
    page,
  }) => {
    await page.goto(`/workspaces/${workspace}/library`)
    const files = page.getByRole('columnheader', { name: 'files' })
    await files.getByRole('button').click()
    await expect(files).toHaveAttribute('aria-sort', 'descending')
    const down = await rows(page)
    await files.getByRole('button').click()
    await expect(files).toHaveAttribute('aria-sort', 'ascending')
    await expect.poll(async () => (await rows(page)).at(-1)).toBe(down[0])
    await page.getByRole('row', { name: 'Quiet Gulls' }).dblclick()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Quiet Gulls')
    await page.goBack()
    await page.getByRole('row', { name: 'Night Ferry' }).click()
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Night Ferry')
  })

  test('plugins are chosen together, moved by a place, and found by a word', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/load-order`)
    const list = page.getByRole('grid', { name: 'Plugins, the first to load on top' })
    await list.getByRole('row', { name: 'Caulking.plug' }).click()
    await list.getByRole('row', { name: 'ClearerCharts.plug' }).click({ modifiers: ['Control'] })
    await page
      .getByRole('toolbar', { name: '2 plugins chosen' })
      .getByRole('button', { name: 'Move …' })
      .click()
    const dialog = page.getByRole('dialog', { name: 'Move 2 plugins' })
    await dialog.getByRole('searchbox').fill('lamplight')
    await dialog.getByRole('button', { name: 'Move there' }).click()
    await said(page, /2 plugins moved\./)
    await inOrder(page, (at) => {
      expect(at('Caulking.plug')).toBe(at('Lamplight.plug') + 1)
      expect(at('ClearerCharts.plug')).toBe(at('Lamplight.plug') + 2)
    })
    await page.keyboard.press('Control+z')
    await said(page, /Undone/)
    await page.getByRole('searchbox', { name: 'Plugin or mod' }).fill('rope')
    await expect(list.locator('[data-row]')).toHaveCount(4)
    await expect(page).toHaveURL(/find=rope/)
    await page.getByRole('button', { name: 'switched off' }).click()
    await expect(page.getByText('No plugin is like that')).toBeVisible()
  })

  test('a menu at the pointer offers what can be done with a row, and names are copied', async ({
    page,
    context,
  }) => {
    await context.grantPermissions(['clipboard-read', 'clipboard-write'])
    await page.goto(`/workspaces/${workspace}/layers`)
    const gulls = page.getByRole('row', { name: 'Quiet Gulls' })
    await gulls.click({ button: 'right' })
    await page.getByRole('menuitem', { name: 'Copy its name' }).click()
    await said(page, 'Copied: Quiet Gulls')
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('Quiet Gulls')
    await gulls.click({ button: 'right' })
    await page.getByRole('menuitem', { name: 'To the bottom' }).click()
    await said(page, /Quiet Gulls is layer 1 now/)
    // what is chosen can be acted on by the name of an act too
    await page.keyboard.press('Control+k')
    await page.getByRole('combobox').fill('switch off quiet')
    await expect(page.getByRole('option', { selected: true })).toContainText('Switch off')
    await page.keyboard.press('Enter')
    await said(page, /Quiet Gulls switched off\./)
    await page.goto(`/workspaces/${workspace}/load-order`)
    await page.getByRole('row', { name: 'Skerry.plug' }).click({ button: 'right' })
    // the game's own is neither moved nor switched
    await expect(page.getByRole('menuitem')).toHaveText(['Copy its name'])
    await page.keyboard.press('Escape')
    await page.getByRole('row', { name: 'Lamplight.plug' }).click({ button: 'right' })
    await page.getByRole('menuitem', { name: 'Its records' }).click()
    await expect(page).toHaveURL(/records\?.*plugin=Lamplight\.plug/)
  })

  test('columns of layers are made wider, moved and hidden, for every browser', async ({ page, browser }) => {
    await page.goto(`/workspaces/${workspace}/layers`)
    const heads = page.getByRole('columnheader')
    await expect(heads.filter({ hasText: /^size$/ })).toBeVisible()
    const width = page.getByRole('separator', { name: 'Width of size' })
    const before = Number(await width.getAttribute('aria-valuenow'))
    await width.focus()
    await page.keyboard.press('ArrowLeft')
    await expect(width).toHaveAttribute('aria-valuenow', String(before + 8))
    await page.keyboard.press('Alt+ArrowLeft')
    await expect
      .poll(async () => (await heads.allTextContents()).indexOf('size'))
      .toBeLessThan((await heads.allTextContents()).indexOf('files'))
    await heads.filter({ hasText: /^how far$/ }).click({ button: 'right' })
    const kept = page.waitForResponse((r) => r.request().method() === 'PUT' && r.url().endsWith('/shown'))
    await page.getByRole('menuitem', { name: 'Hide it' }).click()
    await expect(heads.filter({ hasText: /^how far$/ })).toHaveCount(0)
    await kept
    const other = await browser.newPage()
    await other.goto(page.url())
    await expect(other.getByRole('separator', { name: 'Width of size' })).toHaveAttribute(
      'aria-valuenow',
      String(before + 8),
    )
    await expect(other.getByRole('columnheader').filter({ hasText: /^how far$/ })).toHaveCount(0)
    await other.close()
  })

  test('no letter is lost however quickly one types, and going back says what was looked for', async ({
    page,
  }) => {
    for (const [path, field] of [
      ['layers', 'Show only layers that'],
      ['library', 'Name, author, tag, plugin'],
      ['load-order', 'Plugin or mod'],
      ['mends/combined-files', 'Find files by folder, name, kind or mod'],
    ] as const) {
      await page.goto(`/workspaces/${workspace}/${path}`)
      const search = page.getByRole('searchbox', { name: field })
      const text = 'has plugin and not off'
      await search.pressSequentially(text)
      await expect(search).toHaveValue(text)
      await expect.poll(() => new URL(page.url()).searchParams.toString()).toContain('has+plugin+and+not+off')
      await expect(search).toHaveValue(text)
      await open(page, 'Deploy')
      await page.goBack()
      await expect(search).toHaveValue(text)
    }
  })

  test('archives can be dropped on any screen, / searches it, and the guide tells about it', async ({
    page,
  }) => {
    await page.goto(`/workspaces/${workspace}/timeline`)
    await drop(page, 'main', [{ name: 'South 1.0.zip', bytes: zipOf({ 'data/tables/south.csv': 'a\n' }) }])
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Inbox')
    await expect(page.getByText('South 1.0.zip').first()).toBeVisible()
    await open(page, 'Load order')
    await page.getByRole('row', { name: 'Skerry.plug' }).click()
    await page.keyboard.press('/')
    await expect(page.getByRole('searchbox', { name: 'Plugin or mod' })).toBeFocused()
    await page.getByRole('link', { name: 'Guide to this screen' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Load order')
    await expect(page.getByRole('region', { name: 'Load order' })).toContainText('master')
    await page
      .getByRole('navigation', { name: 'Parts of the guide' })
      .getByRole('link', { name: 'Keys' })
      .click()
    await expect(page.getByRole('region', { name: 'Keys' }).getByRole('table').first()).toContainText(
      'Ctrl K',
    )
  })

  test('many wrinkles that one act mends are mended by it, with its preview', async ({ page, world }) => {
    const { layers } = await world.api('GET', `/workspaces/${workspace}/layers`)
    const cards = layers
      .slice(0, 4)
      .map((l: { cardId: string }) => `  - { mod: ${l.cardId} }`)
      .join('\n')
    await world.install(workspace, {
      name: 'Needy 1.0.zip',
      bytes: zipOf({
        'mod-card.yaml': `format: ironing/mod@1\nid: needy\nname: Needy\nversion: 1.0\nneeds:\n${cards}\n`,
        'data/tables/needy.csv': 'a\n',
      }),
    })
    const mods = layers.slice(0, 4).map((l: { mod: number }) => l.mod)
    await world.change(workspace, 'POST', '/layers/switch', { mods, on: false })
    await page.goto(`/workspaces/${workspace}`)
    const at = page
      .getByRole('listitem')
      .filter({ hasText: 'at once:' })
      .filter({ hasText: /Switch \d+ mods on/ })
    const act = at.getByRole('button', { name: /^Switch \d+ mods on$/ })
    await act.hover()
    await expect(page.getByRole('tooltip')).toContainText('would')
    await act.click()
    await said(page, /mods on: done\./)
    await expect(act).toHaveCount(0)
    const after = await world.api('GET', `/workspaces/${workspace}/layers`)
    expect(after.layers.slice(0, 4).every((l: { on: boolean }) => l.on)).toBe(true)
  })
})
