import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { at, board, hole, onBoard, placed, track, via, net } from '../testing/board'
import { surroundings } from '../testing/program'
import { courtyard, padBox } from './draw'

const tolerance = 100_000
beforeEach(() => void surroundings())
afterEach(() => vi.unstubAllGlobals())
const here = { at: { x: 0, y: 0 }, angle: 0, mirror: false }

describe('what lies under the hand', () => {
  it('is a part within its courtyard, turned as it is', async () => {
    const { ed } = await onBoard([board(2), placed(11, 10, 10, { angle: 90_000 })])
    expect(ed.under(at(10, 12.9), tolerance)).toEqual([11]) // its length stands upright
    expect(ed.under(at(12.9, 10), tolerance)).toEqual([])
    expect(ed.under(at(10, 13.1), tolerance)).toEqual([])
  })
  it('is the smaller first: vias and holes, the track of the layer in work, parts, other tracks', async () => {
    const { ed } = await onBoard([
      board(2), placed(11, 0, 0), track(12, 0, [-5, 0], [5, 0]), track(13, 1, [-5, 0], [5, 0]), via(14, 0, 0, 0, 1), hole(15, 20, 0),
    ]) // prettier-ignore
    expect(ed.under(at(0, 0), tolerance)).toEqual([14, 12, 11, 13])
    ed.toLayer(2)
    expect(ed.under(at(1.4, 0), tolerance)).toEqual([13, 11, 12])
    expect(ed.under(at(21.4, 0), tolerance)).toEqual([15])
    expect(ed.under(at(21.6, 0), tolerance)).toEqual([])
  })
  it('is no track of a hidden layer', async () => {
    const { ed } = await onBoard([board(2), track(13, 1, [-5, 0], [5, 0])])
    expect(ed.under(at(0, 0.25), tolerance)).toEqual([13])
    ed.state.hidden = [2]
    expect(ed.under(at(0, 0.25), tolerance)).toEqual([])
  })
})

describe('the copper under the hand', () => {
  it('is a pad, with its net, its middle and the layer of its side', async () => {
    const { ed } = await onBoard([board(2), placed(11, 10, 0), placed(12, 30, 0, { bottom: true })])
    expect(ed.touched(at(12.4, 0.4), tolerance)).toMatchObject({ id: 11, net: net('GND'), at: at(12, 0), layers: [1], name: 'pad R11.2' }) // prettier-ignore
    // from below the part is mirrored: pad 2 is on the left
    expect(ed.touched(at(28, 0), tolerance)).toMatchObject({ id: 12, net: net('GND'), layers: [2] })
    expect(ed.touched(at(10, 0), tolerance)).toBeNull() // between the pads
  })
  it('is round where a pad is round, and on all layers where it is drilled', async () => {
    const { ed } = await onBoard([board(4), placed(11, 0, 0, { footprint: 'PIN', nets: { 1: net('OUT') } })])
    expect(ed.touched(at(0.95, 0), tolerance)).toMatchObject({ net: net('OUT'), layers: [1, 2, 3, 4] })
    expect(ed.touched(at(0.8, 0.8), tolerance)).toBeNull() // the corner of its box, 1.13 mm away
  })
  it('is a via only on the layers it joins', async () => {
    const { ed } = await onBoard([board(4), via(14, 0, 0, 1, 2)])
    expect(ed.touched(at(0.3, 0), tolerance)).toMatchObject({ id: 14, net: net('VIN'), at: at(0, 0), layers: [2, 3] })
    expect(ed.touched(at(0.5, 0), tolerance)).toBeNull()
  })
  it("is a track's end near it, else its middle line across from the hand", async () => {
    const { ed } = await onBoard([board(2), track(12, 0, [0, 0], [10, 0])])
    expect(ed.touched(at(0.3, 0.2), tolerance)!.at).toEqual(at(0, 0))
    expect(ed.touched(at(9.8, 0.1), tolerance)!.at).toEqual(at(10, 0))
    expect(ed.touched(at(4, 0.2), tolerance)!.at).toEqual(at(4, 0))
    expect(ed.touched(at(4, 0.31), tolerance)).toBeNull()
  })
  it('is that of the layer in work before any other', async () => {
    const { ed } = await onBoard([board(2), placed(11, 2, 0), track(13, 1, [-5, 0], [5, 0], 'SDA')])
    expect(ed.netUnder(at(0, 0), tolerance)).toBe('VIN') // the pad, on top
    ed.toLayer(2)
    expect(ed.netUnder(at(0, 0), tolerance)).toBe('SDA')
  })
})

describe('the room of a part', () => {
  it('is its courtyard, or the box of its pads where it has none', async () => {
    const { project } = await onBoard([board(2)])
    expect(courtyard(project.named('footprint', 'TWO')!, here)[2]).toEqual(at(3, 1))
    expect(courtyard(project.named('footprint', 'PIN')!, here)).toEqual([at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)])
  })
  it("is a pad's box, turned", () => {
    const p = { number: '1', form: 'rect', at: at(2, 0), size: { x: 1_000_000, y: 3_000_000 } }
    expect(padBox(p, { at: at(10, 10), angle: 90_000, mirror: false })).toEqual({ minX: 8.5e6, minY: 11.5e6, maxX: 11.5e6, maxY: 12.5e6 }) // prettier-ignore
    expect(padBox(p, { at: at(10, 10), angle: 0, mirror: true })).toMatchObject({ minX: 7.5e6, maxX: 8.5e6 })
  })
})
