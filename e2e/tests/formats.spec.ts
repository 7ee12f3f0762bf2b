import { createHash } from 'node:crypto'
import { mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '../support/test'

// a jar that holds no format is refused
test.use({ expectRefusals: true })

test('a jar with a format waits for its sum to be confirmed, and what is none is told', async ({
  page,
  world,
}) => {
  await page.goto('/workspaces')
  const formats = page.getByRole('region', { name: 'Formats of plugins' })
  await expect(page.getByRole('heading', { name: 'Workspaces' })).toBeVisible()
  await expect(formats).toHaveCount(0)
  const folder = ((await (await page.request.get('/api/formats')).json()) as { folder: string }).folder
  mkdirSync(folder, { recursive: true })
  const jar = join(folder, `${world.folder.replace(/\W/g, '-').slice(-30)}.jar`)
  const content = 'this is no jar'
  writeFileSync(jar, content)
  try {
    await page.reload()
    await expect(formats).toContainText(createHash('sha256').update(content).digest('hex'))
    await expect(formats).toContainText('can do all that you can')
    await formats.getByRole('button', { name: 'I trust it: use it' }).click()
    await expect(formats.getByRole('alert')).toContainText('No format of plugins can be taken from this jar')
    await expect(formats.getByRole('button', { name: 'I trust it: use it' })).toBeVisible()
  } finally {
    rmSync(jar)
  }
})
