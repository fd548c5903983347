import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Scene } from '../canvas/scene'
import { boxOf } from '../canvas/viewport'
import type { CircuitEditor } from './editor'
import { layerOrder } from './marks'
import { blockPinAt, connects, insideCluster, pinUnder, tapEnd, textUnder, under } from './picking'
import { TapTool } from './tools/tap'
import { WireTool } from './tools/wire'

const at = (x: number, y: number) => ({ x: x * 1e6, y: y * 1e6 })

/** A sheet with a few things on it, as the editor's hands and eyes need it. */
function sheet() {
  const objects = new Map<number, { kind: string; object: Record<string, unknown> }>()
  const scene = new Scene(layerOrder)
  const put = (kind: string, id: number, object: Record<string, unknown>, box: ReturnType<typeof boxOf>) => {
    objects.set(id, { kind, object: { id, sheet: 1, ...object } })
    scene.set(id, [{ ...box, id, layer: kind, draw: () => undefined }])
  }
  const wire = (id: number, a: { x: number; y: number }, b: { x: number; y: number }, bundle = false) => put('wire', id, { a, b, bundle }, boxOf([a, b], 5e5)) // prettier-ignore
  const bundles: { name: string; members: string[]; items: number[] }[] = []
  const project = {
    find: (id: number) => objects.get(id),
    get: (kind: string, id: number) => (objects.get(id)?.kind === kind ? objects.get(id)!.object : undefined),
    standing: () => objects.values(),
    all: (kind: string) => [...objects.values()].filter((o) => o.kind === kind).map((o) => o.object),
    views: new Map([[1, { bundles }]]),
    symbolOf: () => ({ pins: [{ number: '1', name: '', at: at(-5, 0), turn: 0, length: 1 }, { number: '2', name: '', at: at(5, 0), turn: 2, length: 1 }] }), // prettier-ignore
    edit: vi.fn(() => Promise.resolve({})),
    question: vi.fn(() => new Promise(() => undefined)),
  }
  const ed = {
    project,
    scene,
    sheet: 1,
    path: '',
    state: { tool: 'wire', warning: '' },
    run: vi.fn(() => Promise.resolve({})),
    redraw: () => undefined,
    at: at(0, 0),
    bundleOf: (id: number) => bundles.find((b) => b.items.includes(id)),
  }
  return {
    ed: ed as unknown as CircuitEditor,
    run: ed.run,
    edit: project.edit,
    question: project.question as ReturnType<typeof vi.fn>,
    put,
    wire,
    bundles,
  }
}

describe('the hand that draws wires', () => {
  let s: ReturnType<typeof sheet>
  let hand: WireTool
  const press = (x: number, y: number) => (Object.assign(s.ed, { at: at(x, y) }), hand.down())
  beforeEach(() => {
    s = sheet()
    hand = new WireTool(s.ed)
  })
  it('draws the way that the core found, and bends by itself until it is there', async () => {
    hand.path = [at(0, 0)]
    Object.assign(s.ed, { at: at(20, 10) })
    expect(hand.way(at(20, 10))).toEqual([at(0, 0), at(20, 0), at(20, 10)])
    s.question.mockResolvedValue({ way: [at(0, 0), at(0, 10), at(20, 10)], foreseen: { say: 'This would join A and B.' } })
    hand.ahead()
    await new Promise((done) => setTimeout(done))
    expect(s.question).toHaveBeenCalledWith('wire', expect.objectContaining({ points: [at(0, 0)], to: at(20, 10), lead: '' }))
    expect(hand.way(at(20, 10))).toEqual([at(0, 0), at(0, 10), at(20, 10)])
    expect(s.ed.state.warning).toBe('This would join A and B.')
    expect(hand.way(at(30, 10)), 'the answer holds for its place alone').toEqual([at(0, 0), at(30, 0), at(30, 10)])
    hand.state.freeAngle = true
    expect(hand.way(at(30, 10))).toEqual([at(0, 0), at(30, 10)])
  })
  it('asks for the way the hand set out in, and for the one that was chosen', () => {
    hand.path = [at(0, 0)]
    Object.assign(s.ed, { at: at(0, 2.5) })
    hand.ahead()
    Object.assign(s.ed, { at: at(20, 10) })
    hand.ahead()
    hand.state.lead = 'level'
    hand.ahead()
    const leads = s.question.mock.calls.map((c: unknown[]) => (c[1] as { lead: string }).lead)
    expect(leads[0]).toBe('upright')
  })
  it('ends on a wire by itself, and where it is told to in the open', () => {
    s.wire(5, at(20, -10), at(20, 10))
    press(0, 0)
    press(10, 0)
    expect(s.edit).not.toHaveBeenCalled()
    press(20, 0)
    expect(s.edit).toHaveBeenCalledWith(
      'drawWire',
      { sheet: 1, path: [at(0, 0), at(10, 0), at(20, 0)], bundle: false },
      undefined,
    )
    press(40, 0)
    press(50, 0)
    hand.finish()
    expect(s.edit).toHaveBeenCalledTimes(2)
  })
  it('takes no way to be set out in before the hand went one', () => {
    hand.path = [at(0, 0)]
    Object.assign(s.ed, { at: at(2.5, 2.5) })
    hand.ahead()
    Object.assign(s.ed, { at: at(2.5, 0) })
    hand.ahead()
    const leads = s.question.mock.calls.map((c: unknown[]) => (c[1] as { lead: string }).lead)
    expect(leads).toEqual(['']) // the second waits for the first to be answered
    expect((hand as unknown as { level: boolean | null }).level).toBe(true)
  })
  it('does not take an answer for the corner before', async () => {
    hand.path = [at(0, 0)]
    Object.assign(s.ed, { at: at(20, 10) })
    s.question.mockResolvedValue({ way: [at(0, 0), at(0, 10), at(20, 10)], foreseen: { say: 'This would join A and B.' } })
    hand.ahead()
    hand.path.push(at(5, 0))
    await new Promise((done) => setTimeout(done))
    expect(s.ed.state.warning).toBe('')
    hand.path = [at(0, 0)]
    expect(hand.way(at(20, 10))).toEqual([at(0, 0), at(20, 0), at(20, 10)])
  })
  it('bends the other way by a key, and back', () => {
    Object.assign(s.ed, { back: () => hand.back() })
    expect([hand.key('Tab'), hand.key('Backspace'), hand.key('Q')]).toEqual([false, false, false])
    press(0, 0)
    Object.assign(s.ed, { at: at(20, 10) })
    expect(hand.way(at(20, 10))[1]).toEqual(at(20, 0)) // level first
    expect(hand.key('Tab')).toBe(true)
    expect(hand.state.lead).toBe('upright')
    hand.key('Space')
    expect(hand.state.lead).toBe('level')
    hand.key('Tab')
    expect(hand.state.lead).toBe('upright')
    expect(hand.key('A')).toBe(true)
    expect(hand.state.freeAngle).toBe(true)
    expect(hand.key('Backspace')).toBe(true)
    expect(hand.path).toEqual([])
  })
  it('steps back corner by corner', () => {
    press(0, 0)
    press(10, 0)
    expect(hand.back()).toBe(true)
    expect(hand.back()).toBe(true)
    expect(hand.back()).toBe(false)
  })
  it('does not end a wire on a bundle, nor a bundle on a wire', () => {
    s.wire(5, at(20, -10), at(20, 10), true)
    expect(connects(s.ed, at(20, 0), false)).toBe(false)
    expect(connects(s.ed, at(20, 0), true)).toBe(true)
  })
})

describe('taps', () => {
  it('take the next member that no tap takes, or all that are left at once', () => {
    const s = sheet()
    const hand = new TapTool(s.ed)
    s.wire(5, at(0, 0), at(0, 50), true)
    s.put('tap', 6, { member: 'D3', at: at(0, 10), turn: 0 }, boxOf([at(0, 10)], 3e6))
    s.bundles.push({ name: 'D[3:0]', members: ['D3', 'D2', 'D1', 'D0'], items: [5, 6] })
    expect(hand.plan(at(0, 20)).members).toEqual(['D2'])
    hand.state.all = true
    const plan = hand.plan(at(0, 20))
    expect(plan.members).toEqual(['D2', 'D1', 'D0'])
    expect(plan.step).toEqual({ x: 0, y: -2.5e6 })
    expect(plan.wire.x).toBeGreaterThan(0)
    hand.state.turn = 1
    expect(hand.plan(at(0, 20)).wire.x).toBeLessThan(0) // leaning left, the wires go left
    hand.state.member = 'CLK'
    expect(hand.plan(at(0, 20)).members).toEqual(['CLK'])
    Object.assign(s.ed, { at: at(90, 90) })
    hand.down()
    expect(s.edit).toHaveBeenCalledWith('placeTaps', expect.objectContaining({ members: ['CLK'] }))
  })
  it('end one step away each way, as in the core', () => {
    expect([0, 1, 2, 3].map((turn) => tapEnd({ at: at(0, 0), turn }))).toEqual([at(2.5, 2.5), at(-2.5, 2.5), at(-2.5, -2.5), at(2.5, -2.5)]) // prettier-ignore
  })
})

describe('what lies under the hand', () => {
  it('is the part before its wire, and a frame only at its edge', () => {
    const s = sheet()
    s.put('part', 7, { library: 'R', at: at(50, 50), turn: 0 }, boxOf([at(45, 48), at(55, 52)]))
    s.put('cluster', 8, { title: 'C', a: at(20, 20), b: at(80, 80), tint: 'sky' }, boxOf([at(20, 20), at(80, 85)]))
    expect(under(s.ed, at(50, 50), 1e6)).toEqual([7])
    expect(under(s.ed, at(30, 30), 1e6)).toEqual([])
    expect(under(s.ed, at(20.5, 40), 1e6)).toEqual([8])
    expect(under(s.ed, at(22, 83), 1e6)).toEqual([8]) // its tab
    expect(textUnder(s.ed, at(22, 83))?.value).toBe('C')
  })
  it('is a pin where wires meet it', () => {
    const s = sheet()
    s.put('part', 7, { library: 'R', at: at(50, 50), turn: 1 }, boxOf([at(48, 45), at(52, 55)]))
    expect(pinUnder(s.ed, at(50.4, 55), 1e6)).toEqual({ part: 7, pin: '2', at: at(50, 55) })
    s.put('block', 9, { at: at(100, 0), size: at(40, 20), pins: [{ name: 'OUT', way: 'out', side: 0, pos: 5e6 }] }, boxOf([at(100, 0), at(140, 20)])) // prettier-ignore
    expect(pinUnder(s.ed, at(140, 5), 1e6)?.pin).toBe('OUT')
    const b = { id: 9, sheet: 1, name: 'K', of: 2, at: at(100, 0), size: at(40, 20), pins: [] }
    expect([0, 1, 2, 3].map((side) => blockPinAt(b, { name: 'x', way: 'in', side, pos: 5e6 }))).toEqual([at(140, 5), at(105, 20), at(100, 5), at(105, 0)]) // prettier-ignore
  })
  it('belongs to a cluster when it lies inside, wires with both ends', () => {
    const s = sheet()
    s.put('part', 7, { at: at(50, 50) }, boxOf([at(50, 50)]))
    s.put('part', 10, { at: at(90, 50) }, boxOf([at(90, 50)]))
    s.wire(11, at(30, 30), at(40, 30))
    s.wire(12, at(30, 30), at(90, 30))
    const cluster = { id: 8, sheet: 1, title: 'C', a: at(80, 20), b: at(20, 80), tint: 'sky' }
    expect(insideCluster(s.ed, cluster).sort()).toEqual([11, 7])
  })
})
