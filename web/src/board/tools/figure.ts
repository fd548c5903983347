import { mdiShapeOutline } from '@mdi/js'
import { reactive } from 'vue'
import { traceRing } from '../../canvas/arcs'
import { dist, same, tracePoints } from '../../canvas/geometry'
import { paintItem, type Pen } from '../../canvas/scene'
import { choice, type Field, words } from '../../hands/fields'
import { orBack } from '../../hands/kept'
import { between } from '../../hands/stage'
import type { Press, Tool } from '../../hands/tool'
import { format } from '../../live/units'
import type { BoardFigure, Commands, Corner, LogoSeen, Point } from '../../live/wire.gen'
import { figureItem } from '../drawn'
import type { BoardEditor } from '../editor'
import { Ink } from './ink'

type Form = 'line' | 'arc' | 'rectangle' | 'circle' | 'area' | 'logo'
const forms: { value: Form; title: string }[] = [
  { value: 'line', title: 'Line' },
  { value: 'arc', title: 'Arc' },
  { value: 'rectangle', title: 'Rectangle' },
  { value: 'circle', title: 'Circle' },
  { value: 'area', title: 'Polygon' },
  { value: 'logo', title: 'Logo' },
]

/** A drawing in the hand, to be put on the board. */
export interface Logo {
  name: string
  seen: LogoSeen
}

/** Draws figures on the board, and puts logos there. */
export class FigureTool implements Tool {
  readonly id = 'figure'
  readonly name = 'Figure'
  readonly icon = mdiShapeOutline
  readonly keys = 'I'
  readonly state = reactive({ form: 'line' as Form, width: 200_000, filled: false, radius: 0 })
  readonly ink: Ink
  logo: Logo | null = null
  /** Corners that were set. */
  private way: Point[] = []

  constructor(private readonly ed: BoardEditor) {
    this.ink = new Ink(ed)
  }

  private get closed() {
    return this.state.form !== 'line' && this.state.form !== 'arc'
  }
  private figure(line: Corner[]): Commands['addFigure'] {
    const { width, filled } = this.state
    const full = filled && this.closed
    return {
      lines: [line],
      ...(this.closed ? { closed: true } : {}),
      ...(full ? { filled: true } : { width }),
      ...this.ink.fields,
    }
  }
  private put(line: Corner[]) {
    const { way } = this
    this.way = []
    void orBack(this.ed.project.edit('addFigure', this.figure(line)), () => {
      if (this.ed.tool === this && !this.way.length) this.way = way
      this.ed.redraw()
    })
  }

  // ---- the hand

  down(p: Press) {
    const { ed, state } = this
    if (state.form === 'logo') {
      if (this.logo)
        void ed.run('addFigure', { name: this.logo.name, lines: this.placed(this.logo), closed: true, filled: true, ...this.ink.fields }) // prettier-ignore
      else ed.state.logo = true
      return
    }
    if (state.form === 'rectangle' || state.form === 'circle') {
      const from = { ...ed.at }
      let to: Point = from
      ed.grab = {
        move: () => void (to = { ...ed.at }),
        drop: () => {
          if (dist(from, to) > 5e4) this.put(this.framed(from, to))
        },
        paint: (pen) => this.ghost(pen, this.framed(from, to)),
      }
      return
    }
    const first = this.way[0]
    if (state.form === 'area' && this.way.length > 2 && dist(first, p.at) <= p.tolerance) this.close()
    else if (!first || !same(this.way[this.way.length - 1], ed.at)) this.way.push({ ...ed.at })
    if (state.form === 'arc' && this.way.length === 3) this.put(this.arc(this.way[0], this.way[1], this.way[2]))
  }
  /** From the first place through the third to the second. */
  private arc(a: Point, b: Point, m: Point): Corner[] {
    return [{ ...a, mid: m }, { ...b }]
  }
  private framed(a: Point, b: Point): Corner[] {
    if (this.state.form === 'circle') {
      const r = Math.round(dist(a, b))
      return [
        { x: a.x - r, y: a.y, mid: { x: a.x, y: a.y + r } },
        { x: a.x + r, y: a.y, mid: { x: a.x, y: a.y - r } },
      ]
    }
    const f = between(a, b)
    const r = Math.min(this.state.radius, (f.maxX - f.minX) / 2, (f.maxY - f.minY) / 2)
    return rounded(f.minX, f.minY, f.maxX, f.maxY, Math.floor(r))
  }
  private close() {
    const least = this.state.form === 'area' ? 3 : 2
    if (this.way.length >= least) this.put(this.way)
  }
  double() {
    if (this.state.form === 'line' || this.state.form === 'area') this.close()
  }
  key(name: string) {
    if (name !== 'Enter' || this.way.length < 2) return false
    this.close()
    return true
  }
  back() {
    if (this.way.length) this.way.pop()
    else if (this.logo) this.logo = null
    else return false
    return true
  }
  drop() {
    this.way = []
    this.logo = null
  }
  /** A drawing comes into the hand. */
  hold(logo: Logo) {
    this.logo = logo
    this.state.form = 'logo'
  }

  // ---- what is shown

  strip(): Field[] {
    const { state, ed } = this
    const shape: Field[] = [
      choice('Form', state.form, forms, (v) => {
        state.form = v
        this.way = []
        if (v === 'logo' && !this.logo) ed.state.logo = true
      }),
    ]
    if (state.form === 'logo') {
      if (this.logo) shape.push(words(`${this.logo.name}, ${format(this.logo.seen.size.x, ed.taste.unit, 2)} ${ed.taste.unit} wide`, { quiet: true })) // prettier-ignore
      shape.push({ as: 'press', text: 'From a file', press: () => void (ed.state.logo = true), title: 'Take a drawing (SVG)' })
    } else {
      if (this.closed) shape.push({ as: 'tick', label: 'filled', value: state.filled, keep: (v) => (state.filled = v) })
      if (!this.closed || !state.filled) shape.push({ as: 'length', label: 'Width', value: state.width, keep: (v) => (state.width = v) }) // prettier-ignore
      if (state.form === 'rectangle') shape.push({ as: 'length', label: 'Corners', value: state.radius, keep: (v) => (state.radius = v) }) // prettier-ignore
    }
    return [...shape, ...this.ink.strip(), ...this.ink.off()]
  }
  hint() {
    const { form } = this.state
    if (form === 'logo') return this.logo ? 'click puts the logo there · Esc lays it down' : 'click chooses a drawing'
    if (form === 'rectangle') return 'drag draws a rectangle · Esc ends'
    if (form === 'circle') return 'drag from the middle draws a circle · Esc ends'
    if (form === 'arc') return ['click where the arc begins', 'click where it ends', 'click where it goes through'][this.way.length] + ' · Esc ends' // prettier-ignore
    if (!this.way.length) return 'click sets places · Esc ends'
    return `click sets places · Enter ${form === 'area' ? 'or the first one closes' : 'ends the line'} · Esc takes one back`
  }
  paint(pen: Pen) {
    const { ed, state } = this
    if (state.form === 'logo') {
      if (this.logo) this.ghostLogo(pen, this.logo)
      return
    }
    if (!this.way.length || ed.grab) return
    if (state.form === 'arc' && this.way.length === 2 && !same(this.way[1], ed.at))
      this.ghost(pen, this.arc(this.way[0], this.way[1], ed.at)) // prettier-ignore
    else {
      const way = same(this.way[this.way.length - 1], ed.at) ? this.way : [...this.way, ed.at]
      if (state.form === 'area' && state.filled && way.length > 2) this.ghost(pen, way)
      pen.ctx.beginPath()
      tracePoints(pen.ctx, way, false)
      pen.ctx.strokeStyle = ed.look().colours.select
      pen.ctx.lineWidth = 1.6 * pen.px
      pen.ctx.stroke()
    }
  }
  private ghost(pen: Pen, line: Corner[]) {
    if (line.length < 2) return
    pen.ctx.globalAlpha = 0.6
    paintItem(figureItem({ id: 0, ...(this.figure(line) as Omit<BoardFigure, 'id'>) }, this.ed.look), pen)
    pen.ctx.globalAlpha = 1
  }
  /** Its lines as they would lie at the hand, mirrored on the lower side. */
  private placed(logo: Logo): Point[][] {
    const { at } = this.ed
    const mirror = this.ink.fields.bottom ? -1 : 1
    return logo.seen.rings.map((r) => r.map((p) => ({ x: at.x + mirror * p.x, y: at.y + p.y })))
  }
  private ghostLogo({ ctx }: Pen, logo: Logo) {
    ctx.globalAlpha = 0.6
    ctx.beginPath()
    for (const r of this.placed(logo)) traceRing(ctx, r)
    ctx.fillStyle = this.ed.look().colours.select
    ctx.fill('evenodd')
    ctx.globalAlpha = 1
  }
}

/** A rectangle with rounded corners. */
function rounded(x0: number, y0: number, x1: number, y1: number, r: number): Corner[] {
  if (r <= 0) return [{ x: x0, y: y0 }, { x: x1, y: y0 }, { x: x1, y: y1 }, { x: x0, y: y1 }] // prettier-ignore
  const k = Math.round(r * (1 - Math.SQRT1_2))
  const out: Corner[] = [
    { x: x0 + r, y: y0 },
    { x: x1 - r, y: y0, mid: { x: x1 - k, y: y0 + k } },
    { x: x1, y: y0 + r },
    { x: x1, y: y1 - r, mid: { x: x1 - k, y: y1 - k } },
    { x: x1 - r, y: y1 },
    { x: x0 + r, y: y1, mid: { x: x0 + k, y: y1 - k } },
    { x: x0, y: y1 - r },
    { x: x0, y: y0 + r, mid: { x: x0 + k, y: y0 + k } },
  ]
  return out.filter((c, i) => !same(c, out[(i + 1) % out.length]) || c.mid)
}
