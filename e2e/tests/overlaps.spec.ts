import { expect, said, test } from '../support/test'

test.describe('Overlaps', () => {
  let workspace: number

  test.beforeEach(async ({ page, world }) => {
    workspace = await world.skerryLine()
    await page.goto(`/workspaces/${workspace}/overlaps`)
  })

  test('by folder with counts, by the keyboard', async ({ page }) => {
    const tree = page.getByRole('tree', { name: 'Contested paths' })
    const data = tree.getByRole('treeitem', { name: /^data/ })
    // unfolded as far as the window goes, and no further
    await expect(tree.getByRole('treeitem', { name: /berthing\.sks/ })).toBeVisible()
    await expect(tree.getByRole('treeitem', { name: /^textures/ })).toBeVisible()
    await expect(tree.getByRole('treeitem').last()).toBeInViewport()
    await data.focus()
    await page.keyboard.press('ArrowLeft')
    await expect(data).toHaveAttribute('aria-expanded', 'false')
    await page.keyboard.press('ArrowRight')
    await expect(tree.getByRole('treeitem', { name: /^tables/ })).toBeVisible()
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('End')
    await page.keyboard.press('Home')
    await expect(tree.getByRole('treeitem', { name: /^data/ })).toBeFocused()
    await tree.getByRole('treeitem', { name: /^tables/ }).click()
    await expect(tree.getByRole('treeitem', { name: /tariffs\.csv/ })).toContainText('Winter Timetable')
  })

  test('mod by mod: a number leads to the paths of the two', async ({ page }) => {
    await page.getByRole('radio', { name: 'Mod by mod' }).click()
    const cell = page.getByRole('button', {
      name: /Winter Timetable covers Harbourmaster’s Ledger in (\d+) paths/,
    })
    const paths = Number(await cell.textContent())
    await cell.click()
    await expect(page.getByRole('grid', { name: 'Contested paths' }).locator('[data-row]')).toHaveCount(paths)
    await page.getByRole('button', { name: /brought by Winter Timetable and Harbourmaster/ }).click()
    await expect
      .poll(() => page.getByRole('grid', { name: 'Contested paths' }).locator('[data-row]').count())
      .toBeGreaterThan(paths)
  })

  test('all mods at once: a picture, a search in it, and a table of the same', async ({ page }) => {
    await page.getByRole('radio', { name: 'All mods at once' }).click()
    await expect(page.getByRole('img', { name: /Which mods collide/ })).toBeVisible()
    await page.getByRole('searchbox', { name: 'Find a mod in the picture' }).fill('winter')
    await expect(page.getByRole('status').filter({ hasText: 'Winter Timetable marked.' })).toBeVisible()
    await page.getByText(/^As a table: \d+ pairs?$/).click()
    const pair = page.getByRole('button', {
      name: /paths? of Winter Timetable and Harbourmaster’s Ledger: show them/,
    })
    const paths = Number(await pair.textContent())
    await pair.click()
    await expect(page.getByRole('grid', { name: 'Contested paths' }).locator('[data-row]')).toHaveCount(paths)
  })

  test('two tables are compared place by place and as text, and a ruling settles it', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/overlaps/path?at=data/tables/tariffs.csv`)
    await expect(page.getByRole('cell', { name: 'row night, surcharge' })).toBeVisible()
    await page.getByRole('radio', { name: 'As text' }).click()
    const texts = page.getByRole('region', { name: 'The two texts, line by line' })
    await expect(texts.locator('mark').first()).toBeVisible()
    await page.getByRole('button', { name: 'Next', exact: true }).click()
    await expect(page.getByText(/^difference 1 of \d+$/)).toBeVisible()
    await page.getByRole('searchbox', { name: 'Find in both texts' }).fill('night')
    await expect(page.getByRole('status').filter({ hasText: /in \d+ lines?; Enter: next/ })).toBeVisible()
    const aside = page.getByRole('complementary', { name: 'Whose file is in play' })
    const ledger = aside.getByRole('listitem').filter({ hasText: 'Harbourmaster’s Ledger' })
    await ledger.getByRole('button', { name: 'Take this one' }).hover()
    await expect(page.getByRole('tooltip')).toContainText(
      '1 in data/tables would come from Harbourmaster’s Ledger',
    )
    await ledger.getByRole('button', { name: 'Take this one' }).click()
    await said(page, /Ruled/)
    await expect(aside).toContainText('You ruled so, whatever the layers say.')
    await page.getByRole('link', { name: 'All overlaps' }).click()
    await page.getByRole('radio', { name: '1 ruling' }).click()
    await expect(page.getByRole('listitem').filter({ hasText: 'tariffs.csv' })).toContainText(
      'decides 1 path',
    )
    await page.getByRole('button', { name: 'Which order would satisfy them?' }).click()
    await expect(page.getByRole('region', { name: 'The order that would satisfy them' })).toContainText(
      /With \d+ moves? the order says by itself|No move|contradicts/,
    )
    await page
      .getByRole('listitem')
      .filter({ hasText: 'tariffs.csv' })
      .getByRole('button', { name: 'Take back' })
      .click()
    await said(page, /The ruling is taken back/)
    await expect(page.getByText('Nothing is ruled')).toBeVisible()
  })

  test('two pictures are compared side by side, by a slider and as a difference', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/overlaps/path?at=data/textures/bollards/wood.png`)
    await expect(page.getByRole('img', { name: 'of Bigger Bollards' })).toBeVisible()
    await page.getByRole('radio', { name: 'Slider' }).click()
    await page.getByLabel('How much of which').fill('30')
    await page.getByRole('radio', { name: 'Difference' }).click()
    await expect(page.getByText(/% of the pixels differ/)).toBeVisible()
  })

  test('a ruling for a whole folder says what it would change before it is made', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/overlaps/path?at=data/textures/bollards/wood.png`)
    const aside = page.getByRole('complementary', { name: 'Whose file is in play' })
    await aside.getByLabel('Whose files').selectOption('from Bigger Bollards')
    await expect(aside.getByRole('status')).toContainText('would come from Bigger Bollards')
    await aside.getByRole('status').getByRole('button', { name: 'Show which' }).click()
    await expect(page.getByRole('dialog')).toContainText('bollards')
    await page.keyboard.press('Escape')
    await aside.locator('form').getByRole('button', { name: 'Rule it so' }).click()
    await said(page, /Ruled/)
    await expect(aside).toContainText('You ruled so')
  })
})
