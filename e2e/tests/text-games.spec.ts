import { cpSync, existsSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { zipFile } from '../support/archives'
import { drop, expect, installReady, open, rows, said, test } from '../support/test'

const BELLS = join(import.meta.dirname, '../../demo/bells')

/** An archive of the sample game, made of its sources. */
function archive(name: string) {
  const folder = join(BELLS, 'mods', name)
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile())
    .map((e) => join(e.parentPath, e.name))
  return zipFile(
    name,
    Object.fromEntries(files.map((f) => [f.slice(folder.length + 1), readFileSync(f, 'utf8')])),
  )
}

const RUN = `run:
  command: [ "java", "-cp", "{standins}/game.jar", "ironing.standins.bells.KelderBells", "{game}" ]
  log: "logs/last-run.jsonl"
writable: [ "tower.json" ]
`

// a definition with a mistake is refused, and told
test.use({ expectRefusals: true })

test('a folder of a game of open text is described from nothing, and goes the whole way to a test run', async ({
  page,
  world,
}) => {
  test.setTimeout(240_000)
  const folder = join(world.folder, 'tower')
  cpSync(join(BELLS, 'game'), folder, { recursive: true })
  rmSync(join(folder, 'game.yaml'))
  const definition = page.getByLabel('Definition of the game')
  const matches = page.getByRole('list', { name: 'What the definition matches there' })

  await test.step('a definition is proposed, each guess with its evidence', async () => {
    await page.goto('/workspaces')
    await page.getByLabel('Folder of the game').fill(folder)
    await page.getByRole('button', { name: 'Describe the game here' }).click()
    const evidence = page.getByRole('region', { name: 'By what this was proposed' })
    await expect(evidence).toContainText('plugins are the folders with a foundry.json')
    await expect(evidence).toContainText('no two have one copper')
    await expect(matches).toContainText('records of type cast')
    await expect(matches.getByRole('listitem').filter({ hasText: 'type cast' })).toContainText('6 records')
  })

  await test.step('what is wrong in it is told while it is written', async () => {
    const proposed = await definition.inputValue()
    await definition.fill(proposed.replace('$.casts[*]', '$.casts[*'))
    await expect(page.getByRole('alert').first()).toContainText('“$.casts[*” cannot be read at its place 10')
    await expect(page.getByRole('alert').first()).toContainText(/line \d+, column \d+/)
    await definition.fill(proposed.replace('$.casts[*]', '$.bells[*]'))
    await expect(matches.getByRole('listitem').filter({ hasText: 'type cast' })).toContainText('nothing yet')
    // an alloy is known by both of its metals: the guess was too short
    await definition.fill(proposed.replace('[ "copper" ]', '[ copper, tin ]') + RUN)
    await expect(matches.getByRole('listitem').filter({ hasText: 'type cast' })).toContainText('6 records')
    await page.getByRole('button', { name: 'Make a workspace of it' }).click()
    await expect(page.getByRole('navigation', { name: 'Screens' })).toBeVisible()
  })

  await test.step('mods come in, and their plugins are called as they call themselves', async () => {
    await open(page, 'Library')
    await drop(
      page,
      'main',
      ['heavier-tenors-1.1.zip', 'true-names-0.9.zip', 'cheap-tin-1.0.zip', 'market-days-1.4.zip'].map(
        archive,
      ),
    )
    await installReady(page, 4)
    await open(page, 'Load order')
    await expect
      .poll(() => rows(page))
      .toEqual(['base', 'heavier-tenors', 'true-names', 'cheap-tin', 'market-days'])
  })

  await test.step('records of JSON, XML and tables are laid open, decided and put into a patch', async () => {
    await open(page, 'Records')
    await page.getByRole('row', { name: /78 \/ 22/ }).click()
    await expect(page.getByText('Which one?')).toBeVisible()
    await page.getByRole('radio', { name: /2\.6/ }).click()
    await expect(page.getByText('You took')).toBeVisible()
    await expect(page).toHaveURL(/records\/alloy\/%3D78%3D22/)
    await page.getByRole('button', { name: /Put the \d+ records into a patch/ }).click()
    await said(page, 'The patch is made')
  })

  await test.step('the folder holds the patch in the game’s own forms, and the game reads it', async () => {
    await page.getByRole('link', { name: 'Review and deploy' }).click()
    await page.getByRole('button', { name: /Deploy \d+ changes/ }).click()
    await expect(page.getByText('The game folder is as you arranged it').first()).toBeVisible()
    const patch = join(folder, 'bells/Everyday-patch')
    expect(readFileSync(join(patch, 'alloys.csv'), 'utf8')).toBe('copper,tin,price,tone\n78,22,2.6,warm\n')
    expect(JSON.parse(readFileSync(join(patch, 'casts/Everyday-patch.json'), 'utf8')).casts[0]).toMatchObject(
      {
        id: 'great',
        name: 'Marl the Elder',
        weight: 2950,
      },
    )
    expect(JSON.parse(readFileSync(join(folder, 'enabled.json'), 'utf8'))).toMatchObject({
      volume: 7,
      order: [{ id: 'heavier-tenors' }, {}, {}, {}, { id: 'Everyday-patch', on: true }],
    })
    await open(page, 'Test run')
    await page
      .getByRole('button', { name: /^Start/ })
      .first()
      .click()
    const log = join(folder, 'logs/last-run.jsonl')
    await expect
      .poll(() => (existsSync(log) ? readFileSync(log, 'utf8') : ''), { timeout: 60_000 })
      .toContain('"event":"end","code":0')
    expect(readFileSync(log, 'utf8')).toContain('"name":"Marl the Elder, weight","value":2950.0')
    await open(page, 'Deploy')
    await page.getByRole('button', { name: 'Undeploy everything' }).click()
    await expect(page.getByText('Nothing is deployed: the game is as it was.')).toBeVisible()
    expect(existsSync(patch)).toBe(false)
  })
})
