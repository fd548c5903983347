import { pieceBox, ringBox, traceRing, traceTo } from '../canvas/arcs'
import { apply, applyCorners, boardPose, padCore, type Pose, textLines, traceFigure, tracePoints } from '../canvas/geometry'
import type { Batch, Item, Pen } from '../canvas/scene'
import { type Box, boxOf } from '../canvas/viewport'
import type { Project } from '../live/project'
import type { Board, Footprint, Hole, Legend, Pad, PadShape, Placed, Point, RuleArea, Track, Via } from '../live/wire.gen'
import { type BoardColours, boardColours, copperColour } from '../shell/tokens'

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
    const ids = board.stack.filter((l) => l.copper).map((l) => l.id)
    const at = new Map(ids.map((id, i) => [id, i]))
    known = { layers: ids.length, position: (l) => at.get(l) ?? -1, at: (i) => ids[i] ?? 0 }
    looks.set(board, known)
  }
  return { ...known, colours }
}
const looks = new WeakMap<Board, Omit<Look, 'colours'>>()

/** Fills a pad's copper: everything within r of its core. */
export function fillPad(pen: Pen, pad: Pad, t: Pose, colour: string, grow = 0, shape: PadShape = pad) {
  const { ctx } = pen
  const core = padCore(pad, shape)
  const pts = applyCorners(t, core.pts)
  const r = core.r + grow
  const point = shape.form !== 'free' && pts.every((p) => p.x === pts[0].x && p.y === pts[0].y)
  ctx.beginPath()
  if (point) ctx.arc(pts[0].x / 1e6, pts[0].y / 1e6, r / 1e6, 0, 2 * Math.PI)
  else traceRing(ctx, pts)
  ctx.fillStyle = ctx.strokeStyle = colour
  ctx.fill()
  if (r > 0 && !point) {
    ctx.lineWidth = (2 * r) / 1e6
    ctx.stroke()
  }
}

/** The hole of a pad, round or a slot. */
function padBore(pen: Pen, pad: Pad, t: Pose, colour: string) {
  const own = { at: pad.at, angle: pad.angle ?? 0, mirror: false }
  const from = apply(t, apply(own, pad.holeAt ?? { x: 0, y: 0 }))
  if (!pad.slot?.x && !pad.slot?.y) {
    bore(pen, from, pad.hole!, colour)
    return
  }
  const at = pad.holeAt ?? { x: 0, y: 0 }
  drawLines(pen, [[from, apply(t, apply(own, { x: at.x + pad.slot.x, y: at.y + pad.slot.y }))]], colour, pad.hole!)
}

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

function drawFigures(pen: Pen, f: Footprint['silk'], t: Pose, colour: string, width: number) {
  const { ctx } = pen
  ctx.beginPath()
  for (const fig of f) traceFigure(ctx, fig, t)
  ctx.strokeStyle = colour
  ctx.lineWidth = Math.max(width / 1e6, 0.8 * pen.px)
  ctx.stroke()
}

/** A footprint by itself, as in the part finder. */
export function drawFootprint(pen: Pen, f: Footprint, shade: 'light' | 'dark') {
  const c = boardColours[shade]
  const t = { at: { x: 0, y: 0 }, angle: 0, mirror: false }
  for (const p of f.pads) {
    fillPad(pen, p, t, p.hole ? c.barrel : copperColour(0, 2))
    if (p.hole) padBore(pen, p, t, c.bore)
  }
  drawFigures(pen, f.silk, t, c.silkTop, 150_000)
}

export function padBox(p: Pad, t: Pose) {
  const core = padCore(p)
  return ringBox(applyCorners(t, core.pts), core.r)
}

export function courtyard(f: Footprint, t: Pose): Point[] {
  if (f.courtyard.length > 2) return f.courtyard.map((p) => apply(t, p))
  const b = f.pads.map((p) => padBox(p, { at: { x: 0, y: 0 }, angle: 0, mirror: false }))
  const [x0, y0, x1, y1] = [
    Math.min(...b.map((q) => q.minX)),
    Math.min(...b.map((q) => q.minY)),
    Math.max(...b.map((q) => q.maxX)),
    Math.max(...b.map((q) => q.maxY)),
  ]
  return [{ x: x0, y: y0 }, { x: x1, y: y0 }, { x: x1, y: y1 }, { x: x0, y: y1 }].map((p) => apply(t, p)) // prettier-ignore
}

/** Lines of one width in one colour, stroked together. */
function stroked(width: number, colour: () => string, trace: (ctx: CanvasRenderingContext2D, px: number) => void): Batch {
  return {
    key: `line ${width}`,
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
function filled(colour: () => string, trace: (ctx: CanvasRenderingContext2D, px: number) => void): Batch {
  return {
    key: 'fill',
    trace,
    paint(ctx) {
      ctx.fillStyle = colour()
      ctx.fill()
    },
  }
}

/** The copper of a pad: all within r of its core; from afar a rectangle. */
function padBatch(pad: Pad, t: Pose, shape: PadShape, box: Box, colour: () => string): Batch {
  const core = padCore(pad, shape)
  const pts = applyCorners(t, core.pts)
  const r = core.r / 1e6
  const point = shape.form !== 'free' && pts.every((p) => p.x === pts[0].x && p.y === pts[0].y)
  const small = Math.min(box.maxX - box.minX, box.maxY - box.minY) / 1e6
  return {
    key: point ? 'fill' : `pad ${core.r}`,
    trace(ctx, px) {
      if (small < 2.5 * px) ctx.rect(box.minX / 1e6, box.minY / 1e6, (box.maxX - box.minX) / 1e6, (box.maxY - box.minY) / 1e6)
      else if (point) disc(ctx, pts[0], r)
      else traceRing(ctx, pts)
    },
    paint(ctx, px) {
      ctx.fillStyle = ctx.strokeStyle = colour()
      ctx.fill()
      if (point || r <= 0.4 * px) return
      ctx.lineWidth = 2 * r
      ctx.stroke()
    },
  }
}

function disc(ctx: CanvasRenderingContext2D, at: Point, r: number) {
  ctx.moveTo(at.x / 1e6 + r, at.y / 1e6)
  ctx.arc(at.x / 1e6, at.y / 1e6, r, 0, 2 * Math.PI)
}

/** Everything of a part: its copper, its silk and, from near, its pads' numbers and nets. */
export function placedItems(project: Project, p: Placed, look: () => Look): Item[] {
  const f = project.named('footprint', p.footprint)
  if (!f) return []
  const t = boardPose(p)
  const side = p.bottom ? 'bottom' : 'top'
  const out: Item[] = []
  const yard = courtyard(f, t)
  const width = project.rule('silkWidth')
  const label = textLines(p.designator, 1_000_000, apply(t, p.label ?? f.designatorAt), p.angle, !!p.bottom)
  out.push({
    ...boxOf([...yard, ...label.flat(), ...f.silk.flatMap((s) => s.pts.map((q) => apply(t, q)))], 0.4e6),
    id: p.id,
    layer: 'silk-' + side,
    batch: stroked(width, () => (p.bottom ? look().colours.silkBottom : look().colours.silkTop), (ctx, px) => {
      for (const fig of f.silk) traceFigure(ctx, fig, t)
      if (1 / px > 3) for (const l of label) tracePoints(ctx, l, false)
    }), // prettier-ignore
  })
  for (const pad of f.pads) {
    const box = padBox(pad, t)
    const at = apply(t, pad.at)
    const onLayer = (position: number, shape: PadShape) => {
      const own = shape === pad ? box : ringBox(applyCorners(t, padCore(pad, shape).pts), padCore(pad, shape).r)
      out.push({
        ...own,
        id: p.id,
        layer: 'copper-' + look().at(position),
        batch: padBatch(pad, t, shape, own, () => copperColour(position, look().layers)),
      })
    }
    const last = look().layers - 1
    if (!pad.hole) onLayer(!p.bottom !== !!pad.far ? 0 : last, pad.on?.[pad.far ? 'far' : 'near'] ?? pad)
    else {
      for (let i = 0; i <= last; i++) {
        const shape = pad.on?.[i > 0 && i < last ? 'inner' : (i === 0) === !p.bottom ? 'near' : 'far']
        if (shape) onLayer(i, shape)
      }
      if (!pad.bare)
        out.push({ ...box, id: p.id, layer: 'barrel', batch: padBatch(pad, t, pad, box, () => look().colours.barrel) })
      out.push({ ...box, id: p.id, layer: 'bore', draw: (pen) => padBore(pen, pad, t, look().colours.bore) })
    }
    const small = Math.min(box.maxX - box.minX, box.maxY - box.minY) / 1e6
    out.push({
      ...box,
      id: p.id,
      layer: 'pad-name',
      near: small / 26,
      draw: (pen) => {
        const c = look().colours
        const net = project.netName(p.nets[pad.number])
        const colour = pad.hole ? c.text : '#17131E'
        pen.text(pad.number, at.x / 1e6, at.y / 1e6 + (net ? small * 0.16 : 0), small * 0.3, { colour })
        if (net)
          pen.text(net, at.x / 1e6, at.y / 1e6 - small * 0.2, Math.min(small * 0.22, (small * 1.5) / net.length), { colour })
      },
    })
  }
  return out
}

export function trackItem(tr: Track, look: () => Look): Item {
  return {
    ...pieceBox(tr.a, tr.mid, tr.b, tr.width / 2),
    id: tr.id,
    layer: 'copper-' + tr.layer,
    batch: stroked(tr.width, () => copperColour(look().position(tr.layer), look().layers), (ctx) => {
      ctx.moveTo(tr.a.x / 1e6, tr.a.y / 1e6)
      traceTo(ctx, tr.a, tr.mid, tr.b)
    }), // prettier-ignore
  }
}

/** A via; one that does not go through shows the colours of the two layers it ends on. */
export function viaItems(v: Via, look: () => Look): Item[] {
  const own = { ...boxOf([v.at], v.diameter / 2), id: v.id }
  const out: Item[] = [
    { ...own, layer: 'barrel', batch: filled(() => look().colours.barrel, (ctx) => disc(ctx, v.at, v.diameter / 2e6)) }, // prettier-ignore
    { ...own, layer: 'bore', batch: filled(() => look().colours.bore, (ctx) => disc(ctx, v.at, v.hole / 2e6)) }, // prettier-ignore
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
    }
  return out
}

export function holeItem(h: Hole, look: () => Look): Item {
  return {
    ...boxOf([h.at], h.diameter / 2 + 0.2e6),
    id: h.id,
    layer: 'bore',
    draw: (pen) => {
      const { ctx } = pen
      bore(pen, h.at, h.diameter, look().colours.bore)
      ctx.strokeStyle = look().colours.edge
      ctx.lineWidth = 1.2 * pen.px
      ctx.stroke()
    },
  }
}

export function legendItem(l: Legend, width: number, look: () => Look): Item {
  const lines = textLines(l.text, l.height, l.at, l.angle, !!l.bottom)
  const pts = lines.flat()
  return {
    ...boxOf(pts.length ? pts : [l.at], l.height / 6),
    id: l.id,
    layer: l.bottom ? 'silk-bottom' : 'silk-top',
    batch: stroked(Math.max(width, l.height / 8), () => (l.bottom ? look().colours.silkBottom : look().colours.silkTop), (ctx) => {
      for (const line of lines) tracePoints(ctx, line, false)
    }), // prettier-ignore
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
      pen.text(a.name + kept, box.minX / 1e6 + 4 * pen.px, box.maxY / 1e6 + 7 * pen.px, 11 * pen.px, { colour, align: 'left' })
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
}
