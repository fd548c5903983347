import { pieceBox, ringBox, traceRing, traceTo } from '../canvas/arcs'
import { apply, boardPose, textLines, tracePoints } from '../canvas/geometry'
import type { Batch, Item, Pen } from '../canvas/scene'
import { type Box, boxOf, union } from '../canvas/viewport'
import type { Project } from '../live/project'
import type { Board, Corner, Hole, Outline, Pattern, Placed, Point, RuleArea, Track, Via } from '../live/wire.gen'
import { type BoardColours, boardColours, copperColour } from '../shell/tokens'
import { courtyard, outlineBatch, outlineBox, padOn, padOutlines, paintOutline, traceOutline } from './pattern'

export interface Look {
  colours: BoardColours
  layers: number
  /** The place of a copper layer in the stack, 0 at the top. */
  position: (layer: number) => number
  /** The copper layer at a place. */
  at: (position: number) => number
}

/** How a board is drawn; made once for as long as its stack stays. */
export function lookOf(colours: BoardColours, board: Board): Look {
  let known = looks.get(board)
  if (!known) {
    const ids = board.stack.filter((l) => l.kind === 'copper').map((l) => l.id)
    const at = new Map(ids.map((id, i) => [id, i]))
    known = { layers: ids.length, position: (l) => at.get(l) ?? -1, at: (i) => ids[i] ?? 0 }
    looks.set(board, known)
  }
  return { ...known, colours }
}
const looks = new WeakMap<Board, Omit<Look, 'colours'>>()

/** A track, straight or bent. */
export function drawTrack(pen: Pen, tr: Track, colour: string, width: number) {
  const { ctx } = pen
  ctx.beginPath()
  ctx.moveTo(tr.a.x / 1e6, tr.a.y / 1e6)
  traceTo(ctx, tr.a, tr.mid, tr.b)
  ctx.strokeStyle = colour
  ctx.lineWidth = Math.max(width / 1e6, 0.8 * pen.px)
  ctx.stroke()
}

/** A line with arcs, as wide as it says. */
export function drawRun(pen: Pen, line: Corner[], colour: string, width: number) {
  const { ctx } = pen
  ctx.beginPath()
  ctx.moveTo(line[0].x / 1e6, line[0].y / 1e6)
  for (let i = 0; i + 1 < line.length; i++) traceTo(ctx, line[i], line[i].mid, line[i + 1])
  ctx.strokeStyle = colour
  ctx.lineWidth = Math.max(width / 1e6, 0.8 * pen.px)
  ctx.stroke()
}

function bore(pen: Pen, at: Point, diameter: number, colour: string) {
  pen.ctx.beginPath()
  pen.ctx.arc(at.x / 1e6, at.y / 1e6, diameter / 2e6, 0, 2 * Math.PI)
  pen.ctx.fillStyle = colour
  pen.ctx.fill()
}

export function drawLines(pen: Pen, lines: Point[][], colour: string, width: number) {
  const { ctx } = pen
  ctx.beginPath()
  for (const l of lines) tracePoints(ctx, l, false)
  ctx.strokeStyle = colour
  ctx.lineWidth = Math.max(width / 1e6, 0.8 * pen.px)
  ctx.stroke()
}

/** A footprint by itself, as in the part finder. */
export function drawPattern(pen: Pen, f: Pattern, shade: 'light' | 'dark') {
  const c = boardColours[shade]
  const t = { at: { x: 0, y: 0 }, angle: 0, mirror: false }
  for (const p of f.pads) {
    if (p.barrel) paintOutline(pen, p.barrel, t, c.barrel)
    else if (p.on) for (const o of Object.values(p.on)) paintOutline(pen, o, t, copperColour(0, 2))
    if (p.bore) paintOutline(pen, p.bore, t, c.bore)
  }
  for (const o of f.silk) {
    pen.ctx.beginPath()
    traceOutline(pen.ctx, o, t)
    pen.ctx.strokeStyle = c.silkTop
    pen.ctx.lineWidth = Math.max(o.r ? (2 * o.r) / 1e6 : 0.15, 0.8 * pen.px)
    pen.ctx.stroke()
  }
}

/** Lines of one width in one colour, stroked together. */
export function stroked(width: number, colour: () => string, trace: (ctx: CanvasRenderingContext2D, px: number) => void): Batch {
  return {
    key: () => `line ${width}`,
    trace,
    paint(ctx, px) {
      ctx.strokeStyle = colour()
      ctx.lineWidth = Math.max(width / 1e6, 0.8 * px)
      ctx.lineCap = width / 1e6 < 2 * px ? 'butt' : 'round' // nobody sees the ends of fine lines
      ctx.stroke()
      ctx.lineCap = 'round'
    },
  }
}

/** Discs and other shapes without rounding, filled together. */
export function filled(colour: () => string, trace: (ctx: CanvasRenderingContext2D, px: number) => void): Batch {
  return {
    key: () => 'fill',
    trace,
    paint(ctx) {
      ctx.fillStyle = colour()
      ctx.fill()
    },
  }
}

function disc(ctx: CanvasRenderingContext2D, at: Point, r: number) {
  ctx.moveTo(at.x / 1e6 + r, at.y / 1e6)
  ctx.arc(at.x / 1e6, at.y / 1e6, r, 0, 2 * Math.PI)
}

/** What a part of a footprint has on each layer of the picture, as it would lie at the origin. */
interface Laid {
  pattern: Pattern
  layers: { layer: string; position: number; of: Outline[]; box: Box }[]
  /** Of what is drawn, and of the courtyard. */
  silk: Box
  pads: { small: number; box: Box }[]
}
const laid = new WeakMap<Pattern, Map<string, Laid>>()

function laidOf(f: Pattern, p: Placed, { layers, at }: Look): Laid {
  let known = laid.get(f)
  if (!known) laid.set(f, (known = new Map()))
  const key = `${p.angle} ${p.bottom ? 1 : 0} ${Array.from({ length: layers }, (_, i) => at(i)).join()}`
  const old = known.get(key)
  if (old) return old
  const t = { at: { x: 0, y: 0 }, angle: p.angle, mirror: !!p.bottom }
  const around = (boxes: Box[]) => boxes.reduce<Box | null>(union, null)
  const out: Laid = {
    pattern: f,
    layers: [],
    silk: around([...f.silk.map((o) => outlineBox(o, t)), boxOf(courtyard(f, t), 0.4e6)])!,
    pads: f.pads.map((pad) => {
      const b = outlineBox(padOutlines(pad)[0], t)
      return { small: Math.min(b.maxX - b.minX, b.maxY - b.minY) / 1e6, box: b }
    }),
  }
  const put = (layer: string, position: number, of: Outline[]) => {
    const box = around(of.map((o) => outlineBox(o, t)))
    if (box) out.layers.push({ layer, position, of, box })
  }
  for (let i = 0; i < layers; i++)
    put(
      'copper-' + at(i),
      i,
      f.pads.flatMap((pad) => padOn(pad, i, layers, p) ?? []),
    )
  put('barrel', -1, f.pads.flatMap((pad) => pad.barrel ?? [])) // prettier-ignore
  put('bore', -1, f.pads.flatMap((pad) => pad.bore ?? [])) // prettier-ignore
  known.set(key, out)
  return out
}

const shifted = (b: Box, by: Point): Box => ({ minX: b.minX + by.x, minY: b.minY + by.y, maxX: b.maxX + by.x, maxY: b.maxY + by.y }) // prettier-ignore

/** Everything of a part: its silk, its copper by layer and, from near, its pads' numbers and nets. */
export function placedItems(project: Project, p: Placed, look: () => Look): Item[] {
  const f = project.pattern(p.footprint)
  if (!f) return []
  const t = boardPose(p)
  const as = laidOf(f, p, look())
  const out: Item[] = [silkItem(project, p, as, look)]
  for (const { layer, position, of, box } of as.layers) {
    const colour = () => {
      const { colours, layers } = look()
      return layer === 'barrel' ? colours.barrel : layer === 'bore' ? colours.bore : copperColour(position, layers)
    }
    let made: Batch[] | null = null
    out.push({ ...shifted(box, p.at), id: p.id, layer, batches: () => (made ??= of.map((o) => outlineBatch(o, t, colour))) })
  }
  if (as.pads.length) out.push(namesItem(project, p, as, look))
  return out
}

/** The numbers and nets of a part's pads. */
function namesItem(project: Project, p: Placed, as: Laid, look: () => Look): Item {
  return {
    ...shifted(as.pads.map((s) => s.box).reduce<Box | null>(union, null)!, p.at),
    id: p.id,
    layer: 'pad-name',
    near: Math.max(...as.pads.map((s) => s.small)) / 26,
    draw: (pen) => {
      const t = boardPose(p)
      for (const [i, pad] of project.named('footprint', p.footprint)!.pads.entries()) {
        const { small } = as.pads[i]
        if (pen.px > small / 26) continue
        const at = apply(t, pad.at)
        const net = project.netName(p.nets[pad.number])
        const colour = pad.hole ? look().colours.text : '#17131E'
        pen.text(pad.number, at.x / 1e6, at.y / 1e6 + (net ? small * 0.16 : 0), small * 0.3, { colour })
        if (net)
          pen.text(net, at.x / 1e6, at.y / 1e6 - small * 0.2, Math.min(small * 0.22, (small * 1.5) / net.length), { colour })
      }
    },
  }
}

/** What is printed of a part. */
function silkItem(project: Project, p: Placed, as: Laid, look: () => Look): Item {
  const t = boardPose(p)
  const width = project.rule('silkWidth')
  const at = apply(t, p.label ?? project.named('footprint', p.footprint)!.designatorAt)
  const reach = (p.designator.length * 0.5 + 1) * (p.letters || 1_000_000) // the longest the designator can be, whichever way it reads
  let label: Point[][] | null = null
  const colour = () => (p.bottom ? look().colours.silkBottom : look().colours.silkTop)
  const trace = (ctx: CanvasRenderingContext2D, px: number) => {
    for (const o of as.pattern.silk) if (!o.r) traceOutline(ctx, o, t)
    if (1 / px <= 3) return
    label ??= textLines(p.designator, p.letters || 1_000_000, at, p.angle, !!p.bottom)
    for (const l of label) tracePoints(ctx, l, false)
  }
  const widths = [...new Set(as.pattern.silk.map((o) => o.r ?? 0))].filter((r) => r)
  const own = widths.map((r) =>
    stroked(2 * r, colour, (ctx) => as.pattern.silk.forEach((o) => o.r === r && traceOutline(ctx, o, t))),
  )
  return {
    ...union(shifted(as.silk, p.at), { minX: at.x - reach, minY: at.y - reach, maxX: at.x + reach, maxY: at.y + reach }),
    id: p.id,
    layer: p.bottom ? 'silk-bottom' : 'silk-top',
    batches: () => [stroked(width, colour, trace), ...own],
  }
}

export function trackItem(tr: Track, look: () => Look): Item {
  return {
    ...pieceBox(tr.a, tr.mid, tr.b, tr.width / 2),
    id: tr.id,
    layer: 'copper-' + tr.layer,
    batches: () => [stroked(tr.width, () => copperColour(look().position(tr.layer), look().layers), (ctx) => {
      ctx.moveTo(tr.a.x / 1e6, tr.a.y / 1e6)
      traceTo(ctx, tr.a, tr.mid, tr.b)
    })], // prettier-ignore
    ...(tr.bare ? { draw: (pen: Pen) => drawBare(pen, tr, look().colours.mask) } : {}),
  }
}

/** That the mask leaves a track bare: a dashed line along its middle. */
function drawBare(pen: Pen, tr: Track, colour: string) {
  const { ctx, px } = pen
  ctx.beginPath()
  ctx.moveTo(tr.a.x / 1e6, tr.a.y / 1e6)
  traceTo(ctx, tr.a, tr.mid, tr.b)
  ctx.strokeStyle = colour
  ctx.lineWidth = Math.max(tr.width / 4e6, px)
  ctx.setLineDash([6 * px, 5 * px])
  ctx.lineCap = 'butt'
  ctx.stroke()
  ctx.setLineDash([])
  ctx.lineCap = 'round'
}

/**
 * A via; one that does not go through shows the colours of the two layers it ends on. One that reaches no outer layer has a dark rim, a
 * lasered one a bright dot in its bore.
 */
export function viaItems(v: Via, look: () => Look): Item[] {
  const own = { ...boxOf([v.at], v.diameter / 2), id: v.id }
  const out: Item[] = [
    { ...own, layer: 'barrel', batches: () => [filled(() => look().colours.barrel, (ctx) => disc(ctx, v.at, v.diameter / 2e6))] }, // prettier-ignore
    { ...own, layer: 'bore', batches: () => [filled(() => look().colours.bore, (ctx) => disc(ctx, v.at, v.hole / 2e6))] }, // prettier-ignore
  ]
  const { position, layers } = look()
  if (position(v.from) > 0 || position(v.to) < layers - 1)
    out[0].draw = ({ ctx }) => {
      const halves = [[v.from, 0, Math.PI], [v.to, Math.PI, 2 * Math.PI]] // prettier-ignore
      for (const [layer, from, to] of halves) {
        ctx.beginPath()
        ctx.arc(v.at.x / 1e6, v.at.y / 1e6, v.diameter / 2e6, from, to)
        ctx.fillStyle = copperColour(look().position(layer), look().layers)
        ctx.fill()
      }
      if (position(v.from) > 0 && position(v.to) < layers - 1) {
        ctx.beginPath()
        ctx.arc(v.at.x / 1e6, v.at.y / 1e6, (v.diameter * 0.46) / 1e6, 0, 2 * Math.PI)
        ctx.strokeStyle = look().colours.bore
        ctx.lineWidth = (v.diameter * 0.08) / 1e6
        ctx.stroke()
      }
    }
  if (v.kind === 'laser')
    out[1].draw = ({ ctx }) => {
      for (const [r, fill] of [
        [v.hole / 2e6, look().colours.bore],
        [v.hole / 4e6, look().colours.edge],
      ] as const) {
        // prettier-ignore
        ctx.beginPath()
        ctx.arc(v.at.x / 1e6, v.at.y / 1e6, r, 0, 2 * Math.PI)
        ctx.fillStyle = fill
        ctx.fill()
      }
    }
  return out
}

export function holeItem(h: Hole, look: () => Look): Item {
  return {
    ...boxOf([h.at], Math.max(h.diameter, h.land ?? 0) / 2 + (h.keep ?? 0) + 0.2e6),
    id: h.id,
    layer: 'bore',
    draw: (pen) => {
      const { ctx } = pen
      const room = Math.max(h.diameter, h.land ?? 0) / 2
      if (h.keep) {
        ctx.beginPath()
        ctx.arc(h.at.x / 1e6, h.at.y / 1e6, (room + h.keep) / 1e6, 0, 2 * Math.PI)
        ctx.setLineDash([4 * pen.px, 3 * pen.px])
        ctx.strokeStyle = look().colours.link
        ctx.lineWidth = pen.px
        ctx.stroke()
        ctx.setLineDash([])
      }
      if (h.land) {
        ctx.beginPath()
        ctx.arc(h.at.x / 1e6, h.at.y / 1e6, room / 1e6, 0, 2 * Math.PI)
        ctx.fillStyle = look().colours.barrel
        ctx.fill()
      }
      bore(pen, h.at, h.diameter, look().colours.bore)
      ctx.strokeStyle = look().colours.edge
      ctx.lineWidth = 1.2 * pen.px
      ctx.stroke()
    },
  }
}

export function outlineItem(b: Board, look: () => Look): Item[] {
  if (!b.outline?.length) return []
  return [
    {
      ...ringBox(b.outline, 0.3e6),
      id: b.id,
      layer: 'board',
      draw: (pen) => {
        const { ctx } = pen
        ctx.beginPath()
        for (const ring of [b.outline, ...(b.cutOuts ?? [])]) traceRing(ctx, ring)
        ctx.fillStyle = look().colours.inside
        ctx.fill('evenodd')
        ctx.strokeStyle = look().colours.edge
        ctx.lineWidth = 1.5 * pen.px
        ctx.stroke()
      },
    },
  ]
}

/** A rule area: a dashed edge with its name; what it keeps out is said beside it. */
export function areaItem(a: RuleArea, look: () => Look): Item {
  const box = ringBox(a.outline, 0.2e6)
  return {
    ...box,
    id: a.id,
    layer: 'area',
    draw: (pen) => {
      const { ctx } = pen
      const colour = look().colours.link
      ctx.beginPath()
      traceRing(ctx, a.outline)
      ctx.strokeStyle = colour
      ctx.lineWidth = 1.2 * pen.px
      ctx.setLineDash([7 * pen.px, 4 * pen.px])
      ctx.stroke()
      ctx.setLineDash([])
      const kept = a.keepOut?.length ? ` · no ${a.keepOut.map((k) => thingWords[k] ?? k).join(', ')}` : ''
      const room = Math.max(8, Math.floor((box.maxX - box.minX) / 1e6 / (6.6 * pen.px)))
      const label = (a.name + kept).length > room ? (a.name + kept).slice(0, room - 1) + '…' : a.name + kept
      pen.text(label, box.minX / 1e6 + 4 * pen.px, box.maxY / 1e6 + 7 * pen.px, 11 * pen.px, { colour, align: 'left' })
    },
  }
}

/** Kinds of things on a board, several of them. */
export const thingWords: Record<string, string> = {
  track: 'tracks',
  surfacePad: 'surface pads',
  throughPad: 'plated pads',
  via: 'vias',
  unplatedHole: 'unplated holes',
  part: 'parts',
  figure: 'copper texts and figures',
  pour: 'copper areas',
}
