import { expect, test } from 'vitest'
import { leadingCause } from './picture'

const causes = { tension: 0.1, friction: 0.2, hanger: 0.02, mismatch: 0.6, wear: 0.05, stops: 0 }
test('a stand names the likeliest cause, and the one that a part is renewed for', () => {
  expect(leadingCause({ move: { do: 'shift', to: 2 }, causes })).toBe('mismatch')
  // the hanger is gauged before a part is bought: it is not what is thought to be wrong
  expect(leadingCause({ move: { do: 'hanger' }, causes })).toBe('mismatch')
  expect(leadingCause({ move: { do: 'hanger' }, causes: { ...causes, hanger: 0.9 } })).toBe('hanger')
  expect(leadingCause({ move: { do: 'replace', part: 'cable', cause: 'friction' }, causes })).toBe('friction')
})
