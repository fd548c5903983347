import { mdiTagOutline } from '@mdi/js'
import { reactive } from 'vue'
import { snap } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import { type Field, oneOf } from '../../hands/fields'
import type { Point } from '../../live/wire.gen'
import { holdKeys } from '../../shell/keyHold'
import { say } from '../../shell/notices'
import { wayChoices } from '../choices'
import type { CircuitEditor } from '../editor'
import { portIcon } from '../icons'
import { outwardAt, pinUnder } from '../picking'
import { namesOnSheet } from '../supplies'
import { type CircuitTool, type Held, origin, paintHeld, turned } from './circuitTool'

/** Puts names down one after the other; they point away from what they name, unless they were turned. */
abstract class NamingTool implements CircuitTool {
  abstract readonly id: string
  abstract readonly name: string
  abstract readonly icon: string
  abstract readonly keys: string
  readonly state = reactive({ name: '', turn: null as number | null })
  private let = () => {}

  constructor(protected readonly ed: CircuitEditor) {}

  /** What it is called that is placed, in a sentence. */
  protected abstract readonly what: string
  protected abstract place(): Promise<unknown>
  protected abstract held(): Held

  /** The turn of what would be put down here. */
  get way(): number {
    return this.state.turn ?? outwardAt(this.ed, this.ed.at) ?? 0
  }
  aim(p: Point, tolerance: number) {
    return pinUnder(this.ed, p, tolerance)?.at ?? snap(p, this.ed.grid)
  }
  down() {
    if (!this.state.name.trim()) say(`Type the name of the ${this.what} first.`, 'error')
    else {
      void this.named(this.place())
      holdKeys(new Promise<void>((done) => (this.let = done)))
    }
  }
  /** The name is selected anew as soon as the hand lets go: the next one is typed while the program still places this one. */
  up() {
    if (this.ed.tool === this) this.ed.askName()
    this.let()
  }
  /** A number at the end of a name that was placed counts up, unless another name is being typed. */
  private async named(done: Promise<unknown>) {
    const { ed, state } = this
    const placed = state.name
    if (!(await done) || !/[0-9](\[|,|$)/.test(placed)) return
    const next = await ed.project.question('nextName', { text: placed }).catch(() => null)
    if (!next || state.name !== placed) return
    state.name = next
    if (ed.tool === this) ed.askName()
  }
  drop() {
    this.let() // a hand that is taken away lets go of nothing
  }
  turn(quarters: number) {
    this.state.turn = turned(this.way, quarters)
  }
  protected nameField(label: string, empty?: string): Field {
    return { as: 'name', label, value: this.state.name, names: namesOnSheet(this.ed.project, this.ed.state.sheet), empty, main: true, type: (v) => (this.state.name = v) } // prettier-ignore
  }
  abstract strip(): Field[]
  abstract hint(): string
  paint(pen: Pen) {
    paintHeld(this.ed, pen, this.held())
  }
}

/** Names nets. */
export class LabelTool extends NamingTool {
  readonly id = 'label'
  readonly name = 'Label'
  readonly icon = mdiTagOutline
  readonly keys = 'T'
  protected readonly what = 'net'

  protected place() {
    const { ed } = this
    return ed.run('placeLabel', { sheet: ed.sheet, name: this.state.name, at: ed.at, turn: this.way })
  }
  protected held(): Held {
    return { kind: 'label', object: { name: this.state.name || 'name', at: origin, turn: this.way } }
  }
  strip() {
    return [this.nameField('Net', 'SENSE or D[7:0]')]
  }
  hint() {
    return 'click names the net there · Q E turn · Esc ends'
  }
}

/** Leads nets out of a sheet. */
export class PortTool extends NamingTool {
  readonly id = 'port'
  readonly name = 'Port'
  readonly icon = portIcon
  readonly keys = 'X'
  protected readonly what = 'port'
  private readonly more = reactive({ way: 'in' as 'in' | 'out' | 'both' })

  protected place() {
    const { ed } = this
    return ed.run('placePort', { sheet: ed.sheet, name: this.state.name, way: this.more.way, at: ed.at, turn: this.way })
  }
  protected held(): Held {
    return { kind: 'port', object: { name: this.state.name || 'name', way: this.more.way, at: origin, turn: this.way } }
  }
  strip() {
    return [this.nameField('Name'), oneOf('Direction', this.more.way, wayChoices, (v) => (this.more.way = v))]
  }
  hint() {
    return 'click places the port · Q E turn · Esc ends'
  }
}
