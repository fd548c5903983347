import { mdiRecordCircleOutline } from '@mdi/js'
import { reactive } from 'vue'
import type { Tool } from '../../hands/tool'
import type { BoardEditor } from '../editor'

/** Drills holes without plating. */
export class HoleTool implements Tool {
  readonly id = 'hole'
  readonly name = 'Hole'
  readonly icon = mdiRecordCircleOutline
  readonly keys = 'O'
  readonly state = reactive({ diameter: 3_200_000 })

  constructor(private readonly ed: BoardEditor) {}

  down() {
    void this.ed.run('addHole', { at: this.ed.at, diameter: this.state.diameter })
  }
  strip() {
    const keep = (v: number) => (this.state.diameter = v)
    return [{ as: 'length' as const, label: 'Diameter', value: this.state.diameter, keep }]
  }
  hint() {
    return 'click drills · Esc ends'
  }
}
