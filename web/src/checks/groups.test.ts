import { describe, expect, it } from 'vitest'
import type { Finding } from '../live/wire.gen'
import { type By, grouped } from './groups'
import { standAt, step, walked } from './walk'

const finding = (key: string, more: Partial<Finding> = {}): Finding => ({
  key,
  kind: 'clearance',
  severity: 'fault',
  text: key,
  rule: 'Clearance',
  stage: 'board',
  at: { x: 0, y: 0 },
  print: '',
  ...more,
})

const objects: Record<number, Record<string, unknown>> = {
  1: { kind: 'track', net: 10 },
  2: { kind: 'placed', designator: 'R2' },
  3: { kind: 'placed', designator: 'R10' },
}
const project = {
  get: (kind: string, id: number) => (objects[id]?.kind === kind ? objects[id] : undefined),
  kind: (id: number) => objects[id]?.kind,
  netName: (id: number | undefined) => (id === 10 ? 'GND' : ''),
} as never

const layers = [{ id: 1, name: 'Top' }]
const list = [
  finding('a', { objects: [1, 3], layer: 1, says: 'Between all: 0.2 mm', text: 'Track (GND) and pad R10.1 (+5V) touch.' }),
  finding('b', { objects: [2, 3], rule: 'Spacing of parts', kind: 'spacing' }),
  finding('links SCL', { rule: 'Every net is joined', kind: 'links', severity: 'todo', text: 'SCL is open between …' }),
  finding('c', { stage: 'circuit', place: 'Sheet 1', rule: 'Nets join pins', text: 'The net RESET has a single pin.' }),
]
const names = (by: By) => grouped(list, by, project, layers).map((g) => `${g.name}: ${g.findings.map((f) => f.key).join(' ')}`)

describe('groups of findings', () => {
  it('are by kind, rule, net, part, sheet and layer', () => {
    expect(names('kind')).toEqual(['Clearance: a', 'Every net is joined: links SCL', 'Nets join pins: c', 'Spacing of parts: b'])
    expect(names('rule')).toEqual(['Between all: 0.2 mm: a', 'Of none: b links SCL c'])
    expect(names('net')).toEqual(['+5V: a', 'GND: a', 'RESET: c', 'SCL: links SCL', 'Of none: b'])
    expect(names('part')).toEqual(['R2: b', 'R10: a b', 'Of none: links SCL c'])
    expect(names('sheet')).toEqual(['Sheet 1: c', 'Of none: a b links SCL'])
    expect(names('layer')).toEqual(['Top: a', 'Of none: b links SCL c'])
  })
})

describe('walking through findings', () => {
  const of = (...list: Finding[]) => ({ findings: new Map(list.map((f) => [f.key, f])) }) as never
  it('goes through those of the table in its order, round and round, both ways', () => {
    const p = of(...list)
    walked.value = ['b', 'gone', 'a']
    standAt('')
    expect([1, 1, 1].map(() => step(p, 1)?.key)).toEqual(['b', 'a', 'b'])
    expect(step(p, -1)?.key).toBe('a')
    standAt('b')
    expect(step(p, 1)?.key).toBe('a')
  })
  it('goes through what wants attention where no table was seen, faults first', () => {
    walked.value = []
    standAt('')
    const p = of(
      finding('n', { severity: 'note' }),
      finding('w', { severity: 'warning' }),
      finding('f'),
      finding('x', { excused: 'so' }),
    )
    expect([1, 1, 1].map(() => step(p, 1)?.key)).toEqual(['f', 'w', 'f'])
    expect(step(of(), 1)).toBeUndefined()
  })
})
