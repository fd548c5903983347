import type { Corner, Point } from '../live/wire.gen'
import { inPolygon, segmentDistance } from './geometry'
import { type Box, boxOf } from './viewport'

/** The circle of an arc and the angles it goes from and to; it goes anticlockwise when way is 1. */
export interface Arc {
  x: number
  y: number
  r: number
  from: number
  to: number
  way: 1 | -1
}

/** The arc from a through m to b; null when that is a straight line. One from a place to itself is a whole circle. */
export function arcOf(a: Point, m: Point, b: Point): Arc | null {
  if (a.x === b.x && a.y === b.y) {
    if (m.x === a.x && m.y === a.y) return null
    const [x, y] = [(a.x + m.x) / 2, (a.y + m.y) / 2]
    const from = Math.atan2(a.y - y, a.x - x)
    return { x, y, r: Math.hypot(a.x - x, a.y - y), from, to: from + 2 * Math.PI, way: 1 }
  }
  const [mx, my, bx, by] = [m.x - a.x, m.y - a.y, b.x - a.x, b.y - a.y]
  const d = 2 * (mx * by - my * bx)
  if (d === 0) return null
  const [mm, bb] = [mx * mx + my * my, bx * bx + by * by]
  const [cx, cy] = [(by * mm - my * bb) / d, (mx * bb - bx * mm) / d]
  const way = d > 0 ? 1 : -1
  const from = Math.atan2(-cy, -cx)
  let to = Math.atan2(by - cy, bx - cx)
  if (way > 0) while (to <= from) to += 2 * Math.PI
  else while (to >= from) to -= 2 * Math.PI
  return { x: a.x + cx, y: a.y + cy, r: Math.hypot(cx, cy), from, to, way }
}

/** Goes on in the current path from a to b, in millimetres. */
export function traceTo(ctx: CanvasRenderingContext2D, a: Point, m: Point | undefined, b: Point) {
  const k = m && arcOf(a, m, b)
  if (k) ctx.arc(k.x / 1e6, k.y / 1e6, k.r / 1e6, k.from, k.to, k.way < 0)
  else ctx.lineTo(b.x / 1e6, b.y / 1e6)
}

/** Traces a closed line. */
export function traceRing(ctx: CanvasRenderingContext2D, corners: Corner[]) {
  if (!corners.length) return
  ctx.moveTo(corners[0].x / 1e6, corners[0].y / 1e6)
  corners.forEach((c, i) => traceTo(ctx, c, c.mid, corners[(i + 1) % corners.length]))
  ctx.closePath()
}

/** Places along an arc or a line, its end left out, so close that no one sees the straight lines between. */
export function along(a: Point, m: Point | undefined, b: Point): Point[] {
  const k = m && arcOf(a, m, b)
  if (!k) return [a]
  const n = Math.max(4, Math.ceil(Math.abs(k.to - k.from) / (Math.PI / 90)))
  return Array.from({ length: n }, (_, i) => {
    if (!i) return a
    const t = k.from + ((k.to - k.from) * i) / n
    return { x: k.x + k.r * Math.cos(t), y: k.y + k.r * Math.sin(t) }
  })
}

/** A closed line as a polygon, for asking what lies within. */
export const flat = (corners: Corner[]): Point[] =>
  corners.some((c) => c.mid) ? corners.flatMap((c, i) => along(c, c.mid, corners[(i + 1) % corners.length])) : corners

/** The box around an arc or a line: exact, through the arc's extremes. */
export function pieceBox(a: Point, m: Point | undefined, b: Point, grow = 0): Box {
  const k = m && arcOf(a, m, b)
  if (!k) return boxOf([a, b], grow)
  const [lo, hi] = [Math.min(k.from, k.to), Math.max(k.from, k.to)]
  const pts = [a, b]
  for (let q = Math.ceil(lo / (Math.PI / 2)); (q * Math.PI) / 2 <= hi; q++)
    pts.push({ x: k.x + k.r * Math.cos((q * Math.PI) / 2), y: k.y + k.r * Math.sin((q * Math.PI) / 2) })
  return boxOf(pts, grow)
}

/** The box around a closed line. */
export function ringBox(corners: Corner[], grow = 0): Box {
  const boxes = corners.map((c, i) => pieceBox(c, c.mid, corners[(i + 1) % corners.length], grow))
  return boxes.reduce((a, b) => ({ minX: Math.min(a.minX, b.minX), minY: Math.min(a.minY, b.minY), maxX: Math.max(a.maxX, b.maxX), maxY: Math.max(a.maxY, b.maxY) })) // prettier-ignore
}

/** How far a place is from an arc or a line. */
export function pieceDistance(p: Point, a: Point, m: Point | undefined, b: Point): number {
  const k = m && arcOf(a, m, b)
  if (!k) return segmentDistance(p, a, b)
  const ends = Math.min(Math.hypot(p.x - a.x, p.y - a.y), Math.hypot(p.x - b.x, p.y - b.y))
  const [lo, hi] = [Math.min(k.from, k.to), Math.max(k.from, k.to)]
  let t = Math.atan2(p.y - k.y, p.x - k.x)
  while (t < lo) t += 2 * Math.PI
  return t <= hi ? Math.min(ends, Math.abs(Math.hypot(p.x - k.x, p.y - k.y) - k.r)) : ends
}

/** How long an arc or a line is. */
export function pieceLength(a: Point, m: Point | undefined, b: Point): number {
  const k = m && arcOf(a, m, b)
  return k ? k.r * Math.abs(k.to - k.from) : Math.hypot(b.x - a.x, b.y - a.y)
}

/** The place of an arc or a line that is nearest to p, in whole nanometres. */
export function nearestOn(p: Point, a: Point, m: Point | undefined, b: Point): Point {
  const k = m && arcOf(a, m, b)
  if (k) {
    const [lo, hi] = [Math.min(k.from, k.to), Math.max(k.from, k.to)]
    let t = Math.atan2(p.y - k.y, p.x - k.x)
    while (t < lo) t += 2 * Math.PI
    if (t > hi) return Math.hypot(p.x - a.x, p.y - a.y) < Math.hypot(p.x - b.x, p.y - b.y) ? a : b
    return { x: Math.round(k.x + k.r * Math.cos(t)), y: Math.round(k.y + k.r * Math.sin(t)) }
  }
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy)))
  return { x: Math.round(a.x + t * dx), y: Math.round(a.y + t * dy) }
}

export const inRing = (p: Point, corners: Corner[]) => inPolygon(p, flat(corners))
