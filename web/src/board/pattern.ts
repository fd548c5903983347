import { inRing, pieceBox, pieceDistance, ringBox, traceRing, traceTo } from '../canvas/arcs'
import { apply, applyCorners, type Pose } from '../canvas/geometry'
import type { Batch, Pen } from '../canvas/scene'
import { type Box, boxOf, union } from '../canvas/viewport'
import type { Outline, Pattern, Placed, Point } from '../live/wire.gen'

/** Footprints as the core sends them: outlines, everything within r of a line or of what it bounds. */

type PadOutlines = Pattern['pads'][number]

const sides = (o: Outline) => (o.area ? o.corners.length : o.corners.length - 1)

/** The box around an outline in its own coordinates. */
function ownBox(o: Outline): Box {
  let b = boxes.get(o)
  if (!b) {
    b = o.corners.length > 1 && o.area ? ringBox(o.corners, o.r ?? 0) : boxOf(o.corners, o.r ?? 0)
    if (!o.area)
      for (let i = 0; i + 1 < o.corners.length; i++)
        b = union(b, pieceBox(o.corners[i], o.corners[i].mid, o.corners[i + 1], o.r ?? 0))
    boxes.set(o, b)
  }
  return b
}
const boxes = new WeakMap<Outline, Box>()

/** The box around an outline at its place; a turned one that is not turned by quarters gets the box of its box. */
export function outlineBox(o: Outline, t: Pose): Box {
  const b = ownBox(o)
  return boxOf([{ x: b.minX, y: b.minY }, { x: b.maxX, y: b.minY }, { x: b.maxX, y: b.maxY }, { x: b.minX, y: b.maxY }].map((p) => apply(t, p))) // prettier-ignore
}

/** Traces the line of an outline, or its disc when it is a place alone. */
export function traceOutline(ctx: CanvasRenderingContext2D, o: Outline, t: Pose) {
  const pts = applyCorners(t, o.corners)
  if (pts.length === 1) {
    const r = (o.r ?? 0) / 1e6
    ctx.moveTo(pts[0].x / 1e6 + r, pts[0].y / 1e6)
    ctx.arc(pts[0].x / 1e6, pts[0].y / 1e6, r, 0, 2 * Math.PI)
  } else if (o.area) traceRing(ctx, pts)
  else {
    ctx.moveTo(pts[0].x / 1e6, pts[0].y / 1e6)
    for (let i = 0; i + 1 < pts.length; i++) traceTo(ctx, pts[i], pts[i].mid, pts[i + 1])
  }
}

/** Paints what is traced of outlines of one make. */
function paint(ctx: CanvasRenderingContext2D, o: Outline, colour: string, px: number) {
  ctx.fillStyle = ctx.strokeStyle = colour
  const point = o.corners.length === 1
  if (point || o.area) ctx.fill()
  const r = (o.r ?? 0) / 1e6
  if (point || r <= (o.area ? 0.4 * px : 0)) return
  ctx.lineWidth = 2 * r
  ctx.stroke()
}

/** Everything of an outline in one colour; from afar its box. */
export function outlineBatch(o: Outline, t: Pose, colour: () => string): Batch {
  const b = ownBox(o)
  const small = Math.min(b.maxX - b.minX, b.maxY - b.minY) / 1e6
  const make = o.corners.length === 1 ? 'fill' : `${o.area ? 'area' : 'line'} ${o.r ?? 0}`
  return {
    key: (px) => (small < 2.5 * px ? 'fill' : make),
    trace(ctx, px) {
      if (small >= 2.5 * px) {
        traceOutline(ctx, o, t)
        return
      }
      const at = outlineBox(o, t)
      ctx.rect(at.minX / 1e6, at.minY / 1e6, (at.maxX - at.minX) / 1e6, (at.maxY - at.minY) / 1e6)
    },
    paint(ctx, px) {
      if (small < 2.5 * px) {
        ctx.fillStyle = colour()
        ctx.fill()
      } else paint(ctx, o, colour(), px)
    },
  }
}

/** Paints one outline, grown by so much. */
export function paintOutline(pen: Pen, o: Outline, t: Pose, colour: string, grow = 0) {
  const grown = grow ? { ...o, r: (o.r ?? 0) + grow } : o
  pen.ctx.beginPath()
  traceOutline(pen.ctx, grown, t)
  paint(pen.ctx, grown, colour, pen.px)
}

/** Whether a place lies in an outline, or so near to it. */
export function nearOutline(p: Point, o: Outline, t: Pose, tolerance: number): boolean {
  const pts = applyCorners(t, o.corners)
  if (o.area && inRing(p, pts)) return true
  let least = pts.length === 1 ? Math.hypot(p.x - pts[0].x, p.y - pts[0].y) : Infinity
  for (let i = 0; i < sides(o); i++) least = Math.min(least, pieceDistance(p, pts[i], pts[i].mid, pts[(i + 1) % pts.length]))
  return least <= (o.r ?? 0) + tolerance
}

/** A pad's copper on a layer at a place in the stack, as far as it is not its barrel. */
export function padOn(pad: PadOutlines, position: number, layers: number, p: Pick<Placed, 'bottom'>): Outline | undefined {
  if (!pad.on) return undefined
  const outer = position === 0 || position === layers - 1
  return pad.on[!outer ? 'inner' : (position === 0) === !p.bottom ? 'near' : 'far']
}

/** The outlines a pad has anywhere: its copper, or its bare hole. */
export const padOutlines = (pad: PadOutlines): Outline[] => {
  const all = [...Object.values(pad.on ?? {}), ...(pad.barrel ? [pad.barrel] : [])]
  return all.length ? all : pad.bore ? [pad.bore] : []
}

export const courtyard = (f: Pattern, t: Pose): Point[] => f.courtyard.map((p) => apply(t, p))
