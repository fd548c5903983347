import type { Item, Pen } from '../../canvas/scene'
import { type Box, boxOf } from '../../canvas/viewport'
import { textLines, tracePoints } from '../../canvas/geometry'
import { arcOf, traceTo } from '../../canvas/arcs'
import { outlineBox, paintOutline } from '../../board/pattern'
import type { Agreement, Figure, Outline, Pad, Pattern, Point } from '../../live/wire.gen'
import { type BoardColours, copperColour } from '../../shell/tokens'
import { idOf } from '../pieces'
import { padBox } from './features'

/** What stands on the canvas of a footprint, layer by layer from below. */
export const layers = ['beneath', 'courtyard', 'copper', 'barrel', 'bore', 'mask', 'paste', 'body', 'silk', 'text', 'name', 'dimension'] // prettier-ignore

const still = { at: { x: 0, y: 0 }, angle: 0, mirror: false }
type Look = () => BoardColours

/** A pad with its number. */
export function padItems(p: Pad, ref: number, shape: Pattern['pads'][number], look: Look): Item[] {
  const id = idOf('pad', ref)
  const box = padBox(shape)
  if (!box) return []
  const small = Math.min(box.maxX - box.minX, box.maxY - box.minY) / 1e6
  const out: Item[] = []
  const on = Object.entries(shape.on ?? {})
  for (const [group, o] of on)
    out.push({ ...outlineBox(o, still), id, layer: 'copper', draw: (pen) => paintOutline(pen, o, still, copperColour(group === 'far' ? 1 : 0, 2)) }) // prettier-ignore
  if (shape.barrel) out.push({ ...outlineBox(shape.barrel, still), id, layer: 'barrel', draw: (pen) => paintOutline(pen, shape.barrel!, still, look().barrel) }) // prettier-ignore
  if (shape.bore)
    out.push({
      ...outlineBox(shape.bore, still),
      id,
      layer: 'bore',
      draw: (pen) => {
        paintOutline(pen, shape.bore!, still, look().bore)
        if (p.bare) ring(pen, shape.bore!, look().edge)
      },
    })
  if (p.number)
    out.push({
      ...box,
      id,
      layer: 'name',
      near: small / 9,
      draw: (pen) =>
        pen.text(p.number, p.at.x / 1e6, p.at.y / 1e6, Math.min(small * 0.55, (small * 1.5) / p.number.length, 0.9), {
          colour: p.hole ? look().text : '#17131E',
          weight: 600,
        }),
    })
  return out
}

function ring(pen: Pen, o: Outline, colour: string) {
  const r = (o.r ?? 0) / 1e6
  if (o.corners.length !== 1) return
  pen.ctx.beginPath()
  pen.ctx.arc(o.corners[0].x / 1e6, o.corners[0].y / 1e6, r, 0, 2 * Math.PI)
  pen.ctx.strokeStyle = colour
  pen.ctx.lineWidth = 1.2 * pen.px
  pen.ctx.stroke()
}

export function figureBox(g: Figure): Box {
  if (g.form === 'circle') return boxOf(g.pts, (g.r ?? 0) + (g.width ?? 0) / 2)
  if (g.form === 'arc') {
    const a = arcOf(g.pts[0], g.pts[1], g.pts[2])
    if (a) return boxOf([...g.pts], Math.hypot(g.pts[0].x - g.pts[2].x, g.pts[0].y - g.pts[2].y))
  }
  return boxOf(g.pts, (g.width ?? 0) / 2)
}

/** Traces the middle line of a figure. */
export function traceFigure(ctx: CanvasRenderingContext2D, g: Pick<Figure, 'form' | 'pts' | 'r'>) {
  const [a, m, b] = g.pts
  if (g.form === 'circle') {
    ctx.moveTo((a.x + (g.r ?? 0)) / 1e6, a.y / 1e6)
    ctx.arc(a.x / 1e6, a.y / 1e6, (g.r ?? 0) / 1e6, 0, 2 * Math.PI)
  } else if (g.form === 'arc') {
    ctx.moveTo(a.x / 1e6, a.y / 1e6)
    traceTo(ctx, a, m, b)
  } else tracePoints(ctx, g.pts, g.form !== 'line')
}

export function figureItem(g: Figure, ref: number, what: 'silk' | 'body', usual: number, look: Look): Item {
  return {
    ...figureBox(g),
    id: idOf(what, ref),
    layer: what,
    draw: ({ ctx, px }) => {
      ctx.beginPath()
      traceFigure(ctx, g)
      ctx.strokeStyle = what === 'silk' ? look().silkTop : look().others
      ctx.lineWidth = what === 'silk' ? Math.max((g.width || usual) / 1e6, px) : 1.3 * px
      if (g.form === 'solid') {
        ctx.fillStyle = ctx.strokeStyle
        ctx.fill()
      }
      ctx.stroke()
    },
  }
}

/** Openings of mask or paste: their edges, paste hatched by a lighter fill. */
export function openingItem(o: Outline, layer: 'mask' | 'paste', look: Look): Item {
  return {
    ...outlineBox(o, still),
    id: 0,
    layer,
    draw: ({ ctx, px }) => {
      const r = (o.r ?? 0) / 1e6
      const colour = look()[layer]
      ctx.beginPath()
      if (o.corners.length === 1) ctx.arc(o.corners[0].x / 1e6, o.corners[0].y / 1e6, r, 0, 2 * Math.PI)
      else {
        const b = outlineBox({ ...o, r: 0 }, still)
        if (o.area && o.corners.some((c) => c.mid)) {
          o.corners.forEach((c, i) => {
            const next = o.corners[(i + 1) % o.corners.length]
            if (!i) ctx.moveTo(c.x / 1e6, c.y / 1e6)
            traceTo(ctx, c, c.mid, next)
          })
          ctx.closePath()
        } else if (r > 0)
          ctx.roundRect(b.minX / 1e6 - r, b.minY / 1e6 - r, (b.maxX - b.minX) / 1e6 + 2 * r, (b.maxY - b.minY) / 1e6 + 2 * r, r) // prettier-ignore
        else tracePoints(ctx, o.corners, true)
      }
      ctx.strokeStyle = colour
      ctx.lineWidth = 1.2 * px
      ctx.setLineDash(layer === 'paste' ? [3 * px, 2.5 * px] : [])
      ctx.stroke()
      ctx.setLineDash([])
    },
  }
}

export function yardItem(yard: Point[], look: Look): Item {
  return {
    ...boxOf(yard),
    id: idOf('courtyard', 1),
    layer: 'courtyard',
    draw: ({ ctx, px }) => {
      ctx.beginPath()
      tracePoints(ctx, yard, true)
      ctx.strokeStyle = look().yard
      ctx.lineWidth = 1.3 * px
      ctx.setLineDash([6 * px, 4 * px])
      ctx.stroke()
      ctx.setLineDash([])
    },
  }
}

/** A text's place: what will stand there, as it is printed. */
export function textItem(at: Point, words: string, ref: number, look: Look): Item {
  const wide = words.length * 0.45e6
  const lines = textLines(words, 1_000_000, at, 0, false)
  return {
    minX: at.x - wide,
    maxX: at.x + wide,
    minY: at.y - 0.6e6,
    maxY: at.y + 0.6e6,
    id: idOf('text', ref),
    layer: 'text',
    draw: ({ ctx, px }) => {
      ctx.beginPath()
      for (const l of lines) tracePoints(ctx, l, false)
      ctx.strokeStyle = ref === 1 ? look().silkTop : look().yard
      ctx.lineWidth = Math.max(0.13, px)
      ctx.stroke()
    },
  }
}

/** Where the line of a dimension stands: off what it measures, or at the x or y that it was given beside others. */
export function dimensionLine(d: Agreement, way: string, at?: number): { a: Point; b: Point; lineA: Point; lineB: Point } {
  const { a, b } = d
  if (way === 'x') {
    const y = at ?? Math.max(a.y, b.y) + 0.9e6
    return { a, b, lineA: { x: a.x, y }, lineB: { x: b.x, y } }
  }
  if (way === 'y') {
    const x = at ?? Math.max(a.x, b.x) + 0.9e6
    return { a, b, lineA: { x, y: a.y }, lineB: { x, y: b.y } }
  }
  return { a, b, lineA: a, lineB: b }
}

/** Where the lines of several stand, so that none lies over another: outside of everything, the shorter ones nearer. */
export function dimensionPlaces(list: { said: Agreement; way: string }[], all: Box, apart: number): (number | undefined)[] {
  const out: (number | undefined)[] = list.map(() => undefined)
  for (const way of ['x', 'y'])
    list
      .map((d, i) => ({ ...d, i }))
      .filter((d) => d.way === way)
      .sort((a, b) => a.said.has - b.said.has)
      .forEach((d, k) => (out[d.i] = (way === 'x' ? all.maxY : all.maxX) + (k + 1) * apart))
  return out
}

/** Paints a dimension line with its figure, and where the datasheet has its say the sign of agreement. */
export function paintDimension(pen: Pen, d: Agreement, way: string, colour: string, words: string, at?: number) {
  const { ctx, px } = pen
  const { a, b, lineA, lineB } = dimensionLine(d, way, at)
  const mm = (p: Point) => [p.x / 1e6, p.y / 1e6] as const
  ctx.strokeStyle = ctx.fillStyle = colour
  ctx.lineWidth = px
  ctx.beginPath()
  ctx.moveTo(...mm(a))
  ctx.lineTo(...mm(lineA))
  ctx.moveTo(...mm(b))
  ctx.lineTo(...mm(lineB))
  ctx.moveTo(...mm(lineA))
  ctx.lineTo(...mm(lineB))
  const angle = Math.atan2(lineB.y - lineA.y, lineB.x - lineA.x)
  for (const [p, turn] of [[lineA, angle], [lineB, angle + Math.PI]] as const)
    for (const off of [0.4, -0.4]) {
      ctx.moveTo(...mm(p))
      ctx.lineTo(p.x / 1e6 + 7 * px * Math.cos(turn + off), p.y / 1e6 + 7 * px * Math.sin(turn + off))
    } // prettier-ignore
  ctx.stroke()
  const [x, y] = [(lineA.x + lineB.x) / 2e6, (lineA.y + lineB.y) / 2e6]
  const upright = way === 'y'
  pen.text(words, x + (upright ? 8 * px : 0), y + (upright ? 0 : 8 * px), 12 * px, { colour, angle: upright ? 90 : 0 })
}
