import { dimensionPlaces } from './draw'
import { describe, expect, it } from 'vitest'
import type { Footprint, Pattern } from '../../live/wire.gen'
import { features, locate, nearest } from './features'

const at = (x: number, y: number) => ({ x: x * 1e6, y: y * 1e6 })
const rect = (x: number, y: number, w: number, h: number) => ({
  corners: [at(x - w / 2, y - h / 2), at(x + w / 2, y - h / 2), at(x + w / 2, y + h / 2), at(x - w / 2, y + h / 2)],
  area: true,
})
/** Pad 1 of 2 by 1 mm at (3, 4), pad 2 with a hole beside its middle, a body of 6 by 2 mm. */
const f = {
  pads: [
    { id: 5, number: '1', form: 'rect', at: at(3, 4), size: at(2, 1) },
    { number: '2', form: 'round', at: at(-3, 4), size: at(2, 2) },
  ],
  silk: [],
  body: [{ form: 'area', pts: [at(-3, -1), at(3, -1), at(3, 1), at(-3, 1)] }],
  courtyard: [],
} as unknown as Footprint
const pattern = {
  footprint: 1,
  pads: [{ on: { near: rect(3, 4, 2, 1) } }, { barrel: rect(-3, 4, 2, 2), bore: rect(-2.5, 4, 0.5, 0.5) }],
  silk: [],
  courtyard: [],
} as unknown as Pattern

describe('features of a footprint', () => {
  const list = features(f, pattern)
  it('has the origin, five of each pad and of the outline, and a hole that lies beside its pad’s middle', () => {
    expect(list.map((x) => x.name)).toHaveLength(1 + 5 + 6 + 5)
    expect(list.find((x) => x.name === 'hole of pad 2')?.at).toEqual(at(-2.5, 4))
    expect(list.find((x) => x.name === 'left edge of pad 1')?.at).toEqual(at(2, 4))
    expect(list.find((x) => x.name === 'upper edge of the outline')?.at).toEqual(at(0, 1))
  })
  it('finds them by what they are, refs or places', () => {
    expect(locate(list, { of: 'pad', pad: 5, spot: 'right' })?.at).toEqual(at(4, 4))
    expect(locate(list, { of: 'pad', pad: 2, spot: 'centre' })?.at).toEqual(at(-3, 4))
    expect(locate(list, { of: 'pad', pad: 1, spot: 'right' })).toBeUndefined()
    expect(locate(list, { of: 'courtyard', spot: 'left' })).toBeUndefined()
  })
  it('snaps to what is near, middles before edges, and to nothing far away', () => {
    expect(nearest(list, at(3.1, 4.1), 0.4e6)?.name).toBe('middle of pad 1')
    expect(nearest(list, at(3, 4.28), 0.4e6)?.name).toBe('middle of pad 1') // the edge at 4.5 is nearer
    expect(nearest(list, at(3.95, 4), 0.4e6)?.name).toBe('right edge of pad 1')
    expect(nearest(list, at(8, 8), 0.4e6)).toBeNull()
  })
})

it('dimension lines stand outside of everything, the shorter ones nearer', () => {
  const d = (has: number, way: string) => ({ said: { id: 0, a: { x: 0, y: 0 }, b: { x: 0, y: 0 }, has, agrees: true }, way })
  const places = dimensionPlaces([d(9, 'y'), d(4, 'y'), d(5, 'x'), d(3, '')], { minX: 0, minY: 0, maxX: 10, maxY: 20 }, 2)
  expect(places).toEqual([14, 12, 22, undefined])
})
