import { expect, it } from 'vitest'
import type { Project } from '../../live/project'
import { hues, tintsOf } from './tints'

const project = (tints: object[]) =>
  ({
    all: (kind: string) =>
      kind === 'tint'
        ? tints
        : [
            { id: 1, name: 'GND', class: 'supply' },
            { id: 2, name: 'VIN', class: 'supply' },
            { id: 3, name: 'SDA' },
          ],
  }) as unknown as Project

it('gives a net its own colour before that of its class', () => {
  const tints = [
    { class: true, name: 'supply', colour: '#111111' },
    { name: 'GND', colour: '#222222' },
    { class: true, name: 'GND', colour: '#333333' },
  ]
  expect([...tintsOf(project(tints))]).toEqual([
    [1, '#222222'],
    [2, '#111111'],
  ])
  expect(tintsOf(project([])).size).toBe(0)
})
it('offers colours as the core takes them', () => {
  for (const h of hues) expect(h).toMatch(/^#[0-9a-f]{6}$/)
})
