import type { Pen } from '../canvas/scene'
import type { Kinds, Part } from '../live/wire.gen'
import { drawLabel, drawOpenMark, drawSupply, drawSymbol, drawWire, partTexts, pinAt, symbolBox } from './draw'
import type { CircuitEditor } from './editor'

/** Draws what moves or is marked: the net in the light, the selection, the tool's ghost. */
export function drawOverlay(ed: CircuitEditor, pen: Pen) {
  const hover = ed.state.tool === 'select' && !ed.drag ? ed.state.hoverNet : ''
  if (hover && hover !== ed.project.lit.value) drawNet(ed, pen, hover, 0.3)
  drawNet(ed, pen, ed.project.lit.value, 0.55)
  drawSelection(ed, pen)
  drawLoose(ed, pen)
  if (ed.drag?.moved) for (const b of ed.drag.moved.put ?? []) drawHeld(ed, pen, b.kind, b.object as never)
  drawGhost(ed, pen)
  const t = ed.textDrag
  if (t) pen.text(ed.project.get('part', t.id)?.[t.field] ?? '', t.at.x / 1e6, t.at.y / 1e6, 3.1, { colour: ed.colours.select })
  if (ed.boxFrom) {
    const { ctx } = pen
    const whole = ed.at.x >= ed.boxFrom.x
    ctx.fillStyle = ed.colours.select + '22'
    ctx.strokeStyle = ed.colours.select
    ctx.lineWidth = pen.px
    ctx.setLineDash(whole ? [] : [4 * pen.px, 3 * pen.px])
    const [x, y] = [ed.boxFrom.x / 1e6, ed.boxFrom.y / 1e6]
    ctx.fillRect(x, y, ed.at.x / 1e6 - x, ed.at.y / 1e6 - y)
    ctx.strokeRect(x, y, ed.at.x / 1e6 - x, ed.at.y / 1e6 - y)
    ctx.setLineDash([])
  }
}

function drawHeld(ed: CircuitEditor, pen: Pen, kind: string, o: never) {
  const c = ed.colours
  if (kind === 'part') {
    const p = o as Part
    const s = ed.project.symbolOf(p.library)
    if (!s) return
    drawSymbol(pen, p, s, c, c.select)
    const t = partTexts(p, s)
    pen.text(t.designator.text, t.designator.at.x / 1e6, t.designator.at.y / 1e6, 3.1, {
      align: t.designator.align,
      colour: c.select,
    })
  } else if (kind === 'wire') {
    const w = o as Kinds['wire']
    drawWire(pen, w.a, w.b, ed.selection.has(w.id) ? c.select : c.wire)
  } else if (kind === 'label') drawLabel(pen, o as Kinds['label'], c, c.select)
  else if (kind === 'supply') drawSupply(pen, o as Kinds['supply'], c, c.select)
  else if (kind === 'openMark') drawOpenMark(pen, (o as Kinds['openMark']).at, c.select)
}

function drawNet(ed: CircuitEditor, pen: Pen, name: string, strength: number) {
  const net = ed.project.nets.get(name)
  if (!net) return
  pen.ctx.globalAlpha = strength
  for (const id of net.items) {
    const w = ed.project.get('wire', id)
    if (w?.sheet === ed.sheet) drawWire(pen, w.a, w.b, ed.colours.net, 1.3)
  }
  for (const ref of net.pins) {
    const p = ed.project.get('part', ref.part)
    const pin = p && p.sheet === ed.sheet && ed.project.symbolOf(p.library)?.pins.find((q) => q.number === ref.pin)
    if (!pin) continue
    const at = pinAt(p, pin)
    pen.ctx.beginPath()
    pen.ctx.arc(at.x / 1e6, at.y / 1e6, 1.5, 0, 2 * Math.PI)
    pen.ctx.fillStyle = ed.colours.net
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
    if (found.kind === 'wire') drawWire(pen, (found.object as Kinds['wire']).a, (found.object as Kinds['wire']).b, c.select, 0.7)
    else {
      const s = found.kind === 'part' ? ed.project.symbolOf((found.object as Part).library) : undefined
      const b = s ? symbolBox(found.object as Part, s) : ed.scene.boxOf(id)
      if (b) {
        ctx.strokeStyle = c.select
        ctx.lineWidth = 1.5 * pen.px
        ctx.setLineDash(strong ? [] : [3 * pen.px, 3 * pen.px])
        const g = 3 * pen.px
        ctx.strokeRect(b.minX / 1e6 - g, b.minY / 1e6 - g, (b.maxX - b.minX) / 1e6 + 2 * g, (b.maxY - b.minY) / 1e6 + 2 * g)
        ctx.setLineDash([])
      }
    }
    ctx.globalAlpha = 1
  }
  if (ed.state.tool === 'select' && ed.state.hovered && !ed.selection.has(ed.state.hovered) && !ed.boxFrom)
    outline(ed.state.hovered, false)
  for (const id of ed.selection) outline(id, true)
}

/** Wire ends that touch nothing bear a small ring. */
function drawLoose(ed: CircuitEditor, pen: Pen) {
  pen.ctx.strokeStyle = ed.colours.open
  pen.ctx.lineWidth = Math.max(0.3, 1.3 * pen.px)
  for (const p of ed.project.views.get(ed.sheet)?.loose ?? []) {
    pen.ctx.beginPath()
    pen.ctx.arc(p.x / 1e6, p.y / 1e6, 1.2, 0, 2 * Math.PI)
    pen.ctx.stroke()
  }
}

function drawGhost(ed: CircuitEditor, pen: Pen) {
  const c = ed.colours
  const { turn, mirror } = ed.state
  pen.ctx.globalAlpha = 0.8
  switch (ed.state.tool) {
    case 'part':
      if (ed.part?.symbol) drawSymbol(pen, { at: ed.at, turn, mirror }, ed.part.symbol, c, c.select)
      break
    case 'label':
      drawLabel(pen, { name: ed.state.labelName || 'name', at: ed.at, turn }, c, c.select)
      break
    case 'supply':
      drawSupply(pen, { name: ed.state.supplyName, shape: ed.state.supplyShape, at: ed.at, turn }, c, c.select)
      break
    case 'open':
      drawOpenMark(pen, ed.at, c.open)
      break
    case 'wire': {
      const way = [...ed.wirePath.slice(0, -1), ...ed.wireWay(ed.at)]
      for (let i = 0; i + 1 < way.length; i++) drawWire(pen, way[i], way[i + 1], c.select)
      pen.ctx.beginPath()
      pen.ctx.arc(ed.at.x / 1e6, ed.at.y / 1e6, ed.connects(ed.at) ? 1.2 : 0.6, 0, 2 * Math.PI)
      pen.ctx.strokeStyle = c.select
      pen.ctx.lineWidth = 1.5 * pen.px
      pen.ctx.stroke()
      break
    }
  }
  pen.ctx.globalAlpha = 1
}
