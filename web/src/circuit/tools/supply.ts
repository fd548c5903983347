import { mdiFlashOutline } from '@mdi/js'
import { reactive } from 'vue'
import { snap } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import { type Field, oneOf } from '../../hands/fields'
import type { Point } from '../../live/wire.gen'
import { shapes } from '../choices'
import type { CircuitEditor } from '../editor'
import { pinUnder } from '../picking'
import { nearSupplies, rememberShape, shapeOf, supplyNames } from '../supplies'
import { type CircuitTool, origin, paintHeld, turned } from './circuitTool'

/** Places supply marks. */
export class SupplyTool implements CircuitTool {
  readonly id = 'supply'
  readonly name = 'Supply'
  readonly icon = mdiFlashOutline
  readonly keys = 'P'
  readonly state = reactive({ name: 'GND', shape: 'ground', feeds: false, turn: 0 })

  constructor(private readonly ed: CircuitEditor) {}

  aim(p: Point, tolerance: number) {
    return pinUnder(this.ed, p, tolerance)?.at ?? snap(p, this.ed.grid)
  }
  down() {
    const { ed } = this
    rememberShape(this.state.name, this.state.shape)
    void ed.run('placeSupply', { sheet: ed.sheet, ...this.state, at: ed.at })
  }
  /** The supply in hand, by its name; its shape is remembered. */
  choose(name: string) {
    this.state.name = name
    this.state.shape = shapeOf(this.ed.project, name) ?? this.state.shape
    this.ed.redraw()
  }
  private reshape(shape: string) {
    const { state } = this
    state.shape = shape
    if (shapes.some((x) => x.usual === state.name)) state.name = shapes.find((x) => x.value === shape)!.usual
  }
  turn(quarters: number) {
    this.state.turn = turned(this.state.turn, quarters)
  }
  key(name: string) {
    const near = nearSupplies.find((x) => x[0] === name)
    if (near) this.choose(near[1])
    return !!near
  }
  strip(): Field[] {
    const { state } = this
    const near = nearSupplies.map(([keys, value]) => ({ value, title: value, keys }))
    return [
      oneOf('Usual supplies', state.name, near, (v) => this.choose(v), true),
      { as: 'name', label: 'Name', value: state.name, names: supplyNames(this.ed.project), type: (v) => this.choose(v) },
      oneOf('Shape', state.shape, shapes, (v) => this.reshape(v)),
      { as: 'tick', label: 'fed from outside here', value: state.feeds, keep: (v) => (state.feeds = v) },
    ]
  }
  hint() {
    return 'click places · 1 GND · 2 +3V3 · 3 +5V · Q E turn · Esc ends'
  }
  paint(pen: Pen) {
    paintHeld(this.ed, pen, { kind: 'supply', object: { ...this.state, at: origin } })
  }
}
