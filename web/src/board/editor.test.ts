import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { notices } from '../shell/notices'
import { at, board, hole, onBoard, placed, track, via, net } from '../testing/board'
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

describe('picking on the board', () => {
  const things = [board(2), placed(11, 0, 0), placed(12, 10, 0), hole(15, 20, 0)]
  it('takes what is clicked, adds with Shift, cycles with Alt, clears on nothing', async () => {
    const { ed } = await onBoard([...things, track(13, 1, [-5, 0], [5, 0])])
    const click = (x: number, e: object = {}) => (ed.down(at(x, 0), tolerance, { ...plain, ...e }), ed.up(at(x, 0)))
    click(0)
    expect([...ed.selection]).toEqual([11])
    click(10, { shiftKey: true })
    expect([...ed.selection]).toEqual([11, 12])
    click(10, { shiftKey: true })
    expect([...ed.selection]).toEqual([11])
    click(0, { altKey: true })
    expect([...ed.selection]).toEqual([13])
    click(0, { altKey: true })
    expect([...ed.selection]).toEqual([11])
    click(40)
    expect(ed.selection.size).toBe(0)
  })
  it('gives up what is done with what is picked before that itself, then what else is open', async () => {
    const { ed } = await onBoard(things)
    ed.pickOnly([11])
    ed.state.escaping = true
    ed.state.touching = true
    const stands = () => [ed.state.escaping, ed.selection.size, ed.state.touching]
    expect(ed.back()).toBe(true)
    expect(stands()).toEqual([false, 1, true])
    ed.back()
    expect(stands()).toEqual([false, 0, true])
    ed.back()
    expect(stands()).toEqual([false, 0, false])
    expect(ed.back()).toBe(false)
  })
  it('by a box takes whole things drawn rightwards, and all it meets drawn leftwards', async () => {
    const { ed } = await onBoard(things)
    const box = (x0: number, x1: number) => {
      ed.selection.clear()
      ed.down(at(x0, -5), tolerance, plain)
      ed.up(at(x1, 5))
      return [...ed.selection].sort()
    }
    expect(box(-5, 12)).toEqual([11]) // 12 reaches to 13
    expect(box(12, -5)).toEqual([11, 12])
    expect(box(-5, 30)).toEqual([11, 12, 15])
    expect(box(40, 50)).toEqual([])
  })
  it('forgets what is gone', async () => {
    const { ed, line } = await onBoard(things)
    ed.project.onChange((changes) => ed.changed(changes))
    ed.selection.add(11).add(12)
    line.tell({ t: 'changes', rev: 2, changes: [{ kind: 'placed', id: 11 } as never] })
    expect([...ed.selection]).toEqual([12])
    expect(ed.scene.items(11)).toEqual([])
    expect(ed.under(at(0, 0), tolerance)).toEqual([])
  })
})

describe('dragging parts that are routed', () => {
  const things = [board(2), placed(11, 0, 0), track(13, 1, [-5, 0], [5, 0])]
  it('takes what is picked although something lies over it; a click picks what lies uppermost', async () => {
    const { ed, line } = await onBoard(things)
    ed.selection.add(13)
    ed.down(at(0, 0), tolerance, plain)
    ed.move(at(0, 3), tolerance)
    expect(line.asked('pull')).toMatchObject({ id: 13 })
    expect([...ed.selection]).toEqual([13])
    ed.letGo()
    ed.down(at(0, 0), tolerance, plain)
    ed.up(at(0, 0))
    expect([...ed.selection]).toEqual([11])
  })
  it('shows which tracks follow and which go, hides them where they lay, and changes its mind on a key', async () => {
    const { ed, line } = await onBoard(things)
    ed.selection.add(11)
    ed.down(at(0, 0), tolerance, plain)
    ed.move(at(3, 0), tolerance)
    expect(line.asked('drag')).toMatchObject({ tracks: 'along' })
    line.say('drag', { links: {}, moved: [], going: [13], touches: [] })
    await settle()
    const seen = () => ed.scene.within({ minX: -1e7, minY: -1e7, maxX: 1e7, maxY: 1e7 }).some((i) => i.id === 13)
    expect(seen()).toBe(false)
    expect(ed.state.warning).toMatch(/^No way to follow: /)
    ed.otherTracks()
    expect(line.asked('drag')).toMatchObject({ tracks: 'open' })
    line.say('drag', { links: {}, going: [13], touches: [{ name: 'track', net: 'GND', at: at(0, 0), measured: 0, required: 1 }] })
    await settle()
    expect(ed.state.warning).toBe('Would touch track of GND.')
    ed.up(at(3, 0))
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'movePlaced', tracks: 'open' })
    expect(ed.state.warning).toBe('Would touch track of GND.')
    line.answer('edit', { t: 'done' })
    await settle()
    expect(ed.state.warning).toBe('')
    expect(seen()).toBe(true)
  })
  it('offers the choice only where parts are picked and there are tracks', async () => {
    const { ed } = await onBoard(things)
    const offered = () => ed.tool.strip!().length
    expect(offered()).toBe(0)
    ed.selection.add(11)
    expect(offered()).toBe(1)
    const bare = await onBoard([board(2), placed(11, 0, 0)])
    bare.ed.selection.add(11)
    expect(bare.ed.tool.strip!()).toEqual([])
  })
  it('tidies the tracks that are picked, and takes all away', async () => {
    const { ed, line } = await onBoard(things)
    ed.tidy()
    expect(notices.map((n) => n.text)).toEqual(['Pick the tracks that are to be tidied.'])
    ed.selection.add(11).add(13)
    ed.tidy()
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'tidyTracks', ids: [13] })
    ed.removeAllTracks()
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'removeAllTracks' })
  })
})

describe('dragging parts', () => {
  it('shows the links on the way and moves once, by whole steps of the grid', async () => {
    const { ed, line } = await onBoard([board(2), placed(11, 0, 0)])
    ed.down(at(0, 0), tolerance, plain)
    ed.move(at(0.03, 0), tolerance)
    expect(line.sent).toEqual([]) // the hand only trembled
    ed.move(at(4.3, 2.6), tolerance)
    expect(line.asked('drag')).toMatchObject({ ids: [11], step: at(4, 3) })
    expect(ed.scene.within({ minX: -1e7, minY: -1e7, maxX: 1e7, maxY: 1e7 }).some((i) => i.id === 11)).toBe(false)
    const link = { net: net('GND'), a: at(0, 0), b: at(1, 1), fromName: '', toName: '' }
    line.say('drag', { links: { GND: [link] } })
    await settle()
    expect(ed.dragLinks.value).toEqual({ GND: [link] })
    ed.up(at(4.3, 2.6))
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'movePlaced', ids: [11], step: at(4, 3) })
    line.answer('edit', { t: 'done' })
    await settle()
    expect(ed.grab).toBeNull()
    expect(ed.dragLinks.value).toBeNull()
  })
  it('is given up with Escape, and nothing was moved', async () => {
    const { ed, line } = await onBoard([board(2), placed(11, 0, 0)])
    ed.down(at(0, 0), tolerance, plain)
    ed.move(at(5, 0), tolerance)
    expect(ed.back()).toBe(true)
    ed.up(at(5, 0))
    expect(line.sent.filter((s) => s.t === 'edit')).toEqual([])
    expect(ed.scene.within({ minX: -1e6, minY: -1e6, maxX: 1e6, maxY: 1e6 }).some((i) => i.id === 11)).toBe(true)
  })
  it('leaves locked parts where they are, and copper that is picked by itself', async () => {
    const { ed, line } = await onBoard([board(2), placed(11, 0, 0, { locked: true }), placed(12, 10, 0), hole(15, 20, 0, { locked: true }), track(13, 0, [0, 9], [5, 9])]) // prettier-ignore
    for (const id of [11, 12, 13, 15]) ed.selection.add(id)
    expect(ed.movable(), 'copper goes along with parts').toEqual([12, 13])
    expect(ed.movable(true)).toEqual([12])
    ed.selection.delete(13)
    ed.nudge(1, -1)
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'movePlaced', ids: [12], step: at(1, -1) })
    ed.turn(90_000)
    await settle()
    line.say('weigh', { parts: [], links: {}, clashes: [], notes: [], length: 0 })
    await settle()
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'turnPlaced', ids: [12], pivot: at(10, 0), angle: 90_000 })
    ed.lock()
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'lock', ids: [11, 12, 15], locked: true })
    ed.selection.clear()
    ed.selection.add(11).add(15)
    ed.lock()
    expect(cmd(line.lastOf('edit'))).toMatchObject({ ids: [11, 15], locked: false })
  })
  it('turns several about their middle', async () => {
    const { ed, line } = await onBoard([board(2), placed(11, 0, 0), placed(12, 10, 4)])
    ed.selection.add(11).add(12)
    ed.turn(90_000)
    await settle()
    const { pivot } = line.asked('weigh').cmd as { pivot: { x: number; y: number } }
    expect(pivot.x).toBe(5e6)
  })
})

describe('layers on the board', () => {
  it('are hopped between from top to bottom, or to one by its number', async () => {
    const { ed } = await onBoard([board(4)])
    await ed.hop()
    expect(ed.state.layer).toBe(4)
    await ed.hop()
    expect(ed.state.layer).toBe(1)
    await ed.hop(3)
    expect(ed.state.layer).toBe(3)
    await ed.hop(5)
    expect(ed.state.layer).toBe(3)
    ed.toLayer(-1)
    expect(ed.state.layer).toBe(3)
    ed.stepLayer(1)
    expect(ed.state.layer).toBe(4)
    ed.stepLayer(1) // there is none below
    expect(ed.state.layer).toBe(4)
    ed.stepLayer(-1)
    ed.stepLayer(-1)
    expect(ed.state.layer).toBe(2)
  })
  it('begin with the uppermost that holds copper', async () => {
    const from = async (...objects: Parameters<typeof onBoard>[0]) => (await onBoard([board(4), ...objects])).ed.state.layer
    expect(await from()).toBe(1)
    expect(await from(track(21, 2, [0, 0], [9, 0]))).toBe(3)
    expect(await from(track(21, 2, [0, 0], [9, 0]), placed(11, 0, 0))).toBe(1)
    expect(await from(placed(11, 0, 0, { bottom: true }))).toBe(4)
  })
  it('stay what they are when others come in between', async () => {
    const { ed, line } = await onBoard([board(2), track(21, 1, [0, 0], [9, 0])])
    ed.toLayer(2)
    ed.state.hidden = [1]
    const more = board(2).object as { stack: { id: number }[] }
    more.stack.splice(2, 0, { id: 7, name: 'New', kind: 'copper' } as never)
    line.tell({ t: 'changes', rev: 2, act: 'setLayers', changes: [{ kind: 'board', id: 1, after: more as never }] })
    ed.changed([{ kind: 'board', id: 1 }])
    expect([ed.position(1), ed.position(7), ed.position(2)]).toEqual([0, 1, 2])
    expect([ed.state.layer, ed.state.hidden]).toEqual([2, [1]])
    expect(ed.under(at(4, 0), tolerance)).toEqual([21])
    more.stack = more.stack.filter((l) => l.id === 7)
    line.tell({ t: 'changes', rev: 3, act: 'setLayers', changes: [{ kind: 'board', id: 1, after: more as never }] })
    ed.changed([{ kind: 'board', id: 1 }])
    expect([ed.state.layer, ed.state.hidden]).toEqual([7, []]) // what is no more is neither worked on nor hidden
  })
  it('are shown when worked on; the others are dimmed or hidden', async () => {
    const { ed } = await onBoard([board(4)])
    ed.state.hidden = [2, 3]
    expect(['copper-1', 'copper-2', 'copper-4'].map(ed.alpha)).toEqual([1, 0, 0.35])
    ed.toLayer(2)
    expect(ed.state.hidden).toEqual([3])
    expect(ed.alpha('copper-2')).toBe(1)
  })
  it('are painted from below, the one in work over the others, barrels over all copper', async () => {
    const { ed } = await onBoard([board(4), track(21, 0, [0, 0], [1, 0]), track(22, 1, [0, 0], [1, 0]), track(23, 3, [0, 0], [1, 0]), via(24, 0, 0, 0, 3)]) // prettier-ignore
    const order = () => ed.scene.within({ minX: 0, minY: 0, maxX: 1e6, maxY: 1 }).map((i) => i.id)
    expect(order()).toEqual([23, 22, 21, 24, 24])
    ed.toLayer(4)
    expect(order()).toEqual([22, 21, 23, 24, 24])
  })
})

describe('the hand led by keys', () => {
  it('goes by steps of the grid, presses with Enter, and leaves what is picked to be nudged', async () => {
    const { ed, line } = await onBoard([board(2), placed(11, 0, 0), placed(12, 20, 0)])
    const shown: unknown[] = []
    ed.show = (p) => shown.push(p)
    expect(ed.pressAt(tolerance)).toBe(false) // the pointer leads
    ed.nudge(2, 0)
    expect([ed.keyed, ed.at, shown]).toEqual([true, at(2, 0), [at(2, 0)]])
    expect(ed.pressAt(tolerance)).toBe(true)
    expect([...ed.selection]).toEqual([11])
    ed.nudge(1, 0)
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'movePlaced', ids: [11], step: at(1, 0) })
    ed.move(at(5.2, 5), tolerance)
    expect(ed.keyed).toBe(false)
    ed.take('outline')
    ed.nudge(0, 1)
    ed.pressAt(tolerance)
    ed.nudge(10, 10)
    ed.pressAt(tolerance)
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'drawEdge', form: 'rectangle', a: at(5, 6), b: at(15, 16) })
    ed.take('track')
    ed.move(at(-2, 0), tolerance)
    ed.nudge(0, 0)
    expect(ed.pressAt(tolerance)).toBe(true)
    expect(ed.track.route).not.toBeNull()
    ed.nudge(2, 3)
    expect(line.asked('track')).toMatchObject({ to: at(0, 3) })
    ed.pressAt(tolerance)
    line.say('track', { runs: [{ layer: 1, width: 250_000, path: [at(-2, 0), at(-2, 1), at(0, 3)] }], length: 5e6 })
    await settle()
    line.say('track', { runs: [{ layer: 1, width: 250_000, path: [at(-2, 0), at(-2, 1), at(0, 3)] }], length: 5e6 })
    await settle()
    ed.pressAt(tolerance) // once more at the same place ends it
    line.say('track', { runs: [{ layer: 1, width: 250_000, path: [at(0, 3)] }], length: 5e6 })
    await settle()
    line.say('track', { runs: [{ layer: 1, width: 250_000, path: [at(0, 3)] }], length: 5e6 })
    await settle()
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'drawTrack' })
  })
})

describe('other tools of the board', () => {
  it('draw a rectangle as the outline, not one of a slip of the hand', async () => {
    const { ed, line } = await onBoard([board(2)])
    const pull = (x: number, y: number) => {
      ed.take('outline')
      ed.down(at(0.2, 0.1), tolerance, plain)
      ed.move(at(x, y), tolerance)
      ed.up(at(x, y))
    }
    pull(1, 1)
    expect(line.sent).toEqual([])
    pull(-40.2, 30)
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'drawEdge', form: 'rectangle', a: at(0, 0), b: at(-40, 30) })
  })
  it('lay holes and texts; a text must be typed first', async () => {
    const { ed, line } = await onBoard([board(2)])
    ed.take('hole')
    ed.down(at(3.2, 4), tolerance, plain)
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'addHole', at: at(3, 4), diameter: 3_200_000, land: 0, keep: 0 })
    ed.take('text')
    ed.text.state.text = '  '
    ed.down(at(3, 4), tolerance, plain)
    expect(notices.map((n) => n.text)).toEqual(['Type the text first.'])
    ed.text.state.text = 'REV A'
    ed.text.ink.state.bottom = true
    ed.down(at(3, 4), tolerance, plain)
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'addLegend', text: 'REV A', bottom: true })
  })
  it('measure from middle to middle', async () => {
    const { ed } = await onBoard([board(2), placed(11, 0, 0)])
    ed.take('measure')
    ed.down(at(-2.3, 0.2), tolerance, plain)
    ed.down(at(7.2, 0), tolerance, plain)
    expect(ed.measure.places.map((m) => m.at)).toEqual([at(-2, 0), at(7, 0)])
    ed.down(at(2, 0), tolerance, plain)
    expect(ed.measure.places.map((m) => m.at)).toEqual([at(2, 0)])
  })
  it('remove what is picked, whole tracks and whole nets', async () => {
    const { ed, line } = await onBoard([board(2), placed(11, 0, 0), track(13, 0, [-2, 0], [-2, 9])])
    ed.remove()
    expect(line.sent).toEqual([])
    ed.removeNet()
    expect(notices.map((n) => n.text)).toEqual(['Pick a track or highlight a net first.'])
    ed.selection.add(11).add(13)
    ed.remove()
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'remove', ids: [11, 13] })
    ed.removeWhole()
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'removeTrack', id: 13 })
    ed.selection.delete(11)
    ed.removeNet()
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'removeNetTracks', net: net('VIN') })
    ed.selectAll()
    expect([...ed.selection].sort()).toEqual([11, 13])
  })
  it('know the room of all there is', async () => {
    const { ed } = await onBoard([board(2), placed(11, 0, 0), hole(15, 20, 0)])
    expect(ed.content()).toMatchObject({ minX: expect.closeTo(-3.4e6, -3) as number, maxX: expect.closeTo(21.7e6, -3) as number }) // prettier-ignore
    expect(ed.boxOf([])).toBeNull()
  })
})
