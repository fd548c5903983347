import { mdiRulerSquare } from '@mdi/js'
import { tracePoints } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import type { Tool } from '../../hands/tool'
import { format } from '../../live/units'
import type { Point } from '../../live/wire.gen'
import type { BoardEditor } from '../editor'
import { ring } from '../overlay'

/** Measures between two places; copper is met at its middle. */
export class MeasureTool implements Tool {
  readonly id = 'measure'
  readonly name = 'Measure'
  readonly icon = mdiRulerSquare
  readonly keys = 'D'
  places: Point[] = []

  constructor(private readonly ed: BoardEditor) {}

  drop() {
    this.places = []
  }
  aim(p: Point, tolerance: number) {
    return this.ed.touched(p, tolerance)?.at ?? this.ed.onGrid(p)
  }
  down() {
    if (this.places.length >= 2) this.places = []
    this.places.push(this.ed.at)
  }
  back() {
    if (!this.places.length) return false
    this.places = []
    return true
  }
  hint() {
    return 'click two places; pads and vias are met at their middle · Esc ends'
  }
  paint(pen: Pen) {
    if (!this.places.length) return
    const { ed } = this
    const { ctx } = pen
    const c = ed.look().colours
    const [a, b] = [this.places[0], this.places[1] ?? ed.at]
    ctx.strokeStyle = c.select
    ctx.lineWidth = 1.5 * pen.px
    ctx.beginPath()
    tracePoints(ctx, [a, b], false)
    ctx.stroke()
    ring(pen, a, c.select)
    ring(pen, b, c.select)
    const unit = ed.taste.unit
    const say = (nm: number) => format(nm, unit, unit === 'mm' ? 3 : 4)
    const text = `${say(Math.hypot(b.x - a.x, b.y - a.y))} ${unit}   Δx ${say(b.x - a.x)}   Δy ${say(b.y - a.y)}`
    const [x, y] = [(a.x + b.x) / 2e6, (a.y + b.y) / 2e6 + 18 * pen.px]
    ctx.fillStyle = c.paper
    ctx.globalAlpha = 0.85
    ctx.fillRect(x - text.length * 4 * pen.px, y - 10 * pen.px, text.length * 8 * pen.px, 20 * pen.px)
    ctx.globalAlpha = 1
    pen.text(text, x, y, 13 * pen.px, { colour: c.text })
  }
}
