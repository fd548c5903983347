import { apply, boardPose, dist, textLines, tracePoints } from '../canvas/geometry'
import type { Pen } from '../canvas/scene'
import { boxOf } from '../canvas/viewport'
import type { Grab, Press } from '../hands/tool'
import type { Placed, Point } from '../live/wire.gen'
import { complain } from '../shell/notices'
import type { BoardEditor } from './editor'

/** Where a part's designator stands on the board. */
export function labelAt(ed: BoardEditor, p: Placed): Point {
  return apply(boardPose(p), p.label ?? ed.project.named('footprint', p.footprint)?.designatorAt ?? { x: 0, y: 0 })
}
const lines = (p: Placed, at: Point) => textLines(p.designator, p.letters || 1_000_000, at, p.angle, !!p.bottom)

/** Whether a place lies on the designator, and not on the part itself. */
export function labelHolds(ed: BoardEditor, p: Placed, q: Point) {
  const b = boxOf(lines(p, labelAt(ed, p)).flat(), 150_000)
  return q.x >= b.minX && q.x <= b.maxX && q.y >= b.minY && q.y <= b.maxY
}

/** A designator in the hand. */
export class LabelDrag implements Grab {
  private at: Point | null = null
  private readonly was: Point
  constructor(
    private readonly ed: BoardEditor,
    private readonly part: Placed,
    private readonly from: Point,
  ) {
    this.was = labelAt(ed, part)
  }
  move(p: Press) {
    if (!this.at && dist(p.at, this.from) < p.tolerance * 0.6) return
    const [dx, dy] = [p.at.x - this.from.x, p.at.y - this.from.y]
    this.at = { x: Math.round((this.was.x + dx) / 50_000) * 50_000, y: Math.round((this.was.y + dy) / 50_000) * 50_000 }
  }
  drop() {
    const { ed, part, at } = this
    if (!at) return
    ed.grab = this
    ed.project
      .edit('setLabel', { id: part.id, at })
      .catch(complain)
      .finally(() => ed.grab === this && ed.letGo())
  }
  cancel() {
    this.at = null
  }
  paint({ ctx, px }: Pen) {
    if (!this.at) return
    ctx.beginPath()
    for (const l of lines(this.part, this.at)) tracePoints(ctx, l, false)
    ctx.moveTo(this.part.at.x / 1e6, this.part.at.y / 1e6)
    ctx.strokeStyle = this.ed.look().colours.select
    ctx.lineWidth = Math.max(0.15, px)
    ctx.stroke()
  }
}
