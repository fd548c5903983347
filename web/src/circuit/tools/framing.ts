import type { Pen } from '../../canvas/scene'
import type { Box } from '../../canvas/viewport'
import { between } from '../../hands/stage'
import type { Grab } from '../../hands/tool'
import type { Point } from '../../live/wire.gen'
import type { CircuitEditor } from '../editor'
import { play } from '../marks'
import { box, line } from '../pens'

/** What is drawn from one place to another, as a box or a line. */
export class FrameGrab implements Grab {
  private readonly from: Point
  constructor(
    private readonly ed: CircuitEditor,
    private readonly done: (b: Box, from: Point, to: Point) => void,
    private readonly asLine = false,
  ) {
    this.from = ed.at
  }
  move() {
    // the hand's place is the editor's
  }
  drop() {
    this.done(between(this.from, this.ed.at), this.from, this.ed.at)
  }
  paint(pen: Pen) {
    const { ed, from } = this
    pen.ctx.globalAlpha = 0.85
    if (this.asLine) play(pen, [line(from, ed.at, 'select', 0.4e6)], ed.inks)
    else box(pen, between(from, ed.at), ed.colours.select, true)
    pen.ctx.globalAlpha = 1
  }
}
