import type { Pen } from '../canvas/scene'
import type { Grab, Press } from '../hands/tool'
import type { DimensionDrawn, Point } from '../live/wire.gen'
import { complain } from '../shell/notices'
import { paintDimension } from './drawn'
import type { BoardEditor } from './editor'

/** How far off a dimension's line lies when it goes through a place, as the core counts it. */
export function offOf(from: Point, to: Point, way: string, at: Point): number {
  if (way === 'x') return Math.round(at.y - from.y)
  if (way === 'y') return Math.round(at.x - from.x)
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  const l = Math.hypot(dx, dy)
  return l ? Math.round((dx * (at.y - from.y) - dy * (at.x - from.x)) / l) : 0
}

/** The line of a dimension in the hand. */
export class DimensionDrag implements Grab {
  private off: number
  private readonly way: string

  constructor(
    private readonly ed: BoardEditor,
    private readonly m: DimensionDrawn,
  ) {
    const d = ed.project.get('dimension', m.id)!
    this.off = d.off
    this.way = d.way ?? ''
  }
  move(p: Press) {
    this.off = offOf(this.m.from, this.m.to, this.way, this.ed.onGrid(p.at))
    this.ed.scene.hide([this.m.id])
  }
  drop() {
    const { ed, m, off } = this
    if (off === ed.project.get('dimension', m.id)?.off) this.cancel()
    else
      ed.project
        .edit('setDimension', { id: m.id, off })
        .catch(complain)
        .finally(() => this.cancel())
  }
  cancel() {
    this.ed.scene.hide([])
  }
  paint(pen: Pen) {
    const { m, way, off, ed } = this
    const by = off - (ed.project.get('dimension', m.id)?.off ?? off)
    const [dx, dy] = [m.to.x - m.from.x, m.to.y - m.from.y]
    const l = Math.hypot(dx, dy) || 1
    const [ox, oy] = way === 'x' ? [0, by] : way === 'y' ? [by, 0] : [(-dy / l) * by, (dx / l) * by]
    const at = (p: Point) => ({ x: p.x + ox, y: p.y + oy })
    paintDimension(pen, { ...m, a: at(m.a), b: at(m.b) }, ed.look().colours.select, ed.taste.unit)
  }
}
