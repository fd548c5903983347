import { describe, expect, it } from 'vitest'
import type { Pen } from '../canvas/scene'
import { circuitColours } from '../shell/tokens'
import { dots, itemsOf, markBox, marksBox, moved, play } from './marks'

/** A context that notes what is asked of it. */
function recorder() {
  const log: string[] = []
  const ctx = new Proxy({} as CanvasRenderingContext2D, {
    get: (_t, k) => (['fillStyle', 'strokeStyle', 'lineWidth'].includes(String(k)) ? '' : (...a: unknown[]) => void log.push(`${String(k)} ${a.join(' ')}`)), // prettier-ignore
    set: (_t, k, v) => (log.push(`${String(k)}=${String(v)}`), true),
  })
  const pen: Pen = { ctx, px: 0.1, text: (s, x, y, size, o) => void log.push(`text ${s} ${x} ${y} ${size} ${o?.colour}`) }
  return { log, pen }
}
const inks = { colours: circuitColours.light, pictures: null }

describe('marks from the core', () => {
  it('are drawn where they say, in millimetres', () => {
    const { log, pen } = recorder()
    play(pen, [{ p: [0, 0, 10e6, 0], s: 'wire', w: 420_000 }], inks)
    expect(log).toContain('moveTo 0 0')
    expect(log).toContain('lineTo 10 0')
    expect(log).toContain(`strokeStyle=${circuitColours.light.wire}`)
  })
  it('take one colour when they are held in the hand', () => {
    const { log, pen } = recorder()
    play(pen, [{ p: [0, 0, 9, 9], s: 'wire', w: 1 }, { t: 'R1', p: [1e6, 2e6], z: 3e6, f: 'ink' }], inks, '#123456') // prettier-ignore
    expect(log).toContain('strokeStyle=#123456')
    expect(log).toContain('text R1 1 2 3 #123456')
  })
  it('know their room', () => {
    expect(markBox({ p: [0, 0, 10e6, 5e6], w: 2e6 })).toEqual({ minX: -1e6, minY: -1e6, maxX: 11e6, maxY: 6e6 })
    const up = markBox({ t: 'ABC', p: [0, 0], z: 1e6, u: true })
    const level = markBox({ t: 'ABC', p: [0, 0], z: 1e6 })
    expect(up.maxY - up.minY).toBeCloseTo(level.maxX - level.minX)
    const right = markBox({ t: 'ABC', p: [0, 0], z: 1e6, a: 1 })
    expect(right.maxX).toBe(0)
    expect(marksBox(dots([{ x: 0, y: 0 }, { x: 9e6, y: 0 }], true))).toEqual({ minX: -1.3e6, maxX: 10.3e6, minY: -1.3e6, maxY: 1.3e6 }) // prettier-ignore
  })
  it('are moved as a whole', () => {
    expect(moved([{ p: [1, 2, 3, 4], s: 'ink' }], 10, 20)[0].p).toEqual([11, 22, 13, 24])
  })
  it('give the texts of a part by themselves, to be picked apart', () => {
    const items = itemsOf(
      { id: 5, kind: 'part', marks: [{ p: [0, 0, 1, 1], s: 'ink', w: 1 }, { t: 'R1', p: [0, 9e6], z: 3e6, k: 'designator' }] }, // prettier-ignore
      () => inks,
    )
    expect(items.map((i) => [i.layer, i.field])).toEqual([['part', undefined], ['text', 'designator']]) // prettier-ignore
  })
})
