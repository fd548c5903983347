import { traceRing } from '../canvas/arcs'
import type { Pen } from '../canvas/scene'
import type { Corner, Point } from '../live/wire.gen'

/** A place on a closed line that the hand can take: a corner, a side's middle, or the place that an arc goes through. */
export interface EdgeGrip {
  kind: 'corner' | 'side' | 'arc'
  /** Of the corner, or of the one that the side begins at. */
  corner: number
  at: Point
}

/** All grips of a closed line. */
export function gripsOf(edge: Corner[]): EdgeGrip[] {
  return edge.flatMap((c, i) => {
    const next = edge[(i + 1) % edge.length]
    const middle = c.mid ?? { x: Math.round((c.x + next.x) / 2), y: Math.round((c.y + next.y) / 2) }
    return [
      { kind: 'corner' as const, corner: i, at: { x: c.x, y: c.y } },
      { kind: c.mid ? ('arc' as const) : ('side' as const), corner: i, at: middle },
    ]
  })
}

/** The middle of an arc carried over as its chord goes from a–b to p–q. */
function followed(a: Point, b: Point, m: Point, p: Point, q: Point): Point {
  const [ux, uy, vx, vy, wx, wy] = [b.x - a.x, b.y - a.y, m.x - a.x, m.y - a.y, q.x - p.x, q.y - p.y]
  const l = ux * ux + uy * uy
  if (!l) return { x: p.x + vx, y: p.y + vy }
  const [along, aside] = [(vx * ux + vy * uy) / l, (ux * vy - uy * vx) / l]
  return { x: Math.round(p.x + wx * along - wy * aside), y: Math.round(p.y + wy * along + wx * aside) }
}

/** The line after a grip was led to a place. Arcs beside a corner that moves are turned and stretched with their chord. */
export function led(edge: Corner[], g: EdgeGrip, to: Point, bend: boolean): Corner[] {
  const out = edge.map((c) => ({ ...c }))
  const n = out.length
  if (g.kind === 'corner') {
    out[g.corner] = { ...out[g.corner], ...to }
    for (const k of [(g.corner + n - 1) % n, g.corner]) {
      const mid = edge[k].mid
      if (mid) out[k].mid = followed(edge[k], edge[(k + 1) % n], mid, out[k], out[(k + 1) % n])
    }
  } else if (g.kind === 'arc' || bend) out[g.corner] = { ...out[g.corner], mid: to }
  else out.splice(g.corner + 1, 0, { ...to })
  return out
}

/** The line without a corner; three stay. */
export function without(edge: Corner[], i: number): Corner[] {
  if (edge.length <= 3) return edge
  return edge.filter((_, k) => k !== i)
}

/** Draws a closed line as it lies in the hand. */
export function paintEdge({ ctx, px }: Pen, edge: Corner[], colour: string) {
  ctx.beginPath()
  traceRing(ctx, edge)
  ctx.strokeStyle = colour
  ctx.lineWidth = 1.6 * px
  ctx.stroke()
}

/** Paints grips: corners as squares, sides and arcs as discs; the chosen one larger. */
export function paintGrips({ ctx, px }: Pen, grips: EdgeGrip[], colour: string, chosen?: EdgeGrip) {
  ctx.fillStyle = colour
  for (const g of grips) {
    const [x, y] = [g.at.x / 1e6, g.at.y / 1e6]
    const k = chosen && g.kind === chosen.kind && g.corner === chosen.corner ? 1.6 : 1
    if (g.kind === 'corner') ctx.fillRect(x - 4 * k * px, y - 4 * k * px, 8 * k * px, 8 * k * px)
    else {
      ctx.beginPath()
      ctx.arc(x, y, 3 * k * px, 0, 2 * Math.PI)
      ctx.fill()
    }
  }
}
