import { mdiSelectionDrag } from '@mdi/js'
import { reactive } from 'vue'
import { dist, same } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import { choice, type Field, oneOf } from '../../hands/fields'
import { paintFrame } from '../../hands/select'
import { between } from '../../hands/stage'
import type { Press, Tool } from '../../hands/tool'
import type { Corner, Point } from '../../live/wire.gen'
import type { BoardEditor } from '../editor'

const everything = ['track', 'surfacePad', 'throughPad', 'via', 'unplatedHole', 'part']
const kept: Record<string, string[]> = {
  nothing: [],
  everything,
  tracks: ['track'],
  vias: ['via'],
  'tracks and vias': ['track', 'via'],
  parts: ['part'],
}

/** Draws areas of the board: rules may hold within them, and they may keep kinds of things out. */
export class AreaTool implements Tool {
  readonly id = 'area'
  readonly name = 'Area'
  readonly icon = mdiSelectionDrag
  readonly keys = 'A'
  readonly state = reactive({ form: 'rectangle' as 'rectangle' | 'free', keeps: 'nothing', onLayer: false })
  private way: Point[] = []

  constructor(private readonly ed: BoardEditor) {}

  private put(outline: Corner[]) {
    const { ed, state } = this
    const names = new Set(ed.project.all('ruleArea').map((a) => a.name))
    let n = 1
    while (names.has(`Area ${n}`)) n++
    void ed.run('putArea', {
      area: {
        id: 0,
        name: `Area ${n}`,
        outline,
        ...(state.onLayer ? { layers: [ed.state.layer] } : {}),
        ...(kept[state.keeps].length ? { keepOut: kept[state.keeps] } : {}),
      },
    })
  }
  down(p: Press) {
    const { ed } = this
    if (this.state.form === 'free') {
      const first = this.way[0]
      if (first && this.way.length > 2 && dist(first, p.at) <= p.tolerance) this.close()
      else if (!this.way.length || !same(this.way[this.way.length - 1], ed.at)) this.way.push({ ...ed.at })
      return
    }
    const from = { ...ed.at }
    let to: Point = from
    ed.grab = {
      move: () => void (to = { ...ed.at }),
      drop: () => {
        const b = between(from, to)
        if (b.maxX - b.minX > 2e5 && b.maxY - b.minY > 2e5)
          this.put([{ x: b.minX, y: b.minY }, { x: b.maxX, y: b.minY }, { x: b.maxX, y: b.maxY }, { x: b.minX, y: b.maxY }]) // prettier-ignore
      },
      paint: (pen) => paintFrame(pen, from, to, ed.look().colours.select),
    }
  }
  private close() {
    if (this.way.length < 3) return
    this.put(this.way)
    this.way = []
  }
  double() {
    this.close()
  }
  key(name: string) {
    if (name !== 'Enter' || this.way.length < 3) return false
    this.close()
    return true
  }
  back() {
    return !!this.way.pop()
  }
  drop() {
    this.way = []
  }
  strip(): Field[] {
    const { state } = this
    const layer = this.ed.copper.find((l) => l.id === this.ed.state.layer)?.name ?? ''
    return [
      oneOf('Form', state.form, [{ value: 'rectangle' as const, title: 'Rectangle' }, { value: 'free' as const, title: 'Free' }], (v) => ((state.form = v), (this.way = []))), // prettier-ignore
      choice('Keeps out', state.keeps, Object.keys(kept).map((k) => ({ value: k, title: k })), (v) => (state.keeps = v)), // prettier-ignore
      { as: 'tick', label: `On ${layer} alone`, value: state.onLayer, keep: (v) => (state.onLayer = v) },
    ]
  }
  hint() {
    if (this.way.length) return 'click sets corners · Enter or the first corner closes · Esc takes one back'
    return this.state.form === 'free' ? 'click sets corners · Esc ends' : 'drag draws an area · Esc ends'
  }
  paint({ ctx, px }: Pen) {
    if (!this.way.length) return
    ctx.beginPath()
    ctx.moveTo(this.way[0].x / 1e6, this.way[0].y / 1e6)
    for (const q of [...this.way.slice(1), this.ed.at]) ctx.lineTo(q.x / 1e6, q.y / 1e6)
    ctx.strokeStyle = this.ed.look().colours.select
    ctx.lineWidth = 1.6 * px
    ctx.stroke()
  }
}
