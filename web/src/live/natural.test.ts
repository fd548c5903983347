import { describe, expect, it } from 'vitest'
import { inNaturalOrder, naturally } from './natural'

describe('natural order', () => {
  it('puts numbers by size and prefixes by letters', () => {
    const list = ['R10', 'C2', 'R2', 'LED1', 'L3', 'c1', 'R1', 'GND', '+5V', 'R2A', 'Ü1', '']
    expect(inNaturalOrder(list, (x) => x)).toEqual(['', '+5V', 'c1', 'C2', 'GND', 'L3', 'LED1', 'R1', 'R2', 'R2A', 'R10', 'Ü1'])
  })
  it('is the order of the comparison, whatever the names', () => {
    let seed = 7
    const random = (n: number) => (seed = (seed * 48271) % 2147483647) % n
    const letters = ['R', 'r', 'C', 'AB', 'ab', 'A', 'U', '_', '+', '', 'é', 'R-']
    const ends = ['', 'A', '/1', '.2', '0']
    const name = () =>
      letters[random(letters.length)] + (random(5) ? String(random(60)) : '') + (random(4) ? '' : ends[random(5)])
    for (let i = 0; i < 200; i++) {
      const list = Array.from({ length: 40 }, name)
      expect(inNaturalOrder(list, (x) => x)).toEqual([...list].sort(naturally))
      expect(inNaturalOrder(list, (x) => x, true)).toEqual([...list].sort((a, b) => naturally(b, a)))
    }
  })
})
