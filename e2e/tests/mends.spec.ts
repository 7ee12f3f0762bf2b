import { expect, said, test, type World } from '../support/test'

/** Another version of a plugin, as its mod's next update would bring it. */
async function update(world: World, workspace: number, plugin: string, change: (text: string) => string) {
  const answer = await fetch(`${world.url}/api/workspaces/${workspace}/plugins/${plugin}/text`)
  const text = change(await answer.text())
  await world.api('POST', `/workspaces/${workspace}/plugins/text`, { name: `${plugin}.jsonl`, text })
}

test.describe('Mends', () => {
  let workspace: number

  test.beforeEach(async ({ world }) => {
    workspace = await world.skerryLine()
    await world.change(workspace, 'POST', '/load-order/proposal')
  })

  test('an automatic patch goes stale when an ingredient is updated, shows what would change, and is rebuilt', async ({
    page,
    world,
  }) => {
    await page.goto(`/workspaces/${workspace}/records`)
    await page.getByRole('button', { name: /Put the \d+ records into a patch/ }).click()
    await said(page, 'The patch is made')
    await page.getByRole('link', { name: 'Mends' }).first().click()
    const mends = page.getByRole('region', { name: 'Mends' })
    await expect(mends.getByText('fresh', { exact: true })).toBeVisible()
    await expect(mends).toContainText('for the whole profile')
    await update(world, workspace, 'Lamplight.plug', (t) => t.replace('"range":14', '"range":15'))
    await expect(mends.getByText('Lamplight.plug has changed.')).toBeVisible()
    await mends.getByRole('button', { name: 'See the difference' }).click()
    await expect(mends.getByRole('list', { name: 'Difference' })).toContainText('Vardøya light')
    await expect(mends.getByRole('list', { name: 'Difference' })).toContainText('"range":15')
    await page.getByRole('button', { name: 'Rebuild 1 stale mend' }).click()
    await said(page, 'All stale mends are rebuilt')
    await expect(mends.getByText('fresh', { exact: true })).toBeVisible()
  })

  test('a decision is asked for again once one side says something else', async ({ page, world }) => {
    await page.goto(`/workspaces/${workspace}/records/Isles.plug/1307`)
    const board = page.getByRole('region', { name: /Vardøya to Olderneset/ })
    await board.getByRole('radio', { name: /5\.3 crowns/ }).click()
    await expect(board.getByText('You took')).toBeVisible()
    await update(world, workspace, 'WinterTimetable.plug', (t) => t.replace('"fare":5.3', '"fare":5.5'))
    await expect(board.getByText('Still this one?')).toBeVisible()
    await expect(board.getByText('you had decided, and it has changed since')).toBeVisible()
    await board.getByRole('radio', { name: /5\.5 crowns/ }).click()
    await expect(board.getByText('You took')).toBeVisible()
  })

  test('a merge is seen before it is made, frees slots, and is taken back', async ({ page, world }) => {
    const slots = async () => (await world.api('GET', `/workspaces/${workspace}/load-order`)).slots.used
    const before = await slots()
    await page.goto(`/workspaces/${workspace}/mends`)
    await page.getByRole('link', { name: 'Merge plugins' }).click()
    for (const name of ['RopeLockerNorth', 'RopeLockerWest', 'RopeLockerEast'])
      await page.getByRole('checkbox', { name: new RegExp(name) }).check()
    await page.getByLabel('What they become').fill('Stores')
    const preview = page.getByRole('region', { name: 'What the merge comes to' })
    await expect(preview).toContainText('Stores.plug')
    await expect(preview).toContainText('2 slots become free')
    await expect(preview).toContainText(/\d records get another number/)
    await expect(preview).toContainText('No save is known to have been made with them')
    await preview.getByRole('button', { name: 'Merge 3 plugins' }).click()
    await said(page, 'Stores.plug is made')
    expect(await slots()).toBe(before - 2)
    const mends = page.getByRole('region', { name: 'Mends' })
    await expect(mends).toContainText('of RopeLockerEast.plug')
    const download = page.waitForEvent('download')
    await mends.getByRole('link', { name: 'Old and new ids' }).click()
    expect((await download).suggestedFilename()).toBe('renumbered.csv')
    await page.goto(`/workspaces/${workspace}/load-order`)
    await expect(page.getByRole('row', { name: 'Stores.plug' })).toBeVisible()
    await page.goto(`/workspaces/${workspace}/mends`)
    await mends.getByRole('button', { name: 'Take the merge back' }).click()
    await said(page, 'is taken back')
    expect(await slots()).toBe(before)
  })

  test('what cannot be merged is told with the reason and the remedy', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/mends/merge`)
    await page.getByRole('checkbox', { name: /^RopeLocker\.plug/ }).check()
    await page.getByRole('checkbox', { name: /^WinterTimetable/ }).check()
    const preview = page.getByRole('region', { name: 'What the merge comes to' })
    await expect(preview.getByRole('alert')).toContainText('It cannot be merged like this')
    await expect(preview.getByRole('alert')).toContainText('Harbourmaster.plug')
    await expect(preview.getByRole('button', { name: 'Merge 2 plugins' })).toBeDisabled()
  })

  test('pairs call for patches, one is made for two, and says when it is right', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/mends`)
    const called = page.getByRole('region', { name: /Which patches does the set call for/ })
    const pair = called.getByRole('listitem').filter({ hasText: 'Fogbound.plug over WinterTimetable.plug' })
    const other = called.getByRole('listitem').filter({ hasText: 'WinterTimetable.plug over Fogbound.plug' })
    await pair.or(other).getByRole('button', { name: 'Make a patch for these two' }).click()
    await said(page, /A patch for .* is made/)
    const mends = page.getByRole('region', { name: 'Mends' })
    await expect(mends).toContainText('for Fogbound.plug and WinterTimetable.plug')
    await mends.getByRole('button', { name: 'When it is right' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByRole('button', { name: 'Another mod' }).first().click()
    await dialog.getByLabel('Mod that must be on').selectOption({ label: 'Fogbound Weather' })
    await dialog.getByLabel('In which versions').fill('>=5')
    await dialog.getByRole('button', { name: 'Keep it' }).click()
    await said(page, 'The patch says now when it is right')
    await expect(mends).toContainText('only with Fogbound Weather >=5 (not so now)')
    await expect(mends).toContainText('It is right only with Fogbound Weather >=5, and that is not so.')
  })
})
