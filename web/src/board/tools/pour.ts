import { mdiFormatPaint } from '@mdi/js'
import { reactive } from 'vue'
import { choice, type Field, oneOf } from '../../hands/fields'
import type { Corner } from '../../live/wire.gen'
import { complain, say } from '../../shell/notices'
import { isGround } from '../../live/supplies'
import { netChoices } from '../nets'
import { RingTool } from './ring'

/** Draws copper areas: parts of the board that copper of a net fills. */
export class PourTool extends RingTool {
  readonly id = 'pour'
  readonly name = 'Copper'
  readonly icon = mdiFormatPaint
  readonly keys = 'N'
  readonly state = reactive({ form: 'rectangle' as 'rectangle' | 'free' | 'cut', net: 0, everywhere: false })

  protected free() {
    return this.state.form !== 'rectangle'
  }
  protected override across() {
    return this.state.form === 'cut'
  }
  /** The net that is chosen, at first the one that is lit, else ground, else the one that most pads bear. */
  private net(): number {
    const { project } = this.ed
    if (this.state.net && project.get('net', this.state.net)) return this.state.net
    const lit = project.named('net', project.lit.value)?.id
    if (lit) return lit
    const count = new Map<number, number>()
    for (const p of project.all('placed')) for (const n of Object.values(p.nets)) count.set(n, (count.get(n) ?? 0) + 1)
    const grounds = new Set(project.all('supply').flatMap((s) => (isGround(s.shape) ? [s.name] : [])))
    const ground = (id: number) => Number(grounds.has(project.get('net', id)?.name ?? ''))
    return [...count].sort((a, b) => ground(b[0]) - ground(a[0]) || b[1] - a[1])[0]?.[0] ?? 0
  }
  /** Cuts the area that is picked, else the one of the layer in work that is of another net. */
  private cut(line: Corner[]) {
    const { ed } = this
    const net = this.net()
    const here = ed.project.all('pour').filter((p) => p.layers.includes(ed.state.layer))
    const area = ed.picked('pour')[0] ?? here.find((p) => p.net !== net) ?? here[0]
    if (!area) return Promise.reject(new Error('There is no copper area on this layer that a line could cut.'))
    return ed.project.edit('cutPour', { id: area.id, net, line: line.map(({ x, y }) => ({ x, y })) })
  }
  protected put(outline: Corner[]): Promise<unknown> {
    const { ed } = this
    if (outline.length && this.across()) return this.cut(outline)
    const net = this.net()
    if (!net)
      return Promise.reject(new Error('The board has no net yet that an area could be of: carry the circuit to the board first.'))
    const layers = this.state.everywhere ? ed.copper.map((l) => l.id) : [ed.state.layer]
    const before = new Set(ed.project.all('pour').map((p) => p.id))
    return ed.project
      .edit('putPour', { pour: { id: 0, name: '', net, layers, ...(outline.length ? { outline } : {}) } })
      .then(() => {
        const made = ed.project.all('pour').find((p) => !before.has(p.id))
        if (!made) return
        ed.pickOnly([made.id])
      })
  }
  /** Fills around what is picked. */
  private around() {
    const { ed } = this
    const boxes = [...ed.selection].map((id) => ed.roomOf(id)).filter((b) => !!b)
    if (!boxes.length) {
      say('Pick what the area is to lie around first.', 'error')
      return
    }
    const more = 1e6
    const [x0, y0] = [Math.min(...boxes.map((b) => b.minX)) - more, Math.min(...boxes.map((b) => b.minY)) - more]
    const [x1, y1] = [Math.max(...boxes.map((b) => b.maxX)) + more, Math.max(...boxes.map((b) => b.maxY)) + more]
    this.put([{ x: x0, y: y0 }, { x: x1, y: y0 }, { x: x1, y: y1 }, { x: x0, y: y1 }].map((p) => ed.onGrid(p))).catch(complain) // prettier-ignore
  }
  strip(): Field[] {
    const { state, ed } = this
    const layer = ed.copper.find((l) => l.id === ed.state.layer)?.name ?? ''
    const nets = netChoices(ed.project)
    return [
      choice('Net', this.net(), nets, (v) => (state.net = v)),
      oneOf('Form', state.form, [{ value: 'rectangle' as const, title: 'Rectangle' }, { value: 'free' as const, title: 'Free' }, { value: 'cut' as const, title: 'Cut' }], (v) => ((state.form = v), this.drop())), // prettier-ignore
      oneOf('On', state.everywhere, [{ value: false, title: layer }, { value: true, title: 'all layers' }], (v) => (state.everywhere = v)), // prettier-ignore
      {
        as: 'press',
        text: 'Whole board',
        title: 'Fills the board up to its edge',
        press: () => void this.put([]).catch(complain),
      },
      { as: 'press', text: 'Around what is picked', press: () => this.around() },
    ]
  }
}
