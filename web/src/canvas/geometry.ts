import type { Corner, Placed, Point } from '../live/wire.gen'
import { letters } from '../live/wire.gen'

export const snap = (p: Point, grid: number): Point => ({
  x: Math.round(p.x / grid) * grid + 0,
  y: Math.round(p.y / grid) * grid + 0,
})
export const same = (a: Point, b: Point) => a.x === b.x && a.y === b.y
export const dist = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y)

/** Turns a point about the origin by millidegrees, quarter turns exactly, as core/geom does. */
export function turn(p: Point, angle: number): Point {
  const a = ((angle % 360000) + 360000) % 360000
  if (a === 0) return p
  if (a === 90000) return { x: -p.y + 0, y: p.x }
  if (a === 180000) return { x: -p.x + 0, y: -p.y + 0 }
  if (a === 270000) return { x: p.y, y: -p.x + 0 }
  const r = (a / 180000) * Math.PI
  const [s, c] = [Math.sin(r), Math.cos(r)]
  return { x: Math.round(p.x * c - p.y * s), y: Math.round(p.x * s + p.y * c) }
}

export interface Pose {
  at: Point
  angle: number
  mirror: boolean
}
export function apply(t: Pose, p: Point): Point {
  const q = turn(t.mirror ? { x: -p.x + 0, y: p.y } : p, t.angle)
  return { x: q.x + t.at.x, y: q.y + t.at.y }
}
export const partPose = (p: { at: Point; turn: number; mirror?: boolean }): Pose => ({
  at: p.at,
  angle: p.turn * 90000,
  mirror: !!p.mirror,
})
export const boardPose = (p: Pick<Placed, 'at' | 'angle' | 'bottom'>): Pose => ({
  at: p.at,
  angle: p.angle,
  mirror: !!p.bottom,
})

export function segmentDistance(p: Point, a: Point, b: Point): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const l2 = dx * dx + dy * dy
  const t = l2 === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / l2))
  return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy)
}
export const onSegment = (p: Point, a: Point, b: Point) => segmentDistance(p, a, b) < 1

export function inPolygon(p: Point, poly: Point[]): boolean {
  let inside = false
  for (let i = 0, j = poly.length - 1; i < poly.length; j = i++) {
    const [a, b] = [poly[i], poly[j]]
    if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside
  }
  return inside
}

export function tracePoints(ctx: CanvasRenderingContext2D, pts: Point[], closed: boolean) {
  pts.forEach((p, i) => (i ? ctx.lineTo(p.x / 1e6, p.y / 1e6) : ctx.moveTo(p.x / 1e6, p.y / 1e6)))
  if (closed) ctx.closePath()
}

/** Carries corners and the middles of their arcs over. */
export const applyCorners = (t: Pose, corners: Corner[]): Corner[] =>
  corners.map((c) => ({ ...apply(t, c), ...(c.mid ? { mid: apply(t, c.mid) } : {}) }))

/** Centre lines of a text, as core/lettering makes them: its middle at the origin, in nanometres. */
export function strokes(text: string, height: number): Point[][] {
  const unit = height / 6
  const lines: Point[][] = []
  let x = 0
  for (const ch of text) {
    if (ch === ' ' || ch === '\u00a0') {
      x += 3 + 2
      continue
    }
    let width = 0
    for (const run of (letters[ch] ?? '0006464000').split(' ')) {
      const line: Point[] = []
      for (let i = 0; i + 1 < run.length; i += 2) {
        const px = run.charCodeAt(i) - 48
        const c = run[i + 1]
        width = Math.max(width, px)
        line.push({ x: px + x, y: c >= 'a' ? -(c.charCodeAt(0) - 97) - 1 : c.charCodeAt(0) - 48 })
      }
      if (line.length > 1) lines.push(line)
    }
    x += width + 2
  }
  const half = (x - 2) / 2
  return lines.map((l) => l.map((p) => ({ x: Math.round((p.x - half) * unit), y: Math.round((p.y - 3) * unit) })))
}

/** Where a text on the board lies, never on its head, as core/layout lays it. */
export function textPose(at: Point, angle: number, bottom: boolean): Pose {
  let a = ((angle % 360000) + 360000) % 360000
  if (bottom ? a >= 90000 && a < 270000 : a > 90000 && a <= 270000) a = (a + 180000) % 360000
  return { at, angle: a, mirror: bottom }
}

/** Centre lines of a text on the board. */
export function textLines(text: string, height: number, at: Point, angle: number, bottom: boolean): Point[][] {
  const t = textPose(at, angle, bottom)
  return strokes(text, height).map((l) => l.map((p) => apply(t, p)))
}
