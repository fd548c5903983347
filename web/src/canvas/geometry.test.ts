import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { Point } from '../live/wire.gen'
import { apply, inPolygon, segmentDistance, snap, textLines } from './geometry'

// The same file is held against core/layout, so that what is seen is what the files contain.
interface Drawn {
  texts: { text: string; height: number; at: Point; angle: number; bottom: boolean; lines: Point[][] }[]
  places: { at: Point; angle: number; mirror: boolean; from: Point; to: Point }[]
}
const drawn = JSON.parse(readFileSync(new URL('../../../testdata/drawn.json', import.meta.url), 'utf8')) as Drawn

/** Both languages round halves, Go away from zero and JavaScript upwards: a nanometre is no difference. */
const near = (a: Point, b: Point) => Math.abs(a.x - b.x) <= 1 && Math.abs(a.y - b.y) <= 1

describe('drawn as core lays it', () => {
  it.each(drawn.texts)('text $text at $angle, bottom $bottom', (c) => {
    const lines = textLines(c.text, c.height, c.at, c.angle, c.bottom)
    expect(lines.length).toBe(c.lines.length)
    lines.forEach((l, i) => {
      expect(l.length).toBe(c.lines[i].length)
      l.forEach((p, j) => expect(near(p, c.lines[i][j]), `${JSON.stringify(p)} for ${JSON.stringify(c.lines[i][j])}`).toBe(true))
    })
  })
  it.each(drawn.places)('place at $angle, mirrored $mirror', (c) => expect(near(apply(c, c.from), c.to)).toBe(true))
})

describe('under the hand', () => {
  it('snaps to the grid both ways', () => {
    expect(snap({ x: 3.7e6, y: -3.7e6 }, 2.5e6)).toEqual({ x: 2.5e6, y: -2.5e6 })
    expect(snap({ x: -0.4e6, y: 0.4e6 }, 2.5e6)).toEqual({ x: 0, y: 0 })
  })
  it('measures to a segment', () => {
    expect(segmentDistance({ x: 5, y: 3 }, { x: 0, y: 0 }, { x: 10, y: 0 })).toBe(3)
    expect(segmentDistance({ x: 13, y: 4 }, { x: 0, y: 0 }, { x: 10, y: 0 })).toBe(5)
    expect(segmentDistance({ x: 3, y: 4 }, { x: 0, y: 0 }, { x: 0, y: 0 })).toBe(5)
  })
  it('knows inside from outside', () => {
    const l = [{ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 10, y: 5 }, { x: 5, y: 5 }, { x: 5, y: 10 }, { x: 0, y: 10 }] // prettier-ignore
    expect(inPolygon({ x: 2, y: 8 }, l)).toBe(true)
    expect(inPolygon({ x: 8, y: 8 }, l)).toBe(false)
  })
})
