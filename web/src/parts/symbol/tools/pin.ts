import { mdiRayStartArrow } from '@mdi/js'
import { reactive } from 'vue'
import type { Pen } from '../../../canvas/scene'
import { choice, type Field } from '../../../hands/fields'
import type { Tool } from '../../../hands/tool'
import type { Pin, Point } from '../../../live/wire.gen'
import { pinTypes } from '../pinTypes'
import { footOf, type SymbolEditor } from '../editor'

/** Places pins, one by one or a row of them; the side of the body that is nearer says which way they point. */
export class PinTool implements Tool {
  readonly id = 'pin'
  readonly name = 'Pin'
  readonly icon = mdiRayStartArrow
  readonly keys = 'P'
  readonly as = reactive({ number: '', names: '', type: 'passive', count: 1, turned: null as number | null, fit: true })

  constructor(private readonly ed: SymbolEditor) {}

  take() {
    this.as.number = this.ed.nextNumber()
  }
  /** Which way a pin at a place points: towards the nearest side of the body, or as it was turned by hand. */
  private turnAt(p: Point): number {
    if (this.as.turned !== null) return this.as.turned
    const b = this.ed.shown.value?.body
    if (!b) return p.x <= 0 ? 0 : 2
    const out = [b.min.x - p.x, b.min.y - p.y, p.x - b.max.x, p.y - b.max.y] // left of, below, right of, above it
    return out.indexOf(Math.max(...out))
  }
  /** The pins as they would be placed: a row goes down, or along the upper and lower side to the right. */
  private pins(at: Point): Pin[] {
    const { as, ed } = this
    const turn = this.turnAt(at)
    const step = turn % 2 === 0 ? { x: 0, y: -2_500_000 } : { x: 2_500_000, y: 0 }
    const names = as.names.split(/[\s,;]+/).filter((n) => n)
    const taken = new Set(ed.pins.map((p) => p.number))
    let number = as.number.trim() || ed.nextNumber(taken)
    return Array.from({ length: as.count }, (_, i) => {
      while (i > 0 && taken.has(number)) number = after(number)
      taken.add(number)
      return { number, name: names[i] ?? '', type: as.type, at: { x: at.x + step.x * i, y: at.y + step.y * i }, turn, length: 2_500_000 } // prettier-ignore
    })
  }
  down() {
    void this.place(this.ed.at)
  }
  async place(at: Point) {
    const done = await this.ed.edit({ pins: this.pins({ ...at }), fit: this.as.fit })
    if (done === undefined) return
    this.as.number = this.ed.nextNumber()
    this.as.names = ''
  }
  key(name: string) {
    if (name !== 'Q' && name !== 'E') return false
    this.as.turned = (this.turnAt(this.ed.at) + (name === 'Q' ? 1 : 3)) % 4
    this.ed.redraw()
    return true
  }
  drop() {
    this.as.turned = null
  }
  strip(): Field[] {
    const { as } = this
    return [
      { as: 'name', label: 'Number', value: as.number, names: [], main: true, type: (v) => (as.number = v) },
      { as: 'name', label: as.count > 1 ? 'Names' : 'Name', value: as.names, names: [], empty: as.count > 1 ? 'A0 A1 A2 …' : 'none', type: (v) => (as.names = v) }, // prettier-ignore
      choice('Type', as.type, pinTypes, (v) => (as.type = v)),
      { as: 'whole', label: 'In a row', value: as.count, least: 1, most: 200, keep: (v) => (as.count = v) },
      { as: 'tick', label: 'Body grows', value: as.fit, keep: (v) => (as.fit = v) },
    ]
  }
  hint() {
    return 'click places pins, pointing to the nearest side of the body · Q E turn · a number never repeats · Esc ends'
  }
  paint({ ctx, px, text }: Pen) {
    const { ed } = this
    ctx.strokeStyle = ed.colours.select
    ctx.lineWidth = 1.6 * px
    for (const p of this.pins(ed.at)) {
      const f = footOf(p)
      ctx.beginPath()
      ctx.moveTo(p.at.x / 1e6, p.at.y / 1e6)
      ctx.lineTo(f.x / 1e6, f.y / 1e6)
      ctx.stroke()
      ctx.beginPath()
      ctx.arc(p.at.x / 1e6, p.at.y / 1e6, 3 * px, 0, 2 * Math.PI)
      ctx.stroke()
      const level = p.turn % 2 === 0
      text(`${p.number}${p.name ? ' ' + p.name : ''}`, (p.at.x + f.x) / 2e6 - (level ? 0 : 8 * px), (p.at.y + f.y) / 2e6 + (level ? 8 * px : 0), 12 * px, { colour: ed.colours.select, angle: level ? 0 : 90 }) // prettier-ignore
    }
  }
}

/** The number after: its digits count up, "A9" to "A10". */
export function after(number: string): string {
  const m = /^(.*?)(\d+)$/.exec(number)
  return m ? m[1] + (Number(m[2]) + 1) : number + '1'
}
