import * as THREE from 'three'
import { arcOf } from '../canvas/arcs'
import type { Corner, Solid } from '../live/wire.gen'

/** Bodies of components in space, in millimetres: x and y as on the board seen from its top, z away from it. */

const looks: Record<string, THREE.MeshStandardMaterialParameters> = {
  body: { color: '#2c2b31', roughness: 0.75 },
  lead: { color: '#cfd2d8', metalness: 0.75, roughness: 0.35 },
  ceramic: { color: '#c9b694', roughness: 0.7 },
  metal: { color: '#b9bec7', metalness: 0.8, roughness: 0.3 },
  glass: { color: '#d9e9f2', transparent: true, opacity: 0.6, roughness: 0.1 },
  band: { color: '#ece6d4', roughness: 0.6 },
  socket: { color: '#1c1b20', roughness: 0.8 },
  film: { color: '#a4503c', roughness: 0.6 },
}
const made = new Map<string, THREE.MeshStandardMaterial>()
function materialOf(name: string) {
  const key = looks[name] ? name : 'body'
  if (!made.has(key)) made.set(key, new THREE.MeshStandardMaterial(looks[key]))
  return made.get(key)!
}

/** The places along a closed line, its arcs as chords of at most a twentieth of a turn. */
export function placesAlong(edge: Corner[]): THREE.Vector2[] {
  return edge.flatMap((c, i) => {
    const to = edge[(i + 1) % edge.length]
    const k = c.mid && arcOf(c, c.mid, to)
    if (!k) return [new THREE.Vector2(c.x / 1e6, c.y / 1e6)]
    const n = Math.max(2, Math.ceil(Math.abs(k.to - k.from) / (Math.PI / 10)))
    return Array.from({ length: n }, (_, j) => {
      const a = k.from + ((k.to - k.from) * j) / n
      return new THREE.Vector2((k.x + k.r * Math.cos(a)) / 1e6, (k.y + k.r * Math.sin(a)) / 1e6)
    })
  })
}

/** One piece of a body. */
export function meshOf(s: Solid): THREE.Mesh {
  const [from, to] = [s.from / 1e6, s.to / 1e6]
  const material = materialOf(s.material)
  if (s.form === 'prism') {
    const shape = new THREE.Shape(placesAlong(s.edge ?? []))
    const mesh = new THREE.Mesh(new THREE.ExtrudeGeometry(shape, { depth: to - from, bevelEnabled: false }), material)
    mesh.position.z = from
    return mesh
  }
  const r = (to - from) / 2
  const a = new THREE.Vector3((s.a?.x ?? 0) / 1e6, (s.a?.y ?? 0) / 1e6, from + r)
  if (s.form === 'ball') {
    const mesh = new THREE.Mesh(new THREE.SphereGeometry(r, 20, 14), material)
    mesh.position.copy(a)
    return mesh
  }
  const b = new THREE.Vector3((s.b?.x ?? 0) / 1e6, (s.b?.y ?? 0) / 1e6, from + r)
  const mesh = new THREE.Mesh(new THREE.CylinderGeometry(r, r, a.distanceTo(b), 28), material)
  mesh.position.copy(a).add(b).multiplyScalar(0.5)
  mesh.quaternion.setFromUnitVectors(new THREE.Vector3(0, 1, 0), b.clone().sub(a).normalize())
  return mesh
}

/** All of a body. */
export function bodyOf(solids: Solid[]): THREE.Group {
  const g = new THREE.Group()
  for (const s of solids) g.add(meshOf(s))
  return g
}
