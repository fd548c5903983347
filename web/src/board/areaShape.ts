import type { Pen } from '../canvas/scene'
import { dist } from '../canvas/geometry'
import { type EdgeGrip, gripsOf, led, paintEdge, paintGrips } from '../hands/edge'
import type { Grab, Press } from '../hands/tool'
import type { Corner, Kinds, Point } from '../live/wire.gen'
import { complain } from '../shell/notices'
import type { BoardEditor } from './editor'

/** An area of rules, or a copper area with an edge of its own. */
type Area = Kinds['ruleArea'] | (Kinds['pour'] & { outline: Corner[] })

/** The area that is picked alone and can be shaped. */
export function shapedArea(ed: BoardEditor): Area | undefined {
  const [id] = ed.selection
  if (ed.selection.size !== 1) return undefined
  const a = ed.project.get('ruleArea', id) ?? ed.project.get('pour', id)
  return a?.outline?.length && !a.locked ? (a as Area) : undefined
}

/** The grip of it that lies under the hand. */
export const areaGrip = (a: Area, p: Press) => gripsOf(a.outline).find((g) => dist(g.at, p.at) <= p.tolerance)

export function paintAreaGrips(ed: BoardEditor, pen: Pen) {
  const a = shapedArea(ed)
  if (a && !ed.grab) paintGrips(pen, gripsOf(a.outline), ed.look().colours.select)
}

/** A corner or a side of an area in the hand. */
export class AreaGripDrag implements Grab {
  private to: Point | null = null
  private bend = false
  constructor(
    private readonly ed: BoardEditor,
    private readonly area: Area,
    private readonly grip: EdgeGrip,
  ) {}
  private get line() {
    return this.to ? led(this.area.outline, this.grip, this.to, this.bend) : this.area.outline
  }
  move(p: Press) {
    if (!this.to && dist(p.at, this.grip.at) < p.tolerance * 0.4) return
    this.to = this.ed.onGrid(p.at)
    this.bend = p.shiftKey
  }
  drop() {
    const { ed, area } = this
    if (!this.to) return
    ed.grab = this
    const shaped = { ...area, outline: this.line }
    const kept = 'net' in shaped ? ed.project.edit('putPour', { pour: shaped }) : ed.project.edit('putArea', { area: shaped })
    kept.catch(complain).finally(() => ed.grab === this && ed.letGo())
  }
  paint(pen: Pen) {
    paintEdge(pen, this.line, this.ed.look().colours.select)
  }
}
