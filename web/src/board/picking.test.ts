import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { at, board, hole, onBoard, placed, track, via, net } from '../testing/board'
import { surroundings } from '../testing/program'
import { courtyard, nearOutline, outlineBox, padOn, padOutlines } from './pattern'

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
  it('is its courtyard, carried to its place', async () => {
    const { project } = await onBoard([board(2)])
    expect(courtyard(project.pattern('TWO')!, here)[2]).toEqual(at(3, 1))
    expect(courtyard(project.pattern('TWO')!, { at: at(10, 10), angle: 90_000, mirror: false })[2]).toEqual(at(9, 13))
    expect(project.pattern('NONE')).toBeUndefined()
  })
})

describe('an outline', () => {
  const oval = { corners: [at(-1, 0), at(1, 0)], r: 500_000 }
  const square = { corners: [at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)], area: true, r: 250_000 }
  const bow = { corners: [{ ...at(-1, 0), mid: at(0, 1) }, at(1, 0)], r: 0 }
  it('takes room at its place, arcs by their bulge', () => {
    expect(outlineBox(oval, { at: at(10, 10), angle: 90_000, mirror: false })).toEqual({ minX: 9.5e6, maxX: 10.5e6, minY: 8.5e6, maxY: 11.5e6 }) // prettier-ignore
    expect(outlineBox(square, here)).toEqual({ minX: -1.25e6, maxX: 1.25e6, minY: -1.25e6, maxY: 1.25e6 })
    expect(outlineBox(bow, here)).toEqual({ minX: -1e6, maxX: 1e6, minY: 0, maxY: 1e6 })
  })
  it('is met within its radius, and within what it bounds', () => {
    expect(nearOutline(at(1.49, 0), oval, here, 0)).toBe(true)
    expect(nearOutline(at(1.4, 0.4), oval, here, 0)).toBe(false) // its ends are round
    expect(nearOutline(at(0.3, 0.2), square, here, 0)).toBe(true)
    expect(nearOutline(at(1.2, 1.2), square, here, 0)).toBe(false)
    expect(nearOutline(at(1.2, 1.2), square, here, 40_000)).toBe(true) // 0.283 mm from its corner
    expect(nearOutline(at(0, 0.5), bow, here, 100_000)).toBe(false) // within, but an open line
    expect(nearOutline(at(0.3, 0), { corners: [at(0, 0)], r: 300_000 }, here, 0)).toBe(true)
    expect(nearOutline(at(5, 7.2), { corners: [at(5, 7)], r: 300_000 }, here, 0)).toBe(true)
    expect(nearOutline(at(5, 7.4), { corners: [at(5, 7)], r: 300_000 }, here, 0)).toBe(false)
  })
  it('is that of the group a layer is of, as seen from the side of the part', () => {
    const [near, inner, far] = [1, 2, 3].map((r) => ({ corners: [at(0, 0)], r }))
    const pad = { on: { near, inner, far } }
    const on = (bottom: boolean) => [0, 1, 2, 3].map((i) => padOn(pad, i, 4, { bottom })?.r)
    expect([on(false), on(true)]).toEqual([[1, 2, 2, 3], [3, 2, 2, 1]]) // prettier-ignore
    expect(padOn({ barrel: near }, 0, 4, {})).toBeUndefined()
    expect(padOutlines({ bore: far })).toEqual([far])
    expect(padOutlines({ bore: far, barrel: near })).toEqual([near])
  })
})
