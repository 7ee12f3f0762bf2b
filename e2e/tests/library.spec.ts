import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { drop, expect, type GivenFile, said, test } from '../support/test'

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
    await expect(page.getByText('1 mod brought in')).toBeVisible()
    const list = page.getByRole('region', { name: 'Archives on their way in' })
    await expect(list.getByRole('alert').filter({ hasText: 'cut.zip' })).toContainText('Download it again')
    await expect(list.getByRole('alert').filter({ hasText: 'letter.7z' })).toContainText('Zip, 7z and tar.gz')
    await expect(page.getByRole('option')).toHaveCount(1)
  })

  test('files are picked by a button too', async ({ page, world }) => {
    const choosing = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Bring in archives' }).click()
    const { name, bytes } = world.archive('lamplight-1.0.tar.gz')
    await (await choosing).setFiles([{ name, mimeType: 'application/gzip', buffer: bytes }])
    await expect(page.getByText('1 mod brought in')).toBeVisible()
    await page.getByRole('option', { name: 'Lamplight' }).click()
    const aside = page.getByRole('complementary')
    await expect(aside).toContainText('lamplight-1.0.tar.gz')
    await expect(aside).toContainText('Lamplight.plug')
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
    await expect(page.getByRole('option')).toHaveCount(14)
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

  test('an archive with several mods asks where the mod begins', async ({ page, world }) => {
    // a tar of two folders, by hand: two headers of ustar and their content
    const tar = Buffer.concat([
      entry('Day/tables/fares.csv', 'id,fare\n1,2\n'),
      entry('Day/mod-card.yaml', card('day')),
      entry('Night/tables/fares.csv', 'id,fare\n1,3\n'),
      entry('Night/mod-card.yaml', card('night')),
      Buffer.alloc(1024),
    ])
    await drop(page, 'main', [{ name: 'two.tar.gz', bytes: gzipSync(tar) }])
    await expect(page.getByText('needs a word from you')).toBeVisible()
    await page.getByRole('button', { name: 'Night', exact: true }).click()
    await expect(page.getByText('1 mod brought in')).toBeVisible()
    await expect(page.getByRole('option', { name: 'Mod night' })).toBeVisible()
    expect(world.files('data/tables')).not.toContain('fares.csv')
  })
})

function card(id: string): string {
  return `format: ironing/mod@1\nid: ${id}\nname: Mod ${id}\nversion: 1.0.0\n`
}

// one file of a ustar archive (POSIX.1-1988): a header of 512 bytes, then content in blocks of 512
function entry(name: string, text: string): Buffer {
  const content = Buffer.from(text)
  const header = Buffer.alloc(512)
  header.write(name, 0)
  header.write('0000644\0', 100)
  header.write('0000000\0', 108)
  header.write('0000000\0', 116)
  header.write(`${content.length.toString(8).padStart(11, '0')}\0`, 124)
  header.write('00000000000\0', 136)
  header.write('        ', 148)
  header.write('0', 156)
  header.write('ustar\0', 257)
  header.write('00', 263)
  const sum = header.reduce((a, b) => a + b, 0)
  header.write(`${sum.toString(8).padStart(6, '0')}\0 `, 148)
  return Buffer.concat([header, content, Buffer.alloc((512 - (content.length % 512)) % 512)])
}
