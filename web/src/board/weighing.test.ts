import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Questions } from '../live/wire.gen'
import { at, board, onBoard, placed, track } from '../testing/board'
import { settle, surroundings } from '../testing/program'

const cmd = (m: unknown) => (m as { cmd: Record<string, unknown> }).cmd
const answer = (more: Partial<Questions['weigh']['answers']> = {}) => ({
  parts: [],
  links: {},
  clashes: [],
  notes: [],
  length: 0,
  ...more,
})
const tolerance = 200_000
const plain = { shiftKey: false, ctrlKey: false, altKey: false, metaKey: false }
beforeEach(() => void surroundings())
afterEach(() => vi.unstubAllGlobals())

async function turned(said: object, ...more: Parameters<typeof onBoard>[0]) {
  const all = await onBoard([board(2), placed(11, 0, 0), ...more])
  all.ed.selection.add(11)
  all.ed.turn(90_000)
  await settle()
  all.line.say('weigh', said)
  await settle()
  const seen = () => all.ed.scene.within({ minX: -1e6, minY: -1e6, maxX: 1e6, maxY: 1e6 }).some((i) => i.id === 11)
  const edits = () => all.line.sent.filter((s) => s.t === 'edit')
  return { ...all, seen, edits }
}

describe('an act that carries what is picked elsewhere', () => {
  it('is done at once where it touches and opens nothing', async () => {
    const { ed, line } = await turned(answer())
    expect(cmd(line.lastOf('edit'))).toMatchObject({
      kind: 'turnPlaced',
      ids: [11],
      pivot: at(0, 0),
      angle: 90_000,
      tracks: 'along',
    })
    expect(ed.weighing.open).toBe(false)
  })
  it('is asked without tracks, and with what they are to do beside', async () => {
    const { line } = await turned(answer())
    expect(line.asked('weigh')).toMatchObject({ tracks: 'along', cmd: { kind: 'turnPlaced', v: 1, ids: [11] } })
    expect(line.asked('weigh').cmd as object).not.toHaveProperty('tracks')
  })
  it('says what it would touch, and waits for Enter with the part seen as it would stand', async () => {
    const part = placed(11, 0, 0).object
    const { ed, line, seen, edits } = await turned(
      answer({ parts: [part] as never, touches: [{ name: 'pad R4.1', net: 'GND', at: at(1, 0) }] as never }),
    )
    expect(edits()).toEqual([])
    expect(ed.state.warning).toBe('Would touch pad R4.1 of GND. Enter turns it all the same, Esc leaves it as it was.')
    expect(seen()).toBe(false)
    expect(ed.pressAt(tolerance)).toBe(true)
    await settle()
    expect(cmd(line.lastOf('edit'))).toMatchObject({ kind: 'turnPlaced', angle: 90_000 })
    expect(ed.state.warning).toBe('')
    expect(ed.pressAt(tolerance)).toBe(false)
  })
  it('says what it would come too near', async () => {
    const near = [{ name: 'via', net: '+5V', at: at(1, 0), measured: 100_000, required: 200_000 }] as never
    const { ed } = await turned(answer({ near }))
    expect(ed.state.warning).toBe(
      'Would come within 0.1 mm of via of +5V; the rules ask for 0.2 mm. Enter turns it all the same, Esc leaves it as it was.',
    )
  })
  it('says which parts it would lie over', async () => {
    const { ed } = await turned(answer({ clashes: [11, 12] }), placed(12, 3, 0))
    expect(ed.state.warning).toBe('Would lie over R12. Enter turns it all the same, Esc leaves it as it was.')
  })
  it('says which nets it would open, and Esc leaves all as it was', async () => {
    const parts = [placed(11, 0, 0).object] as never
    const { ed, seen, edits } = await turned(answer({ parts, going: [13] }), track(13, 0, [0, 9], [5, 9]))
    expect(ed.state.warning).toMatch(/^No way to follow: /)
    expect(ed.back()).toBe(true)
    expect(ed.state.warning).toBe('')
    expect(seen()).toBe(true)
    expect(edits()).toEqual([])
    expect([...ed.selection], 'what was picked stays picked').toEqual([11])
  })
  it('turned again is turned by the sum, and all the way round is as it was', async () => {
    const touching = answer({ touches: [{ name: 'a hole', at: at(1, 0) }] as never })
    const { ed, line, edits } = await turned(touching)
    for (const angle of [180_000, 270_000]) {
      ed.turn(90_000)
      await settle()
      expect((line.asked('weigh').cmd as { angle: number }).angle).toBe(angle)
      line.say('weigh', touching)
      await settle()
    }
    ed.turn(90_000)
    await settle()
    expect(ed.weighing.open).toBe(false)
    expect(edits()).toEqual([])
  })
  it('goes with a click elsewhere, and with a change of the board', async () => {
    const touching = answer({ touches: [{ name: 'a hole', at: at(1, 0) }] as never })
    const first = await turned(touching)
    first.ed.down(at(20, 20), tolerance, plain)
    expect(first.ed.weighing.open).toBe(false)
    const second = await turned(touching)
    second.ed.changed([])
    expect(second.ed.weighing.open).toBe(false)
    expect(second.ed.pressAt(tolerance)).toBe(false)
  })
  it('is done as it was when nothing can be foretold, so that the refusal is said', async () => {
    const all = await onBoard([board(2), placed(11, 0, 0), placed(12, 9, 0)])
    all.ed.selection.add(11).add(12)
    all.ed.swap()
    await settle()
    all.line.tell({ t: 'refused', ref: all.line.lastOf('ask').ref, why: 'R11 is locked; unlock it first' } as never)
    await settle()
    expect(cmd(all.line.lastOf('edit'))).toMatchObject({ kind: 'swapPlaced', a: 11, b: 12 })
  })
})
