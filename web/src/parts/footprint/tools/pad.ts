import { mdiRectangle } from '@mdi/js'
import { reactive, watch } from 'vue'
import { paintOutline } from '../../../board/pattern'
import type { Pen } from '../../../canvas/scene'
import { choice, type Field, oneOf } from '../../../hands/fields'
import type { Tool } from '../../../hands/tool'
import { Previewer } from '../../../live/previewer'
import type { Pad, Pattern, Point } from '../../../live/wire.gen'
import { copperColour } from '../../../shell/tokens'
import type { FootprintEditor } from '../editor'

export const forms = [
  { value: 'rounded', title: 'Rounded' },
  { value: 'rect', title: 'Rectangle' },
  { value: 'round', title: 'Round' },
  { value: 'oval', title: 'Oval' },
  { value: 'chamfered', title: 'Chamfered' },
]

/** Places pads; the next one takes the next number. */
export class PadTool implements Tool {
  readonly id = 'pad'
  readonly name = 'Pad'
  readonly icon = mdiRectangle
  readonly keys = 'P'
  readonly as = reactive({
    kind: 'surface' as 'surface' | 'plated' | 'bare',
    form: 'rounded',
    width: 1_000_000,
    height: 600_000,
    hole: 800_000,
    number: '',
  })
  /** What a pad as it is chosen looks like at the origin, from the program. */
  ghost: Pattern | null = null
  private readonly asks: Previewer

  constructor(private readonly ed: FootprintEditor) {
    this.asks = new Previewer(ed.project)
    watch(this.as, () => this.look())
  }

  take() {
    this.as.number = this.ed.nextNumber()
    this.look()
  }
  /** Takes over how a pad is made. */
  like(p: Pad) {
    Object.assign(this.as, {
      kind: p.hole ? (p.bare ? 'bare' : 'plated') : 'surface',
      form: p.form === 'free' ? 'rounded' : p.form,
      width: p.size.x,
      height: p.size.y,
      hole: p.hole || this.as.hole,
    })
  }
  /** The pad as chosen, at a place. */
  at(at: Point): Pad {
    const { kind, form, width, hole } = this.as
    const round = form === 'round' || kind === 'bare'
    const height = round ? width : this.as.height
    const least = Math.min(width, height)
    const size = kind === 'bare' ? { x: hole, y: hole } : { x: width, y: height }
    return {
      number: kind === 'bare' ? '' : this.as.number,
      form: kind === 'bare' ? 'round' : form,
      at,
      size,
      ...(form === 'rounded' && kind !== 'bare' ? { corner: Math.min(Math.round(least / 4), 250_000) } : {}),
      ...(form === 'chamfered' ? { corner: Math.round(least / 4) } : {}),
      ...(kind === 'surface' ? {} : { hole }),
      ...(kind === 'bare' ? { bare: true } : {}),
    }
  }
  private look() {
    this.asks.ask('pattern', { footprint: { id: 1, name: 'ghost', pads: [this.at({ x: 0, y: 0 })], silk: [], body: [], courtyard: [], designatorAt: { x: 0, y: 0 } } }, (p) => { this.ghost = p; this.ed.redraw() }) // prettier-ignore
  }
  /** Places a pad; tells whether it was kept. */
  async place(at: Point) {
    const done = await this.ed.edit({ pads: [this.at(at)] })
    if (done !== undefined) this.as.number = this.ed.nextNumber()
    return done !== undefined
  }
  aim(p: Point, tolerance: number) {
    return this.ed.feature(p, tolerance)?.at ?? this.ed.onGrid(p)
  }
  down() {
    void this.place(this.ed.at)
  }
  strip(): Field[] {
    const { as } = this
    const len = (label: string, k: 'width' | 'height' | 'hole'): Field => ({ as: 'length', label, value: as[k], keep: (v) => (as[k] = v) }) // prettier-ignore
    return [
      oneOf('Kind of pad', as.kind, [{ value: 'surface', title: 'Surface' }, { value: 'plated', title: 'Plated' }, { value: 'bare', title: 'Unplated' }], (v) => (as.kind = v)), // prettier-ignore
      ...(as.kind === 'bare'
        ? []
        : [
            choice('Form', as.form, forms, (v) => (as.form = v)),
            len('Width', 'width'),
            ...(as.form === 'round' ? [] : [len('Height', 'height')]),
          ]),
      ...(as.kind === 'surface' ? [] : [len('Hole', 'hole')]),
      ...(as.kind === 'bare' ? [] : [{ as: 'name', label: 'Number', value: as.number, names: [], type: (v: string) => (as.number = v) } as Field]), // prettier-ignore
    ]
  }
  hint() {
    return 'click places a pad, the next one takes the next number · it snaps to what is there · Esc ends'
  }
  paint(pen: Pen) {
    this.paintAt(pen, this.ed.at)
  }
  paintAt(pen: Pen, at: Point) {
    const shape = this.ghost?.pads[0]
    if (!shape) return
    const pose = { at, angle: 0, mirror: false }
    pen.ctx.globalAlpha = 0.75
    for (const o of Object.values(shape.on ?? {})) paintOutline(pen, o, pose, copperColour(0, 2))
    if (shape.barrel) paintOutline(pen, shape.barrel, pose, this.ed.colours.barrel)
    if (shape.bore) paintOutline(pen, shape.bore, pose, this.ed.colours.bore)
    pen.ctx.globalAlpha = 1
    if (this.as.kind !== 'bare')
      pen.text(this.as.number, at.x / 1e6, at.y / 1e6, 11 * pen.px, { colour: this.ed.colours.text, weight: 600 })
  }
}
