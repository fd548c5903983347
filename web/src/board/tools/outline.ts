import { mdiVectorSquare } from '@mdi/js'
import { reactive } from 'vue'
import { ringBox } from '../../canvas/arcs'
import type { Pen } from '../../canvas/scene'
import type { Field } from '../../hands/fields'
import { paintFrame } from '../../hands/select'
import { between } from '../../hands/stage'
import type { Tool } from '../../hands/tool'
import { format } from '../../live/units'
import type { Point } from '../../live/wire.gen'
import type { BoardEditor } from '../editor'

/** Draws the board's outline as a rectangle, with the hand or by its numbers. */
export class OutlineTool implements Tool {
  readonly id = 'outline'
  readonly name = 'Outline'
  readonly icon = mdiVectorSquare
  readonly keys = 'Y'
  /** What was typed of an outline that is not there yet: it is drawn when both sides are known. */
  private readonly asked = reactive<{ x: number; y: number; w: number | null; h: number | null }>({ x: 0, y: 0, w: null, h: null }) // prettier-ignore

  constructor(private readonly ed: BoardEditor) {}

  down() {
    const { ed } = this
    const from = ed.at
    let to: Point = from
    ed.grab = {
      move: () => void (to = ed.at),
      drop: () => {
        const b = between(from, to)
        if (b.maxX - b.minX > 1e6 && b.maxY - b.minY > 1e6) ed.setRect(b)
      },
      paint: (pen) => this.frame(pen, from, to),
    }
  }
  private frame(pen: Pen, from: Point, to: Point) {
    const { ed } = this
    const c = ed.look().colours
    paintFrame(pen, from, to, c.select)
    const side = (nm: number) => format(Math.abs(nm), ed.taste.unit, 3)
    const text = `${side(to.x - from.x)} × ${side(to.y - from.y)} ${ed.taste.unit}`
    pen.text(text, (from.x + to.x) / 2e6, (from.y + to.y) / 2e6, 14 * pen.px, { colour: c.text })
  }
  strip(): Field[] {
    const { ed, asked } = this
    void ed.project.docTick.value
    const b = ed.project.board.outline?.length ? ringBox(ed.project.board.outline) : null
    const sides = b ? { x: b.minX, y: b.minY, w: b.maxX - b.minX, h: b.maxY - b.minY } : asked
    const field = (label: string, k: 'x' | 'y' | 'w' | 'h'): Field => ({
      as: 'length',
      label,
      value: sides[k],
      empty: label.toLowerCase(),
      keep: (v) => {
        const s = { ...sides, [k]: v }
        if (!b) Object.assign(asked, s)
        if (s.w !== null && s.h !== null) ed.setRect({ minX: s.x, minY: s.y, maxX: s.x + s.w, maxY: s.y + s.h })
      },
    })
    return [field('Width', 'w'), field('Height', 'h'), field('x', 'x'), field('y', 'y')]
  }
  hint() {
    return 'drag a rectangle, or type its exact size · Esc ends'
  }
}
