import * as THREE from 'three'
import type { Extras } from './boardModel'
import { Caps, type Cut } from './caps'
import { sectionOf } from './section'

/** A layer of the board: its upper and lower side and what lies between them. */
export interface Layer {
  kind: Extras['kind']
  level: number
  node: THREE.Group
  upper?: THREE.Mesh
  lower?: THREE.Mesh
  side?: THREE.Mesh
  /** What is drawn for its upper and lower side while it moves. */
  pictures: { upper?: THREE.Mesh; lower?: THREE.Mesh }
}

/** How far layers are moved apart at most, in millimetres. */
const most = 5

/** The layers of the board, moved apart or cut through. */
export class Layers {
  readonly root = new THREE.Group()
  private readonly caps = new Caps()
  private apart = 0

  constructor(private readonly list: Layer[]) {
    list.sort((a, b) => a.level - b.level)
    for (const l of list) this.root.add(l.node)
    this.root.add(this.caps)
  }

  /** Only what can be seen from above or from below is drawn, as pictures while it moves. */
  seenFrom(above: boolean, moves: boolean) {
    const of = (kind: Layer['kind']) => {
      const all = this.list.filter((l) => l.kind === kind)
      return above ? all[0] : all[all.length - 1]
    }
    const [sheet, copper] = [of('laminate'), of('copper')]
    const first = this.list.find((l) => l.kind === 'laminate')!.level
    for (const l of this.list) {
      const whole = l.kind === 'laminate' || l.kind === 'walls'
      const outer = l === sheet || l === copper || l.kind === 'walls' || (l.kind === 'coat' && l.level < first === above)
      const show = (m: THREE.Mesh | undefined, closed: boolean, apart: boolean) =>
        m && (m.visible = this.apart > 0 ? apart : closed)
      l.node.visible = !this.apart || l.kind !== 'walls'
      show(l.upper, outer && (above || l.kind === 'walls'), above)
      show(l.lower, outer && (!above || l.kind === 'walls'), !above)
      show(l.side, whole, l.kind === 'laminate')
      for (const face of ['upper', 'lower'] as const) {
        const [own, picture] = [l[face], l.pictures[face]]
        if (!own || !picture) continue
        picture.visible = own.visible && moves
        own.visible &&= !moves
      }
    }
  }

  private offset(level: number) {
    return ((this.list.length - 1) / 2 - level) * this.apart * most
  }
  /** How far what stands on the board above or below it is moved. */
  beyond(bottom: boolean) {
    return this.offset(bottom ? this.list.length : -1)
  }

  arrange(apart: number, cut: Cut | null) {
    this.apart = apart
    for (const l of this.list) l.node.position.z = this.offset(l.level)
    this.caps.empty()
    if (!cut) return
    this.root.updateMatrixWorld(true)
    for (const l of this.list) {
      const cap = l.upper && l.lower && sectionOf(l.upper, l.lower, cut.along, cut.at)
      if (cap) this.caps.put(cap, l.upper!.material, cut)
    }
  }
}
