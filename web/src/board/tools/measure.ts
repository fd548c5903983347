import { mdiRulerSquare } from '@mdi/js'
import { reactive } from 'vue'
import { traceTo } from '../../canvas/arcs'
import { dist, tracePoints } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import { type Field, oneOf } from '../../hands/fields'
import type { Press, Tool } from '../../hands/tool'
import { format } from '../../live/units'
import type { Gauged, Point } from '../../live/wire.gen'
import { complain } from '../../shell/notices'
import { offOf } from '../dimensions'
import { paintDimension } from '../drawn'
import type { BoardEditor } from '../editor'
import { type Met, met } from '../met'
import { ring } from '../overlay'

const kinds = [
  { value: 'between' as const, title: 'Between places' },
  { value: 'edges' as const, title: 'Edge to edge' },
  { value: 'along' as const, title: 'Along tracks' },
  { value: 'angle' as const, title: 'Angle' },
]
const ways = [
  { value: '', title: 'straight' },
  { value: 'x', title: 'across' },
  { value: 'y', title: 'upright' },
]

/** Measures on the board: between places, from edge to edge, along tracks, angles; a measure can stay on the drawing. */
export class MeasureTool implements Tool {
  readonly id = 'measure'
  readonly name = 'Measure'
  readonly icon = mdiRulerSquare
  readonly keys = 'D'
  readonly state = reactive({ what: 'between' as (typeof kinds)[number]['value'], way: '', keep: false })
  places: Met[] = []
  private said: Gauged | null = null

  constructor(private readonly ed: BoardEditor) {}

  drop() {
    this.start()
  }
  private start() {
    this.places = []
    this.said = null
  }
  private get most() {
    return this.state.what === 'angle' ? 3 : 2
  }
  /** Both places are there and the dimension's line is being laid. */
  private get laying() {
    return this.state.what === 'between' && this.state.keep && this.places.length === 2
  }
  aim(p: Point, tolerance: number) {
    if (this.laying) return p
    return met(this.ed, p, tolerance).at
  }
  down(p: Press) {
    if (this.laying) {
      void this.put()
      return
    }
    if (this.places.length >= this.most) this.start()
    this.places.push(met(this.ed, p.at, p.tolerance))
    if (this.places.length === 2 && this.state.what !== 'angle') void this.ask()
  }
  private async ask() {
    const [a, b] = this.places
    const met = (m: Met) => ({ at: m.at, ...(m.of ? { of: m.of } : {}), ...(m.pad ? { pad: m.pad } : {}) })
    this.said = await this.ed.project.question('measure', { a: met(a), b: met(b) }).catch(complain) ?? null // prettier-ignore
    this.ed.redraw()
  }
  /** The dimension stays on the drawing. */
  private async put() {
    const [a, b] = this.places
    const off = offOf(a.at, b.at, this.state.way, this.ed.at)
    this.start()
    await this.ed.run('addDimension', { from: a.anchor, to: b.anchor, way: this.state.way, off })
  }
  back() {
    if (!this.places.length) return false
    this.start()
    return true
  }
  strip(): Field[] {
    const { state } = this
    return [
      oneOf('What is measured', state.what, kinds, (v) => ((state.what = v), this.start(), this.ed.redraw())),
      ...(state.what === 'between'
        ? [
            oneOf('Way', state.way, ways, (v) => ((state.way = v), this.ed.redraw())),
            { as: 'tick' as const, label: 'stays on the drawing', value: state.keep, keep: (v: boolean) => (state.keep = v) },
          ]
        : []),
    ]
  }
  hint() {
    switch (this.state.what) {
      case 'edges':
        return 'click two things · Esc ends'
      case 'along':
        return 'click two places of one net · Esc ends'
      case 'angle':
        return (
          ['click a place on one arm', 'click the corner', 'click a place on the other arm'][this.places.length % 3] +
          ' · Esc ends'
        )
    }
    if (this.laying) return 'click lays the dimension’s line there · Esc gives it up'
    return 'click two places; pads, holes and corners are met at their middle · Esc ends'
  }

  // ---- what is shown

  paint(pen: Pen) {
    if (!this.places.length) return
    const { ed, state } = this
    const c = ed.look().colours
    const pts = this.places.map((m) => m.at)
    const [a, b] = [pts[0], pts[1] ?? ed.at]
    for (const p of this.places.length < this.most ? [...pts, ed.at] : pts) ring(pen, p, c.select)
    if (state.what === 'angle') this.paintAngle(pen, pts.length < 3 ? [...pts, ed.at] : pts)
    else if (state.what === 'edges' || state.what === 'along') this.paintSaid(pen, a, b)
    else if (state.keep || state.way) {
      const { way } = state
      const off = this.laying ? offOf(a, b, way, ed.at) : 0
      paintDimension(pen, { id: 0, ...drawnOf(a, b, way, off) }, c.select, ed.taste.unit)
    } else this.paintBetween(pen, a, b)
  }
  private say(nm: number) {
    const { unit } = this.ed.taste
    return format(nm, unit, unit === 'mm' ? 3 : 4)
  }
  private line(pen: Pen, pts: Point[]) {
    pen.ctx.strokeStyle = this.ed.look().colours.select
    pen.ctx.lineWidth = 1.5 * pen.px
    pen.ctx.beginPath()
    tracePoints(pen.ctx, pts, false)
    pen.ctx.stroke()
  }
  private paintBetween(pen: Pen, a: Point, b: Point) {
    this.line(pen, [a, b])
    const text = `${this.say(dist(a, b))} ${this.ed.taste.unit}   Δx ${this.say(b.x - a.x)}   Δy ${this.say(b.y - a.y)}`
    this.words(pen, a, b, text)
  }
  private paintAngle(pen: Pen, [a, b, d]: Point[]) {
    this.line(pen, d ? [a, b, d] : [a, b])
    if (!d || !dist(a, b) || !dist(d, b)) return
    const between = Math.abs(Math.atan2((a.x - b.x) * (d.y - b.y) - (a.y - b.y) * (d.x - b.x), (a.x - b.x) * (d.x - b.x) + (a.y - b.y) * (d.y - b.y))) // prettier-ignore
    this.words(pen, b, b, `${+((between * 180) / Math.PI).toFixed(3)}°`)
  }
  private paintSaid(pen: Pen, a: Point, b: Point) {
    const { said, state } = this
    const { unit } = this.ed.taste
    if (!said) {
      this.line(pen, [a, b])
      return
    }
    if (state.what === 'edges') {
      if (!said.edges) this.words(pen, a, b, 'Click things: a place alone has no edge.')
      else {
        this.line(pen, [said.edges.a, said.edges.b])
        const text = said.edges.gap ? `${this.say(said.edges.gap)} ${unit} from edge to edge` : 'they touch'
        this.words(pen, said.edges.a, said.edges.b, text)
      }
      return
    }
    if (!said.along) {
      this.line(pen, [a, b])
      this.words(pen, a, b, said.apart ? 'No copper joins the two places.' : 'Click two places of one net.')
      return
    }
    const { line, length, vias } = said.along
    const { ctx } = pen
    ctx.beginPath()
    line.forEach((p, i) => (i ? traceTo(ctx, line[i - 1], line[i - 1].mid, p) : ctx.moveTo(p.x / 1e6, p.y / 1e6)))
    ctx.strokeStyle = this.ed.look().colours.select
    ctx.lineWidth = 3 * pen.px
    ctx.stroke()
    const hops = vias ? `, ${vias} ${vias === 1 ? 'via' : 'vias'}` : ''
    const middle = line[Math.floor(line.length / 2)] ?? a
    this.words(pen, middle, middle, `${this.say(length)} ${unit} along tracks${hops}`)
  }
  private words(pen: Pen, a: Point, b: Point, text: string) {
    const { ctx } = pen
    const c = this.ed.look().colours
    const [x, y] = [(a.x + b.x) / 2e6, (a.y + b.y) / 2e6 + 18 * pen.px]
    ctx.fillStyle = c.paper
    ctx.globalAlpha = 0.85
    ctx.fillRect(x - text.length * 4 * pen.px, y - 10 * pen.px, text.length * 8 * pen.px, 20 * pen.px)
    ctx.globalAlpha = 1
    pen.text(text, x, y, 13 * pen.px, { colour: c.text })
  }
}

/** A dimension that is being laid, as the core will draw it. */
function drawnOf(from: Point, to: Point, way: string, off: number) {
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  const l = Math.hypot(dx, dy) || 1
  const [ox, oy] = way === 'x' ? [0, off] : way === 'y' ? [off, 0] : [(-dy / l) * off, (dx / l) * off]
  const a = { x: from.x + ox, y: from.y + oy }
  const b = way === 'x' ? { x: to.x, y: a.y } : way === 'y' ? { x: a.x, y: to.y } : { x: to.x + ox, y: to.y + oy }
  return { from, to, a, b, length: dist(a, b) }
}
