import { mdiCloseThick } from '@mdi/js'
import { snap } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import type { Point } from '../../live/wire.gen'
import type { CircuitEditor } from '../editor'
import { pinUnder } from '../picking'
import { type CircuitTool, origin, paintHeld } from './circuitTool'

/** Marks pins as left open on purpose. */
export class OpenTool implements CircuitTool {
  readonly id = 'open'
  readonly name = 'Left open'
  readonly icon = mdiCloseThick
  readonly keys = 'O'

  constructor(private readonly ed: CircuitEditor) {}

  aim(p: Point, tolerance: number) {
    return pinUnder(this.ed, p, tolerance)?.at ?? snap(p, this.ed.grid)
  }
  down() {
    void this.ed.run('placeOpenMark', { sheet: this.ed.sheet, at: this.ed.at })
  }
  hint() {
    return 'click marks a pin as left open on purpose · Esc ends'
  }
  paint(pen: Pen) {
    paintHeld(this.ed, pen, { kind: 'openMark', object: { at: origin } }, this.ed.colours.open)
  }
}
