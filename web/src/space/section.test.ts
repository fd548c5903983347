import * as THREE from 'three'
import { describe, expect, it } from 'vitest'
import { sectionOf } from './section'

/** A flat rectangle at a height, as two triangles. */
function sheet(x0: number, y0: number, x1: number, y1: number, z: number) {
  const g = new THREE.BufferGeometry()
  g.setAttribute('position', new THREE.Float32BufferAttribute([x0, y0, z, x1, y0, z, x1, y1, z, x0, y1, z], 3))
  g.setIndex([0, 1, 2, 0, 2, 3])
  return new THREE.Mesh(g)
}
/** How large an upright face is, over the axis that is not cut. */
function area(g: THREE.BufferGeometry) {
  const p = g.getAttribute('position')
  let sum = 0
  for (let i = 0; i < p.count; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => new THREE.Vector3().fromBufferAttribute(p, i + k))
    sum += b.sub(a).cross(c.sub(a)).length() / 2
  }
  return sum
}

describe('a layer cut through', () => {
  it('shows as high and as wide as it is there', () => {
    const [upper, lower] = [sheet(0, 0, 10, 4, -0.5), sheet(0, 0, 10, 4, -2)]
    const across = sectionOf(upper, lower, 'x', 3)!
    expect(area(across)).toBeCloseTo(4 * 1.5)
    across.computeBoundingBox()
    expect(across.boundingBox!.min.toArray()).toEqual([3, 0, -2])
    expect(across.boundingBox!.max.toArray()).toEqual([3, 4, -0.5])
    expect(area(sectionOf(upper, lower, 'y', 1)!)).toBeCloseTo(10 * 1.5)
  })
  it('shows nothing where the plane misses it', () => {
    expect(sectionOf(sheet(0, 0, 10, 4, 0), sheet(0, 0, 10, 4, -1), 'x', 12)).toBeNull()
  })
  it('goes by where the layer is put', () => {
    const [upper, lower] = [sheet(0, 0, 10, 4, 0), sheet(0, 0, 10, 4, -1)]
    for (const m of [upper, lower]) {
      m.position.set(20, 0, 5)
      m.updateMatrixWorld(true)
    }
    expect(sectionOf(upper, lower, 'x', 3)).toBeNull()
    const cut = sectionOf(upper, lower, 'x', 25)!
    cut.computeBoundingBox()
    expect(cut.boundingBox!.max.z).toBeCloseTo(5)
  })
})
