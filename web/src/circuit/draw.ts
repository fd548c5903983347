import { apply, partPose, traceFigure, tracePoints } from '../canvas/geometry'
import type { Item, Pen } from '../canvas/scene'
import { type Box, boxOf } from '../canvas/viewport'
import type { Project } from '../live/project'
import type { Kinds, Part, Point, Sheet, Symbol as SymbolDrawing } from '../live/wire.gen'
import type { CircuitColours } from '../shell/tokens'

export const sheetSize: Record<string, Point> = { A4: { x: 297e6, y: 210e6 }, A3: { x: 420e6, y: 297e6 } }
const textSize = 3.1

export const layerOrder = (layer: string) => ['frame', 'body', 'wire', 'mark', 'junction', 'text'].indexOf(layer)

export interface TextPlace {
  text: string
  at: Point
  align: CanvasTextAlign
}

/** Where designator and value of a part stand: beside an upright part, above and below a level one. */
export function partTexts(p: Part, s: SymbolDrawing): { designator: TextPlace; value: TextPlace } {
  const place = (which: 'designator' | 'value', usual: Point, moved: Point | undefined): TextPlace => {
    const text = p[which]
    if (moved) return { text, at: { x: p.at.x + moved.x, y: p.at.y + moved.y }, align: 'center' }
    const aside = Math.abs(usual.x) > Math.abs(usual.y)
    if (p.turn % 2 === 0 && !aside) return { text, at: { x: p.at.x + usual.x, y: p.at.y + usual.y }, align: 'center' }
    const up = which === 'designator' ? 1.9e6 : -1.9e6
    if (p.turn % 2 === 0) {
      const left = (p.turn === 2) !== !!p.mirror
      return {
        text,
        at: { x: p.at.x + (left ? -usual.x + 1.6e6 : usual.x - 1.6e6), y: p.at.y + up },
        align: left ? 'right' : 'left',
      }
    }
    const reach = Math.max(...s.figures.flatMap((f) => f.pts.map((q) => Math.abs(q.y) + (f.r ?? 0))))
    return { text, at: { x: p.at.x + reach + 1.3e6, y: p.at.y + up }, align: 'left' }
  }
  return { designator: place('designator', s.designatorAt, p.designatorAt), value: place('value', s.valueAt, p.valueAt) }
}

export const textBox = (t: TextPlace): Box => {
  const w = Math.max(2, t.text.length * textSize * 0.62) * 1e6
  const left = t.align === 'center' ? t.at.x - w / 2 : t.align === 'right' ? t.at.x - w : t.at.x
  return { minX: left, maxX: left + w, minY: t.at.y - 1.7e6, maxY: t.at.y + 1.7e6 }
}

export function symbolBox(p: Pick<Part, 'at' | 'turn' | 'mirror'>, s: SymbolDrawing): Box {
  const t = partPose(p)
  const pts = [...s.figures.flatMap((f) => (f.form === 'circle' ? [{ x: f.pts[0].x - f.r!, y: f.pts[0].y - f.r! }, { x: f.pts[0].x + f.r!, y: f.pts[0].y + f.r! }] : f.pts)), ...s.pins.map((q) => q.at)] // prettier-ignore
  return boxOf(
    pts.map((q) => apply(t, q)),
    0.3e6,
  )
}

export const pinAt = (p: Part, pin: SymbolDrawing['pins'][number]): Point => apply(partPose(p), pin.at)

/** Draws a symbol; everything in one colour when tint is given. */
export function drawSymbol(
  pen: Pen,
  p: Pick<Part, 'at' | 'turn' | 'mirror'>,
  s: SymbolDrawing,
  c: CircuitColours,
  tint?: string,
) {
  const { ctx } = pen
  const t = partPose(p)
  ctx.lineWidth = Math.max(0.3, 1.2 * pen.px)
  ctx.strokeStyle = tint ?? c.ink
  for (const f of s.figures) {
    ctx.beginPath()
    traceFigure(ctx, f, t)
    if (f.form === 'area' || f.form === 'circle') {
      ctx.fillStyle = c.body
      if (f.form === 'area') ctx.fill()
      ctx.stroke()
    } else if (f.form === 'solid') {
      ctx.fillStyle = tint ?? c.ink
      ctx.fill()
    } else ctx.stroke()
  }
  ctx.beginPath()
  for (const pin of s.pins) {
    const d = [
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
    ][pin.turn]
    tracePoints(ctx, [apply(t, pin.at), apply(t, { x: pin.at.x + d[0] * pin.length, y: pin.at.y + d[1] * pin.length })], false)
  }
  ctx.stroke()
  if (s.showNames)
    for (const pin of s.pins) {
      const left = pin.turn === 0
      const inner = apply(t, { x: pin.at.x + (left ? 1 : -1) * (pin.length + 0.8e6), y: pin.at.y })
      const start = !!p.mirror !== (p.turn === 2) ? !left : left
      pen.text(pin.name ?? '', inner.x / 1e6, inner.y / 1e6, 2.1, {
        align: start ? 'left' : 'right',
        colour: tint ?? c.ink,
        angle: p.turn % 2 ? 90 : 0,
      })
      const outer = apply(t, { x: pin.at.x + ((left ? 1 : -1) * pin.length) / 2, y: pin.at.y + 0.9e6 })
      pen.text(pin.number, outer.x / 1e6, outer.y / 1e6, 1.6, { colour: c.quiet })
    }
}

export function partItems(project: Project, p: Part, c: () => CircuitColours): Item[] {
  const s = project.symbolOf(p.library)
  if (!s) return []
  const texts = partTexts(p, s)
  const body: Item = { ...symbolBox(p, s), id: p.id, layer: 'body', draw: (pen) => drawSymbol(pen, p, s, c()) }
  const text = (t: TextPlace, strong: boolean): Item => ({
    ...textBox(t),
    id: p.id,
    layer: 'text',
    draw: (pen) =>
      pen.text(t.text, t.at.x / 1e6, t.at.y / 1e6, textSize, { align: t.align, colour: strong ? c().ink : c().quiet }),
  })
  return [body, text(texts.designator, true), ...(p.value ? [text(texts.value, false)] : [])]
}

export function drawWire(pen: Pen, a: Point, b: Point, colour: string, width = 0.42) {
  pen.ctx.beginPath()
  tracePoints(pen.ctx, [a, b], false)
  pen.ctx.strokeStyle = colour
  pen.ctx.lineWidth = Math.max(width, 1.4 * pen.px)
  pen.ctx.stroke()
}

export function wireItem(w: Kinds['wire'], c: () => CircuitColours): Item {
  return { ...boxOf([w.a, w.b], 0.5e6), id: w.id, layer: 'wire', draw: (pen) => drawWire(pen, w.a, w.b, c().wire) }
}

const ways = [
  { x: 1, y: 0 },
  { x: 0, y: 1 },
  { x: -1, y: 0 },
  { x: 0, y: -1 },
]

export function labelBox(l: { name: string; at: Point; turn: number }): Box {
  const w = (l.name.length * textSize * 0.62 + 3.4) * 1e6
  const d = ways[l.turn]
  const end = { x: l.at.x + d.x * w, y: l.at.y + d.y * w }
  return boxOf([l.at, end], 1.9e6)
}

export function drawLabel(pen: Pen, l: { name: string; at: Point; turn: number }, c: CircuitColours, tint?: string) {
  const { ctx } = pen
  const w = l.name.length * textSize * 0.62 + 2.6
  ctx.save()
  ctx.translate(l.at.x / 1e6, l.at.y / 1e6)
  ctx.rotate((l.turn * Math.PI) / 2)
  ctx.beginPath()
  ctx.moveTo(0, 0)
  ctx.lineTo(1.4, 1.7)
  ctx.lineTo(w, 1.7)
  ctx.lineTo(w, -1.7)
  ctx.lineTo(1.4, -1.7)
  ctx.closePath()
  ctx.fillStyle = c.paper
  ctx.fill()
  ctx.strokeStyle = tint ?? c.label
  ctx.lineWidth = Math.max(0.25, pen.px)
  ctx.stroke()
  ctx.restore()
  const mid = { x: l.at.x / 1e6 + ways[l.turn].x * (w / 2 + 0.5), y: l.at.y / 1e6 + ways[l.turn].y * (w / 2 + 0.5) }
  pen.text(l.name, mid.x, mid.y, textSize, { colour: tint ?? c.label, angle: l.turn % 2 ? 90 : 0 })
}

export function supplyBox(s: Pick<Kinds['supply'], 'at' | 'turn' | 'name' | 'shape'>): Box {
  const r = Math.max(3.2, s.name.length * textSize * 0.32) * 1e6
  return { minX: s.at.x - r, maxX: s.at.x + r, minY: s.at.y - 7.6e6, maxY: s.at.y + 7.6e6 }
}

/** Ground hangs below its place at turn 0, a supply bar stands above it. */
export function drawSupply(
  pen: Pen,
  s: Pick<Kinds['supply'], 'at' | 'turn' | 'name' | 'shape'>,
  c: CircuitColours,
  tint?: string,
) {
  const { ctx } = pen
  const ground = s.shape === 'ground'
  ctx.save()
  ctx.translate(s.at.x / 1e6, s.at.y / 1e6)
  ctx.rotate((s.turn * Math.PI) / 2)
  const k = ground ? -1 : 1
  ctx.strokeStyle = tint ?? c.supply
  ctx.lineWidth = Math.max(0.35, 1.2 * pen.px)
  ctx.beginPath()
  ctx.moveTo(0, 0)
  ctx.lineTo(0, k * 2.5)
  if (ground) {
    for (const [y, w] of [
      [-2.5, 2.2],
      [-3.3, 1.4],
      [-4.1, 0.6],
    ]) {
      ctx.moveTo(-w, y)
      ctx.lineTo(w, y)
    }
  } else {
    ctx.moveTo(-2.2, 2.5)
    ctx.lineTo(2.2, 2.5)
  }
  ctx.stroke()
  ctx.restore()
  const away = [k, 0, -k, 0][s.turn]
  const side = [0, -k, 0, k][s.turn]
  pen.text(s.name, s.at.x / 1e6 + side * (ground ? 6.5 : 5), s.at.y / 1e6 + away * (ground ? 6 : 4.3), 2.5, {
    colour: tint ?? c.supply,
    weight: 400,
  })
}

export function drawOpenMark(pen: Pen, at: Point, colour: string) {
  const { ctx } = pen
  const [x, y, r] = [at.x / 1e6, at.y / 1e6, 1.1]
  ctx.beginPath()
  ctx.moveTo(x - r, y - r)
  ctx.lineTo(x + r, y + r)
  ctx.moveTo(x - r, y + r)
  ctx.lineTo(x + r, y - r)
  ctx.strokeStyle = colour
  ctx.lineWidth = Math.max(0.35, 1.3 * pen.px)
  ctx.stroke()
}

export function drawJunction(pen: Pen, at: Point, colour: string) {
  pen.ctx.beginPath()
  pen.ctx.arc(at.x / 1e6, at.y / 1e6, 0.85, 0, 2 * Math.PI)
  pen.ctx.fillStyle = colour
  pen.ctx.fill()
}

export function frameItem(project: Project, sheet: Sheet, c: () => CircuitColours): Item {
  const size = sheetSize[sheet.size] ?? sheetSize.A4
  return {
    minX: 0,
    minY: 0,
    maxX: size.x,
    maxY: size.y,
    id: sheet.id,
    layer: 'frame',
    draw: (pen) => {
      const { ctx } = pen
      const [w, h] = [size.x / 1e6, size.y / 1e6]
      ctx.strokeStyle = c().frame
      ctx.lineWidth = Math.max(0.18, pen.px)
      ctx.strokeRect(0, 0, w, h)
      ctx.lineWidth = Math.max(0.5, pen.px)
      ctx.strokeRect(10, 10, w - 20, h - 20)
      titleBlock(pen, project, sheet, w - 10 - 110, 10, c())
    },
  }
}

function titleBlock(pen: Pen, project: Project, sheet: Sheet, x: number, y: number, c: CircuitColours) {
  const { ctx } = pen
  const s = project.settings
  ctx.strokeRect(x, y, 110, 26)
  ctx.lineWidth = Math.max(0.2, pen.px)
  const line = (x0: number, y0: number, x1: number, y1: number) => {
    ctx.beginPath()
    ctx.moveTo(x + x0, y + y0)
    ctx.lineTo(x + x1, y + y1)
    ctx.stroke()
  }
  line(0, 13, 110, 13)
  line(46, 0, 46, 13)
  line(66, 0, 66, 26)
  line(90, 0, 90, 13)
  const sheets = project.all('sheet').sort((a, b) => a.order - b.order)
  const cell = (tx: number, ty: number, head: string, text: string, size = 2.7) => {
    pen.text(head, x + tx + 1.6, y + ty + 9.8, 1.9, { align: 'left', colour: c.quiet, mono: false })
    pen.text(text, x + tx + 1.6, y + ty + 4.6, size, { align: 'left', colour: c.ink, mono: false, weight: 500 })
  }
  cell(0, 13, 'Title', s.title, 4)
  cell(66, 13, 'Sheet', sheet.name, 3.2)
  cell(0, 0, 'Author', s.author)
  cell(46, 0, 'Date', s.date)
  cell(66, 0, 'Document', s.number)
  cell(90, 0, 'Rev. · sheet', `${s.revision} · ${sheets.indexOf(sheet) + 1} of ${sheets.length}`)
}
