import { mdiCursorDefaultOutline } from '@mdi/js'
import type { Pen } from '../canvas/scene'
import { inside, meets } from '../canvas/viewport'
import type { Point } from '../live/wire.gen'
import type { Field } from './fields'
import { between, type Stage } from './stage'
import type { Grab, Press, Tool } from './tool'

/** A box drawn with the hand: rightwards it picks what is all inside, leftwards what it touches. */
class BoxGrab implements Grab {
  private to: Point
  constructor(
    private readonly ed: Stage,
    private readonly from: Point,
    private readonly colour: () => string,
  ) {
    this.to = from
  }
  move(p: Press) {
    this.to = p.at
  }
  /** As it is seen. */
  private rightwards(to: Point) {
    return this.ed.mirrored ? to.x <= this.from.x : to.x >= this.from.x
  }
  drop(p: Press) {
    const box = between(this.from, p.at)
    const least = this.ed.leastBox
    if (box.maxX - box.minX < least && box.maxY - box.minY < least) return
    const whole = this.rightwards(p.at)
    for (const id of this.ed.scene.idsWithin(box)) {
      const own = this.ed.roomOf(id)
      if (own && (whole || this.ed.picksWhole(id) ? inside(own, box) : meets(own, box))) this.ed.selection.add(id)
    }
  }
  paint(pen: Pen) {
    paintFrame(pen, this.from, this.to, this.colour(), !this.rightwards(this.to))
  }
}

/** What is picked is dragged although something else lies over it; a hand that only clicks picks what lies uppermost. */
class Uppermost implements Grab {
  private moved = false
  constructor(
    private readonly ed: Stage,
    private readonly grab: Grab | null,
    private readonly from: Press,
    private readonly id: number,
  ) {}
  move(p: Press) {
    const { at, tolerance } = this.from
    this.moved ||= Math.hypot(p.at.x - at.x, p.at.y - at.y) > tolerance * 0.6
    if (!this.moved || !this.grab) return
    this.ed.grab = this.grab // from here on it is a drag as any other
    this.grab.move(p)
  }
  drop() {
    this.cancel()
    this.ed.pick(this.id)
  }
  cancel() {
    this.grab?.cancel?.()
  }
}

/** A frame that the hand draws. */
export function paintFrame({ ctx, px }: Pen, a: Point, b: Point, colour: string, dashed = false) {
  const [x, y, w, h] = [a.x / 1e6, a.y / 1e6, (b.x - a.x) / 1e6, (b.y - a.y) / 1e6]
  ctx.fillStyle = colour + '22'
  ctx.strokeStyle = colour
  ctx.lineWidth = px
  ctx.setLineDash(dashed ? [4 * px, 3 * px] : [])
  ctx.fillRect(x, y, w, h)
  ctx.strokeRect(x, y, w, h)
  ctx.setLineDash([])
}

/** The tool that picks, by a click or a box, and drags what is picked. */
export class SelectTool implements Tool {
  readonly id = 'select'
  readonly name = 'Select'
  readonly icon = mdiCursorDefaultOutline
  readonly keys = 'S'

  constructor(
    private readonly ed: Stage,
    private readonly colour: () => string,
    private readonly hints: { picked: string; nothing: string },
    /** A double click on what lies there. */
    private readonly open?: (p: Press) => void,
    /** Options of what is picked. */
    private readonly options?: () => Field[],
  ) {}

  down(p: Press) {
    const { ed } = this
    const handle = ed.selection.size === 1 ? ed.handle(p) : null
    if (handle) {
      ed.grab = handle
      return
    }
    const hits = ed.under(p.at, p.tolerance)
    const id = hits[0]
    const held = hits.findIndex((h) => ed.selection.has(h))
    if (p.altKey && held >= 0 && hits.length > 1) {
      ed.grab = new Uppermost(ed, ed.hold(p), p, hits[(held + 1) % hits.length]) // what is picked is what is dragged; a click picks what lies beneath
    } else if (id === undefined) {
      if (!p.shiftKey) ed.selection.clear()
      ed.grab = new BoxGrab(ed, p.at, this.colour)
    } else if (p.shiftKey) ed.pick(id, true)
    else if (!ed.selection.has(id) && held >= 0) {
      const grab = ed.hold(p)
      ed.grab = grab && new Uppermost(ed, grab, p, id)
      if (!grab) ed.pick(id)
    } else {
      if (!ed.selection.has(id)) ed.pick(id)
      ed.grab = ed.hold(p)
    }
  }
  move(p: Press) {
    const { ed } = this
    ed.state.hovered = ed.under(p.at, p.tolerance)[0] ?? 0
    ed.state.hoverNet = ed.netUnder(p.at, p.tolerance)
  }
  double(p: Press) {
    this.open?.(p)
  }
  strip(): Field[] {
    return this.options?.() ?? []
  }
  hint() {
    return this.ed.selection.size ? this.hints.picked : this.hints.nothing
  }
}
