import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Plates, type Rect, type Sheet, united } from './plates'
import { type Item, Scene } from './scene'
import { Viewport } from './viewport'

/** A canvas that keeps what it was told. */
function fakeCanvas(width = 0, height = 0) {
  const said: unknown[][] = []
  const canvas = { width, height, getContext: () => ctx, said }
  const ctx = new Proxy({ canvas } as Record<string, unknown>, {
    get: (o, k: string) => (k in o ? o[k] : (...args: unknown[]) => void said.push([k, ...args])),
    set: (o, k: string, v) => ((o[k] = v), true),
  })
  return canvas
}

let painted: string[]
let alpha: Record<string, number>
let order: Record<string, number>
let scene: Scene
let sheets: Sheet[]
let view: Viewport
let screen: ReturnType<typeof fakeCanvas>
let plates: Plates
let clock: number
/** The tiles, in the order in which they were made. */
let made: ReturnType<typeof fakeCanvas>[]

/** A square of 10 µm in a pixel, named by its layer and number. */
const square = (id: number, layer: string, x: number, y: number): Item => ({
  id,
  layer,
  minX: x * 1e4,
  maxX: (x + 10) * 1e4,
  minY: y * 1e4,
  maxY: (y + 10) * 1e4,
  draw: () => painted.push(`${layer}${id}`),
})

beforeEach(() => {
  painted = []
  alpha = {}
  order = { low: 1, high: 2 }
  clock = 0
  made = []
  vi.stubGlobal('document', { createElement: () => (made.push(fakeCanvas()), made[made.length - 1]) })
  vi.stubGlobal('performance', { now: () => clock })
  scene = new Scene((l) => order[l] ?? 0)
  sheets = []
  view = new Viewport(0, 0, 1e-4) // a pixel is 10 µm
  view.width = 1024
  view.height = 512
  screen = fakeCanvas(1024, 512)
  plates = new Plates(scene, 1, () => sheets, (l) => alpha[l] ?? 1, () => undefined) // prettier-ignore
})
afterEach(() => vi.unstubAllGlobals())
const show = (paint = true) => plates.show(screen.getContext() as never, view, paint)
/** What was painted since this was last asked. */
const fresh = () => painted.splice(0).sort()
/** The tiles laid on the screen since this was last asked: where, and how strongly. */
const laid = () => screen.said.splice(0).filter((s) => s[0] === 'drawImage' && s[1] !== screen)

describe('plates', () => {
  it('are painted once, and laid anew without painting when layers are hidden, dimmed or change their order', () => {
    scene.load(new Map([[1, [square(1, 'low', 5, 5)]], [2, [square(2, 'high', 5, 5)]]])) // prettier-ignore
    expect(show()).toBe(false)
    expect(fresh()).toEqual(['high2', 'low1'])
    expect(laid().length).toBe(2)
    show()
    expect([fresh(), laid()]).toEqual([[], []]) // nothing changed
    alpha.high = 0
    show()
    expect([fresh(), laid().length]).toEqual([[], 1])
    alpha.high = 0.4
    order.high = 0
    show()
    expect([fresh(), laid().length]).toEqual([[], 2])
  })
  it('paint a hidden layer only when it is seen', () => {
    alpha.low = 0
    scene.load(new Map([[1, [square(1, 'low', 5, 5)]]]))
    show()
    expect(fresh()).toEqual([])
    alpha.low = 1
    show()
    expect(fresh()).toEqual(['low1'])
  })
  it('paint where something changed and nowhere else', () => {
    scene.load(new Map([[1, [square(1, 'low', 5, 5)]], [2, [square(2, 'low', 300, 5)]], [3, [square(3, 'high', 5, 5)]]])) // prettier-ignore
    show()
    fresh()
    scene.set(2, [square(2, 'low', 350, 20)])
    show()
    expect(fresh()).toEqual(['low2']) // where it was there is nothing now
    scene.touch(3)
    show()
    expect(fresh()).toEqual(['high3'])
    scene.set(1, [])
    show()
    expect(fresh()).toEqual([])
    scene.invalidate()
    show()
    expect(fresh()).toEqual(['high3', 'low2'])
  })
  it('paint around a change as far as its lines reach', () => {
    scene.load(new Map([[1, [square(1, 'low', 5, 5)]]])) // from 5 to 15 pixels right of the middle and above it
    show()
    made[0].said.length = 0
    scene.touch(1)
    show()
    expect(made[0].said.filter((s) => s[0] === 'clearRect')).toEqual([['clearRect', 1, 237, 18, 18]]) // 4 pixels more on each side
    expect(made.length).toBe(1)
  })
  it('follow a hand that pans: what is seen already is moved, what comes into view is painted', () => {
    scene.load(new Map([[1, [square(1, 'low', 5, 5)]], [2, [square(2, 'low', 600, 5)]]])) // prettier-ignore
    show()
    fresh()
    screen.said.length = 0
    view.cx += 200 * 1e4
    show()
    expect(screen.said).toContainEqual(['drawImage', screen, -200, 0])
    const anew = screen.said.filter((s) => s[0] === 'rect').map((s) => s.slice(1) as Rect)
    expect(anew.some(([x, y, w, h]) => x <= 824 && y <= 0 && x + w >= 1024 && y + h >= 512)).toBe(true) // what came into view
    expect(anew.every(([x]) => x > 500)).toBe(true)
    expect(fresh()).toEqual(['low2'])
    view.cx += 5000 * 1e4
    show()
    expect(screen.said.filter((s) => s[0] === 'rect').pop()).toEqual(['rect', 0, 0, 1024, 512])
  })
  it('show what there is of the scale before, until the new one is painted', () => {
    scene.load(new Map([[1, [square(1, 'low', 5, 5)]]]))
    show()
    fresh()
    laid()
    view.scale *= 2
    expect(plates.stretched(view)).toBe(true)
    expect(show(false)).toBe(true)
    expect(fresh()).toEqual([])
    expect(laid().map((s) => s.slice(2))).toEqual([[-512, -256, 2048, 1024]]) // the tile above and right of the middle, twice as large
    expect(show()).toBe(false)
    expect(plates.stretched(view)).toBe(false)
    expect(fresh()).toEqual(['low1'])
  })
  it('take no longer in a frame than a hand bears, the middle first', () => {
    const slow = (id: number, x: number) => ({ ...square(id, 'low', x, 5), draw: () => ((clock += 6), painted.push(`low${id}`)) })
    scene.load(new Map([[1, [slow(1, -500)]], [2, [slow(2, 5)]], [3, [slow(3, 300)]], [4, [slow(4, -200)]]])) // prettier-ignore
    expect(show()).toBe(true)
    expect(fresh()).toEqual(['low2', 'low4'])
    expect(show()).toBe(true)
    expect(fresh()).toEqual(['low1', 'low3'])
    expect(show()).toBe(false)
    expect(fresh()).toEqual([])
  })
  it('paint less in the frames after one that made the next one late, and more again when frames are in time', () => {
    clock = 1000
    const slow = (id: number) => ({ ...square(id, 'low', 5, 5), draw: () => ((clock += 2), painted.push('low')) }) // prettier-ignore
    /** How many are painted in a frame that comes so many milliseconds after the one before began. */
    const frame = (after: number) => {
      clock = plates.painted + after
      for (const [i, at] of [-500, -200, 5, 300].entries())
        scene.set(i + 1, [{ ...slow(i + 1), minX: at * 1e4, maxX: (at + 10) * 1e4 }])
      show()
      return fresh().length
    }
    expect(frame(1000)).toBe(4) // all tiles there are, in 9 ms
    expect([frame(35), frame(35), frame(35)]).toEqual([3, 2, 1]) // 4.5, 2.25, 1.1 ms
    for (let i = 0; i < 20; i++) expect(frame(35)).toBe(1) // one goes always
    expect([frame(17), frame(24), frame(17), frame(17), frame(17)]).toEqual([1, 1, 1, 1, 2]) // 1.2, as it was, 1.44, 1.73, 2.07
    for (let i = 0; i < 20; i++) frame(17)
    expect(frame(17)).toBe(5) // 9 ms again; each was painted where it had been and where it is
  })
  it('begin in the middle, upwards and downwards', () => {
    const slow = (id: number, y: number) => ({ ...square(id, 'low', 20, y), draw: () => ((clock += 6), painted.push(`low${id}`)) }) // prettier-ignore
    view.height = screen.height = 1024
    scene.load(new Map([[1, [slow(1, 400)]], [2, [slow(2, 20)]], [3, [slow(3, -400)]]])) // prettier-ignore
    show()
    expect(painted[0]).toBe('low2')
  })
  it('paint a tile that takes long by quarters, and show it, or a new scale, only when it is whole', () => {
    const heavy = { ...square(1, 'low', 5, 5), maxX: 250e4, maxY: 250e4, draw: () => ((clock += 6), painted.push('low1')) }
    scene.load(new Map([[1, [heavy]], [2, [square(2, 'high', 20, 20)]]])) // prettier-ignore
    expect(show()).toBe(true)
    expect([fresh(), laid().length]).toEqual([['low1', 'low1'], 0]) // two quarters, and no time is left
    expect(show()).toBe(true)
    expect([fresh().filter((p) => p === 'low1').length, laid().length]).toEqual([2, 1])
    expect(show()).toBe(false)
    expect([fresh(), laid().length]).toEqual([['high2'], 2])
    view.scale *= 2
    expect(show()).toBe(true)
    const stand = laid()
    expect(stand.map((s) => s.slice(2))).toEqual([[-512, -256, 2048, 1024]]) // the picture before, about the middle
    for (let i = 0; i < 20 && show(); i++) expect(laid().every((s) => s[1] === stand[0][1] || s.length === 4)).toBe(true)
    clock = 0
    laid()
    view.scale /= 4 // a smaller picture stands in the middle of the screen
    show(false)
    expect(laid().map((s) => s.slice(2))).toEqual([[384, 192, 256, 128]])
    show(false)
    expect(laid().length).toBe(1) // the same one, not a picture of itself
  })
  it('hold sheets of their own among the layers, painted anew when told', () => {
    scene.load(new Map([[1, [square(1, 'low', 5, 5)]]]))
    let some = true
    sheets = [
      { name: 'marks', order: 5, empty: () => !some, paint: (_, b) => painted.push(`marks ${b.minX > 0 ? 'right' : 'left'}`) },
    ]
    show()
    expect(new Set(fresh())).toEqual(new Set(['low1', 'marks left', 'marks right']))
    show()
    expect(fresh()).toEqual([])
    plates.renew('marks')
    show()
    expect(new Set(fresh())).toEqual(new Set(['marks left', 'marks right']))
    some = false
    laid()
    plates.renew('marks')
    show()
    expect([fresh(), laid().length]).toEqual([[], 1]) // the sheet is not even laid
  })
  it('lie in their order, whether of the scene or beside it', () => {
    scene.load(new Map([[1, [square(1, 'low', 5, 5)]], [2, [square(2, 'high', 5, 5)]]])) // prettier-ignore
    const sheet = (name: string, at: number): Sheet => ({ name, order: at, paint: (_, b) => b.minX >= -5e4 && b.minY >= -5e4 && void painted.push(name) }) // prettier-ignore
    sheets = [sheet('above', 3), sheet('below', 0), sheet('between', 1.5)]
    show()
    expect([...new Set(painted)]).toEqual(['below', 'low1', 'between', 'high2', 'above'])
  })
  it('let go of what was not seen for long', () => {
    const all = new Map<number, Item[]>()
    for (let i = 0; i < 1200; i++) all.set(i, [square(i, 'low', i * 256 + 20, 20)])
    scene.load(all)
    for (let i = 0; i < 1150; i += 3) {
      view.cx = (i * 256 + 500) * 1e4
      while (show()) clock = 0
      clock = 0
    }
    fresh()
    view.cx = (1147 * 256 + 500) * 1e4
    show()
    expect(fresh()).toEqual([]) // just seen
    view.cx = 500 * 1e4
    show()
    expect(fresh().length).toBeGreaterThan(2) // long ago
  })
})

describe('rectangles that are laid anew', () => {
  it('are put together where that is hardly larger', () => {
    expect(united([[0, 0, 10, 10], [2, 2, 10, 10]])).toEqual([[0, 0, 12, 12]]) // prettier-ignore
    expect(united([[0, 0, 10, 10], [0, 0, 10, 10], [10, 0, 10, 10]])).toEqual([[0, 0, 20, 10]]) // prettier-ignore
    expect(united([[0, 0, 10, 10], [20, 0, 10, 10], [10, 0, 10, 10]])).toEqual([[0, 0, 30, 10]]) // prettier-ignore
  })
  it('stay as they are where one around them would be much larger', () => {
    const corner: Rect[] = [[0, 0, 1000, 10], [0, 0, 10, 1000]] // prettier-ignore
    expect(united(corner)).toEqual(corner)
    const far: Rect[] = [[0, 0, 10, 10], [500, 500, 10, 10]] // prettier-ignore
    expect(united(far)).toEqual(far)
  })
})
