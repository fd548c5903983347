import { arcOf } from '../../canvas/arcs'
import { apply, dist, turn } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import type { Grab, Press } from '../../hands/tool'
import type { Corner, Pad, Point } from '../../live/wire.gen'
import type { FootprintEditor } from './editor'

/** A place on a free pad's edge that the hand can take: a corner, a side's middle, or the place that an arc goes through. */
export interface EdgeGrip {
  kind: 'corner' | 'side' | 'arc'
  /** Of the corner, or of the one that the side begins at. */
  corner: number
  at: Point
}

const poseOf = (p: Pad) => ({ at: p.at, angle: p.angle ?? 0, mirror: false })
/** A place of the footprint as seen from the pad's middle. */
export const seenFrom = (p: Pad, q: Point): Point =>
  turn({ x: q.x - p.at.x, y: q.y - p.at.y }, (360_000 - (p.angle ?? 0)) % 360_000)

/** All grips of a pad of a free form. */
export function gripsOf(p: Pad): EdgeGrip[] {
  const edge = p.form === 'free' ? (p.edge ?? []) : []
  const t = poseOf(p)
  return edge.flatMap((c, i) => {
    const next = edge[(i + 1) % edge.length]
    const middle = c.mid ?? { x: Math.round((c.x + next.x) / 2), y: Math.round((c.y + next.y) / 2) }
    return [
      { kind: 'corner' as const, corner: i, at: apply(t, c) },
      { kind: c.mid ? ('arc' as const) : ('side' as const), corner: i, at: apply(t, middle) },
    ]
  })
}

/** The edge after a grip was led to a place, as seen from the pad's middle. Sides of which an end moves take their arcs along. */
export function led(edge: Corner[], g: EdgeGrip, to: Point, bend: boolean): Corner[] {
  const out = edge.map((c) => ({ ...c }))
  const n = out.length
  if (g.kind === 'corner') {
    const step = { x: to.x - out[g.corner].x, y: to.y - out[g.corner].y }
    const half = (q: Point) => ({ x: Math.round(q.x + step.x / 2), y: Math.round(q.y + step.y / 2) })
    const before = out[(g.corner + n - 1) % n]
    if (before.mid) before.mid = half(before.mid)
    out[g.corner] = { ...out[g.corner], ...to, ...(out[g.corner].mid ? { mid: half(out[g.corner].mid!) } : {}) }
  } else if (g.kind === 'arc' || bend) out[g.corner] = { ...out[g.corner], mid: to }
  else out.splice(g.corner + 1, 0, { ...to })
  return out
}

/** The edge without a corner; three stay. */
export function without(edge: Corner[], i: number): Corner[] {
  if (edge.length <= 3) return edge
  return edge.filter((_, k) => k !== i)
}

/** How large a pad's free edge is over all. */
export function sizeOf(edge: Corner[]): Point {
  const pts = edge.flatMap((c) => (c.mid ? [c, c.mid] : [c]))
  const span = (of: number[]) => Math.max(...of) - Math.min(...of)
  return { x: span(pts.map((p) => p.x)), y: span(pts.map((p) => p.y)) }
}

/** A grip in the hand. With Shift, a side is bent instead of broken. */
export class EdgeDrag implements Grab {
  private to: Point | null = null
  private bend = false

  constructor(
    private readonly ed: FootprintEditor,
    private readonly pad: Pad,
    private readonly grip: EdgeGrip,
  ) {}
  private get edge() {
    return this.to ? led(this.pad.edge!, this.grip, seenFrom(this.pad, this.to), this.bend) : this.pad.edge!
  }
  move(p: Press) {
    if (!this.to && dist(p.at, this.grip.at) < p.tolerance * 0.4) return
    this.to = this.ed.onGrid(p.at)
    this.bend = p.shiftKey
  }
  drop() {
    const { ed } = this
    if (!this.to) return
    const edge = this.edge
    ed.grab = this
    void ed.edit({ pads: [{ ...this.pad, edge, size: sizeOf(edge) }] }).finally(() => ed.grab === this && ed.letGo())
  }
  cancel() {
    this.to = null
  }
  paint({ ctx, px }: Pen) {
    const edge = this.edge.map((c) => ({ at: apply(poseOf(this.pad), c), mid: c.mid && apply(poseOf(this.pad), c.mid) }))
    ctx.beginPath()
    edge.forEach((c, i) => {
      const b = edge[(i + 1) % edge.length].at
      if (!i) ctx.moveTo(c.at.x / 1e6, c.at.y / 1e6)
      const k = c.mid && arcOf(c.at, c.mid, b)
      if (k) ctx.arc(k.x / 1e6, k.y / 1e6, k.r / 1e6, k.from, k.to, k.way < 0)
      else ctx.lineTo(b.x / 1e6, b.y / 1e6)
    })
    ctx.closePath()
    ctx.strokeStyle = this.ed.colours.select
    ctx.lineWidth = 1.6 * px
    ctx.stroke()
  }
}

/** Paints the grips of a pad: corners as squares, sides and arcs as discs. */
export function paintGrips({ ctx, px }: Pen, p: Pad, colour: string) {
  ctx.fillStyle = colour
  for (const g of gripsOf(p)) {
    const [x, y] = [g.at.x / 1e6, g.at.y / 1e6]
    if (g.kind === 'corner') ctx.fillRect(x - 4 * px, y - 4 * px, 8 * px, 8 * px)
    else {
      ctx.beginPath()
      ctx.arc(x, y, 3 * px, 0, 2 * Math.PI)
      ctx.fill()
    }
  }
}
