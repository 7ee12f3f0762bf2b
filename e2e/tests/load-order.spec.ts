import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { carry, expect, inOrder, rows, said, test } from '../support/test'

test.describe('Load order', () => {
  let workspace: number

  test.beforeEach(async ({ page, world }) => {
    workspace = await world.skerryLine()
    await page.goto(`/workspaces/${workspace}/load-order`)
    await expect(page.getByRole('row', { name: 'NightFerry.plug' })).toBeVisible()
  })

  test('slots, masters and a late master are told', async ({ page }) => {
    await expect(page.getByText(/^\d+ of 93 slots used by mods$/)).toBeVisible()
    await page.getByRole('row', { name: 'NightFerry.plug' }).click()
    const aside = page.getByRole('complementary')
    await expect(aside).toContainText('Lamplight.plug')
    await expect(aside).toContainText('loads after it')
  })

  test('a plugin is dragged after its master, and the trouble is gone', async ({ page }) => {
    await carry(page, 'NightFerry.plug', 'Lamplight.plug')
    await said(page, /NightFerry\.plug loads as \d+ now/)
    await expect(page.getByRole('row', { name: 'NightFerry.plug' })).not.toContainText('master')
    await page.goto(`/workspaces/${workspace}`)
    await expect(page.getByText('each after its masters')).toBeVisible()
  })

  test('the keyboard carries a plugin; what a stage or the game’s own stand in the way of is told', async ({
    page,
  }) => {
    const before = await rows(page)
    expect(before.slice(0, 3)).toEqual(['Skerry.plug', 'Isles.plug', 'RopeLocker.plug'])
    expect(before[6]).toBe('HullsLarge.plug')
    await page.getByRole('row', { name: 'Caulking.plug' }).focus()
    await page.keyboard.press('Space')
    await said(page, 'Caulking.plug is taken up.')
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Enter')
    await expect.poll(async () => (await rows(page)).indexOf('Caulking.plug')).toBe(8)
    await page.getByRole('row', { name: 'HullsLarge.plug' }).focus()
    await page.keyboard.press('Alt+ArrowDown')
    await said(page, /HullsLarge\.plug .*stage/)
    await expect.poll(async () => (await rows(page)).indexOf('HullsLarge.plug')).toBe(6)
  })

  test('switching a master off tells which plugin misses it, with a way to mend that', async ({ page }) => {
    const toggle = page.getByRole('row', { name: 'Lamplight.plug' }).getByRole('switch')
    await toggle.click()
    await said(page, /Lamplight\.plug switched off/)
    await page.goto(`/workspaces/${workspace}`)
    const wrinkle = page.getByRole('listitem').filter({ hasText: 'NightFerry.plug' })
    await expect(wrinkle.first()).toContainText('stops the game')
    await wrinkle.first().getByRole('button').first().click()
    await expect(page.getByRole('listitem').filter({ hasText: 'Lamplight.plug is off' })).toHaveCount(0)
  })

  test('a missing master is remedied by switching on the mod that has it', async ({ page, world }) => {
    const { layers } = await world.api('GET', `/workspaces/${workspace}/layers`)
    const lamplight = layers.find((l: { name: string }) => l.name === 'Lamplight').mod
    await world.change(workspace, 'POST', '/layers/switch', { mods: [lamplight], on: false })
    await page.reload()
    const ferry = page.getByRole('row', { name: 'NightFerry.plug' })
    await expect(ferry).toContainText('master missing')
    await ferry.click()
    const aside = page.getByRole('complementary', { name: 'NightFerry.plug' })
    await expect(aside).toContainText('Lamplight in your library has it. Switch it on.')
    await aside.getByRole('button', { name: 'Switch Lamplight on' }).first().click()
    await said(page, /Switch Lamplight on: done/)
    await expect(ferry).not.toContainText('master missing')
    await expect(page.getByRole('row', { name: 'Lamplight.plug' })).toBeVisible()
  })

  test('a rule of one’s own is made, tested, muted and taken back', async ({ page }) => {
    await page.getByRole('row', { name: 'Fogbound.plug' }).click()
    await page.getByRole('link', { name: 'Make a rule of it' }).click()
    await page.getByLabel('What it asks for').selectOption({ label: 'loads before' })
    await page.getByLabel('The other one').fill('c*.plug')
    await page.getByLabel('Why', { exact: true }).fill('weather before charts')
    await page.getByRole('button', { name: 'Make the rule' }).click()
    await said(page, /The rule is made/)
    const own = page.getByRole('region', { name: 'Your own' })
    await expect(own).toContainText('Fogbound.plug before c*.plug')
    await own
      .getByRole('button', { name: /Fogbound.plug before/ })
      .first()
      .click()
    await expect(page.getByRole('complementary')).toContainText(/Without it \d+ plugins? would be proposed/)
    await own.getByRole('button', { name: /What to make of/ }).click()
    await page.getByRole('menuitem', { name: 'Mute in this profile' }).click()
    await said(page, /no longer counts in this profile/)
    await expect(own).toContainText('muted here')
    await own.getByRole('button', { name: /What to make of/ }).click()
    await page.getByRole('menuitem', { name: 'Take back' }).click()
    await said(page, /The rule is taken back/)
    await expect(own).toHaveCount(0)
    await page.keyboard.press('Control+z')
    await expect(own).toContainText('Fogbound.plug before c*.plug')
    // what is fixed offers nothing
    const fixed = page.getByRole('region', { name: 'Fixed: masters' })
    await expect(fixed.getByRole('button', { name: /What to make of/ })).toHaveCount(0)
    // a rule of a card is dropped
    const cards = page.getByRole('region', { name: 'Of the mods’ cards' })
    await cards
      .getByRole('button', { name: /What to make of/ })
      .first()
      .click()
    await page.getByRole('menuitem', { name: 'Drop' }).click()
    await said(page, /The rule is dropped/)
    await expect(cards).toContainText('dropped')
  })

  test('a proposal is taken in part, and a place that is kept stays', async ({ page, world }) => {
    await world.change(workspace, 'POST', '/load-order/rules', {
      kind: 'BEFORE',
      plugin: { by: 'NAME', text: 'ClearerCharts.plug' },
      other: { by: 'NAME', text: 'Caulking.plug' },
      reason: 'charts first',
    })
    await page.reload()
    const before = await rows(page)
    await page.getByRole('button', { name: 'See the proposal: 2 moves' }).click()
    const aside = page.getByRole('complementary', { name: 'Why these moves' })
    await expect(aside).toContainText('charts first. So says your rule 1')
    await aside.getByRole('checkbox', { name: /Lamplight|NightFerry/ }).uncheck()
    await page.getByRole('button', { name: 'Take 1 of 2 moves' }).click()
    await said(page, /The proposal is taken/)
    await inOrder(page, (at) => {
      expect(at('ClearerCharts.plug')).toBe(at('Caulking.plug') - 1)
      expect(at('NightFerry.plug')).toBe(before.indexOf('NightFerry.plug'))
    })
    // kept at both ends of what the card of one asks for, nothing can move
    for (const name of ['NightFerry.plug', 'Lamplight.plug']) {
      await page.getByRole('row', { name }).click()
      await page.getByRole('button', { name: 'Keep here' }).click()
      await said(page, new RegExp(`${name} is kept here`))
    }
    await page.getByRole('button', { name: 'See why no order works' }).click()
    await expect(page.getByText('both are kept where they are')).toBeVisible()
    await page.getByRole('button', { name: 'keep NightFerry.plug no longer where it is' }).click()
    await said(page, /Done/)
    await expect(page.getByRole('button', { name: /Take (the move|all \d+ moves)/ })).toBeVisible()
  })

  test('a proposal changes nothing until it is taken, and can be left', async ({ page }) => {
    const before = await rows(page)
    await page.getByRole('button', { name: /See the proposal:/ }).click()
    await expect(page.getByText('Nothing changes until you take it.')).toBeVisible()
    await expect(page.getByRole('complementary')).toContainText('Fixed by the file')
    await page.getByRole('button', { name: 'Leave it' }).click()
    await expect.poll(() => rows(page)).toEqual(before)
  })

  test('why a plugin stands where it does is told with its chain', async ({ page }) => {
    await page.getByRole('row', { name: 'NightFerry.plug' }).click()
    const aside = page.getByRole('complementary', { name: 'NightFerry.plug' })
    await expect(aside).toContainText('Why here?')
    await aside.getByText('Lamplight.plug').first().click()
    await expect(aside).toContainText('it lists Lamplight.plug as a master')
  })

  test('a list that was changed by hand is noticed, looked at and put back', async ({ page, world }) => {
    await world.change(workspace, 'POST', '/load-order/proposal')
    await world.job(`/workspaces/${workspace}/deploy`)
    const list = join(world.game, 'settings/roster.txt')
    writeFileSync(list, 'use Fogbound.plug\nskip Caulking.plug\nuse Nobody.plug\n')
    await page.reload()
    await expect(page.getByText(/was changed by the game or by hand/)).toContainText('1 name unknown here')
    await page.getByRole('button', { name: 'Look at it' }).click()
    const dialog = page.getByRole('dialog')
    await expect(dialog).toContainText('Caulking.plug is off there')
    await dialog.getByRole('button', { name: 'Take it over' }).click()
    await said(page, /The list file is taken over/)
    await expect(page.getByRole('row', { name: 'Caulking.plug' }).getByRole('switch')).not.toBeChecked()
    await page.getByRole('button', { name: 'Put ours back' }).click()
    await said(page, /as it is wanted here again/)
    await expect(page.getByText(/was changed by the game or by hand/)).toHaveCount(0)
  })
})
