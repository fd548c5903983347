import { mdiVectorPolyline } from '@mdi/js'
import { reactive } from 'vue'
import { same, snap } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import { type Field, oneOf, words } from '../../hands/fields'
import { orBack } from '../../hands/kept'
import { Previewer } from '../../live/previewer'
import type { Foreseen, Point } from '../../live/wire.gen'
import type { Command } from '../../shell/keys'
import type { CircuitEditor } from '../editor'
import { bundleIcon } from '../icons'
import { play } from '../marks'
import { line, ring } from '../pens'
import { connects, outwardAt, pinUnder } from '../picking'
import type { CircuitTool } from './circuitTool'

/** How far the hand goes before the way it set out in counts, in nanometres. */
const setOut = 2.6e6

/** Draws wires, or bundles of them; the core finds the way to the hand. */
export class WireTool implements CircuitTool {
  readonly id: string
  readonly name: string
  readonly icon: string
  readonly keys: string
  readonly menu = ['endWire']
  readonly state = reactive({ lead: '' as '' | 'level' | 'upright', freeAngle: false })
  path: Point[] = []
  /** The way the core found to the hand, and what the whole of it would join. */
  private plan: { from: Point; to: Point; way: Point[]; told: Foreseen | null } | null = null
  /** What was said of the wire up to its last corner. */
  private said: Foreseen | null = null
  /** Which way the hand left the last corner: its first leg goes that way. */
  private level: boolean | null = null
  private readonly asks: Previewer

  constructor(
    private readonly ed: CircuitEditor,
    private readonly bundle = false,
  ) {
    this.id = bundle ? 'bundle' : 'wire'
    this.name = bundle ? 'Bundle' : 'Wire'
    this.icon = bundle ? bundleIcon : mdiVectorPolyline
    this.keys = bundle ? 'U' : 'C'
    this.asks = new Previewer(ed.project)
  }

  drop() {
    this.path = []
    this.level = null
    this.plan = null
    this.asks.stop()
  }
  aim(p: Point, tolerance: number) {
    return pinUnder(this.ed, p, tolerance)?.at ?? snap(p, this.ed.grid)
  }
  move() {
    this.ahead()
  }
  back() {
    if (!this.path.length) return false
    this.path.pop()
    this.plan = null
    this.ahead()
    return true
  }

  /** Asks the core for the wire's way from its last corner to the hand, and what it would join. */
  ahead() {
    const { ed } = this
    if (!this.path.length) return
    const from = this.path[this.path.length - 1]
    const to = ed.at
    if (same(from, to)) {
      this.plan = null
      ed.state.warning = ''
      return
    }
    const [dx, dy] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)]
    if (dx + dy <= setOut) this.level = dx >= dy
    const motion = outwardAt(ed, from) !== null || this.level === null ? '' : this.level ? 'level' : 'upright'
    const lead = this.state.freeAngle ? 'straight' : this.state.lead || motion
    const points = [...this.path]
    this.asks.ask('wire', { sheet: ed.sheet, path: ed.path, points, to, lead, bundle: this.bundle }, (m) => {
      if (points.length !== this.path.length || !this.path.length) return
      this.plan = { from, to, way: m.way ?? [from, to], told: m.foreseen ?? null }
      ed.state.warning = m.foreseen?.say ?? ''
      ed.redraw()
    })
  }
  /** The wire's way from its last corner to the hand, as far as it is known. */
  way(to: Point): Point[] {
    const from = this.path[this.path.length - 1]
    if (!from || same(from, to)) return from ? [from] : []
    const p = this.plan
    if (p && same(p.from, from) && same(p.to, to)) return p.way
    if (from.x === to.x || from.y === to.y || this.state.freeAngle) return [from, to]
    return Math.abs(to.x - from.x) >= Math.abs(to.y - from.y)
      ? [from, { x: to.x, y: from.y }, to]
      : [from, { x: from.x, y: to.y }, to]
  }

  down() {
    const { ed } = this
    if (!this.path.length) {
      this.path = [ed.at]
      return
    }
    const way = this.way(ed.at)
    if (way.length < 2) {
      this.finish()
      return
    }
    this.said = this.plan && same(this.plan.to, ed.at) ? this.plan.told : null
    this.path.push(...way.slice(1))
    this.level = null
    this.state.lead = ''
    if (connects(ed, ed.at, this.bundle)) this.finish()
  }
  double() {
    this.finish()
  }
  finish() {
    const { ed, path } = this
    const agreed = this.said?.outcome
    this.said = null
    this.drop()
    ed.state.warning = ''
    if (path.length > 1)
      void orBack(ed.project.edit('drawWire', { sheet: ed.sheet, path, bundle: this.bundle }, agreed), () => {
        if (ed.tool === this && !this.path.length) this.path = path
        ed.redraw()
      })
    ed.redraw()
  }

  /** The lead that the wire does not have now. */
  private other(): 'level' | 'upright' {
    const way = this.way(this.ed.at)
    return way.length > 1 && way[0].y === way[1].y ? 'upright' : 'level'
  }
  key(name: string) {
    const { state } = this
    if ((name === 'Tab' || name === 'Space') && this.path.length) {
      state.lead = state.lead === '' ? this.other() : state.lead === 'level' ? 'upright' : 'level'
      this.ahead()
      this.ed.redraw()
      return true
    }
    if (name === 'A') {
      state.freeAngle = !state.freeAngle
      this.ahead()
      return true
    }
    if (name === 'Enter') {
      this.finish()
      return true
    }
    return name === 'Backspace' && this.path.length > 0 && this.ed.back()
  }
  commands(): Command[] {
    if (this.bundle) return []
    const now = () => (this.ed.tool instanceof WireTool ? this.ed.tool : null)
    return [{ id: 'endWire', title: 'End the line here', group: 'Draw', run: () => now()?.finish(), enabled: () => (now()?.path.length ?? 0) > 1 }] // prettier-ignore
  }
  strip(): Field[] {
    const angles = [{ value: false, title: 'Right angles' }, { value: true, title: 'Any angle' }] // prettier-ignore
    const ends = this.bundle ? 'Name it with a label like D[7:0] or SCL, SDA' : 'Ends on a pin, a wire or nothing'
    return [oneOf('Angles', this.state.freeAngle, angles, (v) => (this.state.freeAngle = v)), words(ends, { quiet: true })]
  }
  hint() {
    return 'click sets a corner · Tab bends the other way · A any angle · Enter or double click ends · Esc steps back'
  }
  paint(pen: Pen) {
    const { ed } = this
    const warned = !!ed.state.warning
    const way = [...this.path.slice(0, -1), ...this.way(ed.at)]
    pen.ctx.globalAlpha = 0.85
    for (let i = 0; i + 1 < way.length; i++)
      play(pen, [line(way[i], way[i + 1], warned ? 'open' : 'select', this.bundle ? 1.25e6 : 0.42e6)], ed.inks)
    pen.ctx.strokeStyle = warned ? ed.colours.open : ed.colours.select
    pen.ctx.lineWidth = 1.5 * pen.px
    ring(pen, ed.at, connects(ed, ed.at, this.bundle) ? 1.2 : 0.6)
    pen.ctx.globalAlpha = 1
  }
}
