import * as THREE from 'three'
import { describe, expect, test } from 'vitest'
import { capOf } from './caps'

const unmoved = new THREE.Matrix4()
/** What a cap covers, and the middle of it. */
function measured(g: THREE.BufferGeometry | null) {
  let size = 0
  const middle = new THREE.Vector3()
  const [a, b, c] = [new THREE.Vector3(), new THREE.Vector3(), new THREE.Vector3()]
  for (let t = 0; g && t < g.index!.count; t += 3) {
    const p = g.getAttribute('position')
    ;[a, b, c].forEach((v, k) => v.fromBufferAttribute(p, g.index!.getX(t + k)))
    const part = new THREE.Triangle(a, b, c).getArea()
    size += part
    middle.addScaledVector(a.clone().add(b).add(c), part / 3)
  }
  return { size, middle: middle.divideScalar(size || 1) }
}

describe('what a plane cuts bodies in', () => {
  test('a box, across and along', () => {
    const box = new THREE.BoxGeometry(2, 3, 4)
    const x = measured(capOf(box, unmoved, 'x', 0.5))
    expect(x.size).toBeCloseTo(12, 6)
    expect(x.middle.toArray().map((v) => Number(v.toFixed(6)) + 0)).toEqual([0.5, 0, 0])
    expect(measured(capOf(box, unmoved, 'y', 1.2)).size).toBeCloseTo(8, 6)
    expect(capOf(box, unmoved, 'x', 1.001)).toBeNull()
    expect(capOf(box, unmoved, 'y', -1.6)).toBeNull()
  })

  test('where it is put, and turned', () => {
    const box = new THREE.BoxGeometry(2, 2, 2)
    const m = new THREE.Matrix4().makeRotationZ(Math.PI / 4).setPosition(10, 5, 3)
    const c = measured(capOf(box, m, 'x', 10))
    expect(c.size).toBeCloseTo(2 * Math.sqrt(8), 5) // its diagonal
    expect(c.middle.toArray().map((v) => Number(v.toFixed(4)))).toEqual([10, 5, 3])
    expect(measured(capOf(box, m, 'x', 10.7)).size).toBeCloseTo(2 * 2 * (Math.SQRT2 - 0.7), 5)
  })

  test('a ball', () => {
    const ball = new THREE.SphereGeometry(5, 96, 64)
    expect(measured(capOf(ball, unmoved, 'y', 3.01)).size / (Math.PI * (25 - 3.01 ** 2))).toBeCloseTo(1, 2)
  })

  test('a tube is open in the middle', () => {
    const ring = new THREE.Shape().absarc(0, 0, 3, 0, 2 * Math.PI)
    ring.holes.push(new THREE.Path().absarc(0, 0, 1, 0, 2 * Math.PI))
    const tube = new THREE.ExtrudeGeometry(ring, { depth: 2, bevelEnabled: false, curveSegments: 64 })
    expect(measured(capOf(tube, unmoved, 'x', 0.01)).size).toBeCloseTo(2 * 2 * 2, 1)
    const lying = new THREE.Matrix4().makeRotationY(Math.PI / 2)
    const c = measured(capOf(tube, lying, 'x', 1))
    expect(c.size / (8 * Math.PI)).toBeCloseTo(1, 2)
    expect(c.middle.y).toBeCloseTo(0, 2)
  })

  test('two bodies in one, one within a hollow of the other', () => {
    const boxes = [4, 3, 1].map((s) => new THREE.BoxGeometry(s, s, s).toNonIndexed().getAttribute('position').array)
    const all = new THREE.BufferGeometry()
    all.setAttribute('position', new THREE.Float32BufferAttribute(boxes.flatMap((a) => [...a]), 3)) // prettier-ignore
    expect(measured(capOf(all, unmoved, 'x', 0.1)).size).toBeCloseTo(16 - 9 + 1, 5)
  })

  test('what is not closed bounds nothing', () => {
    const sheet = new THREE.PlaneGeometry(2, 2)
    expect(capOf(sheet, unmoved, 'x', 0.1)).toBeNull()
  })
})
