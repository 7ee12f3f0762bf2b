import { zipFile } from '../support/archives'
import { expect, said, test } from '../support/test'

test.describe('Combined files', () => {
  let workspace: number

  test.beforeEach(async ({ world }) => {
    workspace = await world.skerryLine()
    await world.change(workspace, 'POST', '/load-order/proposal')
  })

  test('all that needs no question is combined, and the game reads what both mods bring', async ({
    page,
    world,
  }) => {
    await page.goto(`/workspaces/${workspace}/mends/combined-files`)
    await page.getByRole('button', { name: /Combine \d+ files without a question/ }).click()
    await said(page, 'The files are combined')
    await page.getByRole('button', { name: /^ledger\.json/ }).click()
    const board = page.getByRole('region', { name: 'data/ui/ledger.json' })
    await expect(board.getByText('in the mend')).toBeVisible()
    await expect(board.getByRole('region', { name: 'What comes out' })).toContainText('/widgets[log]')
    await world.job(`/workspaces/${workspace}/deploy`)
    await page.goto(`/workspaces/${workspace}/test-run`)
    await page.getByRole('button', { name: 'Start the game' }).click()
    await expect(page.getByText('played to its end').first()).toBeVisible({ timeout: 90_000 })
    const report = page.getByRole('region', { name: 'The day’s report' })
    await expect(report).toContainText('Cargo, counted, Dues, Ship’s log')
  })

  test('a conflict is settled by hand, and an update asks only about what is new', async ({
    page,
    world,
  }) => {
    const path = 'data/scripts/berthing.sks'
    await page.goto(`/workspaces/${workspace}/mends/combined-files?path=${path}`)
    const board = page.getByRole('region', { name: path })
    const place = board.getByRole('group', { name: 'line 2' })
    await expect(place).toContainText('is changed in different ways')
    await expect(board.getByText('still to settle')).toBeVisible()
    // arrows walk through the answers and settle nothing
    await place.getByRole('radio').first().focus()
    await page.keyboard.press('ArrowDown')
    await expect(place.getByRole('radio').nth(1)).toBeFocused()
    await expect(place.getByRole('radio', { checked: true })).toHaveCount(0)
    await place.getByRole('radio', { name: /Harbourmaster’s Ledger, then Community Caulking/ }).click()
    await expect(place).toContainText('you have settled this')
    await board.getByRole('button', { name: 'Put it into the mend' }).click()
    await said(page, 'berthing.sks is in the mend')
    await world.job(`/workspaces/${workspace}/deploy`)
    expect(world.read(path).toString()).toContain('notes the time.\n  say Aud Helga lies at the quay, and no')
    const file = (await world.api('GET', `/workspaces/${workspace}/combined-files/board?path=${path}`)).file
    const ledger = file.contenders.find((c: { name: string }) => c.name === 'Harbourmaster’s Ledger')
    await world.api('PUT', `/workspaces/${workspace}/mods/${ledger.mod}/text`, {
      path,
      text: 'routine berthing\n  call tie-up\n  say The harbourmaster notes the time.\nend\n\n# by the book\n',
      sha256: ledger.sha256,
    })
    await page.goto(`/workspaces/${workspace}/mends`)
    const mends = page.getByRole('region', { name: 'Mends' })
    await expect(mends).toContainText('Harbourmaster’s Ledger has another data/scripts/berthing.sks.')
    await mends.getByRole('button', { name: 'See the difference' }).click()
    await expect(mends.getByRole('list', { name: 'Difference' })).toContainText('# by the book')
    await page.goto(`/workspaces/${workspace}/layers`)
    await page.getByRole('button', { name: '1 mend is stale: rebuild' }).click()
    await said(page, 'All stale mends are rebuilt')
    await page.goto(`/workspaces/${workspace}/mends`)
    await expect(mends.getByText('fresh', { exact: true })).toBeVisible()
    await world.job(`/workspaces/${workspace}/deploy`)
    expect(world.read(path).toString()).toContain('quay, and no longer through it.\nend\n\n# by the book')
  })

  test('what is typed stands, is taken back, and a text of one’s own is kept', async ({ page }) => {
    const path = 'data/scripts/berthing.sks'
    await page.goto(`/workspaces/${workspace}/mends/combined-files?path=${path}`)
    const board = page.getByRole('region', { name: path })
    const place = board.getByRole('group', { name: 'line 2' })
    await place.getByRole('button', { name: 'Type it' }).click()
    await place.getByRole('textbox').fill('  say All is well.')
    await place.getByRole('button', { name: 'Take what I typed' }).click()
    await expect(board.getByRole('region', { name: 'What comes out' })).toContainText('say All is well.')
    await page.reload()
    await expect(place.getByRole('textbox')).toHaveValue('  say All is well.')
    await place.getByRole('button', { name: 'Ask me again' }).click()
    await expect(place).toContainText('is changed in different ways')
  })

  test('a whole-interface mod is carried into what others have, and what asks is settled', async ({
    page,
    world,
  }) => {
    await page.goto(`/workspaces/${workspace}/mends/combined-files`)
    await page.getByLabel('Changes of').selectOption({ label: 'Wheelhouse Panel only' })
    await expect(page.getByText(/What Wheelhouse Panel changes, carried into \d files/)).toBeVisible()
    const files = page.getByRole('navigation', { name: 'Files' })
    await expect(files.getByRole('button', { name: /^tariffs\.csv/ })).toHaveCount(0)
    await files.getByRole('button', { name: /^signals\.yaml/ }).click()
    const board = page.getByRole('region', { name: 'data/ui/signals.yaml' })
    await board
      .getByRole('group', { name: '/fog/lamp' })
      .getByRole('radio', { name: /Wheelhouse/ })
      .click()
    await expect(board.getByRole('button', { name: 'Put it into the mend' })).toBeVisible()
    await page.getByRole('button', { name: /Carry over into \d files without a question/ }).click()
    await said(page, 'The files are combined')
    await world.job(`/workspaces/${workspace}/deploy`)
    expect(world.read('data/ui/signals.yaml').toString()).toBe(
      '# Lamps and bells that the bridge shows.\nfog:\n  lamp: green\n  bell: 4\nnight:\n' +
        '  lamp: white   # for as long as it is dark\n  bell: 2\nbank:\n  lamp: amber\n  bell: 5\n',
    )
  })

  test('one goes from question to question, and what is half typed waits for one’s return', async ({
    page,
  }) => {
    await page.goto(`/workspaces/${workspace}/mends/combined-files`)
    const berthing = page.getByRole('region', { name: 'data/scripts/berthing.sks' })
    await berthing.getByRole('button', { name: 'The next question' }).click()
    const place = berthing.getByRole('group', { name: 'line 2' })
    await expect(place).toBeFocused()
    await place.getByRole('button', { name: 'Type it' }).click()
    await place.getByRole('textbox').fill('  say half a thou')
    await berthing.getByRole('button', { name: 'The next question' }).click()
    const bridge = page.getByRole('region', { name: 'data/ui/bridge.json' })
    await expect(bridge).toContainText('is changed in different ways')
    await bridge.getByRole('button', { name: 'The question before' }).click()
    await expect(place.getByRole('textbox')).toHaveValue('  say half a thou')
  })

  test('a change is carried into the files of chosen mods only', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}/mends/combined-files?carry=wheelhouse-panel`)
    await page.getByRole('button', { name: 'all 4' }).click()
    for (const name of ['Clearer Charts', 'Community Caulking', 'Harbourmaster’s Ledger'])
      await page.getByRole('menuitemcheckbox', { name }).click()
    await page.keyboard.press('Escape')
    const files = page.getByRole('navigation', { name: 'Files' })
    await expect(files.getByRole('button', { name: /^signals\.yaml/ })).toBeVisible()
    await expect(files.getByRole('button', { name: /^ledger\.json/ })).toHaveCount(0)
    await expect(
      page.getByRole('button', { name: 'Carry over into 1 file without a question' }),
    ).toBeVisible()
  })

  test('what no program can combine says why, and a file of the mend what came from whom', async ({
    page,
    world,
  }) => {
    for (const name of ['Night Watch', 'Day Watch'])
      await world.install(
        workspace,
        zipFile(`${name} 1.0.zip`, { 'data/scripts/berthing.sks': `routine ${name}\n\0\0` }),
      )
    await page.goto(`/workspaces/${workspace}/mends/combined-files?path=data/scripts/berthing.sks`)
    const board = page.getByRole('region', { name: 'data/scripts/berthing.sks' })
    await expect(board).toContainText('It is no text, and is taken whole.')
    await expect(board.getByRole('button', { name: 'Put it into the mend' })).toHaveCount(0)
    const mend = await world.job(`/workspaces/${workspace}/combined-files`, {})
    await page.goto(`/workspaces/${workspace}/library/${mend}/files?path=data/ui/ledger.json`)
    await page.getByRole('link', { name: 'What came from whom' }).click()
    await expect(page.getByRole('region', { name: 'data/ui/ledger.json' })).toContainText('Wheelhouse Panel')
  })

  test('one answer settles the rest of a file, and neighbouring lines are both kept', async ({
    page,
    world,
  }) => {
    const names = 'data/ui/names.properties'
    const lamps = 'data/scripts/lamps.sks'
    const unmodded = world.unmodded(names).toString()
    const mods = [
      ['Base of lamps', 'fog', 'routine lamps\n  dim red\n  dim green\nend\n'],
      ['Loud', 'loud', 'routine lamps\n  light red\n  dim green\nend\n'],
      ['Quiet', 'quiet', 'routine lamps\n  dim red\n  light green\nend\n'],
    ] as const
    for (const [mod, word, script] of mods) {
      const files = {
        [names]: unmodded.replace('= Speed', `= ${word} speed`).replace('= Clock', `= ${word} clock`),
        [lamps]: script,
      }
      await world.install(workspace, zipFile(`${mod} 1.0.zip`, files))
    }
    await page.goto(`/workspaces/${workspace}/mends/combined-files?path=${names}`)
    const board = page.getByRole('region', { name: names })
    await expect(board.getByRole('group').first()).toContainText('What lies around it')
    await board.getByRole('button', { name: 'One answer for the rest …' }).click()
    const dialog = page.getByRole('dialog', { name: 'One answer for the rest' })
    await dialog.getByRole('radio', { name: 'Loud' }).check()
    await dialog.getByRole('button', { name: /^Settle \d+ places$/ }).click()
    await said(page, /places of 1 file are settled\./)
    await expect(board.getByText('you have settled this').first()).toBeVisible()
    await page.getByRole('button', { name: 'Undo', exact: true }).click()
    await said(page, /Undone/)
    await expect(board.getByRole('button', { name: 'One answer for the rest …' })).toBeVisible()

    await page.goto(`/workspaces/${workspace}/mends/combined-files?path=${lamps}`)
    const script = page.getByRole('region', { name: lamps })
    await script.getByRole('button', { name: /^Keep both/ }).click()
    await expect(script.getByText('you have settled this')).toBeVisible()
    await expect(script.getByRole('region', { name: 'What comes out' })).toContainText('light red')
    await expect(script.getByRole('region', { name: 'What comes out' })).toContainText('light green')
  })
})
