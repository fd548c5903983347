import type { BoardEditor } from '../board/editor'
import type { Project } from '../live/project'
import type { Boxed, Pattern } from '../live/wire.gen'
import { handOver, Line } from './program'

const mm = 1_000_000
const pad = (number: string, x: number, more: object = {}) => ({ number, form: 'rect', at: { x: x * mm, y: 0 }, size: { x: mm, y: mm }, ...more }) // prettier-ignore

/** A footprint of two square pads 1 mm wide, 4 mm apart, in a courtyard of 6 by 2 mm. */
export const twoPads = {
  id: 2, name: 'TWO', pads: [pad('1', -2), pad('2', 2)], silk: [], body: [], designatorAt: { x: 0, y: 2 * mm },
  courtyard: [{ x: -3 * mm, y: -mm }, { x: 3 * mm, y: -mm }, { x: 3 * mm, y: mm }, { x: -3 * mm, y: mm }],
} // prettier-ignore
/** One round plated pad of 2 mm with a hole of 1 mm, and no courtyard of its own. */
export const onePin = { ...twoPads, id: 3, name: 'PIN', pads: [pad('1', 0, { form: 'round', size: { x: 2 * mm, y: 2 * mm }, hole: mm })], courtyard: [] } // prettier-ignore

const corner = (x: number, y: number) => ({ x: x * mm, y: y * mm })
const square = (x: number) => ({ area: true, corners: [corner(x - 0.5, -0.5), corner(x + 0.5, -0.5), corner(x + 0.5, 0.5), corner(x - 0.5, 0.5)] }) // prettier-ignore
/** What the footprints look like, as the core says it. */
export const patterns: Pattern[] = [
  { footprint: 2, pads: [{ on: { near: square(-2) } }, { on: { near: square(2) } }], silk: [], courtyard: twoPads.courtyard },
  {
    footprint: 3,
    pads: [{ barrel: { corners: [corner(0, 0)], r: mm }, bore: { corners: [corner(0, 0)], r: mm / 2 } }],
    silk: [],
    courtyard: [corner(-1.25, -1.25), corner(1.25, -1.25), corner(1.25, 1.25), corner(-1.25, 1.25)],
  },
]

/** Copper layers with the ids 1, 2, … from the top, a core below each. */
export const stack = (copper: number) =>
  Array.from({ length: copper }, (_, i) => ({ id: i + 1, name: ['Top', 'In1', 'In2', 'Bottom'][i], kind: 'copper' })).flatMap((l) => [l, { id: l.id + 100, name: 'core', kind: 'core' }]) // prettier-ignore

export const board = (copper: number, outline: object[] = []) =>
  ({ kind: 'board', object: { id: 1, outline, stack: stack(copper) } }) as unknown as Boxed

/** The rules for everything that the drawing asks for. */
const rules = Object.entries({ silkWidth: 150_000, trackWidth: 250_000, clearance: 200_000, viaDiameter: 800_000, viaHole: 400_000 })
  .map(([kind, fixed], i) => ({ kind: 'rule', object: { id: 60 + i, kind, order: i, value: { fixed } } }) as unknown as Boxed) // prettier-ignore

/** The nets by name; their ids begin at 71. */
const netNames = ['VIN', 'GND', 'OUT', 'SDA']
export const net = (name: string) => 71 + netNames.indexOf(name)
const nets = netNames.map((name) => ({ kind: 'net', object: { id: net(name), name } }) as unknown as Boxed)

export const placed = (id: number, x: number, y: number, more: object = {}) =>
  ({ kind: 'placed', object: { id, part: id + 100, designator: `R${id}`, value: '', footprint: 'TWO', at: { x: x * mm, y: y * mm }, angle: 0, nets: { 1: net('VIN'), 2: net('GND') }, ...more } }) as unknown as Boxed // prettier-ignore

/** A track on the copper layer at a place, 0 at the top; the layer's id is one more. */
export const track = (id: number, layer: number, a: [number, number], b: [number, number], of = 'VIN') =>
  ({ kind: 'track', object: { id, layer: layer + 1, a: { x: a[0] * mm, y: a[1] * mm }, b: { x: b[0] * mm, y: b[1] * mm }, width: 500_000, net: net(of) } }) as unknown as Boxed // prettier-ignore

export const via = (id: number, x: number, y: number, from: number, to: number, of = 'VIN') =>
  ({ kind: 'via', object: { id, at: { x: x * mm, y: y * mm }, diameter: 800_000, hole: 400_000, from: from + 1, to: to + 1, net: net(of) } }) as unknown as Boxed // prettier-ignore

export const hole = (id: number, x: number, y: number, more: object = {}) =>
  ({ kind: 'hole', object: { id, at: { x: x * mm, y: y * mm }, diameter: 3 * mm, ...more } }) as unknown as Boxed

/** A board that is open, with an editor whose scene holds it all; the grid is 1 mm. */
export async function onBoard(objects: Boxed[]): Promise<{ ed: BoardEditor; project: Project; line: Line }> {
  const { BoardEditor } = await import('../board/editor')
  const { Project } = await import('../live/project')
  const project = new Project(7)
  const library = [twoPads, onePin].map((object) => ({ kind: 'footprint', object }) as unknown as Boxed)
  handOver(Line.last, [...library, ...rules, ...nets, ...objects], { patterns })
  const taste = { boardShade: 'dark', gridOn: true, boardGrid: mm, unit: 'mm', tracks: 'along', fills: 'full' }
  const ed = new BoardEditor(project, taste as never)
  ed.load()
  return { ed, project, line: Line.last }
}

export const at = (x: number, y: number) => ({ x: x * mm, y: y * mm })
