import { same, snap } from '../canvas/geometry'
import type { Pen } from '../canvas/scene'
import type { Grab, Press } from '../hands/tool'
import { Previewer } from '../live/previewer'
import type { Foreseen, Point } from '../live/wire.gen'
import { complain } from '../shell/notices'
import type { CircuitEditor } from './editor'
import { play } from './marks'
import { line } from './pens'
import type { TextPlace } from './picking'

/** What is picked, in the hand, with the wires that follow it; the core says what it would join. */
export class MoveGrab implements Grab {
  private step: Point = { x: 0, y: 0 }
  private told: Point | null = null
  private moved: Foreseen | null = null
  private readonly from: Point
  private readonly ids: number[]
  private readonly previews: Previewer

  constructor(
    private readonly ed: CircuitEditor,
    at: Point,
  ) {
    this.from = snap(at, ed.grid)
    this.ids = [...ed.selection]
    this.previews = new Previewer(ed.project)
  }

  move(p: Press) {
    const { ed, from, ids } = this
    const now = snap(p.at, ed.grid)
    const step = { x: now.x - from.x, y: now.y - from.y }
    if (same(step, this.step)) return
    this.step = step
    this.previews.ask('foresee', ed.project.foresee('moveItems', { ids, step }, ed.path), (foreseen) => {
      if (ed.grab !== this) return
      this.moved = foreseen
      this.told = step
      ed.state.warning = foreseen.say
      ed.scene.hide([...(foreseen.put ?? []).map((b) => b.id), ...(foreseen.remove ?? [])])
      ed.redraw()
    })
  }
  drop() {
    const { ed, step, ids } = this
    if (!step.x && !step.y) {
      this.cancel()
      return
    }
    const agreed = this.told && same(this.told, step) ? this.moved?.outcome : undefined // what was said before the hand let go
    ed.grab = this // shown where it was dropped until it is there
    ed.project
      .edit('moveItems', { ids, step }, agreed)
      .catch(complain)
      .finally(() => ed.grab === this && ed.letGo())
  }
  cancel() {
    this.ed.state.warning = ''
    this.previews.stop()
    this.ed.scene.hide([])
  }
  paint(pen: Pen) {
    const { ed } = this
    for (const d of this.moved?.put ?? [])
      play(pen, d.marks ?? [], ed.inks, ed.selection.has(d.id) ? ed.colours.select : undefined)
  }
}

/** A designator or value on its way to another place, with a thread to its part. */
export class TextGrab implements Grab {
  private at: Point
  constructor(
    private readonly ed: CircuitEditor,
    private readonly text: TextPlace & { field: 'designator' | 'value' },
    private readonly from: Point,
  ) {
    this.at = text.at
  }
  move(p: Press) {
    this.at = snap({ x: this.text.at.x + p.at.x - this.from.x, y: this.text.at.y + p.at.y - this.from.y }, 250_000)
  }
  drop(p: Press) {
    const part = this.ed.project.get('part', this.text.id)
    if (part && Math.hypot(p.at.x - this.from.x, p.at.y - this.from.y) > 0.4e6)
      void this.ed.run('moveText', { id: part.id, text: this.text.field, at: { x: this.at.x - part.at.x, y: this.at.y - part.at.y } }) // prettier-ignore
  }
  paint(pen: Pen) {
    const { ed, at } = this
    const part = ed.project.get('part', this.text.id)
    if (!part) return
    const says = this.text.field === 'designator' ? ed.project.called(part, ed.path) : part.value
    pen.text(says, at.x / 1e6, at.y / 1e6, 3.1, { colour: ed.colours.select })
    pen.ctx.setLineDash([3 * pen.px, 3 * pen.px])
    play(pen, [line(at, part.at, 'select', 1)], ed.inks)
    pen.ctx.setLineDash([])
  }
}
