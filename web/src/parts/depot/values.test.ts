import { expect, test } from 'vitest'
import { readValue, showValue } from './values'

test('values are written by thousands, shares as they are', () => {
  expect(showValue(4700, 'Ω')).toBe('4.7 kΩ')
  expect(showValue(1e-7, 'F')).toBe('100 nF')
  expect(showValue(0.1, '%')).toBe('0.1 %')
  expect(showValue(0, 'V')).toBe('0 V')
  expect(showValue(8, '')).toBe('8')
})

test('values are read as people write them', () => {
  expect(readValue('4k7', 'Ω')).toBeCloseTo(4700)
  expect(readValue('100n', 'F')).toBeCloseTo(1e-7)
  expect(readValue('22 µF', 'F')).toBeCloseTo(2.2e-5)
  expect(readValue('22u', 'F')).toBeCloseTo(2.2e-5)
  expect(readValue('2,5', 'V')).toBeCloseTo(2.5)
  expect(readValue('0.1 %', '%')).toBeCloseTo(0.1)
  expect(readValue('6 + 2', '')).toBe(8)
  expect(readValue('1.6', 'm')).toBeCloseTo(0.0016)
  expect(readValue('100 mil', 'm')).toBeCloseTo(0.00254)
  expect(() => readValue('many', 'V')).toThrow('a number was expected')
})
