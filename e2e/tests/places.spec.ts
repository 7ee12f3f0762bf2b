import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { zipFile } from '../support/archives'
import { drop, expect, installReady, open, test } from '../support/test'

// places that are not found, and one that is gone, are refused
test.use({ expectRefusals: true })

test('a game that keeps its mods beside its folder is asked where, deployed to, and had back', async ({
  page,
  world,
}) => {
  test.setTimeout(180_000)
  const game = join(world.folder, 'tower')
  const user = join(world.folder, 'tower of mine')
  mkdirSync(join(game, 'data'), { recursive: true })
  mkdirSync(join(user, 'mods'), { recursive: true })
  writeFileSync(join(game, 'data', 'bell.txt'), 'the game')
  writeFileSync(join(user, 'settings.ini'), 'loud = no\n')
  writeFileSync(
    join(game, 'game.yaml'),
    `format: ironing/game@1
id: tower
title: Tower
places:
  user: { at: [ "{home}/no-such-folder-of-a-game" ], what: Mods and settings }
mounts:
  - { id: own, in: user, at: mods, holds: [ "**" ] }
writable: [ "@user/settings.ini" ]
`,
  )

  await test.step('the page asks for the place that it does not find', async () => {
    await page.goto('/workspaces')
    await page.getByLabel('Folder of the game').fill(game)
    await page.getByRole('button', { name: 'Look at it' }).click()
    const places = page.getByRole('region', { name: 'Places beside the game folder' })
    await expect(places).toContainText('Not found at')
    await page.getByRole('button', { name: 'Make a workspace of it' }).click()
    await expect(page.getByRole('alert').first()).toContainText('it is not known where that is')
    await places.getByLabel('Mods and settings').fill(user)
    await page.getByRole('button', { name: 'Make a workspace of it' }).click()
    await expect(page.getByRole('navigation', { name: 'Screens' })).toBeVisible()
    await expect(page.getByRole('region', { name: 'Beside the game folder' })).toContainText(user)
  })

  await test.step('a mod is deployed there', async () => {
    await open(page, 'Library')
    await drop(page, 'main', [
      zipFile('chimes-1.0.zip', {
        'mod-card.yaml': 'format: ironing/mod@1\nid: chimes\nname: Chimes\nversion: "1.0"\n',
        'mods/chimes/tune.txt': 'a tune',
      }),
    ])
    await installReady(page, 1)
    await open(page, 'Deploy')
    await page
      .getByRole('button', { name: /^Deploy/ })
      .first()
      .click()
    // the files are there before the change is done
    await expect(page.getByRole('button', { name: 'Undeploy everything' })).toBeVisible()
    expect(existsSync(join(user, 'mods', 'chimes', 'tune.txt'))).toBe(true)
  })

  await test.step('while it is gone that is said', async () => {
    renameSync(user, `${user} away`)
    await open(page, 'Overview')
    await page.reload()
    await expect(page.getByRole('region', { name: 'Beside the game folder' })).toContainText('gone')
    await expect(page.getByRole('main')).toContainText('A folder of the game is gone')
    renameSync(`${user} away`, user)
  })

  await test.step('another folder is refused while something is deployed there', async () => {
    await page.reload()
    const places = page.getByRole('region', { name: 'Beside the game folder' })
    await places.getByRole('button', { name: 'Another folder' }).click()
    await places.getByLabel('Folder for Mods and settings').fill(join(world.folder, 'tower of mine', 'mods'))
    await places.getByRole('button', { name: 'It lies there' }).click()
    await expect(places.getByRole('alert')).toContainText('Undeploy first')
    await places.getByRole('button', { name: 'Leave it' }).click()
    await expect(places).toContainText(user)
  })

  await test.step('undeployed, the place is as it was', async () => {
    await open(page, 'Deploy')
    await page.getByRole('button', { name: 'Undeploy everything' }).click()
    await expect.poll(() => existsSync(join(user, 'mods', 'chimes'))).toBe(false)
    expect(readFileSync(join(user, 'settings.ini'), 'utf8')).toBe('loud = no\n')
    await expect.poll(() => existsSync(join(user, '.ironing'))).toBe(false)
  })
})
