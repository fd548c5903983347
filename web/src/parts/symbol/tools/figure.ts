import { mdiVectorPolyline } from '@mdi/js'
import { reactive } from 'vue'
import { dist, same } from '../../../canvas/geometry'
import type { Pen } from '../../../canvas/scene'
import { type Field, oneOf } from '../../../hands/fields'
import type { Tool } from '../../../hands/tool'
import type { Point } from '../../../live/wire.gen'
import { traceFigure } from '../../footprint/draw'
import type { SymbolEditor } from '../editor'

/** How high the letters of a text are at first, in nanometres. */
const letterHeight = 2_100_000

/** Draws the body and what is on it: rectangles, lines, circles, arcs and filled shapes. */
export class FigureTool implements Tool {
  readonly id = 'figure'
  readonly name = 'Shape'
  readonly icon = mdiVectorPolyline
  readonly keys = 'L'
  private readonly state = reactive({
    form: 'body' as 'body' | 'line' | 'circle' | 'arc' | 'solid' | 'text',
    text: '',
    pts: [] as Point[],
  })

  constructor(private readonly ed: SymbolEditor) {}

  drop() {
    this.state.pts = []
  }
  down() {
    const { state, ed } = this
    const at = { ...ed.at }
    if (state.form === 'text') {
      if (!state.text.trim()) ed.state.warning = 'Type the text first; then click where it stands.'
      else void ed.edit({ figures: [{ form: 'text', text: state.text.trim(), r: letterHeight, pts: [at] }] })
      return
    }
    const last = state.pts[state.pts.length - 1]
    if (last && same(last, at)) {
      this.finish()
      return
    }
    state.pts = [...state.pts, at]
    const full = { body: 2, line: Infinity, circle: 2, arc: 3, solid: Infinity }[state.form]
    if (state.pts.length >= full) this.finish()
  }
  double() {
    this.finish()
  }
  key(name: string) {
    if (name === 'Enter' && this.state.pts.length > 1) this.finish()
    else if (name === 'Backspace' && this.state.pts.length) this.state.pts = this.state.pts.slice(0, -1)
    else return false
    return true
  }
  back() {
    if (!this.state.pts.length) return false
    this.state.pts = this.state.pts.slice(0, -1)
    return true
  }
  private figure(pts: Point[]) {
    const [a, b, c] = pts
    switch (this.state.form) {
      case 'body':
        return { form: 'area', pts: [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }] }
      case 'circle':
        return { form: 'circle', pts: [a], r: Math.max(1, Math.round(dist(a, b))) }
      case 'arc':
        return c ? { form: 'arc', pts: [a, b, c] } : { form: 'line', pts }
      case 'solid':
        return pts.length > 2 ? { form: 'solid', pts } : { form: 'line', pts }
    }
    return { form: 'line', pts }
  }
  private finish() {
    const pts = this.state.pts
    this.state.pts = []
    if (pts.length > 1) void this.ed.edit({ figures: [this.figure(pts)] })
  }
  strip(): Field[] {
    const { state } = this
    return [
      oneOf('Form', state.form, [{ value: 'body', title: 'Body' }, { value: 'line', title: 'Line' }, { value: 'circle', title: 'Circle' }, { value: 'arc', title: 'Arc' }, { value: 'solid', title: 'Filled' }, { value: 'text', title: 'Text' }], (v) => ((state.form = v), (state.pts = []), (this.ed.state.warning = ''))), // prettier-ignore
      ...(state.form === 'text' ? [{ as: 'name', label: 'Text', value: state.text, names: [], main: true, type: (v: string) => ((state.text = v), (this.ed.state.warning = '')) } as Field] : []), // prettier-ignore
    ]
  }
  hint() {
    return { body: 'click two corners of the body', line: 'click corners · Enter ends the line', circle: 'click the middle, then the circle', arc: 'click beginning, a place on the arc, and its end', solid: 'click corners · Enter ends the shape', text: 'type the text, then click where its middle stands' }[this.state.form] + ' · Backspace a step back · Esc ends' // prettier-ignore
  }
  paint(pen: Pen) {
    if (this.state.form === 'text') {
      pen.text(this.state.text, this.ed.at.x / 1e6, this.ed.at.y / 1e6, letterHeight / 1e6, { colour: this.ed.colours.select })
      return
    }
    const pts = [...this.state.pts, this.ed.at]
    if (pts.length < 2) return
    pen.ctx.beginPath()
    traceFigure(pen.ctx, this.figure(pts))
    pen.ctx.strokeStyle = this.ed.colours.select
    pen.ctx.lineWidth = 1.6 * pen.px
    pen.ctx.stroke()
  }
}
