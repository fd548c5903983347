import * as THREE from 'three'

/**
 * What an upright plane at x or y of a place cuts a layer in: rectangles from its lower to its upper side, where the plane meets the
 * triangles of its upper side. Null: it misses the layer.
 */
export function sectionOf(upper: THREE.Mesh, lower: THREE.Mesh, along: 'x' | 'y', at: number): THREE.BufferGeometry | null {
  const [cut, flat] = along === 'x' ? [0, 1] : [1, 0]
  const place = upper.geometry.getAttribute('position')
  const corners = upper.geometry.index!
  const m = upper.matrixWorld.elements
  const coord = (i: number, k: number) => m[k] * place.getX(i) + m[4 + k] * place.getY(i) + m[8 + k] * place.getZ(i) + m[12 + k]
  const height = (mesh: THREE.Mesh) => {
    const e = mesh.matrixWorld.elements
    const i = mesh.geometry.index!.getX(0)
    const p = mesh.geometry.getAttribute('position')
    return e[2] * p.getX(i) + e[6] * p.getY(i) + e[10] * p.getZ(i) + e[14]
  }
  const [from, to] = [height(lower), height(upper)]
  const out: number[] = []
  for (let t = 0; t < corners.count; t += 3) {
    const ids = [corners.getX(t), corners.getX(t + 1), corners.getX(t + 2)]
    const far = ids.map((i) => coord(i, cut) - at)
    if (far.every((d) => d > 0) || far.every((d) => d <= 0)) continue
    const met: number[] = []
    for (let k = 0; k < 3; k++) {
      const [a, b] = [k, (k + 1) % 3]
      if (far[a] > 0 === far[b] > 0) continue
      const share = far[a] / (far[a] - far[b])
      met.push(coord(ids[a], flat) + (coord(ids[b], flat) - coord(ids[a], flat)) * share)
    }
    const [low, high] = met[0] < met[1] ? met : [met[1], met[0]]
    const put = (v: number, z: number) => out.push(...(along === 'x' ? [at, v, z] : [v, at, z]))
    for (const [v, z] of [[low, from], [high, from], [high, to], [low, from], [high, to], [low, to]]) put(v, z) // prettier-ignore
  }
  if (!out.length) return null
  const g = new THREE.BufferGeometry()
  g.setAttribute('position', new THREE.Float32BufferAttribute(out, 3))
  g.computeVertexNormals()
  return g
}
