import { readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, open, said, test } from '../support/test'

test.describe('Deploy and test run', () => {
  let workspace: number

  test.beforeEach(async ({ world }) => {
    workspace = await world.skerryLine()
  })

  test('a game that stops says why in plain words, names the mod, and leads to what helps', async ({
    page,
    world,
  }) => {
    await world.job(`/workspaces/${workspace}/deploy`)
    await page.goto(`/workspaces/${workspace}/test-run`)
    await page.getByRole('button', { name: 'Start the game' }).click()
    const fault = page.getByRole('alert', { name: 'Why it stopped' })
    await expect(fault).toContainText('The game stopped', { timeout: 90_000 })
    await expect(fault.getByRole('link', { name: 'Night Ferry' })).toBeVisible()
    await expect(fault).toContainText('master-late')
    await fault.getByRole('link', { name: 'Go there' }).click()
    await expect(page).toHaveURL(/load-order/)
  })

  test('the plan warns of what would stop the game, and the hem counts what waits', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/deploy`)
    await expect(page.getByText(/would stop over it/)).toBeVisible()
    await expect(page.getByRole('contentinfo')).toContainText(/Not deployed yet: \d+ files to add/)
  })

  test('before it is deployed, the test run says that the game does not see it', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/test-run`)
    await expect(page.getByText('The game does not see all that you arranged')).toBeVisible()
    await page.getByRole('link', { name: 'Deploy first' }).click()
    await expect(page).toHaveURL(/deploy$/)
  })

  test('how far a mod has come goes from the library to read by the game', async ({ page, world }) => {
    await world.change(workspace, 'POST', '/load-order/proposal')
    await page.goto(`/workspaces/${workspace}/layers`)
    const row = page.getByRole('row', { name: 'Clearer Charts' })
    await expect(row.getByRole('img', { name: /switched on/i })).toBeVisible()
    await world.job(`/workspaces/${workspace}/deploy`)
    await expect(row.getByRole('img', { name: /in the game folder/i })).toBeVisible()
    await world.api('POST', `/workspaces/${workspace}/runs`)
    await expect(row.getByRole('img', { name: /read by the game/i })).toBeVisible({ timeout: 90_000 })
  })

  test('a save tells what it would lose when the mods that it was made with are off', async ({
    page,
    world,
  }) => {
    await world.change(workspace, 'POST', '/load-order/proposal')
    await world.job(`/workspaces/${workspace}/deploy`)
    await page.goto(`/workspaces/${workspace}/test-run`)
    await page.getByRole('button', { name: 'Start the game' }).click()
    const saves = page.getByRole('region', { name: 'Saves' })
    await expect(saves).toContainText('Made with the plugins that are on now', { timeout: 90_000 })
    const layers = (await world.api('GET', `/workspaces/${workspace}/layers`)).layers
    const charts = layers.find((l: { name: string }) => l.name === 'Clearer Charts')
    await world.change(workspace, 'POST', '/layers/switch', { mods: [charts.mod], on: false })
    await expect(saves).toContainText('loses what came of ClearerCharts.plug')
  })

  test('a profile plays with saves of its own, and takes along those of another', async ({ page, world }) => {
    await world.change(workspace, 'POST', '/load-order/proposal')
    await world.job(`/workspaces/${workspace}/deploy`)
    await page.goto(`/workspaces/${workspace}/test-run`)
    await page.getByRole('button', { name: 'Start the game' }).click()
    const saves = page.getByRole('region', { name: 'Saves' })
    await expect(saves).toContainText('Those of Everyday', { timeout: 90_000 })
    const everydays = readdirSync(join(world.game, 'saves'))
    expect(everydays).not.toHaveLength(0)
    const trial = await world.api('POST', `/workspaces/${workspace}/profiles`, { name: 'Fog trial' })
    await world.api('POST', `/workspaces/${workspace}/profiles/${trial.id}/use`)
    await expect(saves).toContainText('Fog trial has no saves yet. In the folder lie those of Everyday')
    await page.getByRole('button', { name: 'Start the game' }).click()
    await expect(saves).toContainText('Those of Fog trial. Each profile has its own.', { timeout: 90_000 })
    await saves.getByRole('button', { name: /here$/ }).click()
    await said(page, /saves? copied. What had/)
    expect(readdirSync(join(world.game, 'saves'))).toEqual(expect.arrayContaining(everydays))
  })

  test('a file that somebody changed is shown in the plan and set aside', async ({ page, world }) => {
    await world.job(`/workspaces/${workspace}/deploy`)
    const file = join(world.game, 'data/ui/bridge.json')
    rmSync(file)
    writeFileSync(file, '{"widgets":[]}')
    await page.goto(`/workspaces/${workspace}/deploy`)
    await expect(page.getByText('changed since; set aside')).toBeVisible()
    await page.getByRole('button', { name: 'Deploy 1 change' }).click()
    await expect(page.getByText('The game folder is as you arranged it').first()).toBeVisible()
    await expect(page.getByText('1 set aside')).toBeVisible()
    await page.getByRole('link', { name: 'Check the folder' }).click()
    await expect(page.getByRole('region', { name: '1 file was set aside' })).toContainText('bridge.json')
  })

  test.describe('refused', () => {
    test.use({ expectRefusals: true })

    test('a game folder that is gone is told everywhere, and all works again when it is back', async ({
      page,
      world,
    }) => {
      renameSync(world.game, `${world.game}-away`)
      await page.goto(`/workspaces/${workspace}/deploy`)
      await expect(page.getByRole('alert').first()).toContainText(world.game)
      await expect(page.getByRole('contentinfo')).toContainText('The game’s folder is gone')
      await open(page, 'Overview')
      await expect(page.getByText('The game’s folder is gone', { exact: false }).first()).toBeVisible()
      renameSync(`${world.game}-away`, world.game)
      await open(page, 'Deploy')
      await page.getByRole('button', { name: /Deploy \d+ changes/ }).click()
      await expect(page.getByText('The game folder is as you arranged it').first()).toBeVisible()
    })
  })
})
