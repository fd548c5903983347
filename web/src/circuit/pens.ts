import type { Pen } from '../canvas/scene'
import type { Box } from '../canvas/viewport'
import type { Mark, Point } from '../live/wire.gen'

/** Strokes of what is marked or held on a sheet. */

export const line = (a: Point, b: Point, s: string, w: number): Mark => ({ p: [a.x, a.y, b.x, b.y], s, w })

export function box(pen: Pen, b: Box, colour: string, dashed: boolean, grow = 0) {
  const { ctx } = pen
  ctx.strokeStyle = colour
  ctx.lineWidth = 1.4 * pen.px
  ctx.setLineDash(dashed ? [4 * pen.px, 4 * pen.px] : [])
  const g = grow * pen.px
  ctx.strokeRect(b.minX / 1e6 - g, b.minY / 1e6 - g, (b.maxX - b.minX) / 1e6 + 2 * g, (b.maxY - b.minY) / 1e6 + 2 * g)
  ctx.setLineDash([])
}

export function ring(pen: Pen, p: Point, r: number) {
  pen.ctx.beginPath()
  pen.ctx.arc(p.x / 1e6, p.y / 1e6, r, 0, 2 * Math.PI)
  pen.ctx.stroke()
}
