import { mdiMapMarkerDistance } from '@mdi/js'
import { reactive } from 'vue'
import type { Pen } from '../../../canvas/scene'
import { type Field, oneOf, words } from '../../../hands/fields'
import type { Press, Tool } from '../../../hands/tool'
import { format } from '../../../live/units'
import type { Point } from '../../../live/wire.gen'
import { idOf } from '../../pieces'
import type { FootprintEditor } from '../editor'
import type { Found } from '../features'

/**
 * Places by typed numbers: a reference is picked, then dx and dy or distance and angle are typed; the ghost stands where they
 * lead to. The next one goes on from there, or from the same reference.
 */
export class FromHereTool implements Tool {
  readonly id = 'fromHere'
  readonly name = 'From here'
  readonly icon = mdiMapMarkerDistance
  readonly keys = 'X'
  readonly state = reactive({
    reference: null as Found | null,
    dx: 0,
    dy: 0,
    next: 'there' as 'there' | 'same',
    what: 'pad' as 'pad' | 'picked',
  })
  private near: Found | null = null

  constructor(private readonly ed: FootprintEditor) {}

  take() {
    this.ed.pad.take()
    const [first] = this.ed.pickedPads()
    if (first) this.ed.pad.like(first)
    this.state.what = 'pad'
    const origin = this.ed.features()[0]
    const picked = first && this.ed.features().find((f) => f.feature.pad === first.id && f.feature.spot === 'centre')
    this.state.reference = picked ?? origin ?? null
  }
  get target(): Point | null {
    const r = this.state.reference
    return r && { x: r.at.x + this.state.dx, y: r.at.y + this.state.dy }
  }
  move(p: Press) {
    this.near = this.ed.feature(p.at, p.tolerance)
  }
  down(p: Press) {
    const found = this.ed.feature(p.at, p.tolerance)
    this.state.reference = found ?? { feature: { of: 'origin' }, at: this.ed.at, name: 'a place' }
    this.ed.redraw()
  }
  key(name: string) {
    if (name !== 'Enter') return false
    void this.place()
    return true
  }
  /** Puts it where the numbers lead to. */
  async place() {
    const { ed, state } = this
    const at = this.target
    if (!at) return
    if (state.what === 'picked') {
      const r = state.reference!
      ed.shift({ x: at.x - r.at.x, y: at.y - r.at.y })
      return
    }
    if (!(await ed.pad.place(at))) return
    if (state.next !== 'there') return
    const placed = ed.pads.find((p) => p.at.x === at.x && p.at.y === at.y)
    state.reference = { feature: { of: 'pad', pad: placed?.id, spot: 'centre' }, at, name: placed?.number ? `middle of pad ${placed.number}` : 'there' } // prettier-ignore
    if (placed) {
      ed.selection.clear()
      ed.selection.add(idOf('pad', placed.id))
    }
  }
  strip(): Field[] {
    const { state, ed } = this
    const polar = { d: Math.hypot(state.dx, state.dy), a: (Math.atan2(state.dy, state.dx) * 180) / Math.PI }
    const set = (d: number, a: number) => {
      state.dx = Math.round(d * Math.cos((a * Math.PI) / 180))
      state.dy = Math.round(d * Math.sin((a * Math.PI) / 180))
      ed.redraw()
    }
    const several = ed.movable().length > 0
    return [
      words(state.reference ? `from the ${state.reference.name}` : 'click what it is measured from', { said: 'Reference' }),
      { as: 'length', label: 'dx', value: state.dx, keep: (v) => ((state.dx = v), ed.redraw()), enter: () => void this.place() },
      { as: 'length', label: 'dy', value: state.dy, keep: (v) => ((state.dy = v), ed.redraw()), enter: () => void this.place() },
      {
        as: 'length',
        label: 'Distance',
        value: Math.round(polar.d),
        keep: (v) => set(v, polar.a),
        enter: () => void this.place(),
      },
      { as: 'angle', label: 'Angle', value: Math.round(polar.a * 1000), keep: (v) => set(polar.d, v / 1000) },
      ...(several ? [oneOf('What is placed', state.what, [{ value: 'pad', title: 'New pad' }, { value: 'picked', title: 'Move picked' }], (v) => (state.what = v))] : []), // prettier-ignore
      oneOf('The next one', state.next, [{ value: 'there', title: 'Next from there' }, { value: 'same', title: 'Next from the same' }], (v) => (state.next = v)), // prettier-ignore
      { as: 'press', text: state.what === 'picked' && several ? 'Move' : 'Place', press: () => void this.place() },
    ]
  }
  hint() {
    return 'click a reference: origin, middle or edge of a pad · type the numbers, with arithmetic, Tab goes on · Enter places · Esc ends'
  }
  paint(pen: Pen) {
    const { ctx, px } = pen
    const { ed, state } = this
    const mark = (p: Point, r: number, colour: string) => {
      ctx.beginPath()
      ctx.arc(p.x / 1e6, p.y / 1e6, r * px, 0, 2 * Math.PI)
      ctx.strokeStyle = colour
      ctx.lineWidth = 1.6 * px
      ctx.stroke()
    }
    if (this.near) {
      mark(this.near.at, 6, ed.colours.text)
      pen.text(this.near.name, this.near.at.x / 1e6, this.near.at.y / 1e6 + 14 * px, 12 * px, { colour: ed.colours.text, mono: false }) // prettier-ignore
    }
    const r = state.reference
    const to = this.target
    if (!r || !to) return
    mark(r.at, 5, ed.colours.select)
    ctx.beginPath()
    ctx.moveTo(r.at.x / 1e6, r.at.y / 1e6)
    ctx.lineTo(to.x / 1e6, r.at.y / 1e6)
    ctx.lineTo(to.x / 1e6, to.y / 1e6)
    ctx.strokeStyle = ed.colours.select
    ctx.lineWidth = px
    ctx.setLineDash([4 * px, 3 * px])
    ctx.stroke()
    ctx.setLineDash([])
    const say = (nm: number) => format(nm, ed.taste.unit, 4)
    if (state.dx) pen.text(say(state.dx), (r.at.x + to.x) / 2e6, r.at.y / 1e6 - 9 * px, 12 * px, { colour: ed.colours.select })
    if (state.dy) pen.text(say(state.dy), to.x / 1e6 + 9 * px, (r.at.y + to.y) / 2e6, 12 * px, { colour: ed.colours.select, angle: 90 }) // prettier-ignore
    if (state.what === 'pad') ed.pad.paintAt(pen, to)
    else mark(to, 5, ed.colours.text)
  }
}
