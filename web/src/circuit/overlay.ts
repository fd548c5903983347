import type { Pen } from '../canvas/scene'
import type { Kinds, Mark } from '../live/wire.gen'
import { gripBox } from './grips'
import type { CircuitEditor } from './editor'
import { moved, play } from './marks'
import { blockPinAt, connects, pinAt, tapEnd } from './picking'

/** Draws what moves or is marked: the net in the light, the selection, the tool's ghost. */
export function drawOverlay(ed: CircuitEditor, pen: Pen) {
  const hover = ed.state.tool === 'select' && !ed.drag ? ed.state.hoverNet : ''
  if (hover && hover !== ed.project.lit.value) drawNet(ed, pen, hover, 0.3)
  drawNet(ed, pen, ed.project.lit.value, 0.55)
  drawOthers(ed, pen)
  drawSelection(ed, pen)
  drawLoose(ed, pen)
  drawUnmatched(ed, pen)
  for (const d of ed.drag?.moved?.put ?? [])
    play(pen, d.marks ?? [], ed.inks, ed.selection.has(d.id) ? ed.colours.select : undefined)
  drawGhost(ed, pen)
  drawCopies(ed, pen)
  drawCursor(ed, pen)
  drawHeldText(ed, pen)
  if (ed.grip) box(pen, ed.grip.box(), ed.colours.select, false)
  if (ed.boxFrom) {
    const whole = ed.raw.x >= ed.boxFrom.x
    box(pen, { minX: Math.min(ed.boxFrom.x, ed.raw.x), maxX: Math.max(ed.boxFrom.x, ed.raw.x), minY: Math.min(ed.boxFrom.y, ed.raw.y), maxY: Math.max(ed.boxFrom.y, ed.raw.y) }, ed.colours.select, !whole) // prettier-ignore
  }
}

function box(pen: Pen, b: { minX: number; minY: number; maxX: number; maxY: number }, colour: string, dashed: boolean, grow = 0) {
  const { ctx } = pen
  ctx.strokeStyle = colour
  ctx.lineWidth = 1.4 * pen.px
  ctx.setLineDash(dashed ? [4 * pen.px, 4 * pen.px] : [])
  const g = grow * pen.px
  ctx.strokeRect(b.minX / 1e6 - g, b.minY / 1e6 - g, (b.maxX - b.minX) / 1e6 + 2 * g, (b.maxY - b.minY) / 1e6 + 2 * g)
  ctx.setLineDash([])
}

const line = (a: { x: number; y: number }, b: { x: number; y: number }, s: string, w: number): Mark => ({ p: [a.x, a.y, b.x, b.y], s, w }) // prettier-ignore

/** A part's text on its way, with a thread to the part. */
function drawHeldText(ed: CircuitEditor, pen: Pen) {
  const t = ed.textDrag
  const part = t && ed.project.get('part', t.id)
  if (!t || !part) return
  pen.text(t.field === 'designator' ? ed.project.called(part, ed.path) : part.value, t.at.x / 1e6, t.at.y / 1e6, 3.1, {
    colour: ed.colours.select,
  })
  pen.ctx.setLineDash([3 * pen.px, 3 * pen.px])
  play(pen, [line(t.at, part.at, 'select', 1)], ed.inks)
  pen.ctx.setLineDash([])
}

function drawNet(ed: CircuitEditor, pen: Pen, name: string, strength: number) {
  const net = name && ed.project.nets.get(name)
  if (!net) return
  const c = ed.colours.net
  pen.ctx.globalAlpha = strength
  for (const use of net.uses ?? []) {
    if (use.sheet !== ed.sheet || (use.path ?? '') !== ed.path) continue
    for (const id of use.items ?? []) {
      const w = ed.project.get('wire', id)
      if (w) play(pen, [line(w.a, w.b, 'net', 1.3e6)], ed.inks)
      const t = ed.project.get('tap', id)
      if (t) play(pen, [line(t.at, tapEnd(t), 'net', 1.3e6)], ed.inks)
    }
  }
  for (const ref of net.pins) {
    const p = (ref.path ?? '') === ed.path ? ed.project.get('part', ref.part) : undefined
    const pin = p && p.sheet === ed.sheet && ed.project.symbolOf(p.library, p.unit)?.pins.find((q) => q.number === ref.pin)
    if (!pin) continue
    const at = pinAt(p, pin)
    pen.ctx.beginPath()
    pen.ctx.arc(at.x / 1e6, at.y / 1e6, 1.5, 0, 2 * Math.PI)
    pen.ctx.fillStyle = c
    pen.ctx.fill()
  }
  pen.ctx.globalAlpha = 1
}

function drawSelection(ed: CircuitEditor, pen: Pen) {
  if (ed.drag?.moved) return
  const { ctx } = pen
  const c = ed.colours
  const outline = (id: number, strong: boolean) => {
    const found = ed.project.find(id)
    if (!found) return
    ctx.globalAlpha = strong ? 1 : 0.5
    if (found.kind === 'wire') {
      const w = found.object as Kinds['wire']
      play(pen, [line(w.a, w.b, 'select', w.bundle ? 1.6e6 : 0.7e6)], ed.inks)
    } else {
      const b = ed.scene.items(id).find((i) => i.layer !== 'text') ?? ed.scene.boxOf(id)
      const g = found.kind === 'cluster' ? gripBox(ed, id) : null
      if (b) box(pen, g ?? b, c.select, !strong, 3)
    }
    ctx.globalAlpha = 1
  }
  if (ed.state.tool === 'select' && ed.state.hovered && !ed.selection.has(ed.state.hovered) && !ed.boxFrom)
    outline(ed.state.hovered, false)
  for (const id of ed.selection) outline(id, true)
  if (ed.selection.size !== 1 || ed.grip) return
  const g = gripBox(ed, [...ed.selection][0])
  if (!g) return
  ctx.fillStyle = c.select
  const s = 4 * pen.px
  ctx.fillRect(g.maxX / 1e6 - s, g.minY / 1e6 - s, 2 * s, 2 * s)
}

/** What others in the project picked, each with their name. */
function drawOthers(ed: CircuitEditor, pen: Pen) {
  for (const o of ed.project.othersPicked.value)
    for (const ref of o.parts ?? []) {
      if ((ref.path ?? '') !== ed.path || ed.project.get('part', ref.part)?.sheet !== ed.sheet) continue
      const b = ed.scene.items(ref.part).find((i) => i.layer !== 'text') ?? ed.scene.boxOf(ref.part)
      if (!b) continue
      box(pen, b, ed.colours.others, false, 6)
      pen.text(o.name || 'somebody', b.minX / 1e6 - 5 * pen.px, b.maxY / 1e6 + 14 * pen.px, 11 * pen.px, {
        colour: ed.colours.others,
        align: 'left',
        mono: false,
        weight: 600,
      })
    }
}

/** Copies in the hand. */
function drawCopies(ed: CircuitEditor, pen: Pen) {
  const held = ed.copies.drawn()
  if (!held) return
  pen.ctx.globalAlpha = 0.85
  for (const d of held.marks ?? []) play(pen, moved(d.marks ?? [], held.dx, held.dy), ed.inks, ed.state.warning ? ed.colours.open : ed.colours.select) // prettier-ignore
  pen.ctx.globalAlpha = 1
}

/** The hand as the keys lead it. */
function drawCursor(ed: CircuitEditor, pen: Pen) {
  if (!ed.keyed) return
  const { ctx } = pen
  const [x, y, l] = [ed.at.x / 1e6, ed.at.y / 1e6, 11 * pen.px]
  ctx.strokeStyle = ed.colours.select
  ctx.lineWidth = 1.6 * pen.px
  ctx.beginPath()
  for (const [dx, dy] of [
    [1, 0],
    [-1, 0],
    [0, 1],
    [0, -1],
  ]) {
    // prettier-ignore
    ctx.moveTo(x + (dx * l) / 3, y + (dy * l) / 3)
    ctx.lineTo(x + dx * l, y + dy * l)
  }
  ctx.stroke()
}

function ring(pen: Pen, p: { x: number; y: number }, r: number) {
  pen.ctx.beginPath()
  pen.ctx.arc(p.x / 1e6, p.y / 1e6, r, 0, 2 * Math.PI)
  pen.ctx.stroke()
}

/** Wire ends that touch nothing bear a small ring. */
function drawLoose(ed: CircuitEditor, pen: Pen) {
  pen.ctx.strokeStyle = ed.colours.open
  pen.ctx.lineWidth = Math.max(0.3, 1.3 * pen.px)
  for (const p of ed.project.views.get(ed.sheet)?.loose ?? []) ring(pen, p, 1.2)
}

/** Ports and pins of blocks without a partner bear a bigger ring with a tick. */
function drawUnmatched(ed: CircuitEditor, pen: Pen) {
  pen.ctx.strokeStyle = ed.colours.open
  pen.ctx.lineWidth = Math.max(0.4, 1.6 * pen.px)
  for (const u of ed.project.views.get(ed.sheet)?.unmatched ?? []) {
    const block = ed.project.get('block', u.object)
    const pin = block?.pins?.find((q) => q.name === u.pin)
    const p = block && pin ? blockPinAt(block, pin) : u.at
    ring(pen, p, 1.9)
    play(pen, [line({ x: p.x + 1.4e6, y: p.y + 1.4e6 }, { x: p.x + 3e6, y: p.y + 3e6 }, 'open', 0.4e6)], ed.inks)
  }
}

function drawGhost(ed: CircuitEditor, pen: Pen) {
  const c = ed.colours
  const s = ed.state
  pen.ctx.globalAlpha = 0.85
  const held = ed.hand.held()
  if (held) play(pen, ed.ghost.at(held.kind, held.object, ed.at.x, ed.at.y), ed.inks, s.tool === 'open' ? c.open : c.select)
  if (s.tool === 'wire' || s.tool === 'bundle') {
    const thick = s.tool === 'bundle'
    const way = [...ed.hand.path.slice(0, -1), ...ed.hand.way(ed.at)]
    const ink = s.warning ? 'open' : 'select'
    for (let i = 0; i + 1 < way.length; i++) play(pen, [line(way[i], way[i + 1], ink, thick ? 1.25e6 : 0.42e6)], ed.inks)
    pen.ctx.strokeStyle = s.warning ? c.open : c.select
    pen.ctx.lineWidth = 1.5 * pen.px
    ring(pen, ed.at, connects(ed, ed.at, thick) ? 1.2 : 0.6)
  }
  if (s.tool === 'tap') {
    const plan = ed.hand.tapPlan(ed.at)
    const marks: Mark[] = []
    const list = plan.members.length ? plan.members : ['?']
    list.forEach((member, i) => {
      const t = { at: { x: ed.at.x + i * plan.step.x, y: ed.at.y + i * plan.step.y }, turn: s.turn }
      const end = tapEnd(t)
      const left = s.turn === 1 || s.turn === 2
      marks.push(
        line(t.at, end, 'select', 0.42e6),
        line(end, { x: end.x + plan.wire.x, y: end.y + plan.wire.y }, 'select', 0.42e6),
      )
      marks.push({ t: member, p: [end.x + (left ? -0.7e6 : 0.7e6), end.y + 1.25e6], z: 2e6, a: left ? 1 : -1, f: 'label' })
    })
    play(pen, marks, ed.inks, c.select)
  }
  const from = ed.hand.from
  if (from) {
    if (s.tool === 'draw' && (s.drawForm === 'line' || s.drawForm === 'arrow')) play(pen, [line(from, ed.at, 'select', 0.4e6)], ed.inks)
    else box(pen, { minX: Math.min(from.x, ed.at.x), maxX: Math.max(from.x, ed.at.x), minY: Math.min(from.y, ed.at.y), maxY: Math.max(from.y, ed.at.y) }, c.select, true) // prettier-ignore
  }
  pen.ctx.globalAlpha = 1
}
