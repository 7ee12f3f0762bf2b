import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { expect, said, test } from '../support/test'

test.describe('Tools', () => {
  let workspace: number

  test.beforeEach(async ({ world }) => {
    workspace = await world.skerryLine()
    await world.change(workspace, 'POST', '/load-order/proposal')
    await world.job(`/workspaces/${workspace}/deploy`)
  })

  test('a tool is run, what it wrote is taken in, and it goes stale after a change', async ({
    page,
    world,
  }) => {
    const plugin = join(world.game, 'data/Harbour Lights.plug')
    await page.goto(`/workspaces/${workspace}/tools`)
    await expect(page.getByText('No tool yet')).toBeVisible()
    await page.getByRole('button', { name: 'Add a tool' }).click()
    const form = page.getByRole('dialog')
    await form.getByLabel('Name').fill('Harbour Lights')
    await form
      .getByLabel('Program and arguments')
      .fill('java\n-cp\n{standins}/game.jar\nironing.standins.game.HarbourLights\n{game}')
    await form.getByLabel('Reads').fill('data/*.plug')
    await form.getByLabel('Writes').fill('data/Harbour Lights.plug')
    await form.getByRole('button', { name: 'Add the tool' }).click()
    await expect(page.getByText('Reads data/*.plug; writes data/Harbour Lights.plug.')).toBeVisible()

    await page.getByRole('button', { name: 'Run it' }).click()
    await said(page, 'What it wrote is taken in and deployed.')
    await expect(page.getByRole('log', { name: 'What it printed' })).toContainText('Skerry.plug')
    const run = page.getByRole('region', { name: 'Run' })
    await expect(run).toContainText('Taken in: 1 file')
    await expect(page.getByText('The game folder is as you arranged it.')).toBeVisible()
    expect(existsSync(plugin)).toBe(true)
    expect(world.read('settings/roster.txt').toString()).toContain('use Harbour Lights.plug')

    // with one of the plugins gone it might have written another
    const layers = (await world.api('GET', `/workspaces/${workspace}/layers`)).layers
    const ferry = layers.find((l: { name: string }) => l.name === 'Night Ferry')
    await world.change(workspace, 'POST', '/layers/switch', { mods: [ferry.mod], on: false })
    await expect(page.getByText('data/NightFerry.plug is not read any more.')).toBeVisible()
    await expect(page.getByText('It cannot run now:')).toBeVisible()
    await page.goto(`/workspaces/${workspace}`)
    await expect(page.getByText('Output of Harbour Lights is stale')).toBeVisible()
    await page.goto(`/workspaces/${workspace}/mends`)
    await page.getByRole('link', { name: 'Run the tool again' }).click()
    await world.job(`/workspaces/${workspace}/deploy`)
    await page.getByRole('button', { name: 'Run it' }).click()
    await said(page, 'What it wrote is taken in and deployed.')
    await expect(page.getByText('fresh', { exact: true })).toBeVisible()

    // the game plays with what the tool wrote
    await page.goto(`/workspaces/${workspace}/test-run`)
    await page.getByRole('button', { name: 'Start the game' }).click()
    await expect(page.getByText(/played to its end/).first()).toBeVisible({ timeout: 90_000 })
  })

  test('a tool that does not end is stopped, and one that fails is told with its exit code', async ({
    page,
  }) => {
    await page.goto(`/workspaces/${workspace}/tools`)
    await page.getByRole('button', { name: 'Add a tool' }).click()
    const form = page.getByRole('dialog')
    await form.getByLabel('Name').fill('Endless')
    await form.getByLabel('Program and arguments').fill('sh\n-c\necho begun; sleep 600 & wait')
    await form.getByRole('button', { name: 'Add the tool' }).click()
    await page.getByRole('button', { name: 'Run it' }).click()
    await expect(page.getByRole('log', { name: 'What it printed' })).toContainText('begun')
    await page.getByRole('button', { name: 'Stop it' }).click()
    await said(page, 'Stopped; nothing was taken in.')
    await expect(page.getByText('It was stopped; nothing was taken in.')).toBeVisible()

    await page.getByRole('button', { name: 'Change it' }).click()
    await form.getByLabel('Program and arguments').fill('sh\n-c\necho no chart; exit 4')
    await form.getByRole('button', { name: 'Keep the change' }).click()
    await page.getByRole('button', { name: 'Run it' }).click()
    await said(page, 'It ended with exit code 4; nothing was taken in.')
    await expect(page.getByText(/ended with a fault \(exit code 4\)/).first()).toBeVisible()
  })
})
