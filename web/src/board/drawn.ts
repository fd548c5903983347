import { pieceBox, ringBox, traceRing, traceTo } from '../canvas/arcs'
import { apply, textLines, textPose, tracePoints } from '../canvas/geometry'
import type { Batch, Item, Pen } from '../canvas/scene'
import { type Box, boxOf, union } from '../canvas/viewport'
import { format } from '../live/units'
import type { BoardFigure, Corner, DimensionDrawn, Legend, Point } from '../live/wire.gen'
import type { Unit } from '../live/units'
import { copperColour } from '../shell/tokens'
import { type Look, stroked } from './draw'

/** Texts, figures and dimensions of the board. */

/** On what a text or figure can lie. */
export const surfaces = [
  { value: '', title: 'Silk' },
  { value: 'copper', title: 'Copper' },
  { value: 'mask', title: 'Mask, open' },
  { value: 'paste', title: 'Paste' },
  { value: 'drawing', title: 'Drawing alone' },
]

export const fonts = [
  { value: '', title: 'Strokes' },
  { value: 'words', title: 'Barlow' },
  { value: 'bold', title: 'Barlow bold' },
  { value: 'mono', title: 'JetBrains Mono' },
]

type Lying = Pick<Legend, 'on' | 'layer' | 'bottom'>

/** The layer of the scene that something lies on. */
export function sceneLayer({ on, layer, bottom }: Lying): string {
  if (on === 'copper') return `copper-${layer}`
  if (on === 'drawing') return 'drawing'
  return `${on || 'silk'}-${bottom ? 'bottom' : 'top'}`
}

function inkOf({ on, layer, bottom }: Lying, look: () => Look) {
  return () => {
    const l = look()
    switch (on) {
      case 'copper':
        return copperColour(l.position(layer ?? 0), l.layers)
      case 'mask':
        return l.colours.mask
      case 'paste':
        return l.colours.paste
      case 'drawing':
        return l.colours.drawing
    }
    return bottom ? l.colours.silkBottom : l.colours.silkTop
  }
}

/** Rings filled where an odd number of them surround. */
function ringsBatch(rings: Point[][] | Corner[][], colour: () => string): Batch {
  return {
    key: () => 'rings ' + ++rung,
    trace: (ctx) => rings.forEach((r) => traceRing(ctx, r)),
    paint(ctx) {
      ctx.fillStyle = colour()
      ctx.fill('evenodd')
    },
  }
}
let rung = 0 // each is filled by itself

/** A text of the board; rings are its outlines around its middle, when it is set in an outline font. */
export function legendItem(l: Legend, rings: Point[][] | undefined, width: number, look: () => Look): Item {
  const colour = inkOf(l, look)
  if (l.font) {
    const t = textPose(l.at, l.angle, !!l.bottom)
    const placed = (rings ?? []).map((r) => r.map((p) => apply(t, p)))
    const pts = placed.flat()
    return { ...boxOf(pts.length ? pts : [l.at]), id: l.id, layer: sceneLayer(l), batches: () => [ringsBatch(placed, colour)] }
  }
  const lines = textLines(l.text, l.height, l.at, l.angle, !!l.bottom)
  const pts = lines.flat()
  const own = l.stroke || l.height / 8
  const pen = l.on ? own : Math.max(width, own)
  return {
    ...boxOf(pts.length ? pts : [l.at], l.height / 6),
    id: l.id,
    layer: sceneLayer(l),
    batches: () => [
      stroked(pen, colour, (ctx) => {
        for (const line of lines) tracePoints(ctx, line, false)
      }),
    ],
  }
}

function lineBox(line: Corner[], closed: boolean, grow: number): Box {
  if (closed && line.length > 1) return ringBox(line, grow)
  let b = boxOf(line, grow)
  for (let i = 0; i + 1 < line.length; i++) b = union(b, pieceBox(line[i], line[i].mid, line[i + 1], grow))
  return b
}

function traceLine(ctx: CanvasRenderingContext2D, line: Corner[], closed: boolean, px: number) {
  if (line.length === 1) {
    ctx.moveTo(line[0].x / 1e6, line[0].y / 1e6)
    ctx.lineTo(line[0].x / 1e6 + px / 100, line[0].y / 1e6)
  } else if (closed) traceRing(ctx, line)
  else {
    ctx.moveTo(line[0].x / 1e6, line[0].y / 1e6)
    for (let i = 0; i + 1 < line.length; i++) traceTo(ctx, line[i], line[i].mid, line[i + 1])
  }
}

/** Something drawn on the board. */
export function figureItem(f: BoardFigure, look: () => Look): Item {
  const colour = inkOf(f, look)
  const grow = (f.width ?? 0) / 2
  const box = f.lines.map((l) => lineBox(l, !!f.closed, grow)).reduce<Box | null>(union, null)
  const opening = f.fiducial
  if (opening)
    return {
      ...boxOf([f.lines[0][0]], opening / 2),
      id: f.id,
      layer: sceneLayer(f),
      draw: (pen) => paintFiducial(pen, f, colour(), opening),
    }
  return {
    ...(box ?? boxOf([{ x: 0, y: 0 }])),
    id: f.id,
    layer: sceneLayer(f),
    batches: () => [
      ...(f.filled ? [ringsBatch(f.lines, colour)] : []),
      ...(f.width ? [stroked(f.width, colour, (ctx, px) => f.lines.forEach((l) => traceLine(ctx, l, !!f.closed, px)))] : []),
    ],
  }
}

/** A dot of copper, and the ring within which the board is bare. */
function paintFiducial({ ctx, px }: Pen, f: BoardFigure, colour: string, opening: number) {
  const { x, y } = f.lines[0][0]
  ctx.beginPath()
  ctx.arc(x / 1e6, y / 1e6, (f.width ?? 0) / 2e6, 0, 2 * Math.PI)
  ctx.fillStyle = ctx.strokeStyle = colour
  ctx.fill()
  ctx.beginPath()
  ctx.arc(x / 1e6, y / 1e6, opening / 2e6, 0, 2 * Math.PI)
  ctx.lineWidth = 1.2 * px
  ctx.setLineDash([4 * px, 3 * px])
  ctx.stroke()
  ctx.setLineDash([])
}

/** A dimension: two lines from what it measures, and one with the length. */
export function dimensionItem(m: DimensionDrawn, look: () => Look, unit: () => Unit): Item {
  const ends = [m.from, m.to, m.a, m.b]
  return {
    ...boxOf(ends, 2.2e6),
    id: m.id,
    layer: 'drawing',
    draw: (pen) => paintDimension(pen, m, look().colours.drawing, unit()),
  }
}

export function paintDimension(pen: Pen, m: DimensionDrawn, colour: string, unit: Unit) {
  const { ctx, px } = pen
  const [ax, ay, bx, by] = [m.a.x / 1e6, m.a.y / 1e6, m.b.x / 1e6, m.b.y / 1e6]
  const l = Math.hypot(bx - ax, by - ay)
  ctx.strokeStyle = ctx.fillStyle = colour
  ctx.lineWidth = px
  ctx.beginPath()
  for (const [from, to] of [
    [m.from, m.a],
    [m.to, m.b],
  ]) {
    const [fx, fy, tx, ty] = [from.x / 1e6, from.y / 1e6, to.x / 1e6, to.y / 1e6]
    const far = Math.hypot(tx - fx, ty - fy)
    if (far < 3 * px) continue
    const [ux, uy] = [(tx - fx) / far, (ty - fy) / far]
    ctx.moveTo(fx + ux * Math.min(4 * px, far / 4), fy + uy * Math.min(4 * px, far / 4))
    ctx.lineTo(tx + ux * 5 * px, ty + uy * 5 * px)
  }
  ctx.moveTo(ax, ay)
  ctx.lineTo(bx, by)
  ctx.stroke()
  if (l > 0) {
    const [ux, uy] = [(bx - ax) / l, (by - ay) / l]
    const s = 7 * px
    for (const [x, y, k] of [
      [ax, ay, 1],
      [bx, by, -1],
    ]) {
      ctx.beginPath()
      ctx.moveTo(x, y)
      ctx.lineTo(x + k * ux * s - uy * s * 0.28, y + k * uy * s + ux * s * 0.28)
      ctx.lineTo(x + k * ux * s + uy * s * 0.28, y + k * uy * s - ux * s * 0.28)
      ctx.closePath()
      ctx.fill()
    }
  }
  const text = `${format(m.length, unit, 3)}${m.text ? ` ${m.text}` : ''}`
  const flip = bx < ax || (bx === ax && by < ay)
  const angle = l ? Math.atan2(flip ? ay - by : by - ay, flip ? ax - bx : bx - ax) : 0
  ctx.save()
  ctx.translate((ax + bx) / 2, (ay + by) / 2)
  ctx.rotate(angle)
  pen.text(text, 0, 8 * px, 12 * px, { colour })
  ctx.restore()
}
