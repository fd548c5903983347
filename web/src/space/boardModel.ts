import * as THREE from 'three'
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js'
import type { Painted } from '../live/wire.gen'
import { capOf, Caps, type Cut } from './caps'
import { faceOf } from './faces'
import { type Layer, Layers } from './layers'
import { pictured, type Print } from './pictured'

/** What a node of the model says of itself. */
export interface Extras {
  kind: 'laminate' | 'copper' | 'coat' | 'walls' | 'part' | 'rim'
  level?: number
  part?: number
  bottom?: boolean
  thickness?: number
}
/** A part: on which side it stands, and the room it takes. */
interface Standing {
  id: number
  bottom: boolean
  box: THREE.Box3
}
/** The parts of one shape and material, drawn at once. */
interface Instances {
  mesh: THREE.InstancedMesh
  ids: number[]
  at: THREE.Matrix4[]
}

async function sceneOf(data: ArrayBuffer): Promise<THREE.Object3D> {
  const { scene } = await new GLTFLoader().parseAsync(data, '')
  scene.rotation.x = Math.PI / 2 // glTF: metres, y up
  scene.scale.setScalar(1000)
  scene.updateMatrixWorld(true)
  return scene
}

/** A material that costs less to draw. */
function plain(m: THREE.Material | THREE.Material[]): THREE.Material {
  const of = (Array.isArray(m) ? m[0] : m) as THREE.MeshStandardMaterial
  const { color, map, transparent, opacity, side } = of
  return new THREE.MeshLambertMaterial({ color, map, transparent, opacity, side, flatShading: true })
}

/**
 * The board in space, as the core makes it: closed, its faces are pictures that lie on it; moved apart or cut, it is made of its layers,
 * which are asked for then. Parts of one shape are drawn at once.
 */
export class BoardModel {
  readonly root = new THREE.Group()
  private readonly closed = new THREE.Group()
  private layers: Layers | null = null
  readonly parts = new Map<number, Standing>()
  private readonly instances: Instances[] = []
  private readonly caps = new Caps()
  /** The box around the board with its parts, and around the board alone. */
  readonly box = new THREE.Box3()
  readonly board = new THREE.Box3()
  private apart = 0

  static async read(data: ArrayBuffer, faces: (Painted | undefined)[]): Promise<BoardModel> {
    return new BoardModel(await sceneOf(data), faces)
  }

  private constructor(scene: THREE.Object3D, faces: (Painted | undefined)[]) {
    const groups = new Map<string, { mesh: THREE.Mesh; ids: number[]; at: THREE.Matrix4[] }>()
    let thick = 0
    scene.traverse((node) => {
      const of = node.userData as Partial<Extras>
      thick = of.thickness ?? thick
      if (of.kind === 'part') this.takePart(node, of as Extras, groups)
      else if (of.kind) node.traverse((x) => this.takeClosed(x as THREE.Mesh))
    })
    for (const f of faces) if (f) this.closed.add(faceOf(f, thick))
    for (const { mesh, ids, at } of groups.values()) {
      const all = new THREE.InstancedMesh(mesh.geometry, plain(mesh.material), ids.length)
      at.forEach((m, i) => all.setMatrixAt(i, m))
      all.computeBoundingSphere()
      this.instances.push({ mesh: all, ids, at })
      this.root.add(all)
    }
    this.root.add(this.closed, this.caps)
    this.board.setFromObject(this.closed)
    this.box.copy(this.board)
    for (const p of this.parts.values()) this.box.union(p.box)
  }

  private takePart(
    node: THREE.Object3D,
    of: Extras,
    groups: Map<string, { mesh: THREE.Mesh; ids: number[]; at: THREE.Matrix4[] }>,
  ) {
    this.parts.set(of.part!, { id: of.part!, bottom: !!of.bottom, box: new THREE.Box3().setFromObject(node) })
    node.traverse((x) => {
      const mesh = x as THREE.Mesh
      if (!mesh.isMesh) return
      const key = mesh.geometry.uuid + (mesh.material as THREE.Material).uuid
      const group = groups.get(key) ?? { mesh, ids: [], at: [] }
      groups.set(key, group)
      group.ids.push(of.part!)
      group.at.push(mesh.matrixWorld.clone())
    })
  }

  private takeClosed(mesh: THREE.Mesh) {
    if (!mesh.isMesh) return
    const copy = new THREE.Mesh(mesh.geometry, plain(mesh.material))
    copy.applyMatrix4(mesh.matrixWorld)
    this.closed.add(copy)
  }

  /** Whether the layers are there, which it takes to be moved apart or cut. */
  get layered() {
    return !!this.layers
  }
  async takeLayers(data: ArrayBuffer, print: Print) {
    const scene = await sceneOf(data)
    const list: Layer[] = []
    scene.traverse((node) => {
      const of = node.userData as Partial<Extras>
      if (!of.kind || of.kind === 'part') return
      const layer: Layer = { kind: of.kind, level: of.level ?? 0, node: new THREE.Group(), pictures: {} }
      node.traverse((x) => {
        const mesh = x as THREE.Mesh
        if (!mesh.isMesh) return
        const copy = new THREE.Mesh(mesh.geometry, plain(mesh.material))
        copy.applyMatrix4(mesh.matrixWorld)
        const face = (mesh.userData.name ?? mesh.geometry.userData.name) as 'upper' | 'lower' | 'side'
        layer[face] = copy
        layer.node.add(copy)
        const picture = face === 'side' ? undefined : pictured(copy, print)
        if (picture) layer.node.add((layer.pictures[face as 'upper' | 'lower'] = picture))
      })
      list.push(layer)
    })
    this.layers = new Layers(list)
    this.root.add(this.layers.root)
  }

  /** What is drawn, seen from above or from below, while it moves or when it rests. */
  seenFrom(above: boolean, moves: boolean) {
    this.layers?.seenFrom(above, moves)
  }

  /** Moves the layers apart, 0: not at all, 1: as far as they go; and closes them where a plane cuts them. */
  arrange(apart: number, cut: Cut | null) {
    this.apart = this.layers ? apart : 0
    const opened = !!this.layers && (apart > 0 || !!cut)
    this.closed.visible = !opened
    if (this.layers) {
      this.layers.root.visible = opened
      this.layers.arrange(apart, cut)
    }
    const up = new THREE.Matrix4()
    for (const { mesh, ids, at } of this.instances) {
      ids.forEach((id, i) => {
        const lifted = up.makeTranslation(0, 0, this.lift(this.parts.get(id)!.bottom))
        mesh.setMatrixAt(i, lifted.multiply(at[i]))
      })
      mesh.instanceMatrix.needsUpdate = true
      mesh.computeBoundingSphere()
    }
    this.close(cut)
  }
  /** Closes the bodies that a plane cuts through. */
  private close(cut: Cut | null) {
    this.caps.empty()
    if (!cut) return
    const placed = new THREE.Matrix4()
    for (const { mesh, ids } of this.instances) {
      ids.forEach((id, i) => {
        const { box } = this.parts.get(id)!
        if (box.min[cut.along] >= cut.at || box.max[cut.along] <= cut.at) return
        mesh.getMatrixAt(i, placed)
        const cap = capOf(mesh.geometry, placed, cut.along, cut.at)
        if (cap) this.caps.put(cap, mesh.material, cut)
      })
    }
  }
  /** The box around all of it as it lies now. */
  get extent(): THREE.Box3 {
    const b = this.box.clone()
    b.max.z += this.lift(false)
    b.min.z += this.lift(true)
    return b
  }
  private lift(bottom: boolean) {
    return this.apart && this.layers ? this.layers.beyond(bottom) : 0
  }

  /** What a ray may meet. */
  get targets(): THREE.Object3D[] {
    return [...this.instances.map((i) => i.mesh), this.closed.visible ? this.closed : this.layers!.root]
  }
  /** The part that was met; 0: it was none. */
  partOf(hit: THREE.Intersection): number {
    const g = this.instances.find((i) => i.mesh === hit.object)
    return g && hit.instanceId !== undefined ? g.ids[hit.instanceId] : 0
  }
  boxOf(id: number): THREE.Box3 | null {
    const p = this.parts.get(id)
    return p ? p.box.clone().translate(new THREE.Vector3(0, 0, this.lift(p.bottom))) : null
  }

  dispose() {
    this.root.traverse((x) => {
      const m = x as THREE.Mesh
      m.geometry?.dispose()
      const material = m.material as THREE.MeshLambertMaterial | undefined
      material?.map?.dispose()
      material?.dispose()
    })
  }
}

/** The edges of a box, as lines of a colour; somewhat larger than it. */
export function boxLines(box: THREE.Box3, colour: string): THREE.LineSegments {
  const size = box.getSize(new THREE.Vector3()).addScalar(0.3)
  const lines = new THREE.LineSegments(
    new THREE.EdgesGeometry(new THREE.BoxGeometry(size.x, size.y, size.z)),
    new THREE.LineBasicMaterial({ color: colour, depthTest: false }),
  )
  box.getCenter(lines.position)
  lines.renderOrder = 10
  return lines
}
