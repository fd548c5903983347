import { expect, test } from 'vitest'
import type { Pad } from '../../live/wire.gen'
import { gripsOf, led, seenFrom, sizeOf, without } from './corners'

const square = [{ x: -10, y: -10 }, { x: 10, y: -10 }, { x: 10, y: 10 }, { x: -10, y: 10 }] // prettier-ignore
const pad = (more: object = {}) => ({ number: '1', form: 'free', at: { x: 100, y: 50 }, size: { x: 20, y: 20 }, edge: square, ...more }) as Pad // prettier-ignore

test('grips lie where the pad does, turned as it is', () => {
  const grips = gripsOf(pad({ angle: 90_000 }))
  expect(grips).toHaveLength(8)
  expect(grips[0]).toEqual({ kind: 'corner', corner: 0, at: { x: 110, y: 40 } })
  expect(grips[1]).toEqual({ kind: 'side', corner: 0, at: { x: 110, y: 50 } })
  expect(gripsOf(pad({ form: 'rect' }))).toHaveLength(0)
})

test('a place is seen from the pad’s middle', () => {
  expect(seenFrom(pad({ angle: 90_000 }), { x: 110, y: 40 })).toEqual({ x: -10, y: -10 })
})

test('a corner is led, a side is broken or bent', () => {
  const grips = gripsOf(pad())
  expect(led(square, grips[2], { x: 15, y: -12 }, false)[1]).toEqual({ x: 15, y: -12 })
  const broken = led(square, grips[1], { x: 0, y: -20 }, false)
  expect(broken).toHaveLength(5)
  expect(broken[1]).toEqual({ x: 0, y: -20 })
  const bent = led(square, grips[1], { x: 0, y: -20 }, true)
  expect(bent).toHaveLength(4)
  expect(bent[0].mid).toEqual({ x: 0, y: -20 })
  expect(square[0]).toEqual({ x: -10, y: -10 })
})

test('an arc follows the corner at its end halfway', () => {
  const bent = led(square, gripsOf(pad())[1], { x: 0, y: -20 }, true)
  const moved = led(bent, gripsOf(pad({ edge: bent }))[2], { x: 20, y: -10 }, false)
  expect(moved[0].mid).toEqual({ x: 5, y: -20 })
})

test('three corners stay', () => {
  expect(without(square, 1)).toHaveLength(3)
  expect(without(without(square, 1), 0)).toHaveLength(3)
})

test('the size is that of the edge with its arcs', () => {
  expect(
    sizeOf([
      { x: -10, y: 0, mid: { x: 0, y: 30 } },
      { x: 10, y: 0 },
      { x: 0, y: -5 },
    ]),
  ).toEqual({ x: 20, y: 35 })
})
