import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { notices } from '../shell/notices'
import { at, board, onBoard, placed, track, via, net } from '../testing/board'
import { settle, surroundings } from '../testing/program'

const tolerance = 100_000
const plain = { shiftKey: false, altKey: false }
beforeEach(() => {
  vi.useFakeTimers()
  surroundings()
  notices.splice(0)
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const cmd = (s: Record<string, unknown>) => s.cmd as Record<string, unknown>

describe('pulling copper', () => {
  it('slides a piece from its middle line to the grid, and says why it stops', async () => {
    const { ed, line } = await onBoard([board(2), track(13, 0, [0, 9], [8, 9])])
    ed.down(at(3, 9.1), tolerance, plain)
    ed.move(at(3.02, 9.1), tolerance)
    expect(line.sent).toEqual([]) // the hand only trembled
    ed.move(at(3.2, 11.3), tolerance)
    const asks = { id: 13, from: at(3, 9), to: at(3, 11), corner: false, aside: false }
    expect(line.asked('pull')).toMatchObject(asks)
    line.say('pull', { moved: [{ ids: [13], layer: 1, width: 500_000, path: [at(0, 9), at(2, 11), at(6, 11), at(8, 9)] }], blocked: { name: 'a hole', at: at(3, 12) } }) // prettier-ignore
    await settle()
    expect(ed.state.warning).toBe('Stopped before a hole.')
    expect(ed.scene.within({ minX: 0, minY: 0, maxX: 1e8, maxY: 1e8 }).some((i) => i.id === 13)).toBe(false)
    ed.up(at(3.2, 11.3))
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'pullTrack', ...asks })
    line.answer('edit', { t: 'done' })
    await settle()
    expect(ed.grab).toBeNull()
    expect(ed.state.warning).toBe('')
    expect(ed.scene.within({ minX: 0, minY: 0, maxX: 1e8, maxY: 1e8 }).some((i) => i.id === 13)).toBe(true)
  })
  it('pulls a corner out with Alt, a via by itself, with others making way where the track tool has it so', async () => {
    const { ed, line } = await onBoard([board(2), track(13, 0, [0, 9], [8, 9]), via(14, 20, 9, 0, 1)])
    ed.track.state.manner = 'aside'
    ed.down(at(3, 9), tolerance, { ...plain, altKey: true })
    ed.move(at(3, 12), tolerance)
    expect(line.asked('pull')).toMatchObject({ id: 13, corner: true, aside: true })
    expect(ed.back()).toBe(true)
    ed.up(at(3, 12))
    expect(line.sent.filter((s) => s.t === 'edit')).toEqual([])
    ed.down(at(20, 9), tolerance, plain)
    ed.move(at(22.2, 9), tolerance)
    ed.up(at(22.2, 9))
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'pullVia', id: 14, to: at(22, 9), aside: true })
  })
  it('is what was picked, with Alt as well, whatever lies beneath', async () => {
    const { ed, line } = await onBoard([board(2), placed(11, 0, 0), track(13, 0, [-5, 0], [5, 0])])
    ed.pickOnly([13])
    ed.down(at(0, 0), tolerance, { ...plain, altKey: true })
    expect([...ed.selection]).toEqual([13])
    ed.move(at(0, 2), tolerance, { ...plain, altKey: true })
    expect([...ed.selection]).toEqual([13])
    expect(line.asked('pull')).toMatchObject({ id: 13, corner: true })
    expect(line.sent.filter((x) => (x.question as { kind?: string })?.kind === 'drag')).toEqual([])
    ed.up(at(0, 2))
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'pullTrack', id: 13 })
  })
  it('leaves what is locked', async () => {
    const locked = track(13, 0, [0, 9], [8, 9])
    Object.assign(locked.object!, { locked: true })
    const { ed, line } = await onBoard([board(2), locked])
    ed.down(at(3, 9), tolerance, plain)
    ed.move(at(3, 12), tolerance)
    ed.up(at(3, 12))
    expect(line.sent).toEqual([])
  })
})

describe('a track under the hand', () => {
  const things = [board(2), placed(11, 0, 0), placed(12, 20, 0), via(14, 0, 20, 0, 1, 'SDA'), placed(16, 40, 0, { nets: {} })]
  const begin = async () => {
    const all = await onBoard(things)
    all.ed.take('track')
    all.ed.down(at(-2, 0), tolerance, plain)
    return all
  }
  const path = (...pts: [number, number][]) => pts.map((p) => at(...p))
  const reach = async (line: Awaited<ReturnType<typeof onBoard>>['line'], pts: [number, number][], more: object = {}) => {
    line.say('track', { runs: [{ layer: 1, width: 250_000, path: path(...pts) }], width: 250_000, length: 5e6, ...more })
    await settle()
  }
  it('begins on copper of a net only', async () => {
    const { ed } = await onBoard(things)
    ed.take('track')
    ed.down(at(5, 5), tolerance, plain)
    expect(notices.map((n) => n.text)).toEqual(['Begin on a pad, a via or a track.'])
    ed.down(at(38, 0), tolerance, plain)
    expect(notices.map((n) => n.text)).toContain('Pad R16.1 belongs to no net, so no track can begin there.')
    expect(ed.track.route).toBeNull()
    ed.down(at(-2, 0), tolerance, plain)
    expect(ed.track.route).toMatchObject({ net: net('VIN'), runs: [{ layer: 1, path: [at(-2, 0)] }] })
    expect(ed.project.lit.value).toBe('VIN')
  })
  it('follows the hand and says where it stops', async () => {
    const { ed, line } = await begin()
    ed.move(at(6.2, 5), tolerance)
    expect(line.asked('track')).toMatchObject({ from: at(-2, 0), to: at(6, 5), layer: 1, net: net('VIN'), style: 'straightFirst' }) // prettier-ignore
    await reach(line, [[-2, 0], [6, 5]], { blocked: { name: 'pad R11.2', net: 'GND', at: at(2, 0) } }) // prettier-ignore
    expect(ed.track.state.blocked).toBe('Stopped before pad R11.2 of GND.')
    ed.track.nextStyle()
    expect(line.asked('track').style).toBe('diagonalFirst')
  })
  it('is kept when it lands on copper of its own net, corner for corner', async () => {
    const { ed, line } = await begin()
    ed.move(at(6, 5), tolerance)
    await reach(line, [[-2, 0], [6, 5]]) // prettier-ignore
    ed.down(at(6, 5), tolerance, plain)
    expect(line.asked('track').to).toEqual(at(6, 5))
    await reach(line, [[-2, 0], [1, 0], [6, 5]]) // prettier-ignore
    expect(line.sent.filter((s) => s.t === 'edit')).toEqual([])
    ed.move(at(17.8, 0.1), tolerance)
    await reach(line, [[6, 5], [18, 0]]) // prettier-ignore
    await reach(line, [[6, 5], [18, 0]]) // prettier-ignore
    ed.down(at(17.8, 0.1), tolerance, plain)
    expect(line.asked('track').to).toEqual(at(18, 0)) // the pad's middle
    await reach(line, [[6, 5], [18, 5], [18, 0]]) // prettier-ignore
    expect(cmd(line.lastOf('edit'))).toMatchObject({
      kind: 'drawTrack',
      net: net('VIN'),
      runs: [{ layer: 1, path: path([-2, 0], [1, 0], [6, 5], [18, 5], [18, 0]) }],
    })
    expect(ed.track.route).toBeNull()
  })
  it('has a track that was refused in the hand again, as it was drawn', async () => {
    const { ed, line } = await begin()
    ed.move(at(6, 5), tolerance)
    ed.down(at(6, 5), tolerance, plain)
    await reach(line, [[-2, 0], [1, 0], [6, 5]]) // prettier-ignore
    await reach(line, [[6, 5]]) // prettier-ignore
    const drawn = ed.track.route!
    ed.track.finish()
    expect(ed.track.route).toBeNull()
    expect([...ed.track.laid]).toEqual([drawn])
    line.answer('edit', { t: 'refused', why: 'it would touch a track of GND' })
    await settle()
    expect(ed.track.laid.size).toBe(0)
    expect(ed.track.route).toBe(drawn)
    expect(drawn.runs[0].path).toEqual(path([-2, 0], [1, 0], [6, 5]))
    expect(ed.track.state.routing).toBe('VIN')
  })
  it('goes on from what made way when the rest is sought, and lays it as it was shown', async () => {
    const { ed, line } = await begin()
    ed.track.state.manner = 'aside'
    ed.move(at(6, 5), tolerance)
    ed.down(at(6, 5), tolerance, plain)
    await reach(line, [[-2, 0], [1, 0], [6, 5]]) // prettier-ignore
    void ed.track.complete()
    expect(line.asked('finish')).toMatchObject({
      from: at(6, 5),
      manner: 'aside',
      done: [{ layer: 1, path: path([-2, 0], [1, 0], [6, 5]) }],
    })
    const rest = [{ layer: 1, path: path([6, 5], [18, 0]) }]
    line.say('finish', { runs: rest, length: 13e6, hops: 0 })
    await settle()
    ed.track.finish()
    expect(cmd(line.lastOf('edit'))).toMatchObject({
      kind: 'drawTrack',
      aside: true,
      runs: [{ path: path([-2, 0], [1, 0], [6, 5]) }],
      sought: rest,
    })
  })
  it('does not end on copper of another net', async () => {
    const { ed, line } = await begin()
    ed.move(at(0, 20), tolerance)
    expect(ed.track.target).toBeNull()
    expect(ed.state.hovered).toBe(14)
    await reach(line, [[-2, 0], [0, 19]]) // prettier-ignore
    ed.down(at(0, 20), tolerance, plain)
    await reach(line, [[-2, 0], [0, 19]]) // prettier-ignore
    expect(ed.track.route).not.toBeNull()
  })
  it('goes back corner by corner, layer by layer, then is dropped', async () => {
    const { ed, line } = await begin()
    ed.move(at(6, 5), tolerance)
    await reach(line, [[-2, 0], [6, 5]]) // prettier-ignore
    const hop = ed.hop()
    expect(line.asked('track')).toMatchObject({ from: at(-2, 0), to: at(6, 5), layer: 1 })
    await reach(line, [[-2, 0], [1, 0], [6, 5]]) // prettier-ignore
    await hop
    expect(ed.state.layer).toBe(2)
    expect(ed.track.route!.runs.map((r) => [r.layer, r.path.length])).toEqual([[1, 3], [2, 1]]) // prettier-ignore
    expect(ed.back()).toBe(true)
    expect(ed.state.layer).toBe(1)
    expect(ed.track.route!.runs.map((r) => r.path.length)).toEqual([3])
    ed.back()
    ed.back()
    expect(ed.track.route!.runs[0].path).toEqual([at(-2, 0)])
    ed.back()
    expect(ed.track.route).toBeNull()
    expect(line.sent.filter((s) => s.t === 'edit')).toEqual([])
    ed.back()
    expect(ed.state.tool).toBe('select')
  })
  it('does not hop where no via fits, and says why', async () => {
    const { ed, line } = await begin()
    ed.move(at(6, 5), tolerance)
    await reach(line, [[-2, 0], [6, 5]]) // prettier-ignore
    const hop = ed.hop()
    await reach(line, [[-2, 0], [6, 5]], { via: 'too near to pad R11.2' }) // prettier-ignore
    await hop
    expect(notices.map((n) => n.text)).toEqual(['No via fits here: too near to pad R11.2.'])
    expect(ed.state.layer).toBe(1)
    expect(ed.track.route!.runs.length).toBe(1)
  })
  it('that is ended in the air is kept as far as it went', async () => {
    const { ed, line } = await begin()
    ed.track.finish()
    expect(line.sent.filter((s) => s.t === 'edit')).toEqual([]) // nothing was drawn yet
    ed.down(at(-2, 0), tolerance, plain)
    ed.move(at(6, 5), tolerance)
    await reach(line, [[-2, 0], [6, 5]]) // prettier-ignore
    ed.down(at(6, 5), tolerance, plain)
    await reach(line, [[-2, 0], [6, 5]]) // prettier-ignore
    ed.track.finish()
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'drawTrack', runs: [{ layer: 1, path: path([-2, 0], [6, 5]) }] })
  })
})
