import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { zipOf } from '../support/archives'
import { drop, expect, installReady, open, test } from '../support/test'

test.describe('Workspaces', () => {
  test.use({ expectRefusals: true })

  test('a folder of plain files becomes a workspace, and its mods go the whole way', async ({
    page,
    world,
  }) => {
    const folder = join(world.folder, 'letters')
    mkdirSync(folder)
    writeFileSync(join(folder, 'north.txt'), 'a letter\n')
    await page.goto('/workspaces')
    await page.getByLabel('Folder of the game').fill(folder)
    await page.getByRole('button', { name: 'Look at it' }).click()
    await expect(page.getByRole('alert')).toContainText('The folder has no game.yaml')
    await page.getByRole('button', { name: 'Start with those' }).click()
    await expect(page.getByLabel('Definition of the game')).toHaveValue(/title: letters/)
    await page.getByRole('button', { name: 'Look at it' }).click()
    await expect(page.getByText('Described as above.')).toBeVisible()
    await page.getByRole('button', { name: 'Make a workspace of it' }).click()
    await expect(page.getByRole('navigation', { name: 'Screens' })).toBeVisible()

    await open(page, 'Library')
    await drop(page, 'main', [{ name: 'South 1.0.zip', bytes: zipOf({ 'north.txt': 'a better letter\n' }) }])
    await installReady(page, 1)
    // what the game has not is not offered
    const rail = page.getByRole('navigation', { name: 'Screens' })
    await expect(rail.getByRole('link', { name: 'Layers' })).toBeVisible()
    await expect(rail.getByRole('link', { name: 'Load order' })).toHaveCount(0)
    await expect(rail.getByRole('link', { name: 'Records' })).toHaveCount(0)
    await open(page, 'Deploy')
    await page.getByRole('button', { name: 'Deploy 1 change' }).click()
    await expect(page.getByText('The game folder is as you arranged it').first()).toBeVisible()
    expect(readFileSync(join(folder, 'north.txt'), 'utf8')).toBe('a better letter\n')
    await open(page, 'Test run')
    await expect(page.getByText('This game cannot be started from here')).toBeVisible()
    await open(page, 'Deploy')
    await page.getByRole('button', { name: 'Undeploy everything' }).click()
    await expect(page.getByText('Nothing is deployed: the game is as it was.')).toBeVisible()
    expect(readFileSync(join(folder, 'north.txt'), 'utf8')).toBe('a letter\n')
  })

  test('a definition is corrected after seeing what that changes, and a workspace deleted', async ({
    page,
    world,
  }) => {
    const folder = join(world.folder, 'sands')
    mkdirSync(folder)
    writeFileSync(join(folder, 'north.txt'), 'sand\n')
    const text = (holds: string) =>
      `format: ironing/game@1\nid: sands\ntitle: Sands\nmounts: [ { id: all, at: ".", holds: [ ${holds} ] } ]\n`
    await page.goto('/workspaces')
    await page.getByLabel('Folder of the game').fill(folder)
    await page.getByRole('button', { name: 'Describe the game here' }).click()
    await page.getByLabel('Definition of the game').fill(text('"*.txt"'))
    await page.getByRole('button', { name: 'Look at it' }).click()
    await page.getByRole('button', { name: 'Make a workspace of it' }).click()
    await open(page, 'Library')
    const zip = zipOf({ 'north.txt': 'better\n', 'tide.dat': 'tide\n' })
    await drop(page, 'main', [{ name: 'Dunes.zip', bytes: zip }])
    await installReady(page, 1)
    await open(page, 'Deploy')
    await page.getByRole('button', { name: 'Deploy 1 change' }).click()
    await expect(page.getByText('The game folder is as you arranged it').first()).toBeVisible()

    await page.goto('/workspaces')
    await page.getByRole('button', { name: 'More for Sands' }).click()
    await page.getByRole('menuitem', { name: 'Definition of the game' }).click()
    const take = page.getByRole('button', { name: 'Take this definition' })
    await page.getByLabel('Definition of the game').fill(text('5 :'))
    await expect(page.getByRole('alert').first()).toContainText('line 4, column')
    await expect(take).toBeDisabled()
    await page.getByLabel('Definition of the game').fill(text('"*.txt", "*.dat"'))
    await expect(page.getByText('1 mod is installed again from its archive.')).toBeVisible()
    await expect(page.getByText('New in the game with the next deployment: 1 file')).toBeVisible()
    await take.click()
    await expect(page.getByText('The definition is changed.').first()).toBeVisible()
    await open(page, 'Deploy')
    await page.getByRole('button', { name: 'Deploy 1 change' }).click()
    await expect.poll(() => existsSync(join(folder, 'tide.dat'))).toBe(true)

    await page.goto('/workspaces')
    await page.getByRole('button', { name: 'More for Sands' }).click()
    await page.getByRole('menuitem', { name: 'Delete it …' }).click()
    await expect(page.getByText('2 deployed files are taken out')).toBeVisible()
    const kept = (await page.getByText('archives-of-sands').textContent()) ?? ''
    await page.getByRole('button', { name: 'Delete it', exact: true }).click()
    await expect(page.getByRole('link', { name: /^Sands/ })).toBeHidden()
    const archive = join(kept.trim(), 'Dunes.zip')
    // the last of it, behind the answer
    await expect.poll(() => existsSync(archive) && readFileSync(archive).equals(zip)).toBe(true)
    expect(existsSync(join(folder, 'tide.dat'))).toBe(false)
    expect(readFileSync(join(folder, 'north.txt'), 'utf8')).toBe('sand\n')
  })

  test('mistakes in a definition are shown with their lines, and nothing is lost of what was typed', async ({
    page,
    world,
  }) => {
    await page.goto('/workspaces')
    await page.getByLabel('Folder of the game').fill(world.folder)
    await page.getByRole('button', { name: 'Describe the game here' }).click()
    const text = 'format: ironing/game@1\nid: x\nmounts: [ { id: all, at: "/etc" } ]\n'
    await page.getByLabel('Definition of the game').fill(text)
    await page.getByRole('button', { name: 'Look at it' }).click()
    await expect(page.getByRole('alert')).toContainText('line 3, column')
    await expect(page.getByRole('alert')).toContainText('title')
    await expect(page.getByLabel('Definition of the game')).toHaveValue(text)
    await expect(page.getByRole('button', { name: 'Make a workspace of it' })).toBeHidden()
  })

  test('a definition shows what it matches while it is written, and what the manifest does not name', async ({
    page,
    world,
  }) => {
    const folder = join(world.folder, 'harbour')
    mkdirSync(join(folder, 'maps'), { recursive: true })
    writeFileSync(join(folder, 'maps', 'north.map'), 'north\n')
    writeFileSync(join(folder, 'maps', 'by-hand.map'), 'by hand\n')
    const sum = createHash('sha256').update('north\n').digest('hex')
    writeFileSync(join(folder, 'harbour.sha256'), `${sum}  maps/north.map\n`)
    await page.goto('/workspaces')
    await page.getByLabel('Folder of the game').fill(folder)
    await page.getByRole('button', { name: 'Describe the game here' }).click()
    const matches = page.getByRole('list', { name: 'What the definition matches there' })
    await expect(matches.getByRole('listitem').first()).toContainText('3 files')
    const definition = page.getByLabel('Definition of the game')
    await definition.fill(
      'format: ironing/game@1\nid: harbour\ntitle: Harbour\nmanifest: "harbour.sha256"\n' +
        'mounts: [ { id: maps, at: maps, holds: [ "*.map" ] } ]\nprotect: [ "saves/**" ]\n',
    )
    await expect(matches.getByRole('listitem')).toHaveText([
      /where mods go: maps.*2 files/,
      /protected.*nothing/,
    ])
    const manifest = page.getByRole('region', { name: 'By the game’s manifest' })
    await expect(manifest).toContainText('1 file more lies there')
    await expect(manifest).toContainText('maps/by-hand.map')
    await definition.fill('format: ironing/game@1\nid: harbour\nmounts: [ ]\n')
    await expect(page.getByRole('alert')).toContainText('title')
    await definition.fill(
      'format: ironing/game@1\nid: harbour\ntitle: Harbour\nmanifest: "harbour.sha256"\n' +
        'mounts: [ { id: maps, at: maps, holds: [ "*.map" ] } ]\n',
    )
    await expect(manifest).toContainText('maps/by-hand.map')
    await page.getByRole('button', { name: 'Make a workspace of it' }).click()
    await expect(page.getByRole('navigation', { name: 'Screens' })).toBeVisible()
    await page.getByRole('link', { name: '1 file is not as it was left in the game folder' }).click()
    await page.getByRole('button', { name: 'Take into the inbox' }).click()
    await expect(page).toHaveURL(/library\/inbox\/\d+/)
  })

  test('the folder is chosen among those of the machine, where a game says which it is', async ({
    page,
    world,
  }) => {
    world.copyGame()
    mkdirSync(join(world.folder, 'letters'))
    await page.goto('/workspaces')
    await page.getByLabel('Folder of the game').fill(join(world.folder, 'letters'))
    await page.getByRole('button', { name: 'Choose a folder' }).click()
    const dialog = page.getByRole('dialog')
    await expect(dialog.getByText('No folder lies in it.')).toBeVisible()
    await dialog.getByRole('button', { name: 'The folder above' }).click()
    await dialog
      .getByRole('list', { name: 'Folders' })
      .getByRole('button', { name: 'game Skerry Line' })
      .click()
    await expect(page.getByLabel('Folder of the game')).toHaveValue(world.game)
    await page.getByRole('button', { name: 'Make a workspace of it' }).click()
    await expect(page.getByRole('navigation', { name: 'Screens' })).toBeVisible()
  })

  test('a folder that is not there, and one that has its workspace already', async ({ page, world }) => {
    await page.goto('/workspaces')
    await page.getByLabel('Folder of the game').fill('/no/such/game')
    await page.getByRole('button', { name: 'Look at it' }).click()
    await expect(page.getByRole('alert')).toContainText('/no/such/game')
    const workspace = await world.makeWorkspace(world.copyGame())
    await page.getByLabel('Folder of the game').fill(world.game)
    await page.getByRole('button', { name: 'Look at it' }).click()
    await page.getByRole('link', { name: 'It has a workspace already: open it' }).click()
    await expect(page).toHaveURL(new RegExp(`/workspaces/${workspace}$`))
  })

  test('an address that leads nowhere says so and leads back', async ({ page }) => {
    await page.goto('/workspaces/987654/layers')
    await expect(page.getByRole('alert').first()).toContainText('987654')
    await page.getByRole('link', { name: 'Ironing' }).click()
    await expect(page.getByRole('heading', { name: 'Workspaces' })).toBeVisible()
  })

  test('games are found below a folder, and the sample game comes and goes by a click', async ({
    page,
    world,
  }) => {
    const folder = world.copyGame()
    await page.goto('/workspaces')
    await page.getByLabel('Folder in which to look for games').fill(world.folder)
    await page.getByRole('button', { name: 'Look for games' }).click()
    const found = page.getByRole('list', { name: 'Games that were found' }).getByRole('listitem')
    await found.filter({ hasText: folder }).getByRole('button', { name: 'Look at it' }).click()
    await expect(page.getByText('It brings its own definition.')).toBeVisible()
    await page.getByRole('button', { name: 'Bring in the sample game' }).click()
    await expect(page.getByRole('navigation', { name: 'Screens' })).toBeVisible({ timeout: 90_000 })
    await page.goto('/workspaces')
    const sample = page.getByRole('listitem').filter({ hasText: 'a sample to try out' })
    await sample.getByRole('button', { name: /^More for/ }).click()
    await page.getByRole('menuitem', { name: 'Remove the sample game …' }).click()
    await page.getByRole('button', { name: 'Remove it' }).click()
    await expect(page.getByText('The sample game is removed.').first()).toBeVisible({ timeout: 90_000 })
    await expect(sample).toHaveCount(0)
    await expect(page.getByRole('button', { name: 'Bring in the sample game' })).toBeVisible()
  })
})
