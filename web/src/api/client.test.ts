import { describe, expect, it } from 'vitest'
import { asProblems, got, ifMatch, problemsOf, Refused } from './client'

const answer = (status: number, part: { data?: unknown; error?: unknown }) =>
  Promise.resolve({ ...part, response: new Response(null, { status }) })

async function refusal(of: Promise<unknown>): Promise<Refused> {
  const failed = await of.then(
    () => null,
    (e: unknown) => e,
  )
  if (failed instanceof Refused) return failed
  throw new Error(`not refused: ${String(failed)}`)
}

const locked = { code: 'locked', thing: 'data/a.txt', reason: 'It is open elsewhere.', remedy: 'Close it.' }
const full = { code: 'full', thing: 'The disk', reason: 'It is full.', remedy: 'Make room.' }

describe('an answer', () => {
  it('is its body', async () => {
    await expect(got(answer(200, { data: { mods: 3 } }))).resolves.toEqual({ mods: 3 })
    await expect(got(answer(204, {}))).resolves.toBeUndefined()
  })

  it('that refuses has all that is wrong at once, and goes by the first', async () => {
    const refused = await refusal(got(answer(409, { error: { title: 'Deploy', problems: [locked, full] } })))
    expect(refused.status).toBe(409)
    expect(refused.problems).toEqual([locked, full])
    expect(refused.code).toBe('locked')
    expect(refused.message).toBe(
      'data/a.txt: It is open elsewhere. Close it.\nThe disk: It is full. Make room.',
    )
  })

  it('without the shape of RFC 9457 is one problem nevertheless', async () => {
    expect(problemsOf(404, { title: 'Not Found', detail: 'No such path.' })).toEqual([
      { code: 'internal', thing: 'Not Found', reason: 'No such path.', remedy: '' },
    ])
    const nothing = {
      code: 'internal',
      thing: 'The server',
      reason: 'It answered with 502 and nothing else: something went wrong in it.',
      remedy: 'Try again. If it stays so, start ./ironing again; what it prints says more.',
    }
    for (const body of [null, undefined, '', {}, '<html>', { problems: [] }])
      expect(problemsOf(502, body)).toEqual([nothing])
    expect((await refusal(got(answer(502, { error: '<html>' })))).problems).toEqual([nothing])
  })

  it('that never came says so, and what to do', async () => {
    const refused = await refusal(got(Promise.reject(new TypeError('fetch failed'))))
    expect(refused.status).toBe(0)
    expect(refused.code).toBe('unreachable')
    expect(refused.problems[0]?.remedy).toContain('./ironing')
  })
})

describe('a failure', () => {
  it('of the server is shown as it came, and one of the page as the page’s', () => {
    expect(asProblems(new Refused(507, [full]))).toEqual([full])
    expect(asProblems(new TypeError('x is undefined'))).toEqual([
      { code: 'internal', thing: 'The page', reason: 'TypeError: x is undefined', remedy: 'Load it again.' },
    ])
  })

  it('without a problem is an internal one', () => {
    expect(new Refused(500, []).code).toBe('internal')
  })
})

it('a change names its revision as an entity tag, in quotes (RFC 9110, 8.8.3)', () => {
  expect(ifMatch(12)).toEqual({ 'If-Match': '"12"' })
})
