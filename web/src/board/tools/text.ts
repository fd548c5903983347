import { mdiFormatText } from '@mdi/js'
import { reactive } from 'vue'
import type { Field } from '../../hands/fields'
import type { Tool } from '../../hands/tool'
import { say } from '../../shell/notices'
import type { BoardEditor } from '../editor'

/** Prints texts. */
export class TextTool implements Tool {
  readonly id = 'text'
  readonly name = 'Text'
  readonly icon = mdiFormatText
  readonly keys = 'W'
  readonly state = reactive({ text: '', height: 1_500_000, bottom: false })

  constructor(private readonly ed: BoardEditor) {}

  down() {
    const { text, height, bottom } = this.state
    if (!text.trim()) say('Type the text first.', 'error')
    else void this.ed.run('addLegend', { at: this.ed.at, text, height, bottom })
  }
  strip(): Field[] {
    const { state } = this
    return [
      { as: 'name', label: 'Text', value: state.text, names: [], type: (v) => (state.text = v) },
      { as: 'length', label: 'Height', value: state.height, keep: (v) => (state.height = v) },
      { as: 'tick', label: 'on the bottom', value: state.bottom, keep: (v) => (state.bottom = v) },
    ]
  }
  hint() {
    return 'click prints the text · Esc ends'
  }
}
