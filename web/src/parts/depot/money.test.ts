import { expect, test } from 'vitest'
import { eachOf, euro, pieces } from './money'

test('money has as many places as a small price needs', () => {
  expect(euro(12_400_000)).toBe('12.40 €')
  expect(euro(100_000)).toBe('0.10 €')
  expect(euro(4_200)).toBe('0.0042 €')
  expect(euro(900)).toBe('0.000900 €')
  expect(euro(0)).toBe('0.00 €')
})

test('what is not sold has no price', () => {
  expect(eachOf(null)).toBe('–')
  expect(eachOf({ packaging: 'tube', pieces: 10, each: 1_500_000, total: 15_000_000 })).toBe('1.50 €')
})

test('thousands are set apart', () => expect(pieces(1234567)).toBe('1\u2009234\u2009567'))
