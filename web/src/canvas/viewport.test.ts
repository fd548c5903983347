import { describe, expect, it } from 'vitest'
import { Viewport } from './viewport'

function view(mirror: boolean) {
  const v = new Viewport(10_000_000, 5_000_000, 1e-5)
  Object.assign(v, { width: 800, height: 600, mirror })
  return v
}

describe('a view from below', () => {
  it('has what lies to the right on its left, and up as it is', () => {
    const v = view(true)
    expect(v.toScreen({ x: 10_000_000, y: 5_000_000 })).toEqual({ x: 400, y: 300 })
    expect(v.toScreen({ x: 11_000_000, y: 6_000_000 })).toEqual({ x: 390, y: 290 })
    expect(view(false).toScreen({ x: 11_000_000, y: 6_000_000 })).toEqual({ x: 410, y: 290 })
  })
  it.each([true, false])('finds the place under the hand again (mirrored: %s)', (mirror) => {
    const v = view(mirror)
    const at = v.toWorld(123, 456)
    const s = v.toScreen(at)
    expect(s.x).toBeCloseTo(123)
    expect(s.y).toBeCloseTo(456)
    v.zoom(1.7, 123, 456)
    expect(v.toScreen(at).x).toBeCloseTo(123, 3)
    expect(v.toScreen(at).y).toBeCloseTo(456, 3)
    v.pan(30, -20)
    expect(v.toScreen(at).x).toBeCloseTo(153, 3)
    expect(v.toScreen(at).y).toBeCloseTo(436, 3)
  })
  it('leaves room on its left for a panel', () => {
    const box = { minX: 0, minY: 0, maxX: 40_000_000, maxY: 10_000_000 }
    for (const mirror of [true, false]) {
      const v = view(mirror)
      v.frame(box, 20, 200)
      const xs = [v.toScreen({ x: 0, y: 0 }).x, v.toScreen({ x: 40_000_000, y: 0 }).x]
      expect(Math.min(...xs)).toBeGreaterThanOrEqual(219)
      expect(Math.max(...xs)).toBeLessThanOrEqual(781)
    }
  })
})
