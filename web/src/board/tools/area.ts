import { mdiSelectionDrag } from '@mdi/js'
import { reactive } from 'vue'
import { choice, type Field, oneOf } from '../../hands/fields'
import type { Corner } from '../../live/wire.gen'
import { RingTool } from './ring'

const everything = ['track', 'surfacePad', 'throughPad', 'via', 'unplatedHole', 'part', 'pour']
const rulesAlone = 'nothing: rules of its own'
const kept: Record<string, string[]> = {
  [rulesAlone]: [],
  everything,
  tracks: ['track'],
  vias: ['via'],
  'tracks and vias': ['track', 'via'],
  'copper areas': ['pour'],
  parts: ['part'],
}

/** Draws areas of the board: rules may hold within them, and they may keep kinds of things out. */
export class AreaTool extends RingTool {
  readonly id = 'area'
  readonly name = 'Area'
  readonly icon = mdiSelectionDrag
  readonly keys = 'A'
  readonly state = reactive({ form: 'rectangle' as 'rectangle' | 'free', keeps: rulesAlone, onLayer: false })

  protected free() {
    return this.state.form === 'free'
  }
  protected put(outline: Corner[]) {
    const { ed, state } = this
    const names = new Set(ed.project.all('ruleArea').map((a) => a.name))
    let n = 1
    while (names.has(`Area ${n}`)) n++
    return ed.project.edit('putArea', {
      area: {
        id: 0,
        name: `Area ${n}`,
        outline,
        ...(state.onLayer ? { layers: [ed.state.layer] } : {}),
        ...(kept[state.keeps].length ? { keepOut: kept[state.keeps] } : {}),
      },
    })
  }
  strip(): Field[] {
    const { state } = this
    const layer = this.ed.copper.find((l) => l.id === this.ed.state.layer)?.name ?? ''
    return [
      oneOf('Form', state.form, [{ value: 'rectangle' as const, title: 'Rectangle' }, { value: 'free' as const, title: 'Free' }], (v) => ((state.form = v), this.drop())), // prettier-ignore
      choice('Keeps out', state.keeps, Object.keys(kept).map((k) => ({ value: k, title: k })), (v) => (state.keeps = v)), // prettier-ignore
      { as: 'tick', label: `On ${layer} alone`, value: state.onLayer, keep: (v) => (state.onLayer = v) },
    ]
  }
}
