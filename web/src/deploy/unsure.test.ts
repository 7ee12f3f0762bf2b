import { expect, test } from 'vitest'
import { Refused } from '../api/client'
import { isUnsure } from './unsure'

const problem = (code: string) => ({ code, thing: 'a.txt', reason: 'It may be gone.', remedy: 'Say so.' })

test('only a refusal for files that an update may have removed waits for a word', () => {
  expect(isUnsure(new Refused(422, [problem('update-unsure'), problem('update-unsure')]))).toBe(true)
  expect(isUnsure(new Refused(422, [problem('update-unsure'), problem('busy')]))).toBe(false)
  expect(isUnsure(new Refused(422, []))).toBe(false)
  expect(isUnsure(new Error('update-unsure'))).toBe(false)
  expect(isUnsure(null)).toBe(false)
})
