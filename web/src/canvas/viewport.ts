import type { Point } from '../live/wire.gen'

export interface Box {
  minX: number
  minY: number
  maxX: number
  maxY: number
}

export const boxOf = (pts: Point[], grow = 0): Box => ({
  minX: Math.min(...pts.map((p) => p.x)) - grow,
  minY: Math.min(...pts.map((p) => p.y)) - grow,
  maxX: Math.max(...pts.map((p) => p.x)) + grow,
  maxY: Math.max(...pts.map((p) => p.y)) + grow,
})
export const union = (a: Box | null, b: Box): Box =>
  a
    ? {
        minX: Math.min(a.minX, b.minX),
        minY: Math.min(a.minY, b.minY),
        maxX: Math.max(a.maxX, b.maxX),
        maxY: Math.max(a.maxY, b.maxY),
      }
    : b
export const meets = (a: Box, b: Box) => a.minX <= b.maxX && b.minX <= a.maxX && a.minY <= b.maxY && b.minY <= a.maxY
export const inside = (a: Box, b: Box) => a.minX >= b.minX && a.maxX <= b.maxX && a.minY >= b.minY && a.maxY <= b.maxY

/** Which part of the world the canvas shows: its middle, and pixels per nanometre; mirrored, it is seen from below, with x to the left. */
export class Viewport {
  width = 1
  height = 1
  mirror = false
  constructor(
    public cx = 0,
    public cy = 0,
    public scale = 4e-6,
  ) {}

  copy() {
    const v = new Viewport(this.cx, this.cy, this.scale)
    v.width = this.width
    v.height = this.height
    v.mirror = this.mirror
    return v
  }
  /** Which way x goes on the screen: 1 to the right, −1 to the left. */
  get way() {
    return this.mirror ? -1 : 1
  }
  toScreen(p: Point): Point {
    return { x: (p.x - this.cx) * this.way * this.scale + this.width / 2, y: this.height / 2 - (p.y - this.cy) * this.scale }
  }
  toWorld(x: number, y: number): Point {
    return {
      x: Math.round(((x - this.width / 2) * this.way) / this.scale + this.cx),
      y: Math.round((this.height / 2 - y) / this.scale + this.cy),
    }
  }
  /** Zooms by a factor and keeps what is under the place on the screen there. */
  zoom(factor: number, x: number, y: number) {
    const at = this.toWorld(x, y)
    this.scale = Math.min(4e-4, Math.max(4e-8, this.scale * factor))
    this.cx = at.x - ((x - this.width / 2) * this.way) / this.scale
    this.cy = at.y + (y - this.height / 2) / this.scale
  }
  pan(dx: number, dy: number) {
    this.cx -= (dx * this.way) / this.scale
    this.cy += dy / this.scale
  }
  /** Shows the whole box with a margin in pixels, leaving room for a panel on the left and one below. */
  frame(b: Box, margin = 60, left = 0, most = 2e-4, below = 0) {
    const w = Math.max(b.maxX - b.minX, 1e6)
    const h = Math.max(b.maxY - b.minY, 1e6)
    this.scale = Math.min(most, (this.width - left - 2 * margin) / w, (this.height - below - 2 * margin) / h)
    this.cx = (b.minX + b.maxX) / 2 - (left * this.way) / 2 / this.scale
    this.cy = (b.minY + b.maxY) / 2 - below / 2 / this.scale
  }
  get box(): Box {
    const w = this.width / 2 / this.scale
    const h = this.height / 2 / this.scale
    return { minX: this.cx - w, minY: this.cy - h, maxX: this.cx + w, maxY: this.cy + h }
  }
}
