import { CatalogueStandIn } from '../support/catalogue'
import { expect, open, said, test } from '../support/test'

test.describe('Catalogue', () => {
  let workspace: number
  let catalogue: CatalogueStandIn

  test.beforeEach(async ({ world }) => {
    catalogue = await CatalogueStandIn.up()
    workspace = await world.skerryLine()
  })

  test.afterEach(() => catalogue.end())

  const add = (world: { job: (path: string, body: unknown) => Promise<number> }) =>
    world.job(`/workspaces/${workspace}/catalogues`, { address: catalogue.url })

  test('a catalogue is added, searched, and a mod is got with two needs, one off and one too old', async ({
    page,
    world,
  }) => {
    await page.goto(`/workspaces/${workspace}/catalogue`)
    await expect(page.getByText('No catalogue is known yet')).toBeVisible()
    await page.getByRole('link', { name: 'Catalogues' }).click()
    await page.getByLabel('Address or folder of a catalogue').fill(`${catalogue.url}/`)
    await page.getByRole('button', { name: 'Add and read it' }).click()
    await said(page, 'The catalogue was added and read.')
    const place = page.getByRole('list', { name: 'Catalogues' }).getByRole('listitem')
    await expect(place).toContainText('Harbour Board')
    await expect(place).toContainText('30 mods')
    await expect(place).toContainText(/Signed, with the key [0-9a-f]{16}/)
    await place.getByRole('button', { name: 'Look now' }).click()
    await expect(place).toContainText('nothing new')
    await page.getByLabel('Fetch at most').fill('4096')
    await page.getByRole('button', { name: 'Keep to it' }).click()
    await said(page, /^Downloads take at most 4(\.0)? MiB a second\.$/)
    await page.reload()
    await expect(page.getByLabel('Fetch at most')).toHaveValue('4096')

    const { mods } = await world.api('GET', `/workspaces/${workspace}/library`)
    const gulls = mods.find((m: { name: string }) => m.name === 'Quiet Gulls').id
    await world.change(workspace, 'POST', '/layers/switch', { mods: [gulls], on: false })

    await page.getByRole('link', { name: 'Find mods' }).click()
    await page.getByRole('searchbox', { name: 'Look for mods' }).fill('keepers')
    const list = page.getByRole('grid', { name: 'Mods that are offered' })
    await expect(list.locator('[data-row]')).toHaveCount(1)
    await list.getByRole('row', { name: 'Lighthouse Keepers' }).click()
    await expect(page.getByRole('complementary')).toContainText('needs lamplight >=1.1')
    await page.reload()
    await expect(page.getByRole('searchbox', { name: 'Look for mods' })).toHaveValue('keepers')
    await page.getByRole('link', { name: 'See what it brings with it' }).click()

    await expect(page.getByRole('region', { name: 'To fetch' })).toContainText('Lighthouse Keepers 1.0')
    await expect(page.getByRole('region', { name: 'Here in another version' })).toContainText(
      'Lamplight 1.1 needed by Lighthouse Keepers; 1.0 is here, 1.1 takes its place, from Harbour Board',
    )
    await expect(page.getByRole('region', { name: 'Here, and off' })).toContainText('Quiet Gulls 0.9')
    await page.getByRole('button', { name: /^Get all of it/ }).click()
    await said(page, 'All of it is here and on.')
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Layers')
    const now = await world.api('GET', `/workspaces/${workspace}/layers`)
    const layer = (name: string) => now.layers.find((l: { name: string }) => l.name === name)
    expect(layer('Lighthouse Keepers').on).toBe(true)
    expect(layer('Lamplight').version).toBe('1.1')
    expect(layer('Quiet Gulls').on).toBe(true)

    await page.getByRole('button', { name: 'Undo', exact: true }).click()
    await said(page, /Undone/)
    const before = await world.api('GET', `/workspaces/${workspace}/layers`)
    expect(before.layers.find((l: { name: string }) => l.name === 'Lamplight').version).toBe('1.0')
  })

  test('what cannot all be had is told, with its ways out', async ({ page, world }) => {
    await add(world)
    await page.goto(`/workspaces/${workspace}/catalogue`)
    const list = page.getByRole('grid', { name: 'Mods that are offered' })
    await list.getByRole('row', { name: 'Seal Count' }).click()
    await list.getByRole('row', { name: 'Pilot Gig Races' }).click({ modifiers: ['Control'] })
    await page
      .getByRole('toolbar', { name: 'Mods that are chosen' })
      .getByRole('button', { name: 'See what they bring with them' })
      .click()
    await expect(page.getByText('This cannot all hold together')).toBeVisible()
    await expect(page.getByText('Seal Count needs Rope Locker >=1.4 <2').first()).toBeVisible()
    await expect(page.getByText('Pilot Gig Races needs Rope Locker >=2').first()).toBeVisible()
    await page.getByRole('button', { name: 'Do without' }).first().click()
    await expect(page.getByRole('button', { name: /^Get all of it/ })).toBeVisible()
    await page.goBack()
    const way = page.getByRole('listitem').filter({ hasText: 'Seal Count needs' }).last()
    await way.getByRole('button', { name: 'Let it not hold' }).click()
    await expect(page.getByText('need not hold: Seal Count needs Rope Locker >=1.4 <2')).toBeVisible()
    await expect(page.getByRole('region', { name: 'Here in another version' })).toContainText(
      'Rope Locker 2.0',
    )
    await page.getByRole('button', { name: /^Take back: need not hold/ }).click()
    await expect(page.getByText('This cannot all hold together')).toBeVisible()
  })

  test('a link to a release leads to what it brings with it', async ({ page, world }) => {
    const file = async () => {
      const [seals] = await world.api('GET', `/workspaces/${workspace}/catalogues/mods/seal-count`)
      return seals.releases[0]
    }
    await add(world)
    const { sha256, version } = await file()
    const link = `web+ironing:get?${new URLSearchParams({
      catalogue: `${catalogue.url}/`,
      mod: 'seal-count',
      version,
      file: sha256,
    })}`
    await page.goto(`/workspaces/${workspace}/catalogue`)
    await page.getByRole('searchbox', { name: 'Look for mods' }).fill(link)
    await expect(page.getByRole('region', { name: 'To fetch' })).toContainText('Seal Count')
    await page.goto(
      `/workspaces/${workspace}/catalogue/link?to=${encodeURIComponent(link.replace(sha256, 'a'.repeat(64)))}`,
    )
    await expect(page.getByText('The catalogue does not offer this release')).toBeVisible()
    await page.goto(`/workspaces/${workspace}/catalogue/link?to=web%2Bironing%3Aget`)
    await expect(page.getByText('This link asks for nothing that can be got')).toBeVisible()

    const [known] = await world.api('GET', `/workspaces/${workspace}/catalogues`)
    await world.api('DELETE', `/workspaces/${workspace}/catalogues/${known.id}`)
    await page.goto(`/workspaces/${workspace}/catalogue/link?to=${encodeURIComponent(link)}`)
    await page.getByRole('button', { name: 'Add the catalogue and go on' }).click()
    await expect(page.getByRole('region', { name: 'To fetch' })).toContainText('Seal Count')
  })

  test('a variant is asked for, and what is missing can be filled in', async ({ page, world }) => {
    await add(world)
    await page.goto(`/workspaces/${workspace}/catalogue/choice?want=hull-textures`)
    await page.getByRole('button', { name: 'small' }).click()
    await expect(page.getByRole('region', { name: 'To fetch' })).toContainText('Hull Textures 2.0')
    await page.getByRole('link', { name: 'Find mods' }).click()
    await page.getByRole('link', { name: 'Fill what is missing' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('What is missing')
    await expect(page.getByText('All of it is here and on.')).toBeVisible()
  })

  test('a download that breaks goes on, one that is not what was announced is thrown away', async ({
    page,
    world,
  }) => {
    await add(world)
    await catalogue.fail('/files/seal-count-1.0.zip', 'kind=slow&amount=15000&times=1')
    await page.goto(`/workspaces/${workspace}/catalogue/choice?want=seal-count`)
    await page.getByRole('button', { name: /^Get all of it/ }).click()
    await open(page, 'Library')
    await page.getByRole('link', { name: /^Inbox/ }).click()
    const queue = page.getByRole('region', { name: 'Downloads' })
    await queue.getByRole('button', { name: 'Pause seal-count-1.0.zip' }).click()
    await expect(queue).toContainText('paused at')
    await queue.getByRole('button', { name: 'Go on with seal-count-1.0.zip' }).click()
    await said(page, 'All of it is here and on.')

    await open(page, 'Catalogue')
    await catalogue.fail('/files/slow-mail-1.4.zip', 'kind=altered&amount=9')
    await page.goto(`/workspaces/${workspace}/catalogue/choice?want=slow-mail`)
    await page.getByRole('button', { name: /^Get all of it/ }).click()
    await said(page, /Its SHA-256 is [0-9a-f]{64}, and the catalogue says/)
    await catalogue.mend('/files/slow-mail-1.4.zip')
    await page.getByRole('button', { name: /^Get all of it/ }).click()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Layers')
  })
})
