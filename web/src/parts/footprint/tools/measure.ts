import { mdiRulerSquare } from '@mdi/js'
import { reactive } from 'vue'
import type { Pen } from '../../../canvas/scene'
import { type Field, oneOf, words } from '../../../hands/fields'
import type { Press, Tool } from '../../../hands/tool'
import { format } from '../../../live/units'
import type { Point } from '../../../live/wire.gen'
import { paintDimension } from '../draw'
import type { FootprintEditor } from '../editor'
import type { Found } from '../features'

/** Measures between two features; the dimension line stays, and can be given what the datasheet says. */
export class MeasureTool implements Tool {
  readonly id = 'measure'
  readonly name = 'Measure'
  readonly icon = mdiRulerSquare
  readonly keys = 'D'
  readonly state = reactive({ from: null as Found | null, way: 'auto' as 'auto' | 'x' | 'y' | '' })
  private near: Found | null = null

  constructor(private readonly ed: FootprintEditor) {}

  drop() {
    this.state.from = null
  }
  back() {
    if (!this.state.from) return false
    this.state.from = null
    return true
  }
  aim(p: Point, tolerance: number) {
    return this.ed.feature(p, tolerance)?.at ?? p
  }
  move(p: Press) {
    this.near = this.ed.feature(p.at, p.tolerance)
  }
  private wayTo(a: Point, b: Point): string {
    if (this.state.way !== 'auto') return this.state.way
    const [dx, dy] = [Math.abs(a.x - b.x), Math.abs(a.y - b.y)]
    return dx >= dy ? 'x' : 'y'
  }
  down(p: Press) {
    const { ed, state } = this
    const found = ed.feature(p.at, p.tolerance)
    if (!found) {
      ed.state.warning = 'A dimension is kept between two features: the origin, middles and edges of pads, outline and courtyard.'
      return
    }
    ed.state.warning = ''
    if (!state.from) {
      state.from = found
      return
    }
    const from = state.from
    state.from = null
    void ed.edit({ dimensions: [{ id: 0, a: from.feature, b: found.feature, way: this.wayTo(from.at, found.at) }] })
  }
  strip(): Field[] {
    const { state } = this
    return [
      words(state.from ? `from the ${state.from.name}` : 'click what to measure from'),
      oneOf('Measured', state.way, [{ value: 'auto', title: 'As it lies' }, { value: 'x', title: 'Across' }, { value: 'y', title: 'Up and down' }, { value: '', title: 'Straight' }], (v) => (state.way = v)), // prettier-ignore
    ]
  }
  hint() {
    return 'click two features · the dimension stays while you edit; pick it to say what the datasheet says · Esc ends'
  }
  paint(pen: Pen) {
    const { ed, state } = this
    const { ctx, px } = pen
    if (this.near) {
      ctx.beginPath()
      ctx.arc(this.near.at.x / 1e6, this.near.at.y / 1e6, 6 * px, 0, 2 * Math.PI)
      ctx.strokeStyle = ed.colours.select
      ctx.lineWidth = 1.6 * px
      ctx.stroke()
      pen.text(this.near.name, this.near.at.x / 1e6, this.near.at.y / 1e6 + 14 * px, 12 * px, { colour: ed.colours.text, mono: false }) // prettier-ignore
    }
    if (!state.from) return
    const b = this.near?.at ?? ed.at
    const way = this.wayTo(state.from.at, b)
    const has = way === 'x' ? Math.abs(b.x - state.from.at.x) : way === 'y' ? Math.abs(b.y - state.from.at.y) : Math.hypot(b.x - state.from.at.x, b.y - state.from.at.y) // prettier-ignore
    paintDimension(pen, { id: 0, a: state.from.at, b, has, agrees: false }, way, ed.colours.select, `${format(has, ed.taste.unit, 4)} ${ed.taste.unit}`) // prettier-ignore
  }
}
