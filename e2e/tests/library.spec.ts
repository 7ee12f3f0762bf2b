import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { zipOf } from '../support/archives'
import { drop, expect, type GivenFile, installReady, open, said, test } from '../support/test'

test.describe('Library', () => {
  let workspace: number

  test.beforeEach(async ({ page, world }) => {
    workspace = await world.makeWorkspace(world.copyGame())
    await page.goto(`/workspaces/${workspace}/library`)
    await expect(page.getByText('Drop the archives of your mods here')).toBeVisible()
  })

  test('what cannot become a mod is told by name, with the reason and what to do, and the rest comes in', async ({
    page,
    world,
  }) => {
    const whole = world.archive('rope-locker-1.3.zip')
    const cut: GivenFile = { name: 'cut.zip', bytes: whole.bytes.subarray(0, whole.bytes.length / 2) }
    const letter: GivenFile = { name: 'letter.7z', bytes: Buffer.from('Dear reader') }
    await drop(page, 'main', [cut, whole, letter])
    await expect(page.getByText('3 archives: 1 needs no decision, 2 ask something of you.')).toBeVisible()
    const waiting = page.getByRole('list', { name: 'Archives that wait' }).getByRole('listitem')
    await expect(waiting.filter({ hasText: 'cut.zip' })).toContainText('Download it again')
    await expect(waiting.filter({ hasText: 'letter.7z' })).toContainText('Zip, 7z and tar')
    await installReady(page, 1)
    await waiting.filter({ hasText: 'letter.7z' }).getByRole('button', { name: 'More about' }).click()
    await page.getByRole('menuitem', { name: 'Remove it' }).click()
    await said(page, '“letter.7z” lies in the bin.')
    await expect(waiting).toHaveCount(1)
    await open(page, 'Library')
    await expect(page.locator('[data-row]')).toHaveCount(1)
  })

  test('files are picked by a button too, and the same bytes are known again', async ({ page, world }) => {
    const { name, bytes } = world.archive('lamplight-1.0.tar.gz')
    const file = { mimeType: 'application/gzip', buffer: bytes }
    let choosing = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Bring in archives' }).click()
    await (await choosing).setFiles([{ name, ...file }])
    await installReady(page, 1)
    choosing = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Bring in archives' }).click()
    await (await choosing).setFiles([{ name: 'by another name.tar.gz', ...file }])
    await said(page, 'was here before, and is installed')
    await page.getByRole('link', { name: 'Look at it' }).click()
    const aside = page.getByRole('complementary')
    await expect(aside).toContainText('lamplight-1.0.tar.gz')
    await expect(aside).toContainText('Lamplight.plug')
  })

  test.describe('connections that break', () => {
    test.use({ expectRefusals: true })

    test('an upload goes on by itself, and after a reload where it stopped', async ({ page, world }) => {
      const big = join(world.folder, 'big-1.0.zip')
      writeFileSync(big, zipOf({ 'tables/big.csv': `id\n${'1234567890\n'.repeat(3_200_000)}` }))
      const pick = async () => {
        const choosing = page.waitForEvent('filechooser')
        await page.getByRole('button', { name: 'Bring in archives' }).click()
        await (await choosing).setFiles(big)
      }
      const offsets: string[] = []
      let reloaded = false
      await page.route('**/api/uploads/*', async (route) => {
        const request = route.request()
        if (request.method() !== 'PATCH') return route.continue()
        offsets.push(request.headers()['upload-offset'] ?? '')
        // the first piece breaks off, the second comes through, the third never ends before the reload
        if (offsets.length === 1) await route.abort('connectionreset')
        else if (reloaded || offsets.length === 2) await route.continue()
      })
      await pick()
      await expect.poll(() => offsets.length, { timeout: 60_000 }).toBe(3)
      expect(offsets.slice(0, 2)).toEqual(['0', '0'])
      expect(Number(offsets[2])).toBeGreaterThan(0)
      reloaded = true
      await page.reload()
      await pick()
      await installReady(page, 1)
      expect(offsets[3], 'it goes on where it stopped').toBe(offsets[2])
      await open(page, 'Library')
      await expect(page.getByRole('row', { name: 'big' })).toBeVisible()
    })
  })

  test('a folder on the machine is brought in whole', async ({ page, world }) => {
    const folder = world.archivesFolder()
    writeFileSync(join(folder, 'notes.txt'), 'not an archive')
    await page.getByRole('button', { name: 'From a folder' }).click()
    await page.getByLabel('Folder, as a full path').fill(folder)
    await page.getByRole('button', { name: 'Bring them in' }).click()
    await expect(page.getByRole('region', { name: 'Not brought in' })).toContainText('notes.txt', {
      timeout: 90_000,
    })
    await expect(page.locator('[data-row]')).toHaveCount(14)
  })

  test.describe('refused', () => {
    test.use({ expectRefusals: true })

    test('a folder that is not there is told, and the dialog stays', async ({ page }) => {
      await page.getByRole('button', { name: 'From a folder' }).click()
      await page.getByLabel('Folder, as a full path').fill('/no/such/folder')
      await page.getByRole('button', { name: 'Bring them in' }).click()
      await said(page, 'There is no such folder on this machine.')
      await expect(page.getByRole('dialog')).toBeVisible()
    })
  })

  test('an archive with several mods becomes as many, or the one that is chosen', async ({ page, world }) => {
    await drop(page, 'main', [world.waiting('lights-and-bells-0.9.7z')])
    await page.getByRole('button', { name: 'Decide' }).click()
    await expect(page.getByText('Several folders in it could each be a mod')).toBeVisible()
    await page.getByRole('listitem').filter({ hasText: 'Pier Lights/' }).getByRole('button').click()
    await expect(page.getByRole('treeitem', { name: 'lamp.png' })).toBeVisible()
    await page.getByRole('button', { name: 'Find it by itself again' }).click()
    await page.getByRole('button', { name: 'Make 2 mods of them' }).click()
    await said(page, 'It is in the library.')
    await expect(page.locator('[data-row]')).toHaveCount(2)
    await expect(page.getByRole('row', { name: 'Harbour Bells' })).toBeVisible()
  })

  test('the instructions are read first, and all but two files are installed', async ({ page, world }) => {
    await drop(page, 'main', [world.waiting('Shore Leave 0.7.zip')])
    await page.getByRole('link', { name: 'Shore Leave' }).click()
    await page.getByRole('radio', { name: 'To read' }).click()
    await expect(page.getByRole('article')).toContainText('Install all but the two files')
    await page.getByRole('radio', { name: /The game gets 6 files/ }).click()
    await page.getByRole('button', { name: 'Decide about old' }).click()
    await page.getByRole('menuitem', { name: 'Leave it out' }).click()
    await expect(page.getByRole('radio', { name: /The game gets 4 files/ })).toBeVisible()
    await page.getByRole('radio', { name: /Left out/ }).click()
    // the archive in the archive was opened: its bell can be sent where the game hears it
    await page.getByRole('button', { name: 'Decide about inn-bell.wav' }).click()
    await page.getByRole('menuitem', { name: 'Send it to data/' }).click()
    await expect(page.getByRole('radio', { name: /The game gets 5 files/ })).toBeVisible()
    await page.getByRole('button', { name: 'Install', exact: true }).click()
    await said(page, 'It is in the library.')
    await page.getByRole('link', { name: 'Open it' }).click()
    await page.getByRole('radio', { name: 'To read' }).click()
    await expect(page.getByRole('article')).toContainText('Install all but the two files')
    await page.getByRole('radio', { name: '5 files' }).click()
    await expect(page.getByRole('treeitem', { name: 'inn-bell.wav' })).toBeVisible()
    await expect(page.getByRole('treeitem', { name: 'old' })).toHaveCount(0)
  })

  test('a fitting asks, follows its conditions, and says when another choice fits better', async ({
    page,
    world,
  }) => {
    await drop(page, 'main', [world.waiting('hull-plates-1.2.zip')])
    await page.getByRole('button', { name: 'Decide' }).click()
    await expect(page.getByRole('radio', { name: /^Large/ })).toBeChecked()
    await expect(page.getByText('About 400 MB more to load.')).toBeVisible()
    await page.getByRole('radio', { name: /^Much rust/ }).click()
    await page.getByRole('button', { name: 'Next' }).click()
    await expect(page.getByText('Rivets for the large plates?')).toBeVisible()
    await page.getByRole('button', { name: 'Back' }).click()
    await page.getByRole('radio', { name: /^Small/ }).click()
    await page.getByRole('button', { name: 'Next' }).click()
    // the rivets hang on the large plates
    await expect(page.getByText('Which patches for other mods?')).toBeVisible()
    const fog = page.getByRole('checkbox', { name: /For Fogbound Weather/ })
    await expect(fog).not.toBeChecked()
    await page.getByRole('button', { name: 'See what the game gets' }).click()
    await expect(page.getByRole('treeitem', { name: 'bow.png' })).toBeVisible()
    await page.getByRole('button', { name: 'Install', exact: true }).click()
    await said(page, 'It is in the library.')
    const plates = page.getByRole('row', { name: 'Hull Plates' })
    await expect(plates).not.toContainText('a better fitting exists')

    await world.install(workspace, world.archive('fogbound-weather-4.0.1.zip'))
    await expect(plates).toContainText('a better fitting exists')
    await page.getByRole('link', { name: 'Open it' }).click()
    const better = page.getByRole('region', { name: 'A better fitting' })
    await expect(better).toContainText('1 file would come')
    await better.getByRole('link', { name: 'Fit again' }).click()
    await expect(page.getByRole('radio', { name: /^Small/ })).toBeChecked()
    await expect(page.getByRole('radio', { name: /^Much rust/ })).toBeChecked()
    await page.getByRole('button', { name: 'Next' }).click()
    await expect(fog).toBeChecked()
    await page.getByRole('button', { name: 'Put it in the place of 1.2' }).click()
    await said(page, 'It is in the library.')
    await expect(plates).not.toContainText('a better fitting exists')
  })

  test('a newer version shows what it would change, takes the place, and going back is one step', async ({
    page,
    world,
  }) => {
    await world.install(workspace, world.archive('lamplight-1.0.tar.gz'))
    await drop(page, 'main', [world.waiting('lamplight-1.1.tar.gz')])
    await page.getByRole('button', { name: 'Decide' }).click()
    const aside = page.getByRole('complementary')
    await expect(aside).toContainText('In the place of 1.0')
    await expect(aside).toContainText('1 file new')
    await expect(aside).toContainText('1 file gone')
    await page.getByRole('button', { name: 'Put it in the place of 1.0' }).click()
    await said(page, 'It is in the library.')
    const row = page.getByRole('row', { name: 'Lamplight' })
    await expect(row).toContainText('1.1 of 2')
    await page.keyboard.press('Control+z')
    await said(page, /Undone/)
    await expect(row).toContainText('1.0 of 2')
    await row.click()
    await page.getByRole('link', { name: 'Open it' }).click()
    await page.getByRole('radio', { name: '2 versions' }).click()
    await page.getByRole('button', { name: 'Compare' }).click()
    await page.getByRole('button', { name: 'Use 1.1 instead' }).click()
    await said(page, 'Version 1.1 is in use now')
    await open(page, 'Layers')
    await expect(page.getByRole('row', { name: 'Lamplight' })).toHaveCount(1)
  })

  test('files of a mod are held back, edited, put back as they came, checked and removed', async ({
    page,
    world,
  }) => {
    const mod = await world.install(workspace, world.archive('harbourmasters-ledger-2.1.0.zip'))
    await page.goto(`/workspaces/${workspace}/library/${mod}/files`)
    await page.getByRole('button', { name: 'Decide about quay' }).click()
    await page.getByRole('menuitem', { name: 'Hold it back' }).click()
    await said(page, /Held back, in this profile\. 4 files in the game change/)
    await page.getByRole('searchbox', { name: 'Find a file' }).fill('tariffs')
    await page.getByRole('treeitem', { name: 'tariffs.csv' }).click()
    await expect(page.getByRole('columnheader', { name: 'id' })).toBeVisible()
    await page.getByRole('button', { name: 'Edit', exact: true }).click()
    const text = page.getByRole('textbox', { name: /Text of/ })
    const before = await text.inputValue()
    await text.fill(before.replace('\n', '\n9,amber,99\n'))
    await page.getByRole('button', { name: 'Save' }).click()
    await expect(page.getByRole('cell', { name: 'amber', exact: true })).toBeVisible()
    await world.job(`/workspaces/${workspace}/deploy`)
    expect(world.read('data/tables/tariffs.csv').toString()).toContain('9,amber,99')
    // the game's own stones are in play again
    expect(world.read('data/textures/quay/stone-01.png')).toEqual(
      world.unmodded('data/textures/quay/stone-01.png'),
    )
    await page.getByRole('button', { name: 'Decide about tariffs.csv' }).click()
    await page.getByRole('menuitem', { name: 'Put it back as it came' }).click()
    await expect(page.getByRole('cell', { name: 'amber', exact: true })).toHaveCount(0)
    await page.getByRole('button', { name: 'More about the mod' }).click()
    await page.getByRole('menuitem', { name: 'Check its files' }).click()
    await said(page, '11 files read: all as they were installed.')
    await page.getByRole('button', { name: 'More about the mod' }).click()
    await page.getByRole('menuitem', { name: 'Remove it' }).click()
    await page.getByRole('button', { name: 'Remove it' }).click()
    await said(page, /lies in the bin/)
    await page.getByRole('button', { name: 'Bring it back' }).click()
    await expect(page.locator('[data-row]')).toHaveCount(1)
  })

  test('of a mod with very many files the first are there before the last have come', async ({
    page,
    world,
  }) => {
    const charts = Array.from({ length: 2300 }, (_, n) => [
      `tables/chart-${10_000 + n}.csv`,
      `id\nchart ${n}\n`,
    ])
    const mod = await world.install(workspace, {
      name: 'charts.zip',
      bytes: zipOf(Object.fromEntries(charts)),
    })
    let letCome = () => {}
    const held = new Promise<void>((resolve) => {
      letCome = resolve
    })
    await page.route('**/files?*offset=2000*', async (route) => {
      await held
      await route.continue()
    })
    const last = 'data/tables/chart-12299.csv'
    await page.goto(`/workspaces/${workspace}/library/${mod}/files?path=${encodeURIComponent(last)}`)
    await expect(page.getByText('2,000 so far')).toBeVisible()
    const folder = page.getByRole('treeitem', { name: 'tables' })
    await expect(folder).toContainText('2,000')
    await expect(page.getByRole('status', { name: 'Loading the file' })).toBeVisible()
    await folder.click()
    await expect(page.getByText('Choose a file to look at it')).toBeVisible()
    const find = page.getByRole('searchbox', { name: 'Find a file of the mod' })
    await find.fill('chart-12299')
    await expect(page.getByText('0 of 2,000 so far')).toBeVisible()
    // what had come is not taken for all when one comes back
    await page.getByRole('radio', { name: 'About' }).click()
    await page.getByRole('radio', { name: '2,300 files' }).click()
    letCome()
    await expect(folder).toContainText('2,300')
    await expect(page.getByText('so far')).toHaveCount(0)
    await find.fill('chart-12299')
    await expect(page.getByText('1 of 2,300')).toBeVisible()
    await page.getByRole('treeitem', { name: 'chart-12299.csv' }).click()
    await expect(page.getByText('chart 2299')).toBeVisible()
  })

  test('notes, tags and the card are written in the page and kept', async ({ page, world }) => {
    const mod = await world.install(workspace, world.archive('rope-locker-1.3.zip'))
    await page.goto(`/workspaces/${workspace}/library/${mod}/about`)
    await page.getByRole('button', { name: 'Write' }).click()
    await page
      .getByRole('textbox', { name: 'Your notes' })
      .fill('Needed by **two** others <img src=x onerror=alert(1)>')
    await page.getByRole('button', { name: 'Save' }).click()
    await expect(page.locator('.prose strong')).toHaveText('two')
    await expect(page.locator('.prose img')).toHaveCount(0)
    await page.getByRole('textbox', { name: 'A new tag' }).fill('groundwork')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('button', { name: 'Take the tag groundwork away' })).toBeVisible()
    await page.getByRole('button', { name: 'Edit' }).first().click()
    await page.getByLabel('Name').fill('Rope Locker, the old one')
    await page.getByRole('button', { name: 'Save' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Rope Locker, the old one')
    await expect(page.getByText('you have edited name; as it came: “Rope Locker”')).toBeVisible()
  })

  test('what is half typed is there again after leaving the screen and loading the page', async ({
    page,
    world,
  }) => {
    const mod = await world.install(workspace, world.archive('harbourmasters-ledger-2.1.0.zip'))
    const about = `/workspaces/${workspace}/library/${mod}/about`
    await page.goto(about)
    await page.getByRole('button', { name: 'Write' }).click()
    const notes = page.getByRole('textbox', { name: 'Your notes' })
    await notes.fill('half a sen')
    await open(page, 'Layers')
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Layers')
    await page.goBack()
    await expect(notes).toHaveValue('half a sen')
    await page.reload()
    await expect(notes).toHaveValue('half a sen')
    await page.getByRole('button', { name: 'Discard changes' }).click()
    await page.reload()
    await expect(page.getByRole('button', { name: 'Write' })).toBeVisible()

    await page.goto(`/workspaces/${workspace}/library/${mod}/files?path=data/tables/tariffs.csv`)
    await page.getByRole('button', { name: 'Edit', exact: true }).click()
    const text = page.getByRole('textbox', { name: /Text of/ })
    await text.fill('id,good,duty\n')
    await page.reload()
    await expect(text).toHaveValue('id,good,duty\n')
    await page.getByRole('button', { name: 'Save' }).click()
    await said(page, 'Saved.')

    await page.goto(`/workspaces/${workspace}/library/inbox`)
    await drop(page, 'main', [world.waiting('hull-plates-1.2.zip')])
    await page.getByRole('button', { name: 'Decide' }).click()
    await page.getByRole('radio', { name: /^Much rust/ }).click()
    await page.reload()
    await expect(page.getByRole('radio', { name: /^Much rust/ })).toBeChecked()
  })

  test('the storage tells what is used, and the bin is emptied for good', async ({ page, world }) => {
    const mod = await world.install(workspace, world.archive('rope-locker-1.3.zip'))
    await world.api('DELETE', `/workspaces/${workspace}/mods/${mod}?archive=true`)
    await page.getByRole('link', { name: 'Storage' }).click()
    await expect(page.getByRole('region', { name: 'What is used' })).toContainText('free on the drive')
    const bin = page.getByRole('region', { name: 'Bin' })
    await expect(bin.getByRole('listitem')).toHaveCount(2)
    await bin.getByRole('button', { name: 'Empty it' }).click()
    await page.getByRole('button', { name: 'Delete for good' }).click()
    await said(page, 'The bin is empty.')
    await expect(bin).toContainText('What you remove from the library comes here first.')
  })
})
