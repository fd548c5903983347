import { mdiDotsGrid } from '@mdi/js'
import { reactive, watch } from 'vue'
import { paintOutline } from '../../../board/pattern'
import type { Pen } from '../../../canvas/scene'
import { choice, type Field, oneOf, words } from '../../../hands/fields'
import type { Press, Tool } from '../../../hands/tool'
import type { Repeat, Repeated } from '../../../live/wire.gen'
import { copperColour } from '../../../shell/tokens'
import { complain } from '../../../shell/notices'
import type { FootprintEditor } from '../editor'

const orders = [
  { value: 'along', title: 'Row by row' },
  { value: 'backForth', title: 'Back and forth' },
  { value: 'around', title: 'Counter-clockwise' },
  { value: 'letters', title: 'Letters and numbers' },
  { value: 'same', title: 'All the same' },
]

/** Repeats a pad along a row, in a grid or around a circle, numbered in the usual orders; shown before it is kept. */
export class RepeatTool implements Tool {
  readonly id = 'repeat'
  readonly name = 'Repeat'
  readonly icon = mdiDotsGrid
  readonly keys = 'R'
  readonly how = reactive({
    kind: 'row',
    count: 4,
    rows: 2,
    dx: 0,
    dy: -1_270_000,
    cx: 0,
    cy: 0,
    sweep: 0,
    turned: true,
    first: '1',
    by: 1,
    order: 'along',
  })
  preview: Repeated | null = null
  private turnOf = 0

  constructor(private readonly ed: FootprintEditor) {
    watch(this.how, () => this.look())
  }
  private get pad() {
    return this.ed.pickedPads()[0]
  }
  take() {
    const p = this.pad
    if (p) this.how.first = p.number || '1'
    this.look()
  }
  drop() {
    this.preview = null
  }
  private asked(): Repeat {
    const h = this.how
    const order = h.kind === 'grid' ? h.order : h.order === 'same' ? 'same' : 'along'
    return { kind: h.kind, count: h.count, rows: h.rows, step: { x: h.dx, y: h.dy }, centre: { x: h.cx, y: h.cy }, sweep: h.sweep, turned: h.turned && h.kind === 'circle', first: h.first, by: h.by, order } // prettier-ignore
  }
  look() {
    const p = this.pad
    const n = ++this.turnOf
    if (!p || this.ed.state.tool !== 'repeat') return
    this.ed.project.question('repeat', { pad: p, how: this.asked() }).then(
      (r) => {
        if (n !== this.turnOf) return
        this.preview = r
        this.ed.state.warning = ''
        this.ed.redraw()
      },
      (e: Error) => {
        if (n !== this.turnOf) return
        this.preview = null
        this.ed.state.warning = e.message
        this.ed.redraw()
      },
    )
  }
  /** Keeps what is shown. */
  async place() {
    const { ed } = this
    if (!this.preview) return
    const pads = this.preview.pads
    this.preview = null
    const done = await ed.edit({ pads }).catch(complain)
    if (done !== undefined) ed.take('select')
  }
  down(p: Press) {
    const id = this.ed.under(p.at, p.tolerance).find((i) => this.ed.padOf(i))
    if (!id) return
    this.ed.selection.clear()
    this.ed.selection.add(id)
    this.how.first = this.pad!.number || '1'
    this.look()
  }
  key(name: string) {
    if (name !== 'Enter' || !this.preview) return false
    void this.place()
    return true
  }
  strip(): Field[] {
    const h = this.how
    if (!this.pad) return [words('click the pad that is to be repeated')]
    const len = (label: string, k: 'dx' | 'dy' | 'cx' | 'cy'): Field => ({ as: 'length', label, value: h[k], keep: (v) => (h[k] = v) }) // prettier-ignore
    const whole = (label: string, k: 'count' | 'rows' | 'by', least: number): Field => ({ as: 'whole', label, value: h[k], least, most: 5000, keep: (v) => (h[k] = v) }) // prettier-ignore
    return [
      oneOf('Repeat in a', h.kind, [{ value: 'row', title: 'Row' }, { value: 'grid', title: 'Grid' }, { value: 'circle', title: 'Circle' }], (v) => (h.kind = v)), // prettier-ignore
      whole(h.kind === 'grid' ? 'Columns' : 'Count', 'count', 1),
      ...(h.kind === 'grid' ? [whole('Rows', 'rows', 1)] : []),
      ...(h.kind === 'circle' ? [len('Centre x', 'cx'), len('y', 'cy'), { as: 'angle', label: 'Over', value: h.sweep, keep: (v: number) => (h.sweep = v) } as Field, { as: 'tick', label: 'Turned', value: h.turned, keep: (v: boolean) => (h.turned = v) } as Field] : [len('Step x', 'dx'), len('y', 'dy')]), // prettier-ignore
      { as: 'name', label: 'First number', value: h.first, names: [], type: (v) => (h.first = v) },
      ...(h.kind === 'grid' ? [choice('Numbers run', h.order, orders, (v) => (h.order = v))] : [whole('Go on by', 'by', -100)]),
      { as: 'press', text: 'Place', press: () => void this.place() },
    ]
  }
  hint() {
    return 'the pads are shown where they would lie · Enter places them · Esc ends'
  }
  paint(pen: Pen) {
    const still = { at: { x: 0, y: 0 }, angle: 0, mirror: false }
    const r = this.preview
    if (!r) return
    pen.ctx.globalAlpha = 0.7
    for (const s of r.pattern.pads) {
      for (const o of Object.values(s.on ?? {})) paintOutline(pen, o, still, copperColour(0, 2))
      if (s.barrel) paintOutline(pen, s.barrel, still, this.ed.colours.barrel)
      if (s.bore) paintOutline(pen, s.bore, still, this.ed.colours.bore)
    }
    pen.ctx.globalAlpha = 1
    for (const p of r.pads) pen.text(p.number, p.at.x / 1e6, p.at.y / 1e6, 11 * pen.px, { colour: p.hole ? this.ed.colours.text : '#17131E', weight: 600 }) // prettier-ignore
  }
}
