import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { zipOf } from '../support/archives'
import { expect, said, test } from '../support/test'

test('an update of the game is noticed, told by what it means, and taken in', async ({ page, world }) => {
  const workspace = await world.skerryLine()
  await world.change(workspace, 'POST', '/load-order/proposal')
  await world.job(`/workspaces/${workspace}/deploy`)
  // as an update does it: another file in the place of the one that was there
  const update = (path: string, text: string) => {
    rmSync(join(world.game, path), { force: true })
    writeFileSync(join(world.game, path), text)
  }
  update('skerry.json', '{ "title": "Skerry Line", "version": "2.0" }')
  update('data/scripts/berthing.sks', 'routine berthing\nend\n')
  update('data/scripts/fog-signal.sks', 'routine fog_signal\nend\n')
  rmSync(join(world.game, 'manifest.sha256'))

  await page.goto(`/workspaces/${workspace}`)
  const wrinkle = page.getByRole('listitem').filter({ hasText: 'The game is in version 2.0 now' })
  await wrinkle.getByRole('button', { name: 'Show' }).click()
  await expect(page).toHaveURL(/deploy\/game-version/)
  const did = page.getByRole('region', { name: 'What the update did' })
  await expect(did.getByRole('listitem').filter({ hasText: 'berthing.sks' })).toContainText(
    'written over a mod’s file',
  )
  await expect(did.getByRole('listitem').filter({ hasText: 'fog-signal.sks' })).toContainText('new')
  const mods = page.getByRole('region', { name: '2 mods may not be made for it' })
  await expect(mods).toContainText('Harbourmaster’s Ledger')
  await expect(page.getByRole('region', { name: '1 file of mods covers a changed file' })).toContainText(
    'berthing.sks',
  )

  await page.getByRole('button', { name: 'Take 2.0 in' }).click()
  await said(page, 'The game is taken in as it is now')
  await expect(page.getByText('The game is as it was taken in')).toBeVisible()
  await expect(page.getByRole('complementary')).toContainText('1.4.2')

  await world.job(`/workspaces/${workspace}/deploy`)
  expect(world.read('data/scripts/berthing.sks').toString()).not.toBe('routine berthing\nend\n')
  await world.job(`/workspaces/${workspace}/deploy/undeploy`)
  expect(world.read('data/scripts/berthing.sks').toString()).toBe('routine berthing\nend\n')
  await page.getByRole('link', { name: 'Go back to an arrangement of before' }).click()
  await expect(page.getByText('Before game 2.0')).toBeVisible()
})

test.describe('what an update may have removed', () => {
  test.use({ expectRefusals: true })

  test('comes back on a word, when undeploying and when the workspace is deleted', async ({
    page,
    world,
  }) => {
    const game = join(world.folder, 'reefs')
    mkdirSync(game)
    writeFileSync(join(game, 'a.txt'), 'a reef\n')
    writeFileSync(join(game, 'b.txt'), 'another\n')
    const definition =
      'format: ironing/game@1\nid: reefs\ntitle: Reefs\nmounts: [ { id: all, at: ".", holds: [ "*.txt" ] } ]\n'
    const workspace = await world.makeWorkspace(game, definition)
    await world.install(workspace, { name: 'Kelp.zip', bytes: zipOf({ 'a.txt': 'kelp\n' }) })
    await world.job(`/workspaces/${workspace}/deploy`)
    rmSync(join(game, 'a.txt'))
    writeFileSync(join(game, 'b.txt'), 'another, of a newer version\n')

    await page.goto(`/workspaces/${workspace}/deploy`)
    await page.getByRole('button', { name: 'Undeploy everything' }).click()
    await expect(page.getByRole('alert')).toContainText('a.txt')
    await page.getByRole('button', { name: 'Bring them back, and undeploy' }).click()
    await expect(page.getByText('Nothing is deployed: the game is as it was.')).toBeVisible()
    await expect(page.getByRole('alert')).toBeHidden()
    expect(readFileSync(join(game, 'a.txt'), 'utf8')).toBe('a reef\n')

    await world.job(`/workspaces/${workspace}/deploy`)
    rmSync(join(game, 'a.txt'))
    await page.goto('/workspaces')
    await page.getByRole('button', { name: 'More for Reefs' }).click()
    await page.getByRole('menuitem', { name: 'Delete it …' }).click()
    await page.getByRole('button', { name: 'Delete it', exact: true }).click()
    await expect(page.getByRole('dialog').getByRole('alert')).toContainText('a.txt')
    await page.getByRole('button', { name: 'Bring them back, and delete it' }).click()
    await expect(page.getByRole('dialog')).toBeHidden()
    expect(readFileSync(join(game, 'a.txt'), 'utf8')).toBe('a reef\n')
    await expect(page.getByRole('link', { name: /^Reefs/ })).toBeHidden()
  })
})
