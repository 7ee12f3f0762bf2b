import { rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { zipOf } from '../support/archives'
import { CatalogueStandIn } from '../support/catalogue'
import { expect, said, test } from '../support/test'

test.describe('Updates', () => {
  let workspace: number
  let catalogue: CatalogueStandIn

  test.beforeEach(async ({ world }) => {
    catalogue = await CatalogueStandIn.up()
    workspace = await world.skerryLine()
    await world.job(`/workspaces/${workspace}/catalogues`, { address: catalogue.url })
  })

  test.afterEach(() => catalogue.end())

  test('an update is judged before it is taken, and left with its reason', async ({ page, world }) => {
    const versions = async () => {
      const { layers } = await world.api('GET', `/workspaces/${workspace}/layers`)
      return layers.map((l: { name: string; version: string }) => `${l.name} ${l.version}`)
    }
    const before = await versions()
    await page.goto(`/workspaces/${workspace}/catalogue`)
    await page.getByRole('link', { name: 'Updates' }).click()
    const list = page.getByRole('grid', { name: 'Mods with something newer' })
    await expect(list.getByRole('row', { name: 'Wheelhouse Panel' })).toContainText('not for your game')
    await list.getByRole('row', { name: 'Fogbound Weather' }).click()
    const aside = page.getByRole('complementary')
    await expect(aside).toContainText('fog lifts with the sun')
    await expect(aside).toContainText('by the id of its card')
    await aside.getByRole('link', { name: 'Is it worth it?' }).click()
    await page.getByRole('button', { name: 'Look ahead' }).click()
    await expect(page.getByRole('heading', { name: 'What it would do to this set' })).toBeVisible()
    await expect(page.getByText('needs RopeLocker.plug, which is not in play')).toBeVisible()
    await expect(page.getByText('Fogbound Weather and Wheelhouse Panel')).toBeVisible()
    expect(await versions()).toEqual(before)

    await page.goBack()
    await page.getByRole('button', { name: 'Leave it …' }).click()
    const dialog = page.getByRole('dialog', { name: /^Leave 4\.1\.0 of Fogbound Weather/ })
    await dialog.getByLabel('Why').fill('the ledger would stop')
    await dialog.getByRole('button', { name: 'Leave it' }).click()
    await said(page, 'Fogbound Weather: the update is left.')
    await expect(list.getByRole('row', { name: 'Fogbound Weather' })).toHaveCount(0)
    const left = page.getByRole('region', { name: 'Updates that are left' })
    await expect(left).toContainText('4.1.0 is left: the ledger would stop')
    await page.reload()
    await left.getByRole('button', { name: 'Offer it again' }).click()
    await expect(list.getByRole('row', { name: 'Fogbound Weather' })).toBeVisible()
    await expect(page.getByRole('region', { name: 'Bridges' })).toContainText(
      'Ledger for the Night Ferry between Night Ferry and Harbourmaster’s Ledger',
    )
  })

  test('updates that are chosen are taken as one step, and gone back from as one', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/catalogue/updates`)
    const list = page.getByRole('grid', { name: 'Mods with something newer' })
    await list.getByRole('row', { name: 'Lamplight' }).click()
    await list.getByRole('row', { name: 'Quiet Gulls' }).click({ modifiers: ['Control'] })
    await page
      .getByRole('toolbar', { name: 'Updates that are chosen' })
      .getByRole('button', { name: 'See what they bring with them' })
      .click()
    await page.getByRole('button', { name: /^Get all of it/ }).click()
    await said(page, 'All of it is here and on.')
    await page.goto(`/workspaces/${workspace}/catalogue/updates`)
    await expect(list.getByRole('row', { name: 'Rope Locker' })).toBeVisible()
    await expect(list.getByRole('row', { name: 'Lamplight' })).toHaveCount(0)
    await expect(list.getByRole('row', { name: 'Quiet Gulls' })).toHaveCount(0)
    await page.keyboard.press('Control+z')
    await expect(list.getByRole('row', { name: 'Lamplight' })).toBeVisible()
    await expect(list.getByRole('row', { name: 'Quiet Gulls' })).toBeVisible()
  })

  test('an update of the game leaves two waiting, of which one is said to work', async ({ page, world }) => {
    const path = join(world.game, 'skerry.json')
    rmSync(path, { force: true })
    writeFileSync(path, '{ "title": "Skerry Line", "version": "2.0" }')
    await world.job(`/workspaces/${workspace}/game-version`)
    await page.goto(`/workspaces/${workspace}/deploy/game-version`)
    const stand = page.getByRole('region', { name: 'How your mods stand with it' })
    await expect(stand).toContainText('Waiting for a release: 2 mods')
    await stand.getByRole('button', { name: 'Say how Harbourmaster’s Ledger stands' }).click()
    const dialog = page.getByRole('dialog', { name: 'How does Harbourmaster’s Ledger stand?' })
    await dialog.getByLabel('It works, I have seen it').check()
    await dialog.getByLabel('Essential').check()
    await dialog.getByLabel('To be switched on').fill('after the ferry has sailed')
    await dialog.getByRole('button', { name: 'Keep that' }).click()
    await expect(stand.getByText('Waiting for a release: 1 mod')).toBeVisible()
    await page.reload()
    await stand.getByText(/^Works: /).click()
    await expect(stand).toContainText('essential, you have said that it works')
    await expect(stand).toContainText('To be switched on after the ferry has sailed')
  })

  test('what an archive lacks is told in the inbox, beside what the game gets, and can be fetched', async ({
    page,
    world,
  }) => {
    const card = [
      'format: ironing/mod@1',
      'id: lamp-oil',
      'name: Lamp Oil',
      'version: "1.0"',
      'needs:',
      '  - { mod: lamplight, versions: ">=1.1" }',
      '  - { mod: rope-locker }',
      '  - { mod: nobody-knows }',
    ].join('\n')
    const bytes = zipOf({ 'mod-card.yaml': `${card}\n`, 'sound/oil.txt': 'drip\n' })
    await world.send(workspace, { name: 'lamp-oil-1.0.zip', bytes })
    await page.goto(`/workspaces/${workspace}/library/inbox`)
    const waiting = page.getByRole('listitem').filter({ hasText: 'lamp-oil-1.0.zip' })
    await expect(waiting).toContainText(
      'It lacks Lamplight >=1.1 (here in version 1.0), nobody-knows (not in your library)',
    )
    await expect(page.getByText(/lacks? something/)).toBeVisible()
    await waiting.getByRole('link', { name: 'Lamp Oil' }).click()
    const aside = page.getByRole('complementary', { name: 'About installing it' })
    await expect(aside).toContainText('here in version 1.0')
    await expect(aside).toContainText('1.3 is on')
    await aside.getByRole('link', { name: 'See what fetching them brings' }).click()
    await expect(page.getByText('This cannot all hold together')).toBeVisible()
    await page.getByRole('button', { name: 'Do without' }).click()
    await expect(page.getByRole('region', { name: 'Here in another version' })).toContainText('Lamplight 1.1')
  })

  test('a finding is written, kept while it is typed, and told beside those of others', async ({
    page,
    world,
  }) => {
    await page.goto(`/workspaces/${workspace}/catalogue/findings`)
    const gulls = page.getByRole('region', { name: 'Quiet Gulls' })
    await expect(gulls).toContainText('others: 1 works, 1 works with care')
    await page.getByLabel('Which mod').fill('Quiet Gulls')
    await page.getByLabel('In a sentence').fill('One is left at the pier.')
    await page.reload()
    await expect(page.getByLabel('In a sentence')).toHaveValue('One is left at the pier.')
    await page.getByLabel('What of it').selectOption('works with care')
    await page.getByRole('button', { name: 'Write it down' }).click()
    await said(page, 'Written down.')
    await expect(gulls.getByRole('listitem').first()).toContainText('One is left at the pier.')
    await expect(gulls.getByRole('listitem').first()).toContainText('yours')
    await expect(gulls).toContainText('others: 1 works, 1 works with care')
    const file = page.waitForEvent('download')
    await page.getByRole('link', { name: 'Save yours' }).click()
    expect((await file).suggestedFilename()).toBe('findings.jsonl')
    await page.getByLabel('A file of findings').setInputFiles({
      name: 'theirs.jsonl',
      mimeType: 'text/plain',
      buffer: Buffer.from('{"mod":"quiet-gulls","verdict":"broken","says":"Mine sing.","at":"2026-11-30"}\n'),
    })
    await said(page, '1 finding came in.')
    await expect(gulls).toContainText('1 of them unsigned')

    const { mods } = await world.api('GET', `/workspaces/${workspace}/library`)
    const mod = mods.find((m: { name: string }) => m.name === 'Quiet Gulls').id
    await page.goto(`/workspaces/${workspace}/library/${mod}/about`)
    const about = page.getByText('What is known of it').locator('..').locator('..')
    await expect(about).toContainText('Others: 1 works, 1 works with care, 1 broken, 1 of them unsigned')
    await expect(about).toContainText('One is left at the pier.')
  })
})
