import { mdiCrosshairsGps } from '@mdi/js'
import type { Pen } from '../../../canvas/scene'
import { type Field, words } from '../../../hands/fields'
import type { Press, Tool } from '../../../hands/tool'
import type { Point } from '../../../live/wire.gen'
import { complain } from '../../../shell/notices'
import type { Stage } from '../../../hands/stage'
import type { Found } from '../features'

/** Makes a place of what is edited its origin. */
export class OriginTool implements Tool {
  readonly id = 'origin'
  readonly name = 'Origin'
  readonly icon = mdiCrosshairsGps
  readonly keys = 'O'
  private near: Found | null = null

  constructor(
    private readonly ed: Stage & { feature(p: Point, tolerance: number): Found | null; edited: number; colours: { select: string; text: string } }, // prettier-ignore
  ) {}

  aim(p: Point, tolerance: number) {
    return this.ed.feature(p, tolerance)?.at ?? { x: Math.round(p.x / this.ed.grid) * this.ed.grid, y: Math.round(p.y / this.ed.grid) * this.ed.grid } // prettier-ignore
  }
  move(p: Press) {
    this.near = this.ed.feature(p.at, p.tolerance)
  }
  down() {
    const at = this.ed.at
    if (at.x || at.y) this.ed.project.edit('setOrigin', { id: this.ed.edited, at }).catch(complain)
    this.ed.take('select')
  }
  strip(): Field[] {
    return [words(this.near ? `the ${this.near.name} becomes the origin` : 'click the place that becomes the origin')]
  }
  hint() {
    return 'click the place that becomes the origin; nothing else changes · Esc ends'
  }
  paint(pen: Pen) {
    const { ctx, px } = pen
    const { at } = this.ed
    ctx.beginPath()
    ctx.arc(at.x / 1e6, at.y / 1e6, 5 * px, 0, 2 * Math.PI)
    ctx.moveTo(at.x / 1e6 - 11 * px, at.y / 1e6)
    ctx.lineTo(at.x / 1e6 + 11 * px, at.y / 1e6)
    ctx.moveTo(at.x / 1e6, at.y / 1e6 - 11 * px)
    ctx.lineTo(at.x / 1e6, at.y / 1e6 + 11 * px)
    ctx.strokeStyle = this.ed.colours.select
    ctx.lineWidth = 1.5 * px
    ctx.stroke()
    if (this.near)
      pen.text(this.near.name, at.x / 1e6, at.y / 1e6 + 18 * px, 12 * px, { colour: this.ed.colours.text, mono: false })
  }
}
