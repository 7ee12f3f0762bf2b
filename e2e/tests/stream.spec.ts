import type { Page } from '@playwright/test'
import { expect, inOrder, open, said, test } from '../support/test'

test.describe('What happens is heard', () => {
  let workspace: number

  test.beforeEach(async ({ world }) => {
    workspace = await world.skerryLine()
  })

  test('ten tabs at once work, and each follows what another does', async ({ context, page }) => {
    test.slow()
    const at = `/workspaces/${workspace}/layers`
    const tabs = [page]
    for (let i = 0; i < 9; i++) tabs.push(await context.newPage())
    for (const tab of tabs) {
      await tab.goto(at)
      await expect(tab.getByRole('row', { name: 'Rope Locker' })).toBeVisible()
    }
    const last = tabs[9] as Page
    await last.getByRole('row', { name: 'Rope Locker' }).getByRole('switch').click()
    for (const tab of tabs) {
      const row = tab.getByRole('row', { name: 'Rope Locker' })
      await expect(row.getByRole('switch')).not.toBeChecked()
    }
    // the one that holds the stream goes; the others go on
    await page.close()
    await last.getByRole('row', { name: 'Rope Locker' }).getByRole('switch').click()
    for (const tab of tabs.slice(1))
      await expect(tab.getByRole('row', { name: 'Rope Locker' }).getByRole('switch')).toBeChecked()
  })

  test('a lost network says nothing of a server on this machine', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/layers`)
    await expect(page.getByRole('row', { name: 'Rope Locker' })).toBeVisible()
    await page.evaluate(() => dispatchEvent(new Event('offline')))
    await page.getByRole('row', { name: 'Rope Locker' }).getByRole('switch').click()
    await said(page, 'switched off')
    await open(page, 'Deploy')
    await page.getByRole('button', { name: /^Deploy \d+ change/ }).click()
    await said(page, 'Deployed. The game folder is as you arranged it.')
  })

  test.describe('a server that refuses', () => {
    test.use({ expectRefusals: true, expectFailures: true })

    test('the stream is opened again, whatever the answer was', async ({ page }) => {
      let refused = 0
      await page.route('**/api/events', (route) =>
        ++refused <= 2 ? route.fulfill({ status: 503, body: '' }) : route.continue(),
      )
      await page.goto(`/workspaces/${workspace}/layers`)
      await expect(page.getByText('The server cannot be heard')).toBeVisible()
      await expect(page.getByText('The server cannot be heard')).toBeHidden({ timeout: 20_000 })
      expect(refused).toBeGreaterThan(2)
    })

    test('a move that does not come through leaves the screen', async ({ page }) => {
      await page.goto(`/workspaces/${workspace}/layers`)
      const row = page.getByRole('row', { name: 'Rope Locker' })
      await expect(row).toBeVisible()
      // neither the move nor a look at how things stand
      await page.route('**/api/workspaces/*/layers**', (route) => route.abort())
      await row.click()
      await page.keyboard.press('Alt+ArrowUp')
      await said(page, 'It does not answer.')
      await inOrder(page, (at) => expect(at('Rope Locker')).toBeGreaterThan(at('Hull Textures Large')))
    })

    test('a screen whose code is gone says so, and the page can be loaded again', async ({ page }) => {
      await page.route('**/assets/TimelineView*', (route) => route.fulfill({ status: 404, body: '' }))
      await page.goto(`/workspaces/${workspace}/layers`)
      await expect(page.getByRole('row', { name: 'Rope Locker' })).toBeVisible()
      await page.getByRole('link', { name: 'Timeline' }).click()
      await expect(page.getByText('Ironing was updated, or does not run')).toBeVisible()
      // the rest of the page goes on
      await expect(page.getByRole('navigation', { name: 'Screens' })).toBeVisible()
      await page.unroute('**/assets/TimelineView*')
      await page.getByRole('button', { name: 'Load the page again' }).click()
      await expect(page.getByRole('heading', { level: 1 })).toHaveText('Timeline')
    })

    test('a screen that failed keeps its title, and says what to do', async ({ page }) => {
      await page.route('**/api/workspaces/*/load-order', (route) => route.fulfill({ status: 500, body: '' }))
      await page.goto(`/workspaces/${workspace}/load-order`)
      await expect(page.getByRole('heading', { level: 1, name: 'Load order' })).toBeVisible()
      await expect(page.getByText('It answered with 500 and nothing else')).toBeVisible()
      await expect(page).toHaveTitle('Load order · Skerry Line')
      await page.unroute('**/api/workspaces/*/load-order')
      await page.getByRole('button', { name: 'Try again' }).click()
      await expect(page.getByRole('row', { name: 'NightFerry.plug' })).toBeVisible()
    })
  })
})
