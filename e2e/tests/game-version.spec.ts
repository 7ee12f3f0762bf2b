import { rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
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
