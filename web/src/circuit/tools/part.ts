import { mdiChip } from '@mdi/js'
import { reactive, shallowRef } from 'vue'
import type { Pen } from '../../canvas/scene'
import { type Field, words } from '../../hands/fields'
import type { Item } from '../../live/wire.gen'
import type { CircuitEditor } from '../editor'
import { type CircuitTool, type Held, origin, paintHeld, turned } from './circuitTool'

/** Places parts of the library, or puts one in the place of others. */
export class PartTool implements CircuitTool {
  readonly id = 'part'
  readonly name = 'Part'
  readonly icon = mdiChip
  readonly keys = 'N'
  readonly state = reactive({ turn: 0, mirror: false, finding: false })
  readonly item = shallowRef<Item | null>(null)
  private value = ''
  /** Parts to be put in the place of others rather than placed. */
  replacing: number[] = []

  constructor(private readonly ed: CircuitEditor) {}

  take() {
    this.state.mirror = false
    this.state.finding = true
  }
  drop() {
    this.item.value = null
    this.replacing = []
    this.state.finding = false
  }
  /** Looks for a part to put in the place of these. */
  replace(ids: number[]) {
    this.ed.take(this.id)
    this.replacing = ids
  }
  /** The part to place, and the value that it is given instead of its own. */
  choose(item: Item, value = '') {
    if (this.replacing.length) {
      const ids = this.replacing
      this.ed.take('select')
      void this.ed.run('replacePart', { ids, library: item.part!.name })
      return
    }
    this.item.value = item
    this.value = value
    this.state.finding = false
    this.ed.redraw()
  }
  down() {
    const { ed, state } = this
    const item = this.item.value
    if (!item) return
    const value = this.value || undefined
    void ed.run('placePart', { sheet: ed.sheet, library: item.part!.name, value, at: ed.at, turn: state.turn, mirror: state.mirror }) // prettier-ignore
  }
  back() {
    if (!this.state.finding || !this.item.value) return false
    this.state.finding = false
    return true
  }
  turn(quarters: number) {
    this.state.turn = turned(this.state.turn, quarters)
  }
  mirror() {
    this.state.mirror = !this.state.mirror
  }
  private held(): Held | null {
    const p = this.item.value?.part
    const { turn, mirror } = this.state
    return p ? { kind: 'part', object: { library: p.name, unit: p.units?.length ? 1 : 0, at: origin, turn, mirror, designator: '', value: this.value } } : null // prettier-ignore
  }
  strip(): Field[] {
    const p = this.item.value?.part
    return p ? [words(p.name), words(p.footprint ?? '', { quiet: true }), ...(this.value ? [words(this.value)] : []), words('on a wire it goes into the wire', { quiet: true })] : [] // prettier-ignore
  }
  hint() {
    return 'click places · Q E turn · M mirror · arrows and Enter place by keys · N another part · Esc ends'
  }
  paint(pen: Pen) {
    paintHeld(this.ed, pen, this.held())
  }
}
