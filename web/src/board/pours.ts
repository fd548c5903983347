import { ringBox, traceRing } from '../canvas/arcs'
import type { Item, Pen } from '../canvas/scene'
import { type Box, boxOf } from '../canvas/viewport'
import type { Project } from '../live/project'
import type { Filled, Kinds, Point } from '../live/wire.gen'
import { copperColour, hatchAngle, mixed } from '../shell/tokens'
import type { Look } from './draw'

/** Tiles of copper areas are cut at multiples of this, in nanometres. */
const side = 5_000_000
/** How what is filled is drawn. */
export type Fills = 'full' | 'edges' | 'hatch'

/** The ways in which an area joins a pad. */
export const joinWays = [
  { value: '', title: 'as the rules say' },
  { value: 'spokes', title: 'by spokes' },
  { value: 'solid', title: 'solidly' },
  { value: 'none', title: 'not at all' },
]

/** Ids by which the tiles of copper areas stand in the scene: below zero, which no object has. */
export class TileIds {
  private readonly known = new Map<string, number>()
  of(f: Filled): number {
    const key = `${f.pour} ${f.layer} ${f.x} ${f.y}`
    let id = this.known.get(key)
    if (id === undefined) this.known.set(key, (id = -1 - this.known.size))
    return id
  }
}

/**
 * By what areas of one layer are told apart: which net of those that have areas there theirs is, in the order in which the areas were made. The first
 * looks as the layer does.
 */
export function apart(project: Project, pour: number, layer: number): number {
  const nets: number[] = []
  const net = project.get('pour', pour)?.net ?? 0
  for (const p of project.all('pour')) if (p.layers.includes(layer) && !nets.includes(p.net)) nets.push(p.net)
  return Math.max(0, nets.indexOf(net))
}
/** How much further each is hatched, in degrees, and how much lighter its shade is than the one's before. */
const turned = 55
const lighter = 0.3

/** What a copper area fills of a tile, in a shade of its layer that what lies on it stands out from; teardrops look as tracks do. */
export function filledItem(project: Project, f: Filled, look: () => Look, fills: () => Fills): Item {
  if (!f.pour) return dropsItem(f, look)
  const [x, y] = [f.x * side, f.y * side]
  return {
    minX: x,
    minY: y,
    maxX: x + side,
    maxY: y + side,
    id: 0,
    layer: 'fill-' + f.layer,
    draw: (pen) => paintFilled(pen, f, look(), fills(), apart(project, f.pour, f.layer)),
  }
}

function dropsItem(f: Filled, look: () => Look): Item {
  const corners = f.lines.flatMap((l) => l.flatMap((x, i) => (i % 2 ? [] : [{ x, y: l[i + 1] }])))
  return {
    ...boxOf(corners, 0),
    id: 0,
    layer: 'copper-' + f.layer,
    draw: ({ ctx }) => {
      const { position, layers } = look()
      ctx.beginPath()
      trace(ctx, f.lines)
      ctx.fillStyle = copperColour(position(f.layer), layers)
      ctx.fill()
    },
  }
}

function trace(ctx: CanvasRenderingContext2D, lines: number[][]) {
  for (const l of lines) {
    ctx.moveTo(l[0] / 1e6, l[1] / 1e6)
    for (let i = 2; i < l.length; i += 2) ctx.lineTo(l[i] / 1e6, l[i + 1] / 1e6)
    ctx.closePath()
  }
}

/** The lines of a tile but for those along its own sides; or those alone. */
function traceSides(ctx: CanvasRenderingContext2D, f: Filled, own: boolean) {
  const on = (v: number) => v % side === 0
  for (const l of f.lines)
    for (let i = 0; i < l.length; i += 2) {
      const j = (i + 2) % l.length
      const seam = (l[i] === l[j] && on(l[i])) || (l[i + 1] === l[j + 1] && on(l[i + 1]))
      if (seam !== own) continue
      ctx.moveTo(l[i] / 1e6, l[i + 1] / 1e6)
      ctx.lineTo(l[j] / 1e6, l[j + 1] / 1e6)
    }
}

function paintFilled({ ctx, px }: Pen, f: Filled, look: Look, fills: Fills, apart: number) {
  const position = look.position(f.layer)
  const colour = mixed(copperColour(position, look.layers), look.colours.inside, 1 - lighter * (apart % 3))
  if (fills !== 'edges') {
    ctx.beginPath()
    trace(ctx, f.lines)
    ctx.fillStyle = mixed(colour, look.colours.inside, fills === 'hatch' ? 0.16 : 0.46)
    ctx.fill('evenodd')
    // tiles are one: what the smoothing of their sides leaves open is closed
    ctx.beginPath()
    traceSides(ctx, f, true)
    ctx.strokeStyle = ctx.fillStyle
    ctx.lineWidth = 1.6 * px
    ctx.lineCap = 'butt'
    ctx.stroke()
    ctx.lineCap = 'round'
  }
  if (fills === 'hatch') {
    ctx.save()
    ctx.beginPath()
    trace(ctx, f.lines)
    ctx.clip('evenodd')
    hatch(ctx, f, hatchAngle(position) + turned * apart, px)
    ctx.strokeStyle = mixed(colour, look.colours.inside, 0.6)
    ctx.lineWidth = px
    ctx.stroke()
    ctx.restore()
  }
  if (fills !== 'full') {
    ctx.beginPath()
    traceSides(ctx, f, false)
    ctx.strokeStyle = colour
    ctx.lineWidth = 1.2 * px
    ctx.stroke()
  }
}

/** Lines across a tile that go on in the next: they lie at multiples of their distance from the board's origin. */
function hatch(ctx: CanvasRenderingContext2D, f: Filled, degrees: number, px: number) {
  const apart = 0.5 * 2 ** Math.max(0, Math.ceil(Math.log2((6 * px) / 0.5)))
  const [dx, dy] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
  const s = side / 1e6
  const corners = [[0, 0], [s, 0], [0, s], [s, s]].map(([x, y]) => [f.x * s + x, f.y * s + y]) // prettier-ignore
  const across = corners.map(([x, y]) => y * dx - x * dy)
  const along = corners.map(([x, y]) => x * dx + y * dy)
  const [from, to] = [Math.min(...along), Math.max(...along)]
  ctx.beginPath()
  for (let k = Math.ceil(Math.min(...across) / apart); k * apart <= Math.max(...across); k++) {
    const a = k * apart
    ctx.moveTo(from * dx - a * dy, from * dy + a * dx)
    ctx.lineTo(to * dx - a * dy, to * dy + a * dx)
  }
}

/** The edge of a copper area with the name of its net, in the colour of its layer; one that fills the board has none of its own. */
export function pourItem(project: Project, p: Kinds['pour'], look: () => Look): Item[] {
  if (!p.outline?.length) return []
  const outline = p.outline
  const box = ringBox(outline, 0.2e6)
  return [
    {
      ...box,
      id: p.id,
      layer: 'area',
      draw: (pen) => {
        const { ctx, px } = pen
        const { position, layers } = look()
        const colour = copperColour(position(p.layers[0]), layers)
        const further = apart(project, p.id, p.layers[0])
        ctx.beginPath()
        traceRing(ctx, outline)
        ctx.strokeStyle = colour
        ctx.lineWidth = (further ? 2 : 1.2) * px
        // every further net of the layer has an edge of other dashes
        ctx.setLineDash(further ? [(10 / further) * px, 4 * px] : [])
        ctx.stroke()
        ctx.setLineDash([])
        const [wide, high] = [(box.maxX - box.minX) / 1e6, (box.maxY - box.minY) / 1e6]
        if (wide > 40 * px && high > 24 * px)
          pen.text(project.netName(p.net), box.minX / 1e6 + 8 * px, box.maxY / 1e6 - 14 * px, 11 * px, {
            colour: look().colours.text,
            align: 'left',
          })
      },
    },
  ]
}

/** Whether a tile is filled at a place. */
export function fillsAt(f: Filled, p: Point): boolean {
  let within = false
  for (const l of f.lines)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2)
      if (l[i + 1] > p.y !== l[j + 1] > p.y && p.x < l[i] + ((p.y - l[i + 1]) / (l[j + 1] - l[i + 1])) * (l[j] - l[i])) within = !within // prettier-ignore
  return within
}

/** What copper areas fill at a place: the areas, each with the layer. */
export function filledAt(project: Project, p: Point): Filled[] {
  const [x, y] = [Math.floor(p.x / side), Math.floor(p.y / side)]
  return project
    .all('pour')
    .flatMap((a) => a.layers.map((l) => project.filled.get(`${a.id} ${l} ${x} ${y}`)))
    .filter((f) => !!f && fillsAt(f, p)) as Filled[]
}

/** The places of the tiles that a box meets. */
function* tilesOf(box: Box) {
  const at = (v: number) => Math.floor(v / side)
  for (let x = at(box.minX); x <= at(box.maxX); x++) for (let y = at(box.minY); y <= at(box.maxY); y++) yield `${x} ${y}`
}

/** What is filled of a net on a layer within a box. */
export function paintNetFills({ ctx }: Pen, project: Project, net: number, layer: number, box: Box, colour: string) {
  ctx.beginPath()
  for (const a of project.all('pour'))
    if (a.net === net && a.layers.includes(layer))
      for (const t of tilesOf(box)) trace(ctx, project.filled.get(`${a.id} ${layer} ${t}`)?.lines ?? [])
  ctx.fillStyle = colour
  ctx.fill('evenodd')
}

/** The teardrops of a net within a box, on all layers. */
export function paintNetDrops({ ctx }: Pen, project: Project, net: number, box: Box, colour: string) {
  ctx.beginPath()
  for (const l of project.board.stack)
    for (const t of tilesOf(box)) {
      const drops = project.filled.get(`0 ${l.id} ${t}`)
      trace(ctx, drops?.lines.filter((_, i) => drops.nets?.[i] === net) ?? [])
    }
  ctx.fillStyle = colour
  ctx.fill()
}
