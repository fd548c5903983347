import { expect, test } from 'vitest'
import { type Line, nearest } from './guides'

test('the nearest line is the one that looking at all of them finds', () => {
  let seed = 7
  const random = (n: number) => (seed = (seed * 48271) % 2147483647) % n
  for (let round = 0; round < 300; round++) {
    const lines: Line[] = Array.from({ length: random(20) }, (_, i) => ({ at: random(1000), name: `${i}`, from: 0, to: 1 }))
    lines.sort((a, b) => a.at - b.at)
    const own = Array.from({ length: 1 + random(5) }, () => random(1000))
    const [step, tolerance] = [random(200) - 100, 1 + random(60)]
    const offs = lines.flatMap((l) => own.map((v) => Math.abs(v + step - l.at)))
    const least = Math.min(Infinity, ...offs)
    const found = nearest(lines, own, step, tolerance)
    if (least >= tolerance) expect(found).toBeNull()
    else {
      expect(Math.abs(found!.step - step)).toBe(least)
      expect(own.some((v) => v + found!.step === found!.line.at)).toBe(true)
    }
  }
})
