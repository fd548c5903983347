import { reactive } from 'vue'
import { choice, type Field } from '../../hands/fields'
import type { BoardEditor } from '../editor'
import { surfaces } from '../drawn'

/** On what the hand draws: a surface of the board, and its side. */
export class Ink {
  readonly state = reactive({ on: '', bottom: false, apart: 0 })

  constructor(private readonly ed: BoardEditor) {}

  /** As commands have it: copper is the layer in work. */
  get fields() {
    const { on, bottom, apart } = this.state
    const { ed } = this
    const c = ed.copper
    const layer = ed.state.layer
    const below = on === 'copper' ? c.length > 1 && layer === c[c.length - 1].id : bottom
    return { ...(on ? { on } : {}), ...(on === 'copper' ? { layer } : {}), ...(below ? { bottom: true } : {}), ...(on === '' && apart ? { apart } : {}) } // prettier-ignore
  }
  strip(): Field[] {
    const { state, ed } = this
    const name = ed.copper.find((l) => l.id === ed.state.layer)?.name ?? ''
    const on = surfaces.map((s) => (s.value === 'copper' ? { ...s, title: `Copper ${name}` } : s))
    return [
      choice('On', state.on, on, (v) => (state.on = v)),
      ...(state.on === 'copper' ? [] : [{ as: 'tick' as const, label: 'bottom', value: state.bottom, keep: (v: boolean) => void (state.bottom = v) }]), // prettier-ignore
    ]
  }
  /** How far silk keeps off what the mask leaves free. */
  off(): Field[] {
    const { state } = this
    return state.on === '' ? [{ as: 'length', label: 'Off pads', value: state.apart, keep: (v) => (state.apart = v) }] : []
  }
}
