import type { Pen } from '../canvas/scene'
import type { Kinds } from '../live/wire.gen'
import { gripBox } from './grips'
import type { CircuitEditor } from './editor'
import { play } from './marks'
import { box, line, ring } from './pens'
import { blockPinAt, pinAt, tapEnd } from './picking'

/** Draws what moves or is marked: the net in the light, the selection, what the hand holds. */
export function drawOverlay(ed: CircuitEditor, pen: Pen) {
  const hover = ed.picks && !ed.grab ? ed.state.hoverNet : ''
  if (hover && hover !== ed.project.lit.value) drawNet(ed, pen, hover, 0.3)
  drawNet(ed, pen, ed.project.lit.value, 0.55)
  drawOthers(ed, pen)
  drawSelection(ed, pen)
  drawLoose(ed, pen)
  drawUnmatched(ed, pen)
  ed.paint(pen)
  drawCursor(ed, pen)
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
  if (ed.scene.hides) return
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
  if (ed.picks && ed.state.hovered && !ed.selection.has(ed.state.hovered) && !ed.grab) outline(ed.state.hovered, false)
  for (const id of ed.selection) outline(id, true)
  if (ed.selection.size !== 1 || ed.grab) return
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
