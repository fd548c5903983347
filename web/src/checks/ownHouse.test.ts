import { expect, test } from 'vitest'
import type { Kinds } from '../live/wire.gen'
import { freeName, withClass, withCopy, withLimit } from './ownHouse'

const house: Kinds['house'] = {
  id: 7,
  name: 'Mill',
  classes: [
    { name: 'Plain', price: 100, limits: { track: 200_000, hole: 300_000 } },
    { name: 'Fine', price: 180, limits: { track: 100_000, microHole: 100_000 } },
  ],
}

test('a limit is set in one class, and taken away with 0', () => {
  const finer = withClass(house, 'Fine', (c) => withLimit(c, 'track', 90_000))
  expect(finer.classes.map((c) => c.limits.track)).toEqual([200_000, 90_000])
  const without = withClass(house, 'Fine', (c) => withLimit(c, 'microHole', 0))
  expect(without.classes[1].limits).toEqual({ track: 100_000 })
  expect(house.classes[1].limits.track).toBe(100_000)
})

test('a further class stands after the one it is a copy of, under a name of its own', () => {
  const [once, name] = withCopy(house, 'Plain')
  expect(once.classes.map((c) => c.name)).toEqual(['Plain', 'Plain, other', 'Fine'])
  expect(name).toBe('Plain, other')
  const [twice, again] = withCopy(once, 'Plain')
  expect(again).toBe('Plain, other 2')
  expect(twice.classes.map((c) => c.name)).toEqual(['Plain', 'Plain, other 2', 'Plain, other', 'Fine'])
  once.classes[1].limits.track = 1
  expect(house.classes[0].limits.track).toBe(200_000)
})

test('names that are free', () => {
  expect(freeName('A', [])).toBe('A')
  expect(freeName('A', ['A', 'A 2', 'A 4'])).toBe('A 3')
})
