import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Boxed, Delta, Filled } from '../live/wire.gen'
import { shown } from '../shell/notices'
import { settle, surroundings } from '../testing/program'
import { at, board, net, onBoard, placed } from '../testing/board'
import { apart, filledAt, fillsAt, TileIds } from './pours'

const mm = 1_000_000
const cmd = (m: unknown) => (m as { cmd: Record<string, unknown> }).cmd
beforeEach(() => void surroundings())
afterEach(() => vi.unstubAllGlobals())

const square = (x: number, y: number, w: number) => [x, y, x + w, y, x + w, y + w, x, y + w].map((v) => v * mm)
/** The tile from 5 mm on, filled from 6 to 9 mm but for a hole of 1 mm. */
const tile = (more: Partial<Filled> = {}): Filled => ({ pour: 31, layer: 1, x: 1, y: 1, lines: [square(6, 6, 3), square(7, 7, 1)], ...more }) // prettier-ignore
const pour = (layers = [1]) => ({ kind: 'pour', object: { id: 31, name: 'Ground', net: net('GND'), layers } }) as unknown as Boxed

describe('what copper areas fill', () => {
  it('is what an odd number of lines surround', () => {
    expect(fillsAt(tile(), at(6.5, 6.5))).toBe(true)
    expect(fillsAt(tile(), at(7.5, 7.5))).toBe(false) // in the hole
    expect(fillsAt(tile(), at(8.5, 7.5))).toBe(true)
    expect(fillsAt(tile(), at(5.5, 7.5))).toBe(false)
    expect(fillsAt(tile({ lines: [] }), at(6.5, 6.5))).toBe(false)
  })
  it('is told apart by the nets that have areas on a layer', async () => {
    const of = (id: number, name: string, layers: number[]) =>
      ({ kind: 'pour', object: { id, name, net: net(name), layers } }) as unknown as Boxed
    const { project } = await onBoard([
      board(2),
      of(31, 'GND', [1, 2]),
      of(32, '+5V', [1]),
      of(33, 'GND', [1]),
      of(34, '+5V', [2]),
    ])
    expect([31, 32, 33].map((id) => apart(project, id, 1))).toEqual([0, 1, 0])
    expect([31, 34].map((id) => apart(project, id, 2))).toEqual([0, 1])
    expect(apart(project, 99, 1)).toBe(0)
  })
  it('is found by its tile, and gives a track its net where no other copper lies', async () => {
    const { ed, project } = await onBoard([board(2), pour(), placed(11, 20, 20)])
    project.filled.set('31 1 1 1', tile())
    expect(filledAt(project, at(6.5, 6.5)).map((f) => f.pour)).toEqual([31])
    expect(filledAt(project, at(4.5, 6.5))).toEqual([])
    expect(ed.touched(at(6.5, 6.5), 100_000)).toMatchObject({ id: 31, net: net('GND'), layers: [1], name: 'copper area' })
    expect(ed.touched(at(7.5, 7.5), 100_000)).toBeNull()
    ed.state.hidden = [1]
    expect(ed.touched(at(6.5, 6.5), 100_000)).toBeNull()
  })
  it('stands in the scene below the copper of its layer, and goes when a tile is empty', async () => {
    const { ed } = await onBoard([board(2), pour()])
    ed.derived({ filled: [tile()] } as unknown as Delta)
    expect(ed.scene.holds('fill-1')).toBe(true)
    expect(ed.scene.order('fill-1')).toBeLessThan(ed.scene.order('copper-1'))
    expect(ed.scene.order('fill-1')).toBeGreaterThan(ed.scene.order('copper-2'))
    ed.derived({ filled: [tile({ lines: [] })] } as unknown as Delta)
    expect(ed.scene.holds('fill-1')).toBe(false)
  })
  it('is of teardrops copper among tracks, wherever their tile ends', async () => {
    const { ed } = await onBoard([board(2)])
    const drops = tile({ pour: 0, lines: [square(9, 9, 2)], nets: [net('GND')] })
    ed.derived({ filled: [drops] } as unknown as Delta)
    expect(ed.scene.holds('copper-1')).toBe(true)
    expect(ed.scene.holds('fill-1')).toBe(false)
    expect(ed.touched(at(10.5, 10.5), 100_000)).toBeNull()
  })
  it('has an id of its own by area, layer and place', () => {
    const ids = new TileIds()
    const all = [tile(), tile({ x: 2 }), tile({ y: 2 }), tile({ layer: 2 }), tile({ pour: 32 })].map((f) => ids.of(f))
    expect(new Set(all).size).toBe(5)
    expect(all.every((id) => id < 0)).toBe(true) // which no object has
    expect(ids.of(tile())).toBe(all[0])
  })
  it('is drawn full, hatched and as edges, one after the other', async () => {
    const { ed } = await onBoard([board(2)])
    const seen = [ed.taste.fills]
    for (let i = 0; i < 3; i++) {
      ed.otherFills()
      seen.push(ed.taste.fills)
    }
    expect(seen).toEqual(['full', 'hatch', 'edges', 'full'])
  })
})

describe('the tool for copper areas', () => {
  it('takes the net that most pads bear, or the one that is lit, on the layer in work', async () => {
    const { ed, project, line } = await onBoard([
      board(2),
      placed(11, 0, 0),
      placed(12, 9, 0, { nets: { 1: net('GND'), 2: net('GND') } }),
    ])
    const tool = ed.tools.find((t) => t.id === 'pour')!
    const press = (text: string) =>
      (tool.strip!().find((f) => f.as === 'press' && f.text === text) as { press: () => void }).press()
    press('Whole board')
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'putPour', pour: { id: 0, net: net('GND'), layers: [1] } })
    project.lit.value = 'VIN'
    ed.selection.add(12)
    press('Around what is picked')
    // the courtyard and 1 mm around it, on the grid
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'putPour', pour: { net: net('VIN'), outline: [at(5, -2), at(13, -2), at(13, 2), at(5, 2)] } }) // prettier-ignore
  })
})

describe('a line that closes', () => {
  it('is in the hand again when what it bounds is refused, with the sentence why', async () => {
    const { ed, line } = await onBoard([board(2), placed(11, 0, 0, { nets: { 1: net('GND') } })])
    const tool = ed.tools.find((t) => t.id === 'area')! as unknown as { state: { form: string }; way: { x: number; y: number }[] }
    ed.take('area')
    tool.state.form = 'free'
    const corners = [at(0, 0), at(5, 0), at(5, 5)]
    for (const c of corners) ed.down(c, 100_000)
    ed.key('Enter')
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'putArea', area: { outline: corners } })
    expect(tool.way).toEqual([])
    line.answer('edit', { t: 'refused', why: 'its edge crosses itself' })
    await settle()
    expect(tool.way).toEqual(corners)
    expect(shown.value?.text).toBe('its edge crosses itself')
  })
})

describe('a copper area that is begun', () => {
  it('is of a ground where there is one, else of the net that most pads bear', async () => {
    const supply = (id: number, name: string, shape: string) =>
      ({ kind: 'supply', object: { id, sheet: 1, name, shape, at: at(0, 0), turn: 0 } }) as unknown as Boxed
    const nets = { '1': net('SDA'), '2': net('SDA'), '3': net('GND') }
    const begun = async (...supplies: Boxed[]) => {
      const { ed } = await onBoard([board(2), placed(11, 0, 0, { nets }), ...supplies])
      ed.take('pour')
      return ed.tool.strip!().find((f) => 'label' in f && f.label === 'Net') as { value: unknown }
    }
    expect((await begun()).value).toBe(net('SDA'))
    expect((await begun(supply(71, 'GND', 'bar'))).value).toBe(net('SDA'))
    expect((await begun(supply(71, 'GND', 'ground'))).value).toBe(net('GND'))
  })
})
