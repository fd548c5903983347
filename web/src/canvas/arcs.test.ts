import { describe, expect, it } from 'vitest'
import { along, arcOf, flat, inRing, nearestOn, pieceBox, pieceDistance, pieceLength, ringBox } from './arcs'

const p = (x: number, y: number) => ({ x, y })
/** The upper half of a circle of radius 10 about the origin, from right to left, and the lower half of it. */
const upper = [p(10, 0), p(0, 10), p(-10, 0)] as const
const lower = [p(10, 0), p(0, -10), p(-10, 0)] as const

describe('an arc through three places', () => {
  it('has its circle and the way it goes', () => {
    expect(arcOf(...upper)).toMatchObject({ x: 0, y: 0, r: 10, to: Math.PI, way: 1 })
    expect(arcOf(...lower)).toMatchObject({ x: 0, y: 0, r: 10, to: -Math.PI, way: -1 })
    expect(arcOf(p(0, 0), p(5, 0), p(10, 0))).toBeNull()
    expect(arcOf(p(0, 0), p(20, 0), p(0, 0))).toMatchObject({ x: 10, y: 0, r: 10, way: 1 }) // a whole circle
  })
  it('goes round the far way when its middle lies there', () => {
    const k = arcOf(p(10, 0), p(-10, 0), p(0, 10))!
    expect(Math.abs(k.to - k.from)).toBeCloseTo(1.5 * Math.PI, 9)
    expect(k.way).toBe(-1)
  })
  it('has a length, a box and distances', () => {
    expect(pieceLength(...upper)).toBeCloseTo(10 * Math.PI, 9)
    expect(pieceLength(p(0, 0), undefined, p(3, 4))).toBe(5)
    expect(pieceBox(...upper)).toMatchObject({ minX: -10, minY: 0, maxX: 10, maxY: 10 })
    expect(pieceDistance(p(0, 13), ...upper)).toBeCloseTo(3, 9)
    expect(pieceDistance(p(0, 0), ...upper)).toBeCloseTo(10, 9)
    expect(pieceDistance(p(13, -4), ...upper)).toBeCloseTo(5, 9) // beyond its end
    expect(nearestOn(p(0, 25), ...upper)).toEqual(p(0, 10))
    expect(nearestOn(p(20, -25), ...upper)).toEqual(p(10, 0))
    expect(nearestOn(p(4, 9), p(0, 0), undefined, p(10, 0))).toEqual(p(4, 0))
  })
  it('is followed by places that lie on it', () => {
    const way = along(...lower)
    expect(way[0]).toEqual(p(10, 0))
    for (const q of way) expect(Math.hypot(q.x, q.y)).toBeCloseTo(10, 9)
    expect(way.every((q) => q.y <= 1e-9)).toBe(true)
  })
})

describe('a closed line with arcs', () => {
  const disc = [{ ...p(10, 0), mid: p(0, 10) }, { ...p(-10, 0), mid: p(0, -10) }] // prettier-ignore
  it('holds what lies within', () => {
    expect(inRing(p(7, 7), disc)).toBe(true)
    expect(inRing(p(7.2, 7.2), disc)).toBe(false)
    expect(ringBox(disc, 1)).toMatchObject({ minX: -11, minY: -11, maxX: 11, maxY: 11 })
    expect(flat([p(0, 0), p(1, 0), p(0, 1)])).toHaveLength(3)
  })
})
