import { describe, expect, it } from 'vitest'
import { at } from '../testing/board'
import { outlineBatch, paintOutline } from './pattern'

/** What is asked of a canvas in millimetres, with the width and colour of strokes. */
function paper(px: number) {
  const said: string[] = []
  const round = (v: unknown) => (typeof v === 'number' ? Math.round(v * 1000) / 1000 + 0 : v)
  const ctx: Record<string, unknown> = new Proxy({} as Record<string, unknown>, {
    get: (o, k: string) => (k in o ? o[k] : (...args: unknown[]) => void said.push([k, ...args.map(round), ...(k === 'stroke' ? [o.lineWidth, o.strokeStyle] : k === 'fill' ? [o.fillStyle] : [])].join(' '))), // prettier-ignore
    set: (o, k: string, v) => ((o[k] = v), true),
  })
  return { said, ctx: ctx as never, pen: { ctx, px } as never }
}
const here = { at: at(10, 20), angle: 90_000, mirror: false }
const oval = { corners: [at(-1, 0), at(1, 0)], r: 500_000 }
const rounded = { corners: [at(-1, -0.5), at(1, -0.5), at(1, 0.5), at(-1, 0.5)], area: true, r: 250_000 }
const sharp = { ...rounded, r: 0 }
const disc = { corners: [at(1, 0)], r: 400_000 }

describe('outlines on paper', () => {
  it('are lines with a width, areas with an edge, or discs', () => {
    const said = (o: Parameters<typeof paintOutline>[1], grow = 0) => {
      const p = paper(0.01)
      paintOutline(p.pen, o, here, 'red', grow)
      return p.said
    }
    expect(said(oval)).toEqual(['beginPath', 'moveTo 10 19', 'lineTo 10 21', 'stroke 1 red'])
    expect(said(oval, 100_000)[3]).toBe('stroke 1.2 red')
    expect(said(rounded)).toEqual([
      'beginPath', 'moveTo 10.5 19', 'lineTo 10.5 21', 'lineTo 9.5 21', 'lineTo 9.5 19', 'lineTo 10.5 19', 'closePath', 'fill red', 'stroke 0.5 red',
    ]) // prettier-ignore
    expect(said(sharp).pop()).toBe('fill red') // no edge
    expect(said(disc)).toEqual(['beginPath', 'moveTo 10.4 21', 'arc 10 21 0.4 0 6.283', 'fill red'])
  })
  it('are painted with their like, and are boxes from afar', () => {
    const key = (o: Parameters<typeof outlineBatch>[0], px: number) => outlineBatch(o, here, () => 'red').key(px)
    expect([key(oval, 0.01), key({ ...oval, r: 1 }, 1e-7), key(rounded, 0.01), key(disc, 0.01)]).toEqual(['line 500000', 'line 1', 'area 250000', 'fill']) // prettier-ignore
    expect([key(oval, 0.39), key(oval, 0.41)]).toEqual(['line 500000', 'fill']) // its short side of 1 mm is two and a half pixels
    const far = paper(1)
    const batch = outlineBatch(oval, here, () => 'red')
    batch.trace(far.ctx, 1)
    batch.paint(far.ctx, 1)
    expect(far.said).toEqual(['rect 9.5 18.5 1 3', 'fill red'])
    const near = paper(0.01)
    batch.trace(near.ctx, 0.01)
    batch.paint(near.ctx, 0.01)
    expect(near.said).toEqual(['moveTo 10 19', 'lineTo 10 21', 'stroke 1 red'])
    const fine = paper(0.05)
    outlineBatch({ ...rounded, r: 10_000 }, here, () => 'red').paint(fine.ctx, 0.05)
    expect(fine.said).toEqual(['fill red']) // nobody sees an edge of a fifth of a pixel
  })
})
