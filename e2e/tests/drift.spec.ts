import { rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, said, test } from '../support/test'

test.describe('Checking the folder', () => {
  let workspace: number

  test.beforeEach(async ({ world }) => {
    workspace = await world.skerryLine()
    await world.change(workspace, 'POST', '/load-order/proposal')
    await world.job(`/workspaces/${workspace}/deploy`)
  })

  test('what was broken by hand is told by what has happened, and put back', async ({ page, world }) => {
    const at = (path: string) => join(world.game, path)
    rmSync(at('data/textures/quay/stone-01.png'))
    rmSync(at('data/scripts/berthing.sks'))
    writeFileSync(at('data/scripts/berthing.sks'), 'routine berthing\nend\n')
    writeFileSync(at('data/found.txt'), 'left over\n')
    await page.goto(`/workspaces/${workspace}/deploy`)
    await page.getByRole('link', { name: 'Check the folder' }).click()
    const gone = page.getByRole('region', { name: '1 file that was deployed is gone' })
    await expect(gone).toContainText('stone-01.png')
    await gone.getByRole('button', { name: 'Put back' }).click()
    await said(page, 'Put back as it was deployed')
    const changed = page.getByRole('region', { name: '1 file that was deployed is another now' })
    await expect(changed).toContainText('berthing.sks')
    await changed.getByRole('button', { name: 'Put back' }).click()
    await expect(changed).toHaveCount(0)
    await expect(page.getByRole('region', { name: '1 file was set aside' })).toContainText('berthing.sks')
    expect(world.read('data/scripts/berthing.sks').toString()).not.toBe('routine berthing\nend\n')
    const fresh = page.getByRole('region', { name: '1 file is new, and nobody deployed it' })
    await fresh.getByRole('button', { name: 'Take into the inbox' }).click()
    await said(page, 'Taken into the inbox')
    await expect(page).toHaveURL(/library\/inbox\/\d+/)
  })

  test('what was changed by hand goes into the mod that it came from', async ({ page, world }) => {
    const file = join(world.game, 'data/scripts/berthing.sks')
    rmSync(file)
    writeFileSync(file, 'routine berthing\nend\n')
    await page.goto(`/workspaces/${workspace}/deploy/drift`)
    const changed = page.getByRole('region', { name: '1 file that was deployed is another now' })
    await changed.getByRole('button', { name: 'Take into its mod' }).click()
    await said(page, 'Taken into the mods, and deployed so')
    await expect(page.getByText('The folder is as it should be')).toBeVisible()
    await world.job(`/workspaces/${workspace}/deploy/undeploy`)
    await world.job(`/workspaces/${workspace}/deploy`)
    expect(world.read('data/scripts/berthing.sks').toString()).toBe('routine berthing\nend\n')
  })

  test('the plan is read by file, by mod and by folder, and the hem tells of drift', async ({
    page,
    world,
  }) => {
    const layers = (await world.api('GET', `/workspaces/${workspace}/layers`)).layers
    const locker = layers.find((l: { name: string }) => l.name === 'Rope Locker')
    await world.change(workspace, 'POST', '/layers/switch', { mods: [locker.mod], on: false })
    rmSync(join(world.game, 'data/textures/quay/stone-01.png'))
    await page.goto(`/workspaces/${workspace}/deploy`)
    await expect(page.getByRole('list', { name: 'What deploying would do' })).toContainText('RopeLocker.plug')
    await page.getByRole('radio', { name: 'By mod' }).click()
    await expect(page.getByRole('row', { name: /Rope Locker/ })).toBeVisible()
    await page.getByRole('radio', { name: 'By folder' }).click()
    await expect(page.getByRole('row', { name: /data\/scripts\/lib/ })).toBeVisible()
    await page.getByRole('link', { name: '1 file is not as it was left in the game folder' }).click()
    await expect(page.getByText('stone-01.png')).toBeVisible()
  })

  test('what is to be left is not told again, until it is asked for', async ({ page, world }) => {
    writeFileSync(join(world.game, 'notes.txt'), 'mine\n')
    await page.goto(`/workspaces/${workspace}/deploy/drift`)
    const fresh = page.getByRole('region', { name: '1 file is new, and nobody deployed it' })
    await fresh.getByRole('button', { name: 'Leave so' }).click()
    await expect(fresh).toHaveCount(0)
    await expect(page.getByText('The folder is as it should be')).toBeVisible()
    await page.getByRole('button', { name: 'Read every byte' }).click()
    await expect(page.getByText('Every byte was read')).toBeVisible()
    await page.getByRole('button', { name: 'Tell me of it again' }).click()
    await expect(fresh).toBeVisible()
  })

  test('what was done to the folder is told, and one goes back to an earlier one', async ({
    page,
    world,
  }) => {
    const layers = (await world.api('GET', `/workspaces/${workspace}/layers`)).layers
    const locker = layers.find((l: { name: string }) => l.name === 'Rope Locker')
    await world.change(workspace, 'POST', '/layers/switch', { mods: [locker.mod], on: false })
    await world.job(`/workspaces/${workspace}/deploy`)
    await page.goto(`/workspaces/${workspace}/deploy`)
    const done = page.getByRole('region', { name: 'What was done to it' })
    await expect(done.getByRole('listitem')).toHaveCount(2)
    await done.getByRole('button', { name: /Go back to how it was arranged/ }).click()
    await said(page, 'Arranged as it was then')
    await page.getByRole('button', { name: /Deploy \d+ change/ }).click()
    await expect(done.getByRole('listitem')).toHaveCount(3)
    await expect(page.getByText('The game folder is as you arranged it').first()).toBeVisible()
  })
})
