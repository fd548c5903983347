import { describe, expect, it } from 'vitest'
import { type Item, Scene } from './scene'
import { Viewport } from './viewport'

const item = (id: number, x: number, layer = 'a'): Item => ({
  id,
  layer,
  minX: x,
  maxX: x + 10,
  minY: 0,
  maxY: 10,
  draw: () => undefined,
})

describe('what is painted', () => {
  it('finds by place, in the order of the layers', () => {
    const s = new Scene((l) => (l === 'a' ? 1 : 0))
    s.load(new Map([[1, [item(1, 0)]], [2, [item(2, 5, 'b')]], [3, [item(3, 100)]]])) // prettier-ignore
    expect(s.within({ minX: 0, minY: 0, maxX: 20, maxY: 20 }).map((i) => i.id)).toEqual([2, 1])
  })
  it('asks only for what changed to be painted anew', () => {
    const s = new Scene(() => 0)
    s.load(new Map([[1, [item(1, 0)]]]))
    expect(s.everything).toBe(true) // the first time
    s.everything = false
    s.set(1, [item(1, 50, 'b')])
    expect(s.stale.map(({ layer, box }) => [layer, box.minX])).toEqual([['a', 0], ['b', 50]]) // prettier-ignore
    expect(s.within({ minX: 0, minY: 0, maxX: 20, maxY: 20 })).toEqual([])
    s.rearrange()
    expect(s.stale.length).toBe(2)
    s.invalidate()
    expect([s.everything, s.stale.length]).toEqual([true, 0])
  })
  it('is painted with its like at once, and by itself after them', () => {
    const s = new Scene(() => 0)
    const said: string[] = []
    const like = (id: number, key: string): Item => ({ ...item(id, id), draw: undefined, batches: () => [{ key: () => key, trace: () => said.push(`${key}${id}`), paint: () => said.push(key) }] }) // prettier-ignore
    const alone = (id: number, near?: number): Item => ({ ...item(id, id), near, draw: () => said.push(`alone ${id}`) })
    s.load(new Map([[1, [like(1, 'x')]], [2, [alone(2)]], [3, [like(3, 'x')]], [4, [alone(4, 0.01)]], [5, [like(5, 'y')]]])) // prettier-ignore
    const box = { minX: 0, minY: 0, maxX: 99, maxY: 9 }
    s.paint('a', { ctx: { beginPath: () => said.push('|') }, px: 0.1 } as never, box)
    const [x, y] = [said.slice(0, 4).sort(), said.slice(4, 7)]
    expect([x, y, said.slice(7)]).toEqual([['x', 'x1', 'x3', '|'], ['|', 'y5', 'y'], ['alone 2']]) // four is too fine to be seen
    expect(s.any('a', { minX: 4, minY: 0, maxX: 4, maxY: 9 }, 0.1)).toBe(true)
    s.hide([1, 2, 3])
    expect(s.any('a', { minX: 0, minY: 0, maxX: 4, maxY: 9 }, 0.1)).toBe(false)
    expect(s.any('a', { minX: 0, minY: 0, maxX: 4, maxY: 9 }, 0.01)).toBe(true)
  })
  it('leaves out what the hand holds', () => {
    const s = new Scene(() => 0)
    s.load(new Map([[1, [item(1, 0)]], [2, [item(2, 3)]]])) // prettier-ignore
    s.hide([1])
    expect(s.within({ minX: 0, minY: 0, maxX: 9, maxY: 9 }).map((i) => i.id)).toEqual([2])
    s.hide([])
    expect(s.within({ minX: 0, minY: 0, maxX: 9, maxY: 9 }).length).toBe(2)
  })
})

describe('the view', () => {
  const view = () => {
    const v = new Viewport(1e6, 2e6, 1e-5)
    v.width = 800
    v.height = 600
    return v
  }
  it('goes to the screen and back', () => {
    const v = view()
    for (const p of [{ x: 0, y: 0 }, { x: 5e6, y: -3e6 }]) expect(v.toWorld(v.toScreen(p).x, v.toScreen(p).y)).toEqual(p) // prettier-ignore
    expect(v.toScreen({ x: 1e6, y: 3e6 }).y).toBeLessThan(300) // y goes up
  })
  it('zooms at the cursor', () => {
    const v = view()
    const before = v.toWorld(123, 456)
    v.zoom(2, 123, 456)
    const after = v.toWorld(123, 456)
    expect(Math.abs(before.x - after.x)).toBeLessThan(2)
    expect(Math.abs(before.y - after.y)).toBeLessThan(2)
  })
  it('frames a box whole', () => {
    const v = view()
    const b = { minX: -20e6, minY: 3e6, maxX: 70e6, maxY: 33e6 }
    v.frame(b, 40)
    expect(v.box.minX).toBeLessThan(b.minX)
    expect(v.box.maxX).toBeGreaterThan(b.maxX)
    expect(v.box.minY).toBeLessThan(b.minY)
  })
  it('leaves room for panels on the left and below', () => {
    const v = view()
    const tall = { minX: 0, minY: 0, maxX: 10e6, maxY: 90e6 }
    v.frame(tall, 20, 0, 2e-4, 50)
    const [low, high] = [v.toScreen({ x: 5e6, y: 0 }).y, v.toScreen({ x: 5e6, y: 90e6 }).y]
    expect(v.height - low).toBeCloseTo(70, 3)
    expect(high).toBeCloseTo(20, 3)
    const wide = { minX: 0, minY: 0, maxX: 900e6, maxY: 10e6 }
    v.frame(wide, 20, 100)
    expect(v.toScreen({ x: 0, y: 0 }).x).toBeCloseTo(120, 3)
    expect(v.toScreen({ x: 900e6, y: 0 }).x).toBeCloseTo(v.width - 20, 3)
  })
})
