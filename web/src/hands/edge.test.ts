import { expect, test } from 'vitest'
import { gripsOf, led, without } from './edge'

const square = [{ x: -10, y: -10 }, { x: 10, y: -10 }, { x: 10, y: 10 }, { x: -10, y: 10 }] // prettier-ignore

test('a corner is led, a side is broken or bent', () => {
  const grips = gripsOf(square)
  expect(led(square, grips[2], { x: 15, y: -12 }, false)[1]).toEqual({ x: 15, y: -12 })
  const broken = led(square, grips[1], { x: 0, y: -20 }, false)
  expect(broken).toHaveLength(5)
  expect(broken[1]).toEqual({ x: 0, y: -20 })
  const bent = led(square, grips[1], { x: 0, y: -20 }, true)
  expect(bent).toHaveLength(4)
  expect(bent[0].mid).toEqual({ x: 0, y: -20 })
  expect(square[0]).toEqual({ x: -10, y: -10 })
})

test('an arc keeps its form when a corner at its end goes: it is turned and stretched with its chord', () => {
  const half = led(square, gripsOf(square)[1], { x: 0, y: -20 }, true) // half a circle below
  const wide = led(half, gripsOf(half)[2], { x: 30, y: -10 }, false)
  expect(wide[0].mid).toEqual({ x: 10, y: -30 }) // the chord is twice as long, and so is its height
  const upright = led(half, gripsOf(half)[2], { x: -10, y: 10 }, false) // the chord goes up now
  expect(upright[0].mid).toEqual({ x: 0, y: 0 })
})

test('three corners stay', () => {
  expect(without(square, 1)).toHaveLength(3)
  expect(without(without(square, 1), 0)).toHaveLength(3)
})
