import { describe, expect, it } from 'vitest'
import { Marks } from './marks'
import { meets } from './viewport'

const at = (x: number, y: number) => ({ minX: x, minY: y, maxX: x + 1, maxY: y + 2 })
const wide = { minX: -1e9, minY: -1e9, maxX: 1e9, maxY: 1e9 }

describe('marks by place', () => {
  it('finds what a plain search finds, however the map changes', () => {
    const from = new Map<number, [number, number][]>()
    let tick = 0
    const marks = new Marks(
      from,
      () => tick,
      (v) => v.map((p) => [p, at(...p)]),
    )
    let seed = 7
    const random = (n: number) => (seed = (seed * 16807) % 2147483647) % n
    for (let round = 0; round < 60; round++) {
      const many = round % 10 === 0 ? 500 : 5
      for (let i = 0; i < many; i++) {
        const key = random(300)
        if (random(3))
          from.set(
            key,
            Array.from({ length: random(4) }, () => [random(100), random(100)]),
          )
        else from.delete(key)
      }
      tick++
      const x = random(100)
      for (const box of [wide, { minX: x, minY: 10, maxX: x + 20, maxY: 40 }]) {
        const want = [...from].flatMap(([k, v]) => v.filter((p) => meets(at(...p), box)).map((p) => `${k}: ${p}`)) // prettier-ignore
        expect(marks.within(box).map((m) => `${m.key}: ${m.mark}`).sort()).toEqual(want.sort()) // prettier-ignore
      }
    }
  })
  it('looks at the map only when it is told that it changed', () => {
    const from = new Map([[1, 5]])
    let tick = 0
    const marks = new Marks(
      from,
      () => tick,
      (v) => [[v, at(v, 0)]],
    )
    expect(marks.within(wide).length).toBe(1)
    from.set(2, 9)
    expect(marks.within(wide).length).toBe(1)
    tick++
    expect(marks.within(wide).map((m) => m.mark).sort()).toEqual([5, 9]) // prettier-ignore
  })
})
