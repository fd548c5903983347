import * as THREE from 'three'

export type Line = [THREE.Vector2, THREE.Vector2]

/** The lines in which the plane crosses triangles; in the plane to the right and up. */
export function linesOf(geometry: THREE.BufferGeometry, placed: THREE.Matrix4, along: 'x' | 'y', at: number): Line[] {
  const flat = along === 'x' ? 'y' : 'x'
  const place = geometry.getAttribute('position')
  const corners = geometry.index
  const count = corners ? corners.count : place.count
  const out: Line[] = []
  const v = [new THREE.Vector3(), new THREE.Vector3(), new THREE.Vector3()]
  for (let t = 0; t < count; t += 3) {
    v.forEach((p, k) => p.fromBufferAttribute(place, corners ? corners.getX(t + k) : t + k).applyMatrix4(placed))
    const far = v.map((p) => p[along] - at)
    if (far[0] > 0 === far[1] > 0 && far[1] > 0 === far[2] > 0) continue
    const met: THREE.Vector2[] = []
    for (let k = 0; k < 3; k++) {
      let [a, b] = [k, (k + 1) % 3]
      if (far[a] > 0 === far[b] > 0) continue
      if (far[a] > 0) [a, b] = [b, a] // a side is met at the same place by both of its triangles
      const share = far[a] / (far[a] - far[b])
      met.push(new THREE.Vector2(v[a][flat] + (v[b][flat] - v[a][flat]) * share, v[a].z + (v[b].z - v[a].z) * share))
    }
    if (met.length === 2) out.push(met as Line)
  }
  return out
}

/**
 * What an upright plane at x or y of a place cuts a layer in: rectangles from its lower to its upper side, where the plane meets the
 * triangles of its upper side. Null: it misses the layer.
 */
export function sectionOf(upper: THREE.Mesh, lower: THREE.Mesh, along: 'x' | 'y', at: number): THREE.BufferGeometry | null {
  const height = (mesh: THREE.Mesh) =>
    new THREE.Vector3()
      .fromBufferAttribute(mesh.geometry.getAttribute('position'), mesh.geometry.index!.getX(0))
      .applyMatrix4(mesh.matrixWorld).z
  const [from, to] = [height(lower), height(upper)]
  const out: number[] = []
  for (const [a, b] of linesOf(upper.geometry, upper.matrixWorld, along, at)) {
    const [low, high] = a.x < b.x ? [a.x, b.x] : [b.x, a.x]
    for (const [v, z] of [
      [low, from],
      [high, from],
      [high, to],
      [low, from],
      [high, to],
      [low, to],
    ])
      // prettier-ignore
      out.push(...(along === 'x' ? [at, v, z] : [v, at, z]))
  }
  if (!out.length) return null
  const g = new THREE.BufferGeometry()
  g.setAttribute('position', new THREE.Float32BufferAttribute(out, 3))
  g.computeVertexNormals()
  return g
}
