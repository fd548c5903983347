import type { Item, Pen } from '../canvas/scene'
import { type Box, boxOf } from '../canvas/viewport'
import type { Drawn, Kind, Mark } from '../live/wire.gen'
import type { CircuitColours } from '../shell/tokens'

/** Kinds of objects in the order in which they are painted; texts of parts come last. */
const layers = ['sheet', 'cluster', 'picture', 'shape', 'note', 'timing', 'block', 'part', 'wire', 'junction', 'tap', 'label', 'port', 'supply', 'openMark', 'text'] // prettier-ignore
export const layerOrder = (layer: string) => layers.indexOf(layer)

/** Gives pictures to the canvas as soon as they are here. */
export class Pictures {
  private known = new Map<number, HTMLImageElement>()
  constructor(
    private readonly address: (asset: number) => string,
    private readonly arrived: () => void,
  ) {}
  get(asset: number): HTMLImageElement | null {
    let img = this.known.get(asset)
    if (!img) {
      img = new Image()
      img.onload = this.arrived
      img.src = this.address(asset)
      this.known.set(asset, img)
    }
    return img.complete && img.naturalWidth > 0 ? img : null
  }
}

export interface Inks {
  colours: CircuitColours
  pictures: Pictures | null
}

/** Draws marks, all strokes and texts in one colour when tint is given. */
export function play(pen: Pen, marks: Mark[], inks: Inks, tint?: string) {
  const { ctx } = pen
  const c = inks.colours
  for (const m of marks) {
    const p = m.p ?? []
    if (m.t) {
      pen.text(m.t, p[0] / 1e6, p[1] / 1e6, (m.z ?? 0) / 1e6, {
        align: m.a === -1 ? 'left' : m.a === 1 ? 'right' : 'center',
        angle: m.u ? 90 : 0,
        mono: !m.m,
        weight: m.b ? 600 : 400,
        colour: tint ?? c[m.f ?? 'ink'],
      })
      continue
    }
    if (m.i) {
      picture(pen, p, inks.pictures?.get(m.i) ?? null, c)
      continue
    }
    ctx.beginPath()
    if (m.r) ctx.arc(p[0] / 1e6, p[1] / 1e6, m.r / 1e6, 0, 2 * Math.PI)
    else
      for (let i = 0; i + 1 < p.length; i += 2) {
        if (i) ctx.lineTo(p[i] / 1e6, p[i + 1] / 1e6)
        else ctx.moveTo(p[i] / 1e6, p[i + 1] / 1e6)
      }
    if (m.c) ctx.closePath()
    const fill = m.f && (tint && !m.s ? tint : c[m.f])
    if (fill) {
      ctx.fillStyle = fill
      ctx.fill()
    }
    if (m.s) {
      ctx.strokeStyle = tint ?? c[m.s] ?? c.ink
      ctx.lineWidth = Math.max((m.w ?? 0) / 1e6, (m.w ?? 0) > 350_000 ? 1.4 * pen.px : pen.px)
      if (m.d) ctx.setLineDash([2, 1.4])
      ctx.stroke()
      if (m.d) ctx.setLineDash([])
    }
  }
}

function picture(pen: Pen, p: number[], img: HTMLImageElement | null, c: CircuitColours) {
  const { ctx } = pen
  const [x0, y0, x1, y1] = p.map((v) => v / 1e6)
  if (!img) {
    ctx.strokeStyle = c.quiet
    ctx.lineWidth = pen.px
    ctx.strokeRect(x0, y0, x1 - x0, y1 - y0)
    return
  }
  ctx.save()
  ctx.translate(x0, y1)
  ctx.scale(1, -1)
  ctx.drawImage(img, 0, 0, x1 - x0, y1 - y0)
  ctx.restore()
}

/** The room a mark takes; letters are reckoned at 0.62 em, words at 0.56. */
export function markBox(m: Mark): Box {
  const p = m.p ?? []
  if (m.t) {
    const z = m.z ?? 0
    const w = [...m.t].length * z * (m.m ? 0.56 : 0.62)
    const from = m.a === -1 ? 0 : m.a === 1 ? -w : -w / 2
    const h = z * 0.55
    return m.u
      ? { minX: p[0] - h, maxX: p[0] + h, minY: p[1] + from, maxY: p[1] + from + w }
      : { minX: p[0] + from, maxX: p[0] + from + w, minY: p[1] - h, maxY: p[1] + h }
  }
  const pts = []
  for (let i = 0; i + 1 < p.length; i += 2) pts.push({ x: p[i], y: p[i + 1] })
  return boxOf(pts, (m.r ?? 0) + (m.w ?? 0) / 2)
}

export function marksBox(marks: Mark[]): Box {
  const out = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity }
  for (const m of marks) {
    const b = markBox(m)
    out.minX = Math.min(out.minX, b.minX)
    out.minY = Math.min(out.minY, b.minY)
    out.maxX = Math.max(out.maxX, b.maxX)
    out.maxY = Math.max(out.maxY, b.maxY)
  }
  return out
}

/** Marks moved by a step. */
export const moved = (marks: Mark[], dx: number, dy: number): Mark[] =>
  marks.map((m) => ({ ...m, p: (m.p ?? []).map((v, i) => v + (i % 2 ? dy : dx)) }))

/** What a scene holds of a drawn object: its body, and the texts of a part by themselves. */
export function itemsOf(d: Drawn, inks: () => Inks): (Item & { field?: string; marks: Mark[] })[] {
  const marks = d.marks ?? []
  const body = marks.filter((m) => !m.k)
  const item = (list: Mark[], layer: string, field?: string) => ({
    ...marksBox(list),
    id: d.id,
    layer,
    field,
    marks: list,
    draw: (pen: Pen) => play(pen, list, inks()),
  })
  const out = body.length ? [item(body, d.id ? d.kind : 'junction')] : []
  return [...out, ...marks.filter((m) => m.k).map((m) => item([m], 'text', m.k))]
}

export const dots = (pts: { x: number; y: number }[], knot: boolean): Mark[] =>
  pts.map((p) => ({ p: [p.x, p.y], r: knot ? 1.3e6 : 0.85e6, f: knot ? 'bundle' : 'wire' }))

/** Kinds that stand for a place of the circuit rather than beside it. */
export const electrical: Kind[] = ['part', 'wire', 'label', 'port', 'tap', 'supply', 'openMark', 'block']
