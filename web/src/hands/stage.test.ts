import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { notices } from '../shell/notices'
import { at, board, hole, net, onBoard, placed, track, via } from '../testing/board'
import { settle, surroundings } from '../testing/program'

const tolerance = 100_000
const plain = { shiftKey: false, altKey: false }
beforeEach(() => {
  surroundings()
  notices.splice(0)
})
afterEach(() => vi.unstubAllGlobals())

/** What is asked of a canvas in millimetres, as words. */
function paper() {
  const said: string[] = []
  const round = (v: unknown) => (typeof v === 'number' ? Math.round(v * 1000) / 1000 : v)
  const ctx = new Proxy({} as Record<string, unknown>, {
    get: (o, k: string) => (k in o ? o[k] : (...args: unknown[]) => void said.push([k, ...args.map(round)].join(' '))),
    set: (o, k: string, v) => ((o[k] = v), true),
  })
  return { said, pen: { ctx, px: 0.01, text: (s: string) => void said.push(`text ${s}`) } as never }
}

describe('the hand on a stage', () => {
  const things = [board(2), placed(11, 0, 0), placed(12, 20, 0), hole(15, 40, 0)]
  it('says what it hovers over, and its net', async () => {
    const { ed } = await onBoard(things)
    ed.move(at(-2, 0), tolerance)
    expect([ed.state.hovered, ed.state.hoverNet]).toEqual([11, 'VIN'])
    ed.move(at(10, 0), tolerance)
    expect([ed.state.hovered, ed.state.hoverNet]).toEqual([0, ''])
  })
  it('picks by a box only when it is drawn on purpose', async () => {
    const { ed } = await onBoard(things)
    const box = (x0: number, y0: number, x1: number, y1: number) => {
      ed.selection.clear()
      ed.down(at(x0, y0), tolerance, plain)
      ed.move(at(x1, y1), tolerance)
      ed.up(at(x1, y1), tolerance)
      return [...ed.selection]
    }
    expect(box(3.05, 0, 2.95, 0.05)).toEqual([]) // a tenth of a millimetre, onto a part
    expect(box(23.05, 0.9, 22.95, 0.95)).toEqual([]) // wherever that is
    expect(box(5, 0, -5, 0)).toEqual([11]) // as flat as can be, but long
    expect(box(10, 5, 10, -5)).toEqual([])
    expect(ed.grab).toBeNull()
  })
  it('paints the box it draws, dashed when it goes leftwards', async () => {
    const { ed } = await onBoard(things)
    const frame = (x: number) => {
      ed.down(at(10, 5), tolerance, plain)
      ed.move(at(x, 8), tolerance)
      const p = paper()
      ed.paint(p.pen)
      ed.letGo()
      return p.said
    }
    expect(frame(13)).toContain('strokeRect 10 5 3 3')
    expect(frame(13).filter((s) => s.startsWith('setLineDash'))).toEqual(['setLineDash ', 'setLineDash '])
    expect(frame(7)).toContain('strokeRect 10 5 -3 3')
    expect(frame(7).filter((s) => s.startsWith('setLineDash'))[0]).toBe('setLineDash 0.04,0.03')
  })
  it('steps back level by level, and says when there is none', async () => {
    const { ed } = await onBoard(things)
    ed.project.light('VIN')
    ed.flagged = at(0, 0)
    ed.state.carrying = true
    ed.selection.add(11)
    ed.take('hole')
    expect(ed.back()).toBe(true)
    expect([ed.state.tool, ed.selection.size]).toEqual(['select', 1])
    ed.down(at(0, 0), tolerance, plain)
    expect(ed.grab).not.toBeNull()
    ed.back()
    expect([ed.grab, ed.selection.size]).toEqual([null, 1])
    ed.back()
    expect([ed.selection.size, ed.project.lit.value]).toEqual([0, 'VIN'])
    ed.back()
    expect([ed.project.lit.value, ed.state.carrying]).toEqual(['', true])
    ed.back()
    expect([ed.state.carrying, ed.flagged]).toEqual([false, at(0, 0)])
    expect(ed.back()).toBe(true)
    expect(ed.flagged).toBeNull()
    expect(ed.back()).toBe(false)
  })
  it('shares what parts are picked, and follows what others of one’s windows pick', async () => {
    const { ed, line, project } = await onBoard(things)
    ed.selection.add(11).add(15)
    ed.share()
    expect(line.lastOf('share').shared).toMatchObject({ parts: [{ part: 111 }] })
    const n = line.sent.length
    ed.share()
    expect(line.sent.length).toBe(n) // it was said
    ed.follow()
    expect([...ed.selection]).toEqual([11, 15]) // as it is
    project.picked.value = [{ part: 112 }, { part: 999 }]
    ed.follow()
    expect([...ed.selection]).toEqual([12])
    project.picked.value = []
    ed.follow()
    expect(ed.selection.size).toBe(0)
  })
  it('goes back to the pointer when it moves, and leaves its crosshair with Escape', async () => {
    const { ed } = await onBoard(things)
    ed.nudge(1, 1)
    expect(ed.keyed).toBe(true)
    expect(ed.back()).toBe(true)
    expect(ed.keyed).toBe(false)
    ed.nudge(1, 1)
    ed.down(at(40, 20), tolerance, plain)
    expect(ed.keyed).toBe(false)
  })
  it('shows parts, holes and texts where it drags them', async () => {
    const { ed, line } = await onBoard(things)
    const text = { kind: 'legend', object: { id: 17, at: at(60, 0), angle: 0, height: 1_000_000, text: 'I' } } as never
    line.tell({ t: 'changes', rev: 2, act: 'addLegend', changes: [{ kind: 'legend', id: 17, after: (text as { object: never }).object }] }) // prettier-ignore
    ed.selection.add(12).add(15).add(17)
    ed.down(at(20, 0.4), tolerance, plain) // taken beside its middle
    ed.move(at(23, 5.4), tolerance)
    const p = paper()
    ed.paint(p.pen)
    expect(p.said).toContain('arc 43 5 1.5 0 6.283') // the hole, 3 mm wide
    expect(p.said).toContain('moveTo 20.5 4.5') // the corner of a pad of 1 mm, 2 mm left of the part's middle
    expect(p.said).toContain('moveTo 20 4') // the corner of its courtyard
    const ups = p.said.filter((w) => /^(moveTo|lineTo) 6[23](\.\d+)? /.test(w))
    expect(ups.length).toBeGreaterThan(1) // the text's stroke, about 63, 5
    ed.back()
    expect(ed.scene.hides).toBe(false)
  })
})

describe('a track being drawn', () => {
  it('goes on over its own beginning, and where something stops it', async () => {
    const { ed, line } = await onBoard([board(2), placed(11, 0, 0), track(13, 0, [10, 0], [20, 0]), via(14, 30, 0, 0, 1)])
    ed.take('track')
    ed.down(at(-2, 0), tolerance, plain)
    const click = async (x: number, y: number, more: object = {}) => {
      ed.move(at(x, y), tolerance)
      line.say('track', { runs: [{ layer: 1, width: 250_000, path: [at(-2, 0), at(x, y)] }], length: 1e6, ...more })
      await settle()
      ed.down(at(x, y), tolerance, plain)
      for (let i = 0; i < 2; i++) {
        line.say('track', { runs: [{ layer: 1, width: 250_000, path: [at(-2, 0), at(x, y)] }], length: 1e6, ...more })
        await settle()
      }
    }
    expect(ed.key('Backspace')).toBe(true)
    expect(ed.track.route).toBeNull()
    expect(ed.key('Backspace')).toBe(false) // it is the command's
    ed.down(at(-2, 0), tolerance, plain)
    await click(-2, 0)
    expect(ed.track.route).not.toBeNull()
    await click(10, 0, { blocked: { name: 'pad R11.2', net: 'GND', at: at(2, 0) } })
    expect(ed.track.route).not.toBeNull()
    await click(10, 0)
    expect(ed.track.route).toBeNull()
    expect(line.lastOf('edit').cmd).toMatchObject({ kind: 'drawTrack', net: net('VIN') })
  })
  it('shows its via as large as the program says, else as the rules do', async () => {
    const { ed } = await onBoard([board(2), placed(11, 0, 0)])
    ed.take('track')
    ed.down(at(-2, 0), tolerance, plain)
    ed.track.route!.runs.push({ layer: 2, path: [at(5, 0)] })
    const arcs = () => {
      const p = paper()
      ed.paint(p.pen)
      return p.said.filter((s) => s.startsWith('arc 5 0')).map((s) => s.split(' ')[3])
    }
    expect(arcs()).toEqual(['0.4', '0.2'])
    ed.track.way = { runs: [], length: 0, clearance: 0, viaSize: 600_000, viaHole: 300_000, width: 250_000 } as never
    expect(arcs()).toEqual(['0.3', '0.15'])
    expect(ed.track.width).toBe(250_000)
    ed.track.state.width = 400_000
    expect(ed.track.width).toBe(400_000)
  })
})
