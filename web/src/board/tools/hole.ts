import { mdiRecordCircleOutline } from '@mdi/js'
import { reactive } from 'vue'
import type { Field } from '../../hands/fields'
import type { Tool } from '../../hands/tool'
import type { BoardEditor } from '../editor'

/** Drills holes, as for screws: without plating, or with copper around; they may keep room free. */
export class HoleTool implements Tool {
  readonly id = 'hole'
  readonly name = 'Hole'
  readonly icon = mdiRecordCircleOutline
  readonly keys = 'O'
  readonly state = reactive({ diameter: 3_200_000, plated: false, land: 6_000_000, keep: 0 })

  constructor(private readonly ed: BoardEditor) {}

  down() {
    const { diameter, plated, land, keep } = this.state
    void this.ed.run('addHole', { at: this.ed.at, diameter, land: plated ? land : 0, keep })
  }
  strip(): Field[] {
    const s = this.state
    const length = (label: string, k: 'diameter' | 'land' | 'keep'): Field => ({ as: 'length', label, value: s[k], keep: (v) => (s[k] = v) }) // prettier-ignore
    return [
      length('Diameter', 'diameter'),
      { as: 'tick', label: 'Plated', value: s.plated, keep: (v) => (s.plated = v) },
      ...(s.plated ? [length('Copper', 'land')] : []),
      length('Kept free', 'keep'),
    ]
  }
  hint() {
    return 'click drills · Esc ends'
  }
}
