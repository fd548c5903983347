import { expect, test } from 'vitest'
import type { Pad } from '../../live/wire.gen'
import { padGrips, seenFrom, sizeOf } from './corners'

const square = [{ x: -10, y: -10 }, { x: 10, y: -10 }, { x: 10, y: 10 }, { x: -10, y: 10 }] // prettier-ignore
const pad = (more: object = {}) => ({ number: '1', form: 'free', at: { x: 100, y: 50 }, size: { x: 20, y: 20 }, edge: square, ...more }) as Pad // prettier-ignore

test('grips lie where the pad does, turned as it is', () => {
  const grips = padGrips(pad({ angle: 90_000 }))
  expect(grips).toHaveLength(8)
  expect(grips[0]).toEqual({ kind: 'corner', corner: 0, at: { x: 110, y: 40 } })
  expect(grips[1]).toEqual({ kind: 'side', corner: 0, at: { x: 110, y: 50 } })
  expect(padGrips(pad({ form: 'rect' }))).toHaveLength(0)
})

test('a place is seen from the pad’s middle', () => {
  expect(seenFrom(pad({ angle: 90_000 }), { x: 110, y: 40 })).toEqual({ x: -10, y: -10 })
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
