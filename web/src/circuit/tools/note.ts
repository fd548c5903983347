import { mdiTextBoxOutline } from '@mdi/js'
import { reactive } from 'vue'
import { snap } from '../../canvas/geometry'
import { type Field, oneOf } from '../../hands/fields'
import { tintChoices } from '../choices'
import type { CircuitEditor } from '../editor'
import type { CircuitTool } from './circuitTool'

/** Writes notes. */
export class NoteTool implements CircuitTool {
  readonly id = 'note'
  readonly name = 'Note'
  readonly icon = mdiTextBoxOutline
  readonly keys = 'W'
  readonly state = reactive({ tint: 'sand' })

  constructor(private readonly ed: CircuitEditor) {}

  down() {
    this.ed.write({ kind: 'note', id: 0, at: snap(this.ed.at, 1.25e6), text: '' })
  }
  strip(): Field[] {
    return [oneOf('Tint', this.state.tint, tintChoices(this.ed.colours), (v) => (this.state.tint = v))]
  }
  hint() {
    return 'click where the note shall begin · Esc ends'
  }
}
