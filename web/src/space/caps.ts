import * as THREE from 'three'
import { type Line, linesOf } from './section'

/** An upright plane at x or y of a place. */
export interface Cut {
  along: 'x' | 'y'
  at: number
  /** What lies beyond it is seen, instead of what lies before. */
  beyond: boolean
}

/** What closes what is cut. */
export class Caps extends THREE.Group {
  empty() {
    for (const c of this.children as THREE.Mesh<THREE.BufferGeometry, THREE.Material>[]) {
      c.geometry.dispose()
      c.material.dispose()
    }
    this.clear()
  }
  /** Closes what is made of a material, just on the side that stays. */
  put(face: THREE.BufferGeometry, of: THREE.Material | THREE.Material[], cut: Cut) {
    const { color } = of as THREE.MeshLambertMaterial
    const mesh = new THREE.Mesh(face, new THREE.MeshLambertMaterial({ color, side: THREE.DoubleSide }))
    mesh.position[cut.along] = cut.beyond ? -2e-3 : 2e-3
    this.add(mesh)
  }
}

/** Ends of lines that are nearer than this are one, in millimetres. */
const same = 1e-4

/**
 * What a plane cuts a closed body in, to close it where it is cut: its triangles that the plane crosses each give a line, the lines make
 * rings, and what lies within an odd number of rings is the body. Rings that do not close bound nothing. Null: the plane misses it.
 */
export function capOf(
  geometry: THREE.BufferGeometry,
  placed: THREE.Matrix4,
  along: 'x' | 'y',
  at: number,
): THREE.BufferGeometry | null {
  const rings = ringsOf(linesOf(geometry, placed, along, at))
  const out: number[] = []
  const corners: number[] = []
  for (const { outer, holes } of nested(rings)) {
    const first = out.length / 3
    for (const p of [outer, ...holes].flat()) out.push(...(along === 'x' ? [at, p.x, p.y] : [p.x, at, p.y]))
    for (const t of THREE.ShapeUtils.triangulateShape(outer, holes)) corners.push(...t.map((i) => first + i))
  }
  if (!corners.length) return null
  const g = new THREE.BufferGeometry()
  g.setAttribute('position', new THREE.Float32BufferAttribute(out, 3))
  g.setIndex(corners)
  g.computeVertexNormals()
  return g
}

/** Rings that lines make, end to end. */
function ringsOf(all: Line[]): THREE.Vector2[][] {
  const key = (p: THREE.Vector2) => `${Math.round(p.x / same)} ${Math.round(p.y / same)}`
  const lines = all.filter(([a, b]) => key(a) !== key(b))
  const ends = new Map<string, number[]>()
  lines.forEach((l, i) => l.forEach((p) => ends.set(key(p), [...(ends.get(key(p)) ?? []), i])))
  const used = new Set<number>()
  const out: THREE.Vector2[][] = []
  for (let i = 0; i < lines.length; i++) {
    if (used.has(i)) continue
    used.add(i)
    const [begin, second] = lines[i]
    const ring = [begin]
    let at = second
    while (key(at) !== key(begin)) {
      ring.push(at)
      const next = ends.get(key(at))!.find((k) => !used.has(k))
      if (next === undefined) break
      used.add(next)
      at = key(lines[next][0]) === key(at) ? lines[next][1] : lines[next][0]
    }
    if (key(at) === key(begin) && ring.length > 2) out.push(ring)
  }
  return out
}

/** Whether a ring goes around a place. */
function around(ring: THREE.Vector2[], p: THREE.Vector2): boolean {
  let odd = false
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length]
    if (a.y > p.y !== b.y > p.y && p.x < a.x + ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y)) odd = !odd
  })
  return odd
}

/** Rings as areas with their holes: a ring within an odd number of others is a hole of the least of them. */
function nested(rings: THREE.Vector2[][]): { outer: THREE.Vector2[]; holes: THREE.Vector2[][] }[] {
  const size = (r: THREE.Vector2[]) => Math.abs(THREE.ShapeUtils.area(r))
  const list = [...rings]
    .sort((a, b) => size(b) - size(a))
    .map((outer) => ({ outer, holes: [] as THREE.Vector2[][], hole: false }))
  list.forEach((r, i) => {
    const within = list.slice(0, i).filter((o) => around(o.outer, r.outer[0]))
    r.hole = within.length % 2 === 1
    if (r.hole)
      within
        .filter((o) => !o.hole)
        .at(-1)!
        .holes.push(r.outer)
  })
  return list.filter((r) => !r.hole)
}
