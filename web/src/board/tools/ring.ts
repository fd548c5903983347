import type { Pen } from '../../canvas/scene'
import { dist, same } from '../../canvas/geometry'
import { paintFrame } from '../../hands/select'
import { between } from '../../hands/stage'
import type { Field } from '../../hands/fields'
import { orBack } from '../../hands/kept'
import type { Press, Tool } from '../../hands/tool'
import type { Corner, Point } from '../../live/wire.gen'
import { complain } from '../../shell/notices'
import type { BoardEditor } from '../editor'

/** Draws closed lines on the board: a rectangle by dragging, or corner by corner. */
export abstract class RingTool implements Tool {
  abstract readonly id: string
  abstract readonly name: string
  abstract readonly icon: string
  abstract readonly keys: string
  private way: Point[] = []

  constructor(protected readonly ed: BoardEditor) {}

  /** Whether corners are clicked, instead of a rectangle dragged. */
  protected abstract free(): boolean
  /** Whether the line leads across instead of closing. */
  protected across() {
    return false
  }
  /** Keeps what was drawn. */
  protected abstract put(outline: Corner[]): Promise<unknown>
  abstract strip(): Field[]

  down(p: Press) {
    const { ed } = this
    if (this.free()) {
      const first = this.way[0]
      if (first && !this.across() && this.way.length > 2 && dist(first, p.at) <= p.tolerance) this.close()
      else if (!this.way.length || !same(this.way[this.way.length - 1], ed.at)) this.way.push({ ...ed.at })
      return
    }
    const from = { ...ed.at }
    let to: Point = from
    ed.grab = {
      move: () => void (to = { ...ed.at }),
      drop: () => {
        const b = between(from, to)
        if (b.maxX - b.minX > 2e5 && b.maxY - b.minY > 2e5)
          this.put([{ x: b.minX, y: b.minY }, { x: b.maxX, y: b.minY }, { x: b.maxX, y: b.maxY }, { x: b.minX, y: b.maxY }]).catch(complain) // prettier-ignore
      },
      paint: (pen) => paintFrame(pen, from, to, ed.look().colours.select),
    }
  }
  private get least() {
    return this.across() ? 2 : 3
  }
  private close() {
    if (this.way.length < this.least) return
    const { way } = this
    this.way = []
    void orBack(this.put(way), () => {
      if (this.ed.tool === this && !this.way.length) this.way = way
      this.ed.redraw()
    })
  }
  double() {
    this.close()
  }
  key(name: string) {
    if (name !== 'Enter' || this.way.length < this.least) return false
    this.close()
    return true
  }
  back() {
    return !!this.way.pop()
  }
  drop() {
    this.way = []
  }
  hint() {
    if (this.across()) return 'click lays a line from edge to edge · Enter or a double click cuts · Esc takes one back'
    if (this.way.length) return 'click sets corners · Enter or the first corner closes · Esc takes one back'
    return this.free() ? 'click sets corners · Esc ends' : 'drag draws an area · Esc ends'
  }
  paint({ ctx, px }: Pen) {
    if (!this.way.length) return
    ctx.beginPath()
    ctx.moveTo(this.way[0].x / 1e6, this.way[0].y / 1e6)
    for (const q of [...this.way.slice(1), this.ed.at]) ctx.lineTo(q.x / 1e6, q.y / 1e6)
    ctx.strokeStyle = this.ed.look().colours.select
    ctx.lineWidth = 1.6 * px
    ctx.stroke()
  }
}
