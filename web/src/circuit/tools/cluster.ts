import { mdiSelectGroup } from '@mdi/js'
import { reactive } from 'vue'
import type { Box } from '../../canvas/viewport'
import { type Field, oneOf } from '../../hands/fields'
import { say } from '../../shell/notices'
import { tintChoices } from '../choices'
import type { CircuitEditor } from '../editor'
import type { CircuitTool } from './circuitTool'
import { FrameGrab } from './framing'

/** Frames what belongs together. */
export class ClusterTool implements CircuitTool {
  readonly id = 'cluster'
  readonly name = 'Cluster'
  readonly icon = mdiSelectGroup
  readonly keys = 'L'
  private readonly state = reactive({ tint: 'sky' })

  constructor(private readonly ed: CircuitEditor) {}

  down() {
    this.ed.grab = new FrameGrab(this.ed, (b) => {
      if (b.maxX - b.minX < 5e6 || b.maxY - b.minY < 5e6) say('Drag a frame around what belongs together.')
      else void this.frame(b)
    })
  }
  private async frame(b: Box) {
    const { ed } = this
    const n = [...ed.project.standing(ed.sheet)].filter((o) => o.kind === 'cluster').length + 1
    const before = new Set(ed.project.all('cluster').map((c) => c.id))
    const object = { sheet: ed.sheet, title: `Cluster ${n}`, a: { x: b.minX, y: b.minY }, b: { x: b.maxX, y: b.maxY }, tint: this.state.tint } // prettier-ignore
    await ed.run('drawItem', { item: { kind: 'cluster', object } })
    const made = ed.project.all('cluster').find((c) => !before.has(c.id))
    ed.take('select')
    if (made) ed.nameCluster(made.id)
  }
  strip(): Field[] {
    return [oneOf('Tint', this.state.tint, tintChoices(this.ed.colours), (v) => (this.state.tint = v))]
  }
  hint() {
    return 'drag a frame around what belongs together · Esc ends'
  }
}
