import { apply, boardPose, padCore, type Pose, textLines, traceFigure, tracePoints } from '../canvas/geometry'
import type { Item, Pen } from '../canvas/scene'
import { boxOf } from '../canvas/viewport'
import type { Project } from '../live/project'
import type { Board, Footprint, Hole, Legend, Pad, Placed, Point, Track, Via } from '../live/wire.gen'
import { type BoardColours, boardColours, copperColour } from '../shell/tokens'

export interface Look {
  colours: BoardColours
  layers: number
}

/** Fills a pad's copper: everything within r of its core. */
export function fillPad(pen: Pen, pad: Pad, t: Pose, colour: string, grow = 0) {
  const { ctx } = pen
  const core = padCore(pad)
  const pts = core.pts.map((p) => apply(t, p))
  const r = core.r + grow
  const [a, c] = [pts[0], pts[2]]
  ctx.beginPath()
  if (a.x === c.x && a.y === c.y) ctx.arc(a.x / 1e6, a.y / 1e6, r / 1e6, 0, 2 * Math.PI)
  else tracePoints(ctx, pts, true)
  ctx.fillStyle = ctx.strokeStyle = colour
  ctx.fill()
  if (r > 0 && (a.x !== c.x || a.y !== c.y)) {
    ctx.lineWidth = (2 * r) / 1e6
    ctx.stroke()
  }
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
    if (p.hole) bore(pen, p.at, p.hole, c.bore)
  }
  drawFigures(pen, f.silk, t, c.silkTop, 150_000)
}

export function padBox(p: Pad, t: Pose) {
  const core = padCore(p)
  return boxOf(
    core.pts.map((q) => apply(t, q)),
    core.r,
  )
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

/** Everything of a part: its copper, its silk and, from near, its pads' numbers and nets. */
export function placedItems(project: Project, p: Placed, look: () => Look): Item[] {
  const f = project.named('footprint', p.footprint)
  if (!f) return []
  const t = boardPose(p)
  const side = p.bottom ? 'bottom' : 'top'
  const out: Item[] = []
  const yard = courtyard(f, t)
  const width = project.board.rules.silkWidth
  const label = textLines(p.designator, 1_000_000, apply(t, p.label ?? f.designatorAt), p.angle, !!p.bottom)
  out.push({
    ...boxOf([...yard, ...label.flat(), ...f.silk.flatMap((s) => s.pts.map((q) => apply(t, q)))], 0.4e6),
    id: p.id,
    layer: 'silk-' + side,
    draw: (pen) => {
      const c = look().colours
      const colour = p.bottom ? c.silkBottom : c.silkTop
      drawFigures(pen, f.silk, t, colour, width)
      if (1 / pen.px > 3) drawLines(pen, label, colour, width)
    },
  })
  for (const pad of f.pads) {
    const box = padBox(pad, t)
    const at = apply(t, pad.at)
    if (!pad.hole) {
      const side = p.bottom ? look().layers - 1 : 0
      out.push({
        ...box,
        id: p.id,
        layer: 'copper-' + side,
        draw: (pen) => fillPad(pen, pad, t, copperColour(side, look().layers)),
      })
    } else {
      out.push({
        ...box,
        id: p.id,
        layer: 'barrel',
        draw: (pen) => {
          const c = look().colours
          if (!pad.bare) fillPad(pen, pad, t, c.barrel)
          bore(pen, at, pad.hole!, c.bore)
        },
      })
    }
    const small = Math.min(box.maxX - box.minX, box.maxY - box.minY) / 1e6
    out.push({
      ...box,
      id: p.id,
      layer: 'pad-name',
      draw: (pen) => {
        if (small / pen.px < 26) return
        const c = look().colours
        const net = p.nets[pad.number] ?? ''
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
    ...boxOf([tr.a, tr.b], tr.width / 2),
    id: tr.id,
    layer: 'copper-' + tr.layer,
    draw: (pen) => drawLines(pen, [[tr.a, tr.b]], copperColour(tr.layer, look().layers), tr.width),
  }
}

export function viaItem(v: Via, look: () => Look): Item {
  return {
    ...boxOf([v.at], v.diameter / 2),
    id: v.id,
    layer: 'barrel',
    draw: (pen) => {
      bore(pen, v.at, v.diameter, look().colours.barrel)
      bore(pen, v.at, v.hole, look().colours.bore)
    },
  }
}

export function holeItem(h: Hole, look: () => Look): Item {
  return {
    ...boxOf([h.at], h.diameter / 2 + 0.2e6),
    id: h.id,
    layer: 'barrel',
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
    draw: (pen) =>
      drawLines(pen, lines, l.bottom ? look().colours.silkBottom : look().colours.silkTop, Math.max(width, l.height / 8)),
  }
}

export function outlineItem(b: Board, look: () => Look): Item[] {
  if (!b.outline || b.outline.length < 3) return []
  return [
    {
      ...boxOf(b.outline, 0.3e6),
      id: b.id,
      layer: 'board',
      draw: (pen) => {
        const { ctx } = pen
        ctx.beginPath()
        tracePoints(ctx, b.outline, true)
        ctx.fillStyle = look().colours.inside
        ctx.fill()
        ctx.strokeStyle = look().colours.edge
        ctx.lineWidth = 1.5 * pen.px
        ctx.stroke()
      },
    },
  ]
}
