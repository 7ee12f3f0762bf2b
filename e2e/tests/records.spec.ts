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
  })

  test('a question is answered by the keyboard, and the answer taken back', async ({ page }) => {
    const question = page.getByRole('group', { name: 'Which one?' })
    await question.getByRole('radio').first().focus()
    await page.keyboard.press('Space')
    const taken = page.getByRole('group', { name: 'You took' })
    await expect(taken.getByRole('radio').first()).toBeChecked()
    await page.keyboard.press('ArrowDown')
    await expect(taken.getByRole('radio').nth(1)).toBeChecked()
    await page.reload()
    await expect(taken.getByRole('radio').nth(1)).toBeChecked()
    await taken.getByRole('button', { name: 'Take the decision back' }).click()
    await expect(question).toBeVisible()
  })

  test('a patch goes stale when what it is made of changes, and is made anew', async ({ page, world }) => {
    await page.getByRole('button', { name: /into a patch/ }).click()
    await said(page, 'The patch is made')
    await expect(page.getByText('and is fresh')).toBeVisible()
    await world.change(workspace, 'POST', '/load-order/switch', { names: ['Harbourmaster.plug'], on: false })
    await expect(page.getByText(/is stale\. .*Harbourmaster\.plug is no longer on/)).toBeVisible()
    await page.getByRole('button', { name: /Make the patch anew/ }).click()
    await expect(page.getByText('and is fresh')).toBeVisible()
  })
})
