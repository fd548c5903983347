import { describe, expect, it } from 'vitest'
import { find, numbers, Tracks, Vias } from './columns'

/** The bytes of whole numbers by hand: the lowest byte first, two's complement. */
const column = (...ns: number[]) => {
  let s = ''
  for (const n of ns) for (let i = 0; i < 4; i++) s += String.fromCharCode((n >> (8 * i)) & 255)
  return btoa(s)
}
const tracks = () => {
  const t = new Tracks()
  t.take({
    id: column(5, 9, 12), layer: column(1, 1, 2), net: column(7, 0, 7), width: column(100, 200, 300),
    ax: column(0, -2_000_000_000, 3), ay: column(1, 2, 3), bx: column(10, 2_000_000_000, 30), by: column(11, 12, 13),
    bent: column(1), mx: column(-4), my: column(44), locked: column(0, 2),
  }) // prettier-ignore
  return t
}

describe('columns', () => {
  it('are whole numbers with their sign, the lowest byte first', () => {
    expect([...numbers('AQAAAP////8AAACA')]).toEqual([1, -1, -2147483648])
    expect([...numbers(undefined)]).toEqual([])
  })
  it('are looked through by halves', () => {
    const c = Int32Array.of(2, 4, 8, 16)
    expect([2, 4, 8, 16, 1, 5, 17].map((n) => find(c, n))).toEqual([0, 1, 2, 3, -1, -1, -1])
  })
  it('give the objects as they were sent one by one', () => {
    const t = tracks()
    expect(t.get(5)).toEqual({ id: 5, layer: 1, net: 7, width: 100, a: { x: 0, y: 1 }, b: { x: 10, y: 11 }, locked: true })
    expect(t.get(9)).toEqual({ id: 9, layer: 1, width: 200, a: { x: -2e9, y: 2 }, mid: { x: -4, y: 44 }, b: { x: 2e9, y: 12 } })
    expect(t.get(6)).toBeUndefined()
    expect([5, 9, 12, 6].map((id) => t.has(id))).toEqual([true, true, true, false])
    const v = new Vias()
    v.take({ id: column(3), net: column(0), x: column(1), y: column(2), diameter: column(800), hole: column(400), from: column(1), to: column(4), locked: column(0) }) // prettier-ignore
    expect(v.get(3)).toEqual({ id: 3, at: { x: 1, y: 2 }, diameter: 800, hole: 400, from: 1, to: 4, locked: true })
  })
  it('keep what changes beside them', () => {
    const t = tracks()
    const now = { ...t.get(9)!, width: 999 }
    t.set(9, now)
    expect([t.size, t.get(9), t.has(9), t.holds(1)]).toEqual([3, now, true, false])
    t.set(20, { ...now, id: 20 })
    t.delete(5)
    t.delete(5)
    expect([...t.values()].map((o) => o.id)).toEqual([12, 9, 20])
    expect([t.size, t.has(5), t.get(5)]).toEqual([3, false, undefined])
    t.delete(9)
    expect([...t.beside()].map((o) => o.id)).toEqual([20])
    expect(t.has(9)).toBe(false)
    t.clear()
    expect([t.size, [...t.values()]]).toEqual([0, []])
  })
})
