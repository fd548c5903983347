import { mdiFormatText } from '@mdi/js'
import { reactive } from 'vue'
import { paintItem, type Pen } from '../../canvas/scene'
import { choice, type Field } from '../../hands/fields'
import type { Tool } from '../../hands/tool'
import { Previewer } from '../../live/previewer'
import type { Legend, Point } from '../../live/wire.gen'
import { say } from '../../shell/notices'
import { fonts, legendItem } from '../drawn'
import type { BoardEditor } from '../editor'
import { Ink } from './ink'

/** Puts texts on the board. */
export class TextTool implements Tool {
  readonly id = 'text'
  readonly name = 'Text'
  readonly icon = mdiFormatText
  readonly keys = 'W'
  readonly state = reactive({ text: '', height: 1_500_000, font: '' })
  readonly ink: Ink
  private readonly previews: Previewer
  /** The outlines of the text in hand, and of what they are. */
  private rings: { of: string; rings: Point[][] } = { of: '', rings: [] }

  constructor(private readonly ed: BoardEditor) {
    this.ink = new Ink(ed)
    this.previews = new Previewer(ed.project)
  }

  private get set() {
    const { text, height, font } = this.state
    return { text, height, ...fontFields(font) }
  }
  down() {
    if (!this.state.text.trim()) say('Type the text first.', 'error')
    else void this.ed.run('addLegend', { at: this.ed.at, ...this.set, ...this.ink.fields })
  }
  /** Asks what the text in hand looks like in an outline font. */
  private ask() {
    const { set } = this
    const of = JSON.stringify(set)
    if (!set.font || !set.text.trim() || of === this.rings.of) return
    this.rings.of = of
    this.previews.ask('lettering', { text: set.text, height: set.height, font: set.font, face: set.face ?? 0 }, (rings) => {
      this.rings = { of, rings }
      this.ed.redraw()
    })
  }
  strip(): Field[] {
    const { state, ed } = this
    const keep = (font: string) => {
      if (font === 'file') ed.chooseFont([], (face) => (state.font = `own ${face}`))
      else state.font = font
    }
    return [
      { as: 'name', label: 'Text', value: state.text, names: [], main: true, type: (v) => ((state.text = v), ed.redraw()) },
      { as: 'length', label: 'Height', value: state.height, keep: (v) => (state.height = v) },
      choice('Font', state.font, fontChoice(ed), keep),
      ...this.ink.strip(),
    ]
  }
  hint() {
    return 'click puts the text there · Esc ends'
  }
  paint(pen: Pen) {
    if (!this.state.text.trim() || this.ed.grab) return
    this.ask()
    const l: Legend = { id: 0, at: this.ed.at, angle: 0, ...this.set, ...this.ink.fields }
    pen.ctx.globalAlpha = 0.6
    paintItem(legendItem(l, this.rings.rings, this.ed.project.rule('silkWidth'), this.ed.look), pen)
    pen.ctx.globalAlpha = 1
  }
}

/** The fonts that can be chosen: those that ship, those of the project, or one from a file. */
export function fontChoice(ed: BoardEditor) {
  void ed.project.docTick.value
  return [
    ...fonts,
    ...ed.project.all('asset').filter((a) => a.type === 'font').map((a) => ({ value: `own ${a.id}`, title: a.name })), // prettier-ignore
    { value: 'file', title: 'From a file…' },
  ]
}

/** The fields of a choice. */
export function fontFields(font: string): { font?: string; face?: number } {
  const [kind, face] = font.split(' ')
  return face ? { font: kind, face: Number(face) } : font ? { font } : {}
}
