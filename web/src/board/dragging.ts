import { boardPose, dist, same, snap, tracePoints } from '../canvas/geometry'
import { paintItem, type Pen } from '../canvas/scene'
import type { Grab, Press } from '../hands/tool'
import { Previewer } from '../live/previewer'
import type { Kinds, Placed, Point } from '../live/wire.gen'
import { complain } from '../shell/notices'
import { holeItem, legendItem, placedItems } from './draw'
import type { BoardEditor } from './editor'
import { courtyard } from './pattern'

/** What is picked and can be moved, in the hand: the first of it keeps to the grid. */
export class BoardDrag implements Grab {
  step: Point = { x: 0, y: 0 }
  private readonly ids: number[]
  private readonly first: Point
  private readonly previews: Previewer

  constructor(
    private readonly ed: BoardEditor,
    private readonly from: Point,
  ) {
    this.ids = ed.movable()
    this.first = ed.anchor(this.ids[0])
    this.previews = new Previewer(ed.project)
  }

  move(p: Press) {
    const { ed, first, from } = this
    const still = !this.step.x && !this.step.y
    if (still && dist(p.at, from) < p.tolerance * 0.6) return // the hand only trembles
    const to = snap({ x: first.x + p.at.x - from.x, y: first.y + p.at.y - from.y }, ed.grid)
    const step = { x: to.x - first.x, y: to.y - first.y }
    if (same(step, this.step)) return
    this.step = step
    ed.scene.hide(this.ids)
    this.previews.ask('drag', { ids: this.ids, step, pivot: { x: 0, y: 0 } }, (said) => {
      if (ed.grab !== this) return
      ed.dragLinks.value = said.links
      ed.redraw()
    })
  }
  drop() {
    const { ed, step } = this
    if (!step.x && !step.y) {
      this.cancel()
      return
    }
    ed.grab = this // shown where it was dropped until it is there
    ed.project
      .edit('movePlaced', { ids: this.ids, step })
      .catch(complain)
      .finally(() => ed.grab === this && ed.letGo())
  }
  cancel() {
    this.previews.stop()
    this.ed.dragLinks.value = null
    this.ed.scene.hide([])
  }

  paint(pen: Pen) {
    for (const id of this.ids) this.held(pen, id)
  }
  private held(pen: Pen, id: number) {
    const { ed, step } = this
    const found = ed.project.find(id)
    const moved = (at: Point) => ({ x: at.x + step.x, y: at.y + step.y })
    if (found?.kind === 'placed') {
      const now = found.object as Placed
      const p = { ...now, at: moved(now.at) }
      for (const it of placedItems(ed.project, p, ed.look)) paintItem(it, pen)
      const f = ed.project.pattern(p.footprint)
      pen.ctx.beginPath()
      if (f) tracePoints(pen.ctx, courtyard(f, boardPose(p)), true)
      pen.ctx.strokeStyle = ed.look().colours.select
      pen.ctx.lineWidth = 1.5 * pen.px
      pen.ctx.stroke()
    } else if (found?.kind === 'hole') {
      const h = found.object as Kinds['hole']
      paintItem(holeItem({ ...h, at: moved(h.at) }, ed.look), pen)
    } else if (found?.kind === 'legend') {
      const l = found.object as Kinds['legend']
      paintItem(legendItem({ ...l, at: moved(l.at) }, ed.project.rule('silkWidth'), ed.look), pen)
    }
  }
}
