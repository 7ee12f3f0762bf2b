import type { Page } from '@playwright/test'
import axe from 'axe-core'
import { expect, test } from '../support/test'

const SCREENS = [
  'Overview',
  'Library',
  'Layers',
  'Overlaps',
  'Load order',
  'Records',
  'Mends',
  'Deploy',
  'Test run',
  'Trouble',
] as const

function address(workspace: number, screen: string): string {
  const view = screen === 'Overview' ? '' : `/${screen.toLowerCase().replace(' ', '-')}`
  return `/workspaces/${workspace}${view}`
}

async function settled(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect(page.getByRole('status', { name: /^Loading/ })).toHaveCount(0)
}

test.describe('The frame of every screen', () => {
  let workspace: number

  test.beforeEach(async ({ world }) => {
    workspace = await world.skerryLine()
  })

  test('each screen has an address of its own, which a reload and a bookmark keep', async ({ page }) => {
    for (const screen of SCREENS) {
      await page.goto(address(workspace, screen))
      await settled(page)
      const here = page.getByRole('navigation', { name: 'Screens' }).locator('[aria-current=page]')
      await expect(here).toContainText(screen)
    }
    await page.goto(address(workspace, 'Layers'))
    await page.getByRole('row', { name: 'Rope Locker' }).click()
    await page.reload()
    await expect(page.getByRole('complementary', { name: 'Rope Locker' })).toBeVisible()
  })

  test('an address that was given up leads on, with what was selected', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/mends/files?path=data/scripts/berthing.sks`)
    await expect(page).toHaveURL(/mends\/combined-files\?path=data\/scripts\/berthing\.sks$/)
    await page.goto(`/workspaces/${workspace}/deploy/folder`)
    await expect(page).toHaveURL(/deploy\/drift$/)
  })

  test('Ctrl K finds mods, plugins, records, screens and actions', async ({ page }) => {
    await page.goto(address(workspace, 'Overview'))
    await settled(page)
    for (const [typed, name, url] of [
      ['rope lo', 'Rope Locker', /layers\/\d+/],
      ['nightferry.p', 'NightFerry.plug', /load-order\/NightFerry\.plug/],
      ['aud hel', 'Aud Helga', /records\/Skerry\.plug\/420/],
      ['overl', 'Overlaps', /overlaps/],
    ] as const) {
      await page.keyboard.press('Control+k')
      await page.getByRole('combobox').fill(typed)
      await expect(page.getByRole('option', { selected: true })).toContainText(name)
      await page.keyboard.press('Enter')
      await expect(page).toHaveURL(url)
    }
  })

  test('Enter in the palette means what fits best, also when its names come late', async ({ page }) => {
    await page.goto(address(workspace, 'Overview'))
    await settled(page)
    await page.route('**/records/names*', async (route) => {
      await new Promise((later) => setTimeout(later, 700))
      await route.continue()
    })
    await page.keyboard.press('Control+k')
    await page.getByRole('combobox').fill('aud')
    const best = page.getByRole('option', { selected: true })
    await expect(best).not.toContainText('Aud Helga')
    await expect(best).toContainText('Aud Helga')
    // but an entry that was gone to stays chosen
    await page.getByRole('combobox').fill('ba')
    await expect(page.getByRole('option', { name: 'Aud Helga' })).toHaveCount(0)
    await page.getByRole('combobox').fill('au')
    await page.keyboard.press('ArrowDown')
    const gone = (await best.textContent()) ?? ''
    await expect(page.getByRole('option', { name: 'Aud Helga' }).first()).toBeVisible()
    await expect(best).toHaveText(gone)
  })

  test('a screen is found by the words of the trade, a theme is chosen, and ? tells the keys', async ({
    page,
  }) => {
    await page.goto(address(workspace, 'Overview'))
    await settled(page)
    const theme = page.getByRole('button', { name: /^Theme/ })
    for (const [typed, name] of [
      ['undeploy', 'Deploy'],
      ['conflict', 'Overlaps'],
      ['slots', 'Load order'],
    ] as const) {
      await page.keyboard.press('Control+k')
      await page.getByRole('combobox').fill(typed)
      await page.getByRole('option', { name: new RegExp(`^${name} `) }).click()
      await expect(page.getByRole('heading', { level: 1 })).toHaveText(name)
    }
    await page.keyboard.press('Control+k')
    await page.getByRole('combobox').fill('dark')
    await page.keyboard.press('Enter')
    await expect(theme).toHaveAccessibleName('Theme: Dark')
    await page.keyboard.press('?')
    const keys = page.getByRole('dialog', { name: 'Keys' })
    await expect(keys.getByText('find a row by the beginning of its name')).toBeVisible()
    await page.keyboard.press('Escape')
    await expect(keys).toBeHidden()
    await page.keyboard.press('Control+k')
    await page.getByRole('combobox').fill('a question?')
    await expect(keys).toBeHidden()
  })

  test('enlarged to 200 per cent, every screen fits its width, and what is beside comes below', async ({
    page,
  }) => {
    await page.setViewportSize({ width: 640, height: 400 })
    for (const screen of SCREENS) {
      await page.goto(address(workspace, screen))
      await settled(page)
      const width = await page.evaluate(() => document.documentElement.scrollWidth)
      expect(width, screen).toBeLessThanOrEqual(640)
      const heading = await page.getByRole('heading', { level: 1 }).boundingBox()
      expect(heading?.width, `the title of ${screen}`).toBeGreaterThan(50)
    }
    await page.goto(address(workspace, 'Layers'))
    await page.getByRole('row', { name: 'Winter Timetable' }).click()
    const name = await page.getByText('Winter Timetable', { exact: true }).first().boundingBox()
    expect(name?.width).toBeGreaterThan(90)
    const about = page.getByRole('complementary', { name: 'Winter Timetable' })
    await about.getByRole('link', { name: 'Open in the library' }).click()
    await expect(page).toHaveURL(/library\/\d+$/)
  })

  test('the theme is chosen by hand and kept', async ({ page }) => {
    await page.goto(address(workspace, 'Overview'))
    await settled(page)
    const paper = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor)
    const light = await paper()
    const button = page.getByRole('button', { name: /^Theme/ })
    await button.click()
    await button.click()
    await expect(button).toHaveAccessibleName('Theme: Dark')
    expect(await paper()).not.toBe(light)
    await page.reload()
    await expect(button).toHaveAccessibleName('Theme: Dark')
    expect(await paper()).not.toBe(light)
  })

  test('the way by the keyboard alone: focus is seen, and every screen can be reached', async ({ page }) => {
    await page.goto(address(workspace, 'Overview'))
    await settled(page)
    const seen = new Set<string>()
    for (let i = 0; i < 30; i++) {
      await page.keyboard.press('Tab')
      const focus = await page.evaluate(() => {
        const e = document.activeElement as HTMLElement
        const style = getComputedStyle(e)
        // past the last one the browser’s own frame has the focus
        if (e === document.body) return { text: '', outline: true }
        return {
          text: e.textContent ?? '',
          outline: style.outlineStyle !== 'none' || style.boxShadow !== 'none',
        }
      })
      expect(focus.outline, `the focus on “${focus.text}” is seen`).toBe(true)
      for (const s of SCREENS) if (focus.text.startsWith(s)) seen.add(s)
    }
    expect([...seen].sort()).toEqual([...SCREENS].sort())
  })

  /** What axe says of the page as it is. It is brought in once for each page that is loaded. */
  async function violationsOf(page: Page, runOnly: axe.RunOnly): Promise<axe.Result[]> {
    if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
    return page.evaluate(
      async (options) => {
        const here = (window as unknown as { axe: typeof axe }).axe
        return (await here.run(document, options)).violations
      },
      { runOnly, resultTypes: ['violations'] } satisfies axe.RunOptions,
    )
  }

  const WCAG = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']

  /**
   * What axe finds on what the page shows: light and dark, as it is and enlarged to 200 per cent. The dark one
   * differs in its colours only.
   */
  async function faultsHere(page: Page, what: string, rules: readonly string[]): Promise<string[]> {
    const found: string[] = []
    for (const [width, height] of [
      [1280, 800],
      [640, 400],
    ] as const) {
      await page.setViewportSize({ width, height })
      for (const colorScheme of ['light', 'dark'] as const) {
        await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' })
        const violations = await violationsOf(
          page,
          colorScheme === 'light'
            ? { type: 'tag', values: [...rules] }
            : { type: 'rule', values: ['color-contrast'] },
        )
        for (const v of violations) {
          const nodes = v.nodes.map((n) => `${n.html.slice(0, 160)} ${n.any[0]?.message}`).join(' | ')
          found.push(`${what}, ${colorScheme}, ${width}: ${v.id}: ${nodes}`)
        }
      }
    }
    await page.setViewportSize({ width: 1280, height: 800 })
    return found
  }

  async function faults(page: Page, screens: readonly string[]): Promise<string[]> {
    const found: string[] = []
    for (const at of screens) {
      await page.goto(at)
      await settled(page)
      found.push(...(await faultsHere(page, at, [...WCAG, 'best-practice'])))
    }
    return found
  }

  test('no screen has a fault that axe can find', async ({ page }) => {
    test.setTimeout(900_000)
    const others = [
      'layers/suggestion',
      'layers/rules',
      'load-order/NightFerry.plug',
      'load-order/proposal',
      'load-order/rules',
      'load-order/lists',
      'overlaps?show=list',
      'overlaps?show=matrix',
      'overlaps?show=picture',
      'guide/keys',
      'overlaps?show=rulings',
      'overlaps/path?at=data/tables/tariffs.csv',
    ]
    const screens = [
      '/workspaces',
      ...SCREENS.map((s) => address(workspace, s)),
      ...others.map((o) => `/workspaces/${workspace}/${o}`),
    ]
    expect(await faults(page, screens)).toEqual([])
  })

  test('no screen of one thing has a fault that axe can find', async ({ page, world }) => {
    test.setTimeout(900_000)
    const { mods } = await world.api('GET', `/workspaces/${workspace}/library`)
    const asks = await world.send(workspace, world.waiting('hull-plates-1.2.zip'))
    const list = await world.api(
      'POST',
      `/workspaces/${workspace}/lists?name=coast.csv`,
      Buffer.from('name,on,note\nQuiet Gulls,no,Listen first.\nClearer Charts,yes,\nTide Tables,yes,\n'),
    )
    const search = await world.api('POST', `/workspaces/${workspace}/searches`, {
      fault: { kind: 'WORDS', name: 'The water is black' },
      automatic: false,
      mends: 'KEPT',
    })
    const screens = [
      `trouble/${search.search.id}`,
      'test-run/signs',
      'library/inbox',
      `library/inbox/${asks}`,
      'library/storage',
      'catalogue',
      'catalogue/places',
      'catalogue/updates',
      'catalogue/findings',
      'catalogue/choice?missing',
      ...['about', 'files', 'reading', 'versions'].map((p) => `library/${mods[6].id}/${p}`),
      'layers/lists',
      `layers/lists/${list.id}`,
      'records/Skerry.plug/420',
      'records?show=pairs',
      'records?show=findings',
      'records?show=compare&of=Fogbound.plug&of=Lamplight.plug',
      'mends/merge',
      'mends/combined-files',
      'mends/combined-files?path=data/ui/bridge.json',
      'definition',
      'nowhere',
      'tools/99',
      'deploy/drift',
      'deploy/game-version',
      'tools',
      'profiles',
      'timeline',
    ]
    expect(
      await faults(
        page,
        screens.map((s) => `/workspaces/${workspace}/${s}`),
      ),
    ).toEqual([])
  })

  test('no dialog and no menu has a fault that axe can find', async ({ page }) => {
    test.setTimeout(900_000)
    const found: string[] = []
    const opened = async (what: string, screen: string, act: () => Promise<void>) => {
      await page.goto(address(workspace, screen))
      await settled(page)
      await act()
      await expect(page.getByRole(what.startsWith('menu') ? 'menu' : 'dialog')).toBeVisible()
      found.push(...(await faultsHere(page, what, WCAG)))
    }
    const button = (name: string | RegExp) => page.getByRole('button', { name }).first().click()
    await opened('dialog of the palette', 'Overview', () => page.keyboard.press('Control+k'))
    await opened('menu of what layers show', 'Layers', () => button('Columns, sorting and export'))
    await opened('menu of the load order', 'Load order', () => button('More to do with the load order'))
    await opened('dialog of patterns', 'Records', () => button('Decide by pattern'))
    await opened('dialog of text forms', 'Records', () => button('Text forms'))
    await opened('dialog of a tool', 'Tools', () => button('Add a tool'))
    expect(found).toEqual([])
  })
})
