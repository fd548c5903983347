import { describe, expect, it } from 'vitest'
import type { Project } from '../live/project'
import type { Difference, Finding } from '../live/wire.gen'
import { apartOf } from './against'

const placed = [
  { id: 11, part: 1, designator: 'R1', nets: { '1': 50 } },
  { id: 12, part: 2, designator: 'C7', nets: { '1': 51 } },
]
const project = {
  all: () => placed,
  named: (_: string, name: string) => (name === 'OLD' ? { id: 51 } : undefined),
  find: (id: number) => ({ kind: id < 20 ? 'placed' : 'track', object: placed.find((p) => p.id === id) }),
  netName: () => 'VIN',
  links: new Map([[50, [{ a: { x: 0, y: 0 }, b: { x: 1, y: 1 }, fromName: 'track', toName: 'pad R1.2' }]]]),
  findingList: {
    value: [
      { key: 'clearance 30 12', kind: 'clearance', text: 'They touch.', measured: 0, objects: [30, 12] },
      { key: 'clearance 30 11', kind: 'clearance', text: 'They are near.', measured: 100, objects: [30, 11] },
      { key: 'clearance 31 11', kind: 'clearance', text: 'They touch.', excused: 'so meant', objects: [31, 11] },
    ] as Partial<Finding>[],
  },
} as unknown as Project

describe('circuit against board', () => {
  const differences: Difference[] = [
    { key: 'add 1', kind: 'add', text: 'R1 is new.', part: 1 },
    { key: 'rename OLD', kind: 'rename', text: 'OLD is called NEW now.', from: 'OLD', to: 'NEW' },
  ]
  const list = apartOf(project, differences)
  it('lists what carrying changes, joints that are missing and nets that touch', () => {
    expect(list.map((a) => [a.key, a.group])).toEqual([
      ['add 1', 'Parts'],
      ['rename OLD', 'Nets'],
      ['link 50 0', 'Joints missing'],
      ['clearance 30 12', 'Joints too many'],
    ])
  })
  it('says where they lie: a net at a part that bears it, a joint at the part of its pad', () => {
    expect(list[1]).toMatchObject({ part: 2, on: 12 })
    expect(list[2]).toMatchObject({ part: 1, on: 11, link: { net: 50 } })
    expect(list[3]).toMatchObject({ part: 2, on: 12 })
  })
})
