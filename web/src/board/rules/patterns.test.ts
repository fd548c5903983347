import { expect, it } from 'vitest'
import { fits } from './patterns'

it('fits names to patterns, and to lists of them, as rules do', () => {
  const names = ['+3V3', '+3V', 'DATA7', 'DATA', 'DATA10', 'GND', 'GNDA', '']
  expect(names.filter((n) => fits('+3V*, DATA?,GND', n))).toEqual(['+3V3', '+3V', 'DATA7', 'GND'])
  expect(fits('A.B', 'AXB')).toBe(false)
})
