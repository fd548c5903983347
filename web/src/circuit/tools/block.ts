import { reactive } from 'vue'
import { choice, type Field } from '../../hands/fields'
import type { CircuitEditor } from '../editor'
import { blockIcon } from '../icons'
import type { CircuitTool } from './circuitTool'
import { FrameGrab } from './framing'

/** Places blocks that stand for a sheet. */
export class BlockTool implements CircuitTool {
  readonly id = 'block'
  readonly name = 'Block'
  readonly icon = blockIcon
  readonly keys = 'K'
  private readonly state = reactive({ of: 0 })

  constructor(private readonly ed: CircuitEditor) {}

  down() {
    const { ed, state } = this
    ed.grab = new FrameGrab(ed, (b, _, to) => {
      const size = { x: b.maxX - b.minX, y: b.maxY - b.minY }
      void ed.run('placeBlock', {
        sheet: ed.sheet,
        at: size.x > 5e6 ? { x: b.minX, y: b.minY } : to,
        ...(state.of ? { of: state.of } : {}),
        ...(size.x > 5e6 && size.y > 5e6 ? { size } : {}),
      })
    })
  }
  strip(): Field[] {
    const { ed, state } = this
    void ed.project.docTick.value
    const others = ed.project.all('sheet').filter((x) => x.id !== ed.sheet).sort((a, b) => a.order - b.order) // prettier-ignore
    const sheets = [{ value: 0, title: 'a new sheet' }, ...others.map((x) => ({ value: x.id, title: x.name }))]
    return [choice('Stands for', state.of, sheets, (v) => (state.of = v))]
  }
  hint() {
    return 'drag the block, or click · double click on it later enters its sheet · Esc ends'
  }
}
