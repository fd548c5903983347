import { mdiVectorPolyline } from '@mdi/js'
import { reactive } from 'vue'
import { dist, same } from '../../../canvas/geometry'
import type { Pen } from '../../../canvas/scene'
import { type Field, oneOf } from '../../../hands/fields'
import type { Tool } from '../../../hands/tool'
import type { Point } from '../../../live/wire.gen'
import { traceFigure } from '../draw'
import type { FootprintEditor } from '../editor'

/** Draws silk, the assembly outline and the courtyard: lines, rectangles, circles and arcs. */
export class LineTool implements Tool {
  readonly id = 'line'
  readonly name = 'Line'
  readonly icon = mdiVectorPolyline
  readonly keys = 'L'
  private readonly state = reactive({
    on: 'silk' as 'silk' | 'body' | 'courtyard',
    form: 'line' as 'line' | 'rectangle' | 'circle' | 'arc',
    width: 120_000,
    pts: [] as Point[],
  })

  constructor(private readonly ed: FootprintEditor) {}

  drop() {
    this.state.pts = []
  }
  aim(p: Point, tolerance: number) {
    return this.ed.feature(p, tolerance)?.at ?? this.ed.onGrid(p)
  }
  private get form() {
    return this.state.on === 'courtyard' && this.state.form !== 'line' ? 'rectangle' : this.state.form
  }
  down() {
    const { state, ed } = this
    const at = ed.at
    const last = state.pts[state.pts.length - 1]
    if (last && same(last, at)) {
      if (this.form === 'line') this.finish()
      return
    }
    state.pts = [...state.pts, at]
    const full = { line: Infinity, rectangle: 2, circle: 2, arc: 3 }[this.form]
    if (state.pts.length >= full || (this.form === 'line' && state.pts.length > 3 && same(state.pts[0], at))) this.finish()
  }
  double() {
    this.finish()
  }
  key(name: string) {
    if (name === 'Enter' && this.state.pts.length > 1) {
      this.finish()
      return true
    }
    if (name !== 'Backspace' || !this.state.pts.length) return false
    this.state.pts = this.state.pts.slice(0, -1)
    return true
  }
  back() {
    if (!this.state.pts.length) return false
    this.state.pts = this.state.pts.slice(0, -1)
    return true
  }
  /** The places as a figure. */
  private figure(pts: Point[]) {
    const { form } = this
    const [a, b, c] = pts
    if (form === 'circle') return { form, pts: [a], r: Math.max(1, Math.round(dist(a, b))) }
    if (form === 'arc') return c ? { form, pts: [a, b, c] } : { form: 'line', pts }
    if (form === 'rectangle') return { form: 'area', pts: [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }] }
    return { form: 'line', pts }
  }
  private finish() {
    const { state, ed } = this
    const pts = state.pts
    state.pts = []
    if (pts.length < 2) return
    const figure = this.figure(pts)
    if (state.on === 'courtyard') {
      const yard = figure.pts.length > 3 && same(figure.pts[0], figure.pts[figure.pts.length - 1]) ? figure.pts.slice(0, -1) : figure.pts // prettier-ignore
      if (yard.length < 3) {
        ed.state.warning = 'A courtyard needs three corners at least.'
        state.pts = pts
      } else void this.put({ courtyard: yard }, pts)
    } else void this.put({ [state.on]: [{ ...figure, ...(state.on === 'silk' ? { width: state.width } : {}) }] }, pts)
  }
  /** What is refused is in the hand again. */
  private async put(pieces: Parameters<FootprintEditor['edit']>[0], pts: Point[]) {
    if (!(await this.ed.edit(pieces)) && !this.state.pts.length) this.state.pts = pts
  }
  strip(): Field[] {
    const { state } = this
    const forms = [{ value: 'line', title: 'Line' }, { value: 'rectangle', title: 'Rectangle' }, { value: 'circle', title: 'Circle' }, { value: 'arc', title: 'Arc' }] as const // prettier-ignore
    return [
      oneOf('Drawn on', state.on, [{ value: 'silk', title: 'Silk' }, { value: 'body', title: 'Outline' }, { value: 'courtyard', title: 'Courtyard' }], (v) => (state.on = v)), // prettier-ignore
      oneOf('Form', this.form, state.on === 'courtyard' ? forms.slice(0, 2) : forms, (v) => ((state.form = v), (state.pts = []))),
      ...(state.on === 'silk' ? [{ as: 'length', label: 'Width', value: state.width, keep: (v: number) => (state.width = v) } as Field] : []), // prettier-ignore
    ]
  }
  hint() {
    return { line: 'click corners · Enter or a double click ends the line', rectangle: 'click two corners', circle: 'click the middle, then the circle', arc: 'click beginning, a place on the arc, and its end' }[this.form] + ' · Backspace a step back · Esc ends' // prettier-ignore
  }
  paint(pen: Pen) {
    const { state, ed } = this
    const pts = [...state.pts, ed.at]
    if (pts.length < 2) return
    pen.ctx.beginPath()
    traceFigure(pen.ctx, this.figure(pts))
    pen.ctx.strokeStyle = ed.colours.select
    pen.ctx.lineWidth = Math.max(state.on === 'silk' ? state.width / 1e6 : 0, 1.3 * pen.px)
    pen.ctx.stroke()
  }
}
