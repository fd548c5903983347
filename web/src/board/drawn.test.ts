import { describe, expect, it } from 'vitest'
import type { Batch, Item } from '../canvas/scene'
import type { Board, BoardFigure, Legend } from '../live/wire.gen'
import { boardColours } from '../shell/tokens'
import { offOf } from './dimensions'
import { lookOf } from './draw'
import { figureItem, legendItem, sceneLayer } from './drawn'

const board = {
  id: 2,
  outline: [],
  nextLayer: 4,
  stack: [
    { id: 1, name: 'Top', kind: 'copper', thickness: 35_000, material: 'Copper' },
    { id: 2, name: 'Core', kind: 'core', thickness: 1_500_000, material: 'FR-4' },
    { id: 3, name: 'Bottom', kind: 'copper', thickness: 35_000, material: 'Copper' },
  ],
} as Board
const look = () => lookOf(boardColours.dark, board)
const mm = (x: number, y: number) => ({ x: x * 1e6, y: y * 1e6 })

/** What a batch asks of a canvas. */
function asked(b: Batch) {
  const said: string[] = []
  const note = (k: string) => (...a: unknown[]) => void said.push([k, ...a.map((v) => (typeof v === 'number' ? +v.toFixed(3) : v))].join(' ')) // prettier-ignore
  const ctx = { moveTo: note('to'), lineTo: note('line'), arc: note('arc'), closePath: note('close'), fill: note('fill'), stroke: note('stroke'), beginPath: note('begin') } as unknown as CanvasRenderingContext2D // prettier-ignore
  b.trace(ctx, 0.001)
  b.paint(ctx, 0.001)
  return { said, ctx }
}
const text = (more: Partial<Legend> = {}): Legend => ({ id: 9, at: mm(10, 5), angle: 0, height: 2e6, text: 'I', ...more })
const boxOf = ({ minX, minY, maxX, maxY }: Item) => [minX, minY, maxX, maxY].map((v) => v / 1e6)

describe('what is drawn on the board', () => {
  it('lies on the layer of the picture that its surface says', () => {
    expect(sceneLayer({})).toBe('silk-top')
    expect(sceneLayer({ bottom: true })).toBe('silk-bottom')
    expect(sceneLayer({ on: 'copper', layer: 3, bottom: true })).toBe('copper-3')
    expect(sceneLayer({ on: 'mask', bottom: true })).toBe('mask-bottom')
    expect(sceneLayer({ on: 'paste' })).toBe('paste-top')
    expect(sceneLayer({ on: 'drawing', bottom: true })).toBe('drawing')
  })
  it('strokes a text as wide as rules and its height ask for, or as it says itself', () => {
    const width = (l: Legend, rule: number) => asked(legendItem(l, undefined, rule, look).batches!()[0]).ctx.lineWidth
    expect(width(text(), 100_000)).toBeCloseTo(0.25)
    expect(width(text(), 400_000)).toBeCloseTo(0.4)
    expect(width(text({ stroke: 150_000 }), 100_000)).toBeCloseTo(0.15)
    expect(width(text({ on: 'copper', layer: 1 }), 400_000), 'the rule is about silk').toBeCloseTo(0.25)
  })
  it('fills a text in an outline font from the outlines that came with it, mirrored below', () => {
    const rings = [[mm(-1, -1), mm(2, -1), mm(2, 1)]]
    const above = legendItem(text({ font: 'bold' }), rings, 0, look)
    expect(boxOf(above)).toEqual([9, 4, 12, 6])
    expect(asked(above.batches!()[0]).said).toContain('fill evenodd')
    expect(boxOf(legendItem(text({ font: 'bold', bottom: true }), rings, 0, look))).toEqual([8, 4, 11, 6])
    expect(boxOf(legendItem(text({ font: 'bold' }), undefined, 0, look)), 'nothing has come yet').toEqual([10, 5, 10, 5])
  })
  it('fills figures by even and odd, and goes along their lines as wide as they are', () => {
    const f: BoardFigure = { id: 8, lines: [[mm(0, 0), mm(4, 0), mm(4, 2)]], closed: true, filled: true, width: 500_000 }
    const item = figureItem(f, look)
    expect(boxOf(item)).toEqual([-0.25, -0.25, 4.25, 2.25])
    const [area, line] = item.batches!()
    expect(asked(area).said).toContain('fill evenodd')
    expect(asked(line).ctx.lineWidth).toBeCloseTo(0.5)
    const open = figureItem({ id: 8, lines: [[mm(0, 0), mm(4, 0)], [mm(9, 9)]], width: 200_000 }, look)
    expect(open.batches!()).toHaveLength(1)
    expect(asked(open.batches!()[0]).said.filter((s) => s.startsWith('to'))).toEqual(['to 0 0', 'to 9 9'])
    expect(boxOf(open)).toEqual([-0.1, -0.1, 9.1, 9.1])
  })
  it('counts how far a dimension lies off as the core does: left of the way, up, right', () => {
    expect(offOf(mm(1, 2), mm(4, 6), '', mm(1 - 1.6, 2 + 1.2))).toBe(2e6)
    expect(offOf(mm(1, 2), mm(4, 6), '', mm(4 + 1.6, 6 - 1.2))).toBe(-2e6)
    expect(offOf(mm(1, 2), mm(4, 6), 'x', mm(9, 4))).toBe(2e6)
    expect(offOf(mm(1, 2), mm(4, 6), 'y', mm(3, 9))).toBe(2e6)
    expect(offOf(mm(1, 2), mm(1, 2), '', mm(3, 9))).toBe(0)
  })
})
