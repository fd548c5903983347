import { mdiImageOutline } from '@mdi/js'
import { reactive } from 'vue'
import { dist } from '../../../canvas/geometry'
import type { Pen } from '../../../canvas/scene'
import { type Field, words } from '../../../hands/fields'
import type { Tool } from '../../../hands/tool'
import type { Beneath, Point } from '../../../live/wire.gen'
import { complain } from '../../../shell/notices'
import type { FootprintEditor } from '../editor'

/** The picture of the datasheet's drawing beneath the footprint: chosen, moved, and calibrated by two places of a known distance. */
export class BeneathTool implements Tool {
  readonly id = 'beneath'
  readonly name = 'Picture'
  readonly icon = mdiImageOutline
  readonly keys = 'I'
  readonly state = reactive({ first: null as Point | null, second: null as Point | null })
  /** Asks for the file of a picture. */
  askFile: () => void = () => undefined

  constructor(private readonly ed: FootprintEditor) {}

  drop() {
    this.state.first = this.state.second = null
  }
  back() {
    if (!this.state.first) return false
    if (this.state.second) this.state.second = null
    else this.state.first = null
    return true
  }
  aim(p: Point) {
    return p
  }
  down() {
    const { state, ed } = this
    if (!ed.f?.beneath) return
    if (!state.first || state.second) {
      state.first = { ...ed.at }
      state.second = null
    } else state.second = { ...ed.at }
  }
  private set(b: Partial<Beneath>) {
    const now = this.ed.f?.beneath
    if (now)
      this.ed.project.edit('setFootprint', { footprint: this.ed.state.footprint, beneath: { ...now, ...b } }).catch(complain)
  }
  /** Makes the distance of the two places what the drawing says; the first becomes the origin's place when asked for. */
  calibrate(real: number) {
    const { state, ed } = this
    const b = ed.f?.beneath
    if (!b || !state.first || !state.second) return
    const k = real / dist(state.first, state.second)
    const about = state.first
    this.set({ at: { x: Math.round(about.x + (b.at.x - about.x) * k), y: Math.round(about.y + (b.at.y - about.y) * k) }, width: Math.round(b.width * k) }) // prettier-ignore
    state.second = null
  }
  strip(): Field[] {
    const { state, ed } = this
    void ed.project.docTick.value
    const b = ed.f?.beneath
    if (!b) return [words('a picture of the datasheet’s drawing can lie beneath the footprint'), { as: 'press', text: 'Choose a picture', press: () => this.askFile() }] // prettier-ignore
    const both = state.first && state.second ? Math.round(dist(state.first, state.second)) : null
    return [
      ...(both !== null
        ? [words('these two places are apart'), { as: 'length', label: 'Distance', value: both, keep: (v: number) => this.calibrate(v) } as Field] // prettier-ignore
        : [
            words(
              state.first ? 'click the other place whose distance is known' : 'click one of two places whose distance is known',
            ),
          ]),
      ...(state.first ? [{ as: 'press', text: 'Put the first place on the origin', press: () => this.set({ at: { x: b.at.x - state.first!.x, y: b.at.y - state.first!.y } }) } as Field] : []), // prettier-ignore
      { as: 'share', label: 'Opacity', value: b.opacity, keep: (v) => this.set({ opacity: v }) },
      { as: 'tick', label: 'Shown', value: !b.hidden, keep: (v) => this.set({ hidden: !v }) },
      { as: 'press', text: 'Another picture', press: () => this.askFile() },
      { as: 'press', text: 'Take it away', press: () => void ed.project.edit('setFootprint', { footprint: ed.state.footprint, noBeneath: true }).catch(complain) }, // prettier-ignore
    ]
  }
  hint() {
    return 'click two places of the drawing and type how far they are apart · middle drag moves the paper · Esc ends'
  }
  paint({ ctx, px }: Pen) {
    const { state, ed } = this
    const pts = [state.first, state.second ?? (state.first && this.ed.at)].filter((p) => !!p)
    ctx.strokeStyle = ed.colours.finding
    ctx.lineWidth = 1.5 * px
    ctx.beginPath()
    for (const p of pts) {
      ctx.moveTo(p.x / 1e6 - 6 * px, p.y / 1e6)
      ctx.lineTo(p.x / 1e6 + 6 * px, p.y / 1e6)
      ctx.moveTo(p.x / 1e6, p.y / 1e6 - 6 * px)
      ctx.lineTo(p.x / 1e6, p.y / 1e6 + 6 * px)
    }
    if (pts.length === 2) {
      ctx.moveTo(pts[0].x / 1e6, pts[0].y / 1e6)
      ctx.lineTo(pts[1].x / 1e6, pts[1].y / 1e6)
    }
    ctx.stroke()
  }
}
