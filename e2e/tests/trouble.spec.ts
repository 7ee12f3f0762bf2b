import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { zipOf } from '../support/archives'
import { freePort, ironing, Running } from '../support/command'
import { folderFor } from '../support/product'
import { expect, open, said, test, World } from '../support/test'

/** Two mods that are fine alone: one calls a routine that the other has renamed. */
const LAMPS = zipOf({
  'scripts/day.sks':
    'routine day\n  call berthing\n  call late-evening\nend\n\nroutine late-evening\n  say Lamps.\nend\n',
  'textures/lamps.txt': 'dim',
})
const SONGS = zipOf({ 'scripts/songs.sks': 'routine songs\n  call evening\nend\n' })

/** Waits until a search, with all that goes on inside of it, has left the game folder. */
async function idle(world: World, workspace: number): Promise<void> {
  await expect
    .poll(async () => {
      const jobs = await world.api('GET', `/workspaces/${workspace}/jobs`)
      return jobs.filter((j: { state: string }) => j.state === 'RUNNING').length
    })
    .toBe(0)
}

test.describe('Trouble', () => {
  test('a search by itself ends with two mods, goes on to their files, and tells others', async ({
    page,
    world,
  }) => {
    const workspace = await world.skerryLine()
    await world.change(workspace, 'POST', '/load-order/proposal')
    await world.job(`/workspaces/${workspace}/deploy`)
    await page.goto(`/workspaces/${workspace}/test-run`)
    await page.getByRole('button', { name: 'Start the game' }).click()
    await expect(page.getByText('played to its end').first()).toBeVisible({ timeout: 90_000 })
    await world.install(workspace, { name: 'Late Lamps 1.zip', bytes: LAMPS })
    await world.install(workspace, { name: 'Songs 1.zip', bytes: SONGS })
    await world.job(`/workspaces/${workspace}/deploy`)
    await page.getByRole('button', { name: 'Start the game' }).click()
    const fault = page.getByRole('alert', { name: 'Why it stopped' })
    await expect(fault).toContainText('routine-missing', { timeout: 90_000 })
    await fault.getByRole('link', { name: 'search for what causes it' }).click()

    await test.step('the suspects: what the fault names, and what changed since it worked', async () => {
      await expect(page.getByRole('radio', { name: /It stops: The script/ })).toBeChecked()
      const suspects = page.getByRole('region', { name: 'Suspects' })
      await expect(suspects.getByRole('listitem').first()).toContainText('Songs')
      await expect(suspects.getByRole('listitem').first()).toContainText('the fault names it')
      await expect(suspects.getByRole('listitem').filter({ hasText: 'Late Lamps' })).toContainText(
        'changed since it worked',
      )
      await expect(suspects.getByRole('button', { name: 'Go back to what worked then' })).toBeVisible()
    })

    await page.getByRole('button', { name: 'Search for what causes it' }).click()
    const outcome = page.getByRole('region', { name: 'What came of it' })
    await expect(outcome).toContainText('With these 2 mods the fault shows', { timeout: 120_000 })
    await expect(outcome.getByRole('listitem').filter({ hasText: 'Late Lamps' }).first()).toBeVisible()
    await expect(page.getByText('the unmodded game')).toBeVisible()

    await test.step('what in them', async () => {
      await page.getByRole('link', { name: 'What in them' }).click()
      await expect(outcome).toContainText('With these 2 files the fault shows', { timeout: 120_000 })
      await expect(outcome).toContainText('data/scripts/songs.sks')
      await expect(outcome).toContainText('data/scripts/day.sks')
      await outcome.getByRole('button', { name: 'What can be done about data/scripts/day.sks' }).click()
      const ways = page.getByRole('dialog', { name: 'data/scripts/day.sks' }).getByRole('listitem')
      await expect(ways.first()).toContainText('Hold it back from Late Lamps')
      await expect(ways.filter({ hasText: 'A ruling: take it from' }).first()).toContainText(
        '1 file in the game would change',
      )
      await page.keyboard.press('Escape')
      await page.getByRole('link', { name: 'One level up' }).click()
    })

    await test.step('a question with facts, and a finding', async () => {
      await outcome.getByRole('button', { name: 'Ask a mod’s author' }).click()
      const question = page.getByRole('dialog')
      await expect(question).toContainText('data/scripts/songs.sks')
      await expect(question).not.toContainText(world.folder)
      await expect(question).not.toContainText('Quiet Gulls')
      await page.keyboard.press('Escape')
      await outcome.getByRole('button', { name: 'Keep it as a finding' }).click()
      await said(page, 'Written down among your findings.')
      const findings = await world.api('GET', `/workspaces/${workspace}/findings`)
      expect(findings[0].verdict).toBe('BROKEN')
    })

    await test.step('one of them is switched off, and the game plays', async () => {
      await outcome.getByRole('button', { name: 'What can be done about Late Lamps' }).click()
      const way = page.getByRole('dialog', { name: 'Late Lamps' }).getByRole('listitem')
      await expect(way).toContainText(/files? in the game would change/)
      await way.getByRole('button', { name: 'Switch off Late Lamps' }).click()
      await said(page, 'Switch off Late Lamps: done')
      await idle(world, workspace)
      await world.job(`/workspaces/${workspace}/deploy`)
      await open(page, 'Test run')
      await page.getByRole('button', { name: 'Start the game' }).click()
      await expect(page.getByText(/played to its end\./).first()).toBeVisible({ timeout: 90_000 })
    })
  })

  test('signs: what the run tells of each mod, and what is ticked by hand', async ({ page, world }) => {
    const workspace = await world.skerryLine()
    await world.change(workspace, 'POST', '/load-order/proposal')
    await world.job(`/workspaces/${workspace}/deploy`)
    await page.goto(`/workspaces/${workspace}/test-run`)
    await page.getByRole('link', { name: 'Signs: does each mod work?' }).click()
    const told = page.getByRole('region', { name: 'What the run tells' })
    await expect(told.getByText('cannot be told').first()).toBeVisible()
    await world.api('POST', `/workspaces/${workspace}/runs`)
    await expect(
      told.getByRole('listitem').filter({ hasText: 'Gulls are heard further off' }).last(),
    ).toContainText(/^seen/, { timeout: 90_000 })
    await expect(told.getByText('the game read 1 of its 1 file in play').first()).toBeVisible()
    const office = page.getByRole('region', { name: 'Harbour office' })
    await expect(office.getByRole('listitem')).toHaveCount(2)
    await office.getByRole('button', { name: 'Seen: A ledger hangs in the wheelhouse' }).click()
    await expect(
      office.getByRole('button', { name: 'Seen: A ledger hangs in the wheelhouse' }),
    ).toHaveAttribute('aria-pressed', 'true')
    await page.getByText('Write a sign of your own').click()
    await page.getByLabel('What shows').fill('The quay is wet')
    await page.getByLabel('Where to look').fill('Quay, by the bollards')
    await page.getByRole('button', { name: 'Write it down' }).click()
    await expect(page.getByRole('region', { name: 'Quay' })).toContainText('The quay is wet')
  })
})

test.describe('A small set', () => {
  const PLAIN = zipOf({ 'textures/plain.txt': 'plain' })
  const DARK = zipOf({
    'mod-card.yaml':
      'format: ironing/mod@1\nid: dark\nname: Dark Nights\nversion: 1\n' +
      'signs: [ { report: Nights, says: "The nights are dark" } ]\n',
    'textures/night.txt': 'dark',
  })

  async function smallSet(world: World): Promise<number> {
    const workspace = await world.makeWorkspace(world.copyGame())
    await world.install(workspace, { name: 'Plain 1.zip', bytes: PLAIN })
    await world.install(workspace, { name: 'Dark Nights 1.zip', bytes: DARK })
    return workspace
  }

  test('is built up in steps, which stop at the first that fails', async ({ page, world }) => {
    const workspace = await smallSet(world)
    await world.install(workspace, { name: 'Late Lamps 1.zip', bytes: LAMPS })
    await world.install(workspace, { name: 'Songs 1.zip', bytes: SONGS })
    await page.goto(`/workspaces/${workspace}/trouble`)
    await page.getByRole('radio', { name: /build the set up in steps/ }).check()
    await page.getByRole('button', { name: 'Build it up' }).click()
    const outcome = page.getByRole('region', { name: 'What came of it' })
    await expect(outcome).toContainText('With these 2 mods the fault shows', { timeout: 120_000 })
    await expect(page.getByText('a step: what it adds to those before').first()).toBeVisible()
    await idle(world, workspace)
  })

  test('tells what a run and what a mod costs, and which sign is missing', async ({ page, world }) => {
    const workspace = await smallSet(world)
    await world.job(`/workspaces/${workspace}/deploy`)
    await page.goto(`/workspaces/${workspace}/test-run`)
    await page.getByRole('button', { name: 'Start the game' }).click()
    await expect(page.getByText(/It took .* until it had loaded, and .* MiB of memory/)).toBeVisible({
      timeout: 90_000,
    })
    await page.getByRole('link', { name: 'Signs: does each mod work?' }).click()
    await page.getByRole('link', { name: 'Search why not: The nights are dark' }).click()
    await expect(page.getByRole('radio', { name: 'A sign is missing: The nights are dark' })).toBeChecked()
    await page.getByRole('button', { name: 'Search for what causes it' }).click()
    await expect(page.getByRole('region', { name: 'What came of it' })).toContainText(
      'With nothing on but Dark Nights the fault shows too',
      { timeout: 120_000 },
    )
    await open(page, 'Trouble')
    const cost = page.getByRole('form', { name: 'What a mod costs' })
    await cost.getByRole('combobox', { name: 'The mod to measure' }).selectOption('Dark Nights')
    await cost.getByRole('combobox', { name: 'How often each set is run' }).selectOption('1')
    await cost.getByRole('button', { name: 'Measure it' }).click()
    const figures = page.getByRole('region', { name: 'What it costs' })
    for (const of of ['Whole time', 'Until it had loaded', 'Most memory at a time'])
      await expect(figures.getByRole('heading', { name: of })).toBeVisible({ timeout: 90_000 })
    await expect(figures.getByText('1 run)')).toHaveCount(6, { timeout: 90_000 })
    await idle(world, workspace)
  })
})

test.describe('A search by hand', () => {
  test.use({ expectRefusals: true, expectFailures: true })

  test('waits while Ironing ends and starts again, and comes to its end', async ({ page }) => {
    const folder = folderFor('home')
    const env = { IRONING_HOME: join(folder, 'home'), IRONING_PORT: String(await freePort()) }
    let product = await Running.up('start', env)
    const world = new World(product.url)
    const workspace = await world.makeWorkspace(world.copyGame())
    for (const n of [1, 2, 3, 4, 5, 6])
      await world.install(workspace, {
        name: `Plain ${n} 1.zip`,
        bytes: zipOf({ [`textures/plain-${n}.txt`]: `${n}` }),
      })
    await world.job(`/workspaces/${workspace}/deploy`)
    await page.goto(`${product.url}/workspaces/${workspace}/trouble`)
    await page.getByLabel('What is wrong, in words').fill('The water is black')
    await page.getByRole('button', { name: 'Search for what causes it' }).click()
    const far = page.getByRole('region', { name: 'How far it is' })
    const tries = page.getByRole('region', { name: 'What was tried' })
    const now = async () => {
      const asked = await world.api('GET', `/workspaces/${workspace}/searches`)
      return await world.api('GET', `/workspaces/${workspace}/searches/${asked[0].id}`)
    }
    await expect(far).toContainText('Try 1:')
    for (let n = 1, search = await now(); search.asked; n++) {
      expect(n, 'six mods need fewer tries').toBeLessThan(12)
      await expect(far).toContainText(`Try ${n}:`)
      if (n === 1) {
        await far.getByRole('button', { name: 'Start the game with this set' }).click()
        await expect(far.getByRole('button', { name: 'Start the game with this set' })).toBeEnabled({
          timeout: 90_000,
        })
      }
      if (n === 3) {
        await ironing(['stop'], env)
        await product.exited
        product = await Running.up('start', env)
        await page.goto(page.url())
        await expect(tries.getByRole('listitem')).toHaveCount(2)
      }
      const four = search.parts.find((p: { modName: string }) => p.modName === 'Plain 4').number
      const shows = search.asked.members.includes(four)
      await far.getByRole('button', { name: shows ? 'The fault shows' : 'It works' }).click()
      await expect(tries.getByRole('listitem')).toHaveCount(n)
      search = await now()
    }
    const outcome = page.getByRole('region', { name: 'What came of it' })
    await expect(outcome).toContainText('With this mod the fault shows; without it, it does not.')
    await expect(outcome).toContainText('Plain 4')
    await tries
      .getByRole('button', { name: /^Take back/ })
      .first()
      .click()
    await expect(far).toBeVisible()
    await ironing(['stop'], env)
    await product.exited
    world.remove()
    rmSync(folder, { recursive: true, force: true })
  })
})
