import { apply, boardPose } from '../canvas/geometry'
import type { Pen } from '../canvas/scene'
import { type Box, boxOf } from '../canvas/viewport'
import type { Placed, Point } from '../live/wire.gen'
import type { BoardEditor } from './editor'
import { courtyard } from './pattern'

/** A line that what is moved may keep to: where it lies, of what, and how far that reaches along it. */
export interface Line {
  at: number
  name: string
  from: number
  to: number
}
/** A line that is kept to, from one end to the other. */
export interface Guide {
  a: Point
  b: Point
  name: string
}

const reach = 40e6
const most = 400

/**
 * The lines that the edges, middles and pads of other parts and the board's edge make, gathered once when the hand takes something;
 * what is moved keeps to those within the hand's tolerance, x and y each to the nearest.
 */
export class Guides {
  private readonly xs: Line[] = []
  private readonly ys: Line[] = []
  /** Places of what is moved that keep to lines, as it lay. */
  private readonly own: { x: number[]; y: number[]; box: Box } | null

  constructor(
    private readonly ed: BoardEditor,
    moved: number[],
    around?: Box,
  ) {
    const parts = moved.map((id) => ed.project.get('placed', id)).filter((p) => !!p)
    const yards = parts.map((p) => this.yard(p)).filter((b) => !!b)
    if (!yards.length) {
      this.own = null
      return
    }
    const box = boxOf(yards.flatMap((b) => [{ x: b.minX, y: b.minY }, { x: b.maxX, y: b.maxY }])) // prettier-ignore
    const pads = parts.length === 1 ? this.pads(parts[0]).slice(0, 60) : []
    this.own = {
      x: [box.minX, (box.minX + box.maxX) / 2, box.maxX, ...pads.map((q) => q.at.x)],
      y: [box.minY, (box.minY + box.maxY) / 2, box.maxY, ...pads.map((q) => q.at.y)],
      box,
    }
    this.gather(new Set(moved), around ?? box)
    for (const list of [this.xs, this.ys]) list.sort((a, b) => a.at - b.at)
  }
  private yard(p: Placed): Box | null {
    const f = this.ed.project.pattern(p.footprint)
    return f ? boxOf(courtyard(f, boardPose(p))) : null
  }
  private pads(p: Placed) {
    const t = boardPose(p)
    return (this.ed.project.named('footprint', p.footprint)?.pads ?? []).map((q) => ({ at: apply(t, q.at), number: q.number }))
  }
  private gather(moved: Set<number>, near: Box) {
    const { ed, xs, ys } = this
    const within = { minX: near.minX - reach, minY: near.minY - reach, maxX: near.maxX + reach, maxY: near.maxY + reach }
    let n = 0
    for (const id of ed.scene.idsWithin(within)) {
      const p = moved.has(id) ? undefined : ed.project.get('placed', id)
      const b = p && this.yard(p)
      if (!p || !b || ++n > most) continue
      const name = p.designator
      xs.push({ at: b.minX, name: `left of ${name}`, from: b.minY, to: b.maxY }, { at: b.maxX, name: `right of ${name}`, from: b.minY, to: b.maxY }, { at: (b.minX + b.maxX) / 2, name: `middle of ${name}`, from: b.minY, to: b.maxY }) // prettier-ignore
      ys.push({ at: b.minY, name: `bottom of ${name}`, from: b.minX, to: b.maxX }, { at: b.maxY, name: `top of ${name}`, from: b.minX, to: b.maxX }, { at: (b.minY + b.maxY) / 2, name: `middle of ${name}`, from: b.minX, to: b.maxX }) // prettier-ignore
      for (const q of this.pads(p).slice(0, 60)) {
        xs.push({ at: q.at.x, name: `${name}.${q.number}`, from: q.at.y, to: q.at.y })
        ys.push({ at: q.at.y, name: `${name}.${q.number}`, from: q.at.x, to: q.at.x })
      }
    }
    const { outline } = ed.project.board
    if (outline?.length) {
      const b = boxOf(outline.flatMap((c) => (c.mid ? [c, c.mid] : [c])))
      outline.forEach((c, i) => {
        const d = outline[(i + 1) % outline.length]
        if (c.mid) return
        if (c.x === d.x) xs.push({ at: c.x, name: 'the board’s edge', from: Math.min(c.y, d.y), to: Math.max(c.y, d.y) })
        if (c.y === d.y) ys.push({ at: c.y, name: 'the board’s edge', from: Math.min(c.x, d.x), to: Math.max(c.x, d.x) })
      })
      xs.push({ at: (b.minX + b.maxX) / 2, name: 'the board’s middle', from: b.minY, to: b.maxY })
      ys.push({ at: (b.minY + b.maxY) / 2, name: 'the board’s middle', from: b.minX, to: b.maxX })
    }
  }

  /** The step that keeps to lines near it, and those lines; a step on the grid is given when there is none. */
  keep(free: Point, grid: Point, tolerance: number): { step: Point; lines: Guide[] } {
    const { own } = this
    if (!own) return { step: grid, lines: [] }
    const x = nearest(this.xs, own.x, free.x, tolerance)
    const y = nearest(this.ys, own.y, free.y, tolerance)
    const step = { x: x ? Math.round(x.step) : grid.x, y: y ? Math.round(y.step) : grid.y }
    const lines: Guide[] = []
    if (x) {
      const [lo, hi] = [Math.min(x.line.from, own.box.minY + step.y), Math.max(x.line.to, own.box.maxY + step.y)]
      lines.push({ a: { x: x.line.at, y: lo }, b: { x: x.line.at, y: hi }, name: x.line.name })
    }
    if (y) {
      const [lo, hi] = [Math.min(y.line.from, own.box.minX + step.x), Math.max(y.line.to, own.box.maxX + step.x)]
      lines.push({ a: { x: lo, y: y.line.at }, b: { x: hi, y: y.line.at }, name: y.line.name })
    }
    return { step, lines }
  }
}

/** The line nearest to one of the places after the step, within the tolerance; the lines are in the order of where they lie. */
export function nearest(lines: Line[], own: number[], step: number, tolerance: number) {
  let best: { step: number; line: Line } | null = null
  let least = tolerance
  for (const v of own) {
    let [lo, hi] = [0, lines.length] // the first line at the place or beyond it
    while (lo < hi) {
      const mid = (lo + hi) >> 1
      if (lines[mid].at < v + step) lo = mid + 1
      else hi = mid
    }
    for (const line of [lines[lo - 1], lines[lo]]) {
      const off = line ? Math.abs(v + step - line.at) : Infinity
      if (off >= least) continue
      least = off
      best = { step: line.at - v, line }
    }
  }
  return best
}

/** Draws the lines that are kept to, each with its name. */
export function paintGuides(pen: Pen, lines: Guide[], colour: string) {
  const { ctx, px } = pen
  for (const g of lines) {
    const upright = g.a.x === g.b.x
    ctx.beginPath()
    ctx.moveTo(g.a.x / 1e6 - (upright ? 0 : 8 * px), g.a.y / 1e6 - (upright ? 8 * px : 0))
    ctx.lineTo(g.b.x / 1e6 + (upright ? 0 : 8 * px), g.b.y / 1e6 + (upright ? 8 * px : 0))
    ctx.strokeStyle = colour
    ctx.lineWidth = px
    ctx.stroke()
    if (upright) pen.text(g.name, g.b.x / 1e6 + 5 * px, g.b.y / 1e6 + 14 * px, 12 * px, { colour, align: 'left', mono: false })
    else pen.text(g.name, g.b.x / 1e6 + 12 * px, g.b.y / 1e6, 12 * px, { colour, align: 'left', mono: false })
  }
}
