import { mdiDrawPen } from '@mdi/js'
import { reactive } from 'vue'
import { choice, type Field, oneOf } from '../../hands/fields'
import { type DrawForm, formChoices, forms, tintChoices } from '../choices'
import type { CircuitEditor } from '../editor'
import type { CircuitTool } from './circuitTool'
import { FrameGrab } from './framing'

/** Draws shapes, timing diagrams and pictures beside the circuit. */
export class DrawTool implements CircuitTool {
  readonly id = 'draw'
  readonly name = 'Draw'
  readonly icon = mdiDrawPen
  readonly keys = 'J'
  private readonly state = reactive({ form: 'line' as DrawForm, tint: 'none' })

  constructor(private readonly ed: CircuitEditor) {}

  private get atOnce() {
    return this.state.form === 'timing' || this.state.form === 'picture'
  }
  down() {
    const { ed } = this
    const { form, tint } = this.state
    if (form === 'timing')
      ed.write({ kind: 'timing', id: 0, at: ed.at, text: 'CLK: clock 8\nDATA: free 2, data 4 "D7 to D0", free 2' })
    else if (form === 'picture') ed.askPicture(ed.at)
    else
      ed.grab = new FrameGrab(
        ed,
        (b, from, to) => {
          if (b.maxX - b.minX + b.maxY - b.minY < 1e6) return
          void ed.run('drawItem', { item: { kind: 'shape', object: { sheet: ed.sheet, form, pts: [from, to], tint } } })
        },
        form === 'line' || form === 'arrow',
      )
  }
  strip(): Field[] {
    const { state } = this
    const tint = choice('Tint', state.tint, tintChoices(this.ed.colours), (v) => (state.tint = v))
    return [oneOf('Form', state.form, forms, (v) => (state.form = v)), ...(formChoices.some((f) => f.value === state.form) ? [tint] : [])] // prettier-ignore
  }
  hint() {
    return this.atOnce ? 'click where it shall stand · Esc ends' : 'drag from one end to the other · Esc ends'
  }
}
