import * as THREE from 'three'
import { expect, test } from 'vitest'
import { bodyOf, meshOf, placesAlong } from './solids'

const boxOf = (o: THREE.Object3D) => new THREE.Box3().setFromObject(o)
const mm = (x: number, y: number) => ({ x: x * 1e6, y: y * 1e6 })

test('a prism stands where it is, from one height to the other', () => {
  const b = boxOf(
    meshOf({ form: 'prism', material: 'body', edge: [mm(-2, -1), mm(2, -1), mm(2, 1), mm(-2, 1)], from: 1e5, to: 16e5 }),
  )
  expect(b.min.toArray().map((v) => +v.toFixed(6))).toEqual([-2, -1, 0.1])
  expect(b.max.toArray().map((v) => +v.toFixed(6))).toEqual([2, 1, 1.6])
})

test('a rod lies along its line', () => {
  const b = boxOf(meshOf({ form: 'rod', material: 'glass', a: mm(-3, 0), b: mm(3, 0), from: 0, to: 2e6 }))
  expect(b.min.x).toBeCloseTo(-3)
  expect(b.max.x).toBeCloseTo(3)
  expect(b.max.z).toBeCloseTo(2)
  expect(b.max.y).toBeCloseTo(1, 1)
})

test('a ball touches both heights', () => {
  const b = boxOf(meshOf({ form: 'ball', material: 'lead', a: mm(1, 2), from: 0, to: 4e5 }))
  expect(b.min.z).toBeCloseTo(0)
  expect(b.max.z).toBeCloseTo(0.4)
  expect((b.min.x + b.max.x) / 2).toBeCloseTo(1)
})

test('a circle of two arcs stays on its circle', () => {
  const edge = [
    { ...mm(-2, 0), mid: mm(0, 2) },
    { ...mm(2, 0), mid: mm(0, -2) },
  ]
  const places = placesAlong(edge)
  expect(places.length).toBeGreaterThanOrEqual(20)
  for (const p of places) expect(p.length()).toBeCloseTo(2)
})

test('a body is all of its pieces', () => expect(bodyOf([]).children).toHaveLength(0))
