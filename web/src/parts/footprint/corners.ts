import { apply, dist, turn } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import { type EdgeGrip, gripsOf, led, paintEdge } from '../../hands/edge'
import type { Grab, Press } from '../../hands/tool'
import type { Corner, Pad, Point } from '../../live/wire.gen'
import type { FootprintEditor } from './editor'

const poseOf = (p: Pad) => ({ at: p.at, angle: p.angle ?? 0, mirror: false })
/** A place of the footprint as seen from the pad's middle. */
export const seenFrom = (p: Pad, q: Point): Point =>
  turn({ x: q.x - p.at.x, y: q.y - p.at.y }, (360_000 - (p.angle ?? 0)) % 360_000)

/** A pad's edge as it lies in the footprint. */
const lying = (p: Pad, edge: Corner[]): Corner[] =>
  edge.map((c) => ({ ...apply(poseOf(p), c), ...(c.mid ? { mid: apply(poseOf(p), c.mid) } : {}) }))

/** All grips of a pad of a free form. */
export const padGrips = (p: Pad): EdgeGrip[] => (p.form === 'free' ? gripsOf(lying(p, p.edge ?? [])) : [])

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
  paint(pen: Pen) {
    paintEdge(pen, lying(this.pad, this.edge), this.ed.colours.select)
  }
}
