import { expect, inOrder, rows, said, test } from '../support/test'

const LIST = [
  'sep=;',
  'Position;Mod;Name;Version;On;Note',
  '1;;Clearer Charts;1.6;yes;',
  '2;;community caulking;5.2;yes;Answer “all” when it asks.',
  '3;;Tide Tables;2;yes;',
  '4;;Quiet Gulls;1.0;no;',
].join('\r\n')

test.describe('A file that is no list', () => {
  test.use({ expectRefusals: true })
  test('is refused with its reason', async ({ page, world }) => {
    await page.goto(`/workspaces/${await world.skerryLine()}/layers/lists`)
    await page
      .getByLabel('The file of a list')
      .setInputFiles({ name: 'broken.csv', mimeType: 'text/csv', buffer: Buffer.from('speed\n4\n') })
    await said(page, /None of its columns is called name, mod or plugin/)
    await expect(page.getByText('No list is followed')).toBeVisible()
  })
})

test.describe('Lists, wrinkles and notes', () => {
  let workspace: number

  test.beforeEach(async ({ page, world }) => {
    workspace = await world.skerryLine()
    await page.goto(`/workspaces/${workspace}/layers`)
    await expect(page.getByRole('row', { name: 'Skerry Line' })).toBeVisible()
  })

  test('a published list is brought in, followed step by step, and undone', async ({ page }) => {
    await page.getByRole('button', { name: 'Lists' }).click()
    await expect(page.getByText('No list is followed')).toBeVisible()
    await page
      .getByLabel('The file of a list')
      .setInputFiles({ name: 'Tidy coast.csv', mimeType: 'text/csv', buffer: Buffer.from(LIST) })
    await expect(page.getByRole('heading', { name: 'Tidy coast' })).toBeVisible()
    await expect(page.getByText('Its columns are separated by semicolons, not by commas.')).toBeVisible()
    for (const state of ['1 missing here', '1 another version', '1 out of place', '1 on or off otherwise'])
      await expect(page.getByRole('button', { name: state })).toBeVisible()
    await page.getByRole('checkbox', { name: /Answer “all”/ }).check()
    await test.step('an entry is left otherwise, with a reason, and followed again', async () => {
      await page.getByRole('button', { name: '1 on or off otherwise' }).click()
      await page.getByRole('button', { name: 'Leave it so: Quiet Gulls' }).click()
      await page.getByRole('textbox', { name: /Why Quiet Gulls/ }).fill('I like the gulls')
      await page.getByRole('button', { name: 'Remember it' }).click()
      await page.getByRole('button', { name: 'show all' }).click()
      await expect(page.getByText('left so: I like the gulls')).toBeVisible()
      await expect(page.getByRole('button', { name: '1 left so' })).toBeVisible()
      await page.getByRole('button', { name: 'Follow the list again: Quiet Gulls' }).click()
      await expect(page.getByRole('button', { name: '1 on or off otherwise' })).toBeVisible()
    })
    await page.getByRole('button', { name: '1 out of place' }).click()
    await page.getByRole('button', { name: /Take this step/ }).click()
    await said(page, /Taken from the list/)
    await expect(page.getByRole('button', { name: 'Take all 1 step' })).toBeVisible()
    await page.getByRole('button', { name: 'Take all 1 step' }).click()
    await expect(page.getByRole('button', { name: 'Nothing to take' })).toBeVisible()
    await page.reload()
    await expect(page.getByRole('checkbox', { name: /Answer “all”/ })).toBeChecked()
    await page.goto(`/workspaces/${workspace}/layers`)
    await expect(page.getByRole('row', { name: 'Quiet Gulls' })).toContainText('switched off')
    await inOrder(page, (at) => expect(at('Community Caulking')).toBeLessThan(at('Clearer Charts')))
    await page.goto(`/workspaces/${workspace}/timeline`)
    await expect(page.getByText(/step of the list “Tidy coast”/).first()).toBeVisible()
  })

  test('a wrinkle is set aside with a reason, and taken up again', async ({ page }) => {
    await page.goto(`/workspaces/${workspace}`)
    const wrinkle = page.getByText('Nothing of Bigger Bollards reaches the game')
    await expect(wrinkle).toBeVisible()
    const item = page.getByRole('listitem').filter({ has: wrinkle })
    await item.getByRole('button', { name: /More to do with wrinkle/ }).click()
    await page.getByRole('menuitem', { name: 'Set aside …' }).click()
    await page.keyboard.type('It waits for the new quay.')
    await page.keyboard.press('Enter')
    await said(page, /Set aside/)
    await expect(wrinkle).toBeHidden()
    await page.reload()
    await page.getByRole('button', { name: '1 set aside' }).click()
    await expect(page.getByText(/It waits for the new quay/)).toBeVisible()
    await page.getByRole('button', { name: 'Take up again' }).click()
    await expect(page.getByText(/It waits for the new quay/)).toHaveCount(0)
    await expect(page.getByRole('listitem').filter({ has: wrinkle })).toBeVisible()
    // its remedy says what it would change before it is done
    await page.getByRole('button', { name: 'Switch Bigger Bollards off' }).hover()
    await expect(page.getByRole('tooltip')).toContainText(/Nothing in the game/)
    await page.getByRole('button', { name: 'Switch Bigger Bollards off' }).click()
    await said(page, /Switch Bigger Bollards off: done/)
    await expect(wrinkle).toBeHidden()
  })

  test('a note belongs to a pair of mods', async ({ page }) => {
    await page.getByRole('row', { name: 'Fogbound Weather' }).click()
    await page.getByRole('button', { name: 'Write a note of this and another mod' }).click()
    await page.getByLabel('The other mod').selectOption({ label: 'Clearer Charts' })
    await page.getByLabel('Note of the two').fill('Charts first, or the fog hides the buoys.')
    await page.getByRole('button', { name: 'Keep the note' }).click()
    await page.getByRole('row', { name: 'Clearer Charts' }).click()
    const aside = page.getByRole('complementary', { name: 'Clearer Charts' })
    await expect(aside.getByText('Charts first, or the fog hides the buoys.')).toBeVisible()
    await expect(aside.getByRole('link', { name: 'Fogbound Weather' })).toBeVisible()
  })

  test('the stack is turned over, and a layer still goes where it is put', async ({ page }) => {
    await page.getByRole('button', { name: 'Columns, sorting and export' }).click()
    await page.getByRole('menuitemcheckbox', { name: /Turn the stack over/ }).click()
    await expect.poll(async () => (await rows(page))[0]).toBe('Skerry Line')
    await page.getByRole('row', { name: 'Rope Locker' }).focus()
    await page.keyboard.press('Alt+ArrowDown')
    await said(page, /Rope Locker is layer 3 now/)
    await expect.poll(async () => (await rows(page)).indexOf('Rope Locker')).toBe(3)
  })
})
