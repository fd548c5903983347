import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Box } from '../canvas/viewport'
import { Tracks, Vias } from '../live/columns'
import { surroundings } from '../testing/program'
import { TrackFlock, ViaFlock } from './copper'
import type { Look } from './draw'

const column = (...ns: number[]) => btoa(String.fromCharCode(...ns.flatMap((n) => [0, 8, 16, 24].map((s) => (n >> s) & 255))))
const colours = { barrel: 'barrel', bore: 'bore' } as Look['colours']
const look = (): Look => ({ colours, layers: 2, position: (l) => (l === 1 ? 0 : 1), at: (i) => i + 1 })
const around = (x: number, y: number, r = 5): Box => ({ minX: x - r, maxX: x + r, minY: y - r, maxY: y + r })

/** What is asked of a canvas, as words. */
function paper() {
  const said: string[] = []
  const word = (name: string) => (...n: number[]) => void said.push([name, ...n.map((v) => Math.round(v * 1e6))].join(' ')) // prettier-ignore
  const ctx = { beginPath: word('begin'), moveTo: word('to'), lineTo: word('line'), arc: word('arc'), stroke: word('stroke'), fill: word('fill'), lineWidth: 0, strokeStyle: '' } // prettier-ignore
  return { said, ctx, pen: { ctx, px: 1e-6 } as never }
}

beforeEach(() => void surroundings())
afterEach(() => vi.unstubAllGlobals())

describe('tracks held in columns', () => {
  const make = () => {
    const t = new Tracks()
    t.take({
      id: column(1, 2, 3, 4), layer: column(1, 1, 2, 1), net: column(0, 0, 0, 0), width: column(10, 10, 10, 20),
      ax: column(0, 200, 0, 400), ay: column(0, 0, 0, 0), bx: column(100, 300, 100, 500), by: column(0, 0, 0, 0), bent: column(1), mx: column(250), my: column(50),
    }) // prettier-ignore
    return t
  }
  it('are found by layer and place', () => {
    const f = new TrackFlock(make(), look)
    expect([...f.layers()].sort()).toEqual(['copper-1', 'copper-2'])
    expect(f.on('copper-1', around(50, 0))).toEqual([1])
    expect(f.on('copper-2', around(50, 0))).toEqual([3])
    expect(f.on('copper-1', around(50, 9))).toEqual([1]) // its edge is 5 away from its line
    expect(f.on('copper-1', around(50, 11))).toEqual([])
    expect(f.on('copper-1', around(250, 55))).toEqual([2]) // the bulge of the arc
    expect(f.on('other', around(50, 0))).toEqual([])
    expect([f.any('copper-1', around(50, 0)), f.any('copper-1', around(50, 90)), f.any('other', around(50, 0))]).toEqual([true, false, false]) // prettier-ignore
  })
  it('are left out when they are taken out, or changed before', () => {
    const t = make()
    t.delete(4)
    const f = new TrackFlock(t, look)
    expect(f.on('copper-1', around(450, 0))).toEqual([])
    expect(f.spots(4)).toEqual([])
    expect(f.spots(1).map((x) => [x.layer, x.box.maxX])).toEqual([['copper-1', 105]])
    expect(f.spots(3)).toEqual([{ layer: 'copper-2', box: { minX: -5, maxX: 105, minY: -5, maxY: 5 } }])
    f.drop(3)
    f.drop(99)
    expect([f.spots(3), f.on('copper-2', around(50, 0)), f.any('copper-2', around(50, 0))]).toEqual([[], [], false])
  })
  it('are painted together by width, but for hidden ones', () => {
    const f = new TrackFlock(make(), look)
    const all = around(250, 0, 999)
    const one = paper()
    f.paint('copper-2', one.pen, all, new Set())
    expect(one.said).toEqual(['begin', 'to 0 0', 'line 100 0', 'stroke'])
    expect(one.ctx.lineWidth).toBeCloseTo(10e-6, 9) // as wide as it is, and it is seen
    const two = paper()
    f.paint('copper-1', two.pen, all, new Set([2]))
    expect(two.said.filter((s) => s === 'begin').length).toBe(2) // two widths
    expect(two.said).toContain('line 500 0')
    expect(two.said.some((s) => s.startsWith('arc'))).toBe(false)
    const three = paper()
    f.paint('copper-1', three.pen, all, new Set([1, 4]))
    expect(three.said.some((s) => s.startsWith('arc'))).toBe(true)
    const none = paper()
    f.paint('copper-1', none.pen, around(0, 500), new Set())
    expect(none.said).toEqual([])
  })
})

describe('vias held in columns', () => {
  it('are those that go through; others are drawn by themselves', () => {
    const v = new Vias()
    v.take({ id: column(1, 2, 3), net: column(0, 0, 0), x: column(0, 100, 200), y: column(0, 0, 0), diameter: column(20, 20, 20), hole: column(8, 8, 8), from: column(1, 1, 1), to: column(2, 1, 2) }) // prettier-ignore
    v.delete(3)
    const f = new ViaFlock(v, look)
    expect([f.has(1), f.has(2), f.has(3)]).toEqual([true, false, false])
    expect([...f.layers()]).toEqual(['barrel', 'bore'])
    expect(f.on('barrel', around(0, 0))).toEqual([1])
    expect(f.on('copper-1', around(0, 0))).toEqual([])
    expect(f.on('bore', around(100, 0))).toEqual([])
    expect(f.spots(1).map((s) => [s.layer, s.box.maxX])).toEqual([['barrel', 10], ['bore', 10]]) // prettier-ignore
    const [barrel, bore] = [paper(), paper()]
    f.paint('barrel', barrel.pen, around(0, 0), new Set())
    f.paint('bore', bore.pen, around(0, 0), new Set())
    expect(barrel.said[2]).toMatch(/^arc 0 0 10 /)
    expect(bore.said[2]).toMatch(/^arc 0 0 4 /)
    expect([f.any('bore', around(0, 0)), f.any('silk-top', around(0, 0))]).toEqual([true, false])
    f.drop(1)
    expect([f.has(1), f.on('barrel', around(0, 0)), f.any('barrel', around(0, 0))]).toEqual([false, [], false])
  })
})
