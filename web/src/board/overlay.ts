import { boardPose, tracePoints } from '../canvas/geometry'
import type { Pen } from '../canvas/scene'
import { type Box, boxOf } from '../canvas/viewport'
import { format } from '../live/units'
import type { Kinds, Link, NoteLine, Placed, Point } from '../live/wire.gen'
import { paintAreaGrips } from './areaShape'
import { drawTrack } from './draw'
import { paintEscape } from './escape/picture'
import { linksSeen } from './linksSeen'
import { courtyard, padOutlines, paintOutline } from './pattern'
import type { BoardEditor } from './editor'
import { paintNetDrops, paintNetFills } from './pours'
import { drawTints } from './sight/tints'
import { paintTouches } from './touches'
import { copperColour } from '../shell/tokens'

/** Draws what moves or is marked on the board. */
export function drawOverlay(ed: BoardEditor, pen: Pen) {
  drawHeldLinks(ed, pen)
  if (ed.flagged) flag(ed, pen, ed.flagged)
  drawOthers(ed, pen)
  drawSelection(ed, pen)
  if (!ed.grab) paintNotes(ed, pen, ed.notes.value)
  if (ed.state.touching) paintTouches(ed, pen)
  paintEscape(ed, pen)
  if (ed.picks) paintAreaGrips(ed, pen)
  ed.paint(pen)
  if (ed.keyed) drawHand(ed, pen)
}

/** Where the keys led the hand. */
function drawHand(ed: BoardEditor, { ctx, px }: Pen) {
  const [x, y, r] = [ed.at.x / 1e6, ed.at.y / 1e6, 11 * px]
  ctx.beginPath()
  for (const [dx, dy] of [
    [r, 0],
    [-r, 0],
    [0, r],
    [0, -r],
  ]) {
    // prettier-ignore
    ctx.moveTo(x + dx / 4, y + dy / 4)
    ctx.lineTo(x + dx, y + dy)
  }
  ctx.strokeStyle = ed.look().colours.select
  ctx.lineWidth = 2 * px
  ctx.stroke()
}

function traceLinks(ed: BoardEditor, pen: Pen, links: Link[], strong: boolean) {
  const { ctx } = pen
  const c = ed.look().colours
  ctx.beginPath()
  for (const l of links) tracePoints(ctx, [l.a, l.b], false)
  ctx.strokeStyle = strong ? c.linkNet : c.link
  ctx.globalAlpha = strong ? 1 : 0.62
  ctx.lineWidth = (strong ? 1.8 : 1.1) * pen.px
  ctx.setLineDash([2 * pen.px, 4 * pen.px])
  ctx.stroke()
  ctx.setLineDash([])
  ctx.globalAlpha = 1
}

/** The open links within a box, but for those of nets that the hand moves. */
export function drawLinks(ed: BoardEditor, pen: Pen, box: Box) {
  const sees = linksSeen(ed)
  const held = ed.dragLinks.value
  const quiet: Link[] = []
  const strong: Link[] = []
  for (const { key: net, mark } of ed.linkMarks.within(box)) {
    if ((held && String(net) in held) || !sees(net)) continue
    const name = ed.project.netName(net)
    const list = name && (name === ed.project.lit.value || name === ed.state.hoverNet) ? strong : quiet
    list.push(mark)
  }
  traceLinks(ed, pen, quiet, false)
  traceLinks(ed, pen, strong, true)
}

/** The links of what the hand moves. */
function drawHeldLinks(ed: BoardEditor, pen: Pen) {
  const held = ed.dragLinks.value
  const sees = linksSeen(ed)
  if (held) traceLinks(ed, pen, Object.entries(held).flatMap(([net, l]) => (sees(Number(net)) ? (l ?? []) : [])), true) // prettier-ignore
}

/** The net in the light, within a box. */
export function drawNet(ed: BoardEditor, pen: Pen, box: Box) {
  const net = ed.project.named('net', ed.project.lit.value)?.id
  if (!net) return
  const { ctx } = pen
  const c = ed.look().colours
  if (ed.state.netAlone) {
    drawThrough(ed, pen, box, net)
    return
  }
  ctx.globalAlpha = 0.16
  paintNetFills(pen, ed.project, net, ed.state.layer, box, c.linkNet)
  ctx.globalAlpha = 0.5
  if (ed.project.board.teardrops) paintNetDrops(pen, ed.project, net, box, c.linkNet)
  for (const id of ed.scene.idsWithin(box)) {
    const found = ed.project.find(id)
    if (found?.kind === 'track') {
      const t = found.object as Kinds['track']
      if (t.net === net) drawTrack(pen, t, c.linkNet, t.width)
    } else if (found?.kind === 'placed') {
      const p = found.object as Placed
      if (!Object.values(p.nets).includes(net)) continue
      const f = ed.project.pattern(p.footprint)
      for (const [i, pad] of (ed.project.named('footprint', p.footprint)?.pads ?? []).entries())
        if (f && p.nets[pad.number] === net) paintOutline(pen, padOutlines(f.pads[i])[0], boardPose(p), c.linkNet)
    }
  }
  ctx.globalAlpha = 1
}

/** All that a net has on all layers, each in its colour, the layer in work on top. */
function drawThrough(ed: BoardEditor, pen: Pen, box: Box, net: number) {
  const { ctx } = pen
  const layers = ed.copper.map((l, i) => ({ id: l.id, colour: copperColour(i, ed.copper.length) }))
  if (!ed.state.flipped) layers.reverse()
  layers.sort((a, b) => Number(a.id === ed.state.layer) - Number(b.id === ed.state.layer))
  const found = [...ed.scene.idsWithin(box)].map((id) => ed.project.find(id))
  for (const { id, colour } of layers) {
    ctx.globalAlpha = 0.4
    paintNetFills(pen, ed.project, net, id, box, colour)
    ctx.globalAlpha = 0.95
    for (const f of found) {
      const t = f?.kind === 'track' ? (f.object as Kinds['track']) : null
      if (t && t.net === net && t.layer === id) drawTrack(pen, t, colour, t.width)
    }
  }
  drawTints(ed, pen, box, new Map([[net, ed.look().colours.linkNet]]), true, true)
}

/** A ring with a tick that points at the place. */
function markFinding(ed: BoardEditor, pen: Pen, at: Point, r: number) {
  const { ctx } = pen
  const [x, y, s] = [at.x / 1e6, at.y / 1e6, r * pen.px]
  ctx.strokeStyle = ed.look().colours.finding
  ctx.lineWidth = 2 * pen.px
  ctx.beginPath()
  ctx.arc(x, y, s, 0, 2 * Math.PI)
  ctx.moveTo(x + s * 2.1, y + s * 2.1)
  ctx.lineTo(x + s * 0.75, y + s * 0.75)
  ctx.stroke()
}

/** The place that is shown, and, of a finding that was measured, between where, how much it is and how much is needed. */
function flag(ed: BoardEditor, pen: Pen, at: Point) {
  const f = ed.project.findings.get(ed.shownFinding)
  const [a, b] = f?.ends ?? []
  if (!f || !a || !b || f.at.x !== at.x || f.at.y !== at.y) return markFinding(ed, pen, at, 16)
  const { ctx } = pen
  const colour = ed.look().colours.finding
  const [x, y, x2, y2] = [a.x / 1e6, a.y / 1e6, b.x / 1e6, b.y / 1e6]
  const long = Math.hypot(x2 - x, y2 - y)
  const [ux, uy] = long > 0 ? [(x2 - x) / long, (y2 - y) / long] : [1, 0]
  const tick = 9 * pen.px
  ctx.strokeStyle = colour
  ctx.lineWidth = 2 * pen.px
  ctx.beginPath()
  for (const [px, py] of [
    [x, y],
    [x2, y2],
  ]) {
    ctx.moveTo(px - uy * tick, py + ux * tick)
    ctx.lineTo(px + uy * tick, py - ux * tick)
  }
  ctx.moveTo(x, y)
  ctx.lineTo(x2, y2)
  ctx.stroke()
  const say = (nm: number) => format(nm, ed.taste.unit, 3)
  const words = f.required
    ? `${say(f.measured ?? 0)} of ${say(f.required)} ${ed.taste.unit}`
    : `${say(f.measured ?? 0)} ${ed.taste.unit}`
  const wide = words.length * 8 * pen.px
  const [mx, my] = [(x + x2) / 2 + uy * 2.4 * tick, (y + y2) / 2 - ux * 2.4 * tick]
  ctx.fillStyle = ed.look().colours.paper
  ctx.globalAlpha = 0.85
  ctx.fillRect(mx - wide / 2, my - 10 * pen.px, wide, 20 * pen.px)
  ctx.globalAlpha = 1
  pen.text(words, mx, my, 13 * pen.px, { colour, weight: 600 })
}

/** The faults of the board within a box and a little around it. */
export function drawFindings(ed: BoardEditor, pen: Pen, box: Box) {
  const grow = 22e6 * pen.px
  const around = { minX: box.minX - grow, minY: box.minY - grow, maxX: box.maxX + grow, maxY: box.maxY + grow }
  for (const { mark } of ed.faultMarks.within(around)) markFinding(ed, pen, mark.at, 9)
}

function drawSelection(ed: BoardEditor, pen: Pen) {
  const { ctx } = pen
  const c = ed.look().colours
  const outline = (id: number, strong: boolean) => {
    const found = ed.project.find(id)
    if (!found) return
    ctx.globalAlpha = strong ? 1 : 0.55
    if (found.kind === 'track') {
      const t = found.object as Kinds['track']
      drawTrack(pen, t, c.select, Math.max(t.width, 3e6 * pen.px))
    } else {
      const f = found.kind === 'placed' ? ed.project.pattern((found.object as Placed).footprint) : undefined
      const b = ed.scene.boxOf(id)
      const pts = f ? courtyard(f, boardPose(found.object as Placed)) : b ? [{ x: b.minX, y: b.minY }, { x: b.maxX, y: b.minY }, { x: b.maxX, y: b.maxY }, { x: b.minX, y: b.maxY }] : [] // prettier-ignore
      ctx.beginPath()
      tracePoints(ctx, pts, true)
      ctx.strokeStyle = c.select
      ctx.lineWidth = (strong ? 2 : 1.4) * pen.px
      ctx.setLineDash(strong ? [] : [3 * pen.px, 3 * pen.px])
      ctx.stroke()
      ctx.setLineDash([])
    }
    ctx.globalAlpha = 1
  }
  if (ed.picks && ed.state.hovered && !ed.selection.has(ed.state.hovered) && !ed.grab) outline(ed.state.hovered, false)
  if (!ed.scene.hides) for (const id of ed.selection) outline(id, true)
  for (const id of ed.pointed.value) outline(id, false)
}

/** What others in the project picked, each with their name. */
function drawOthers(ed: BoardEditor, pen: Pen) {
  const colour = ed.look().colours.others
  for (const o of ed.project.othersPicked.value) {
    const theirs = new Set((o.parts ?? []).map((r) => `${r.part} ${r.path ?? ''}`))
    if (!theirs.size) continue
    for (const p of ed.project.all('placed')) {
      const f = theirs.has(`${p.part} ${p.path ?? ''}`) && ed.project.pattern(p.footprint)
      if (!f) continue
      const yard = courtyard(f, boardPose(p))
      const b = boxOf(yard)
      pen.ctx.beginPath()
      tracePoints(pen.ctx, yard, true)
      pen.ctx.strokeStyle = colour
      pen.ctx.lineWidth = 2 * pen.px
      pen.ctx.setLineDash([6 * pen.px, 4 * pen.px])
      pen.ctx.stroke()
      pen.ctx.setLineDash([])
      pen.text(o.name || 'somebody', b.minX / 1e6, b.maxY / 1e6 + 9 * pen.px, 11 * pen.px, { colour, align: 'left', weight: 600 })
    }
  }
}

/** What notes about places measure: a line with its length, in coral where it is too long. */
export function paintNotes(ed: BoardEditor, pen: Pen, notes: NoteLine[]) {
  const { ctx, px } = pen
  const c = ed.look().colours
  for (const n of notes) {
    if (n.lost) continue
    const colour = n.holds ? c.agrees : c.finding
    ctx.beginPath()
    ctx.moveTo(n.a.x / 1e6, n.a.y / 1e6)
    ctx.lineTo(n.b.x / 1e6, n.b.y / 1e6)
    for (const q of [n.a, n.b]) {
      ctx.moveTo(q.x / 1e6 + 3 * px, q.y / 1e6)
      ctx.arc(q.x / 1e6, q.y / 1e6, 3 * px, 0, 2 * Math.PI)
    }
    ctx.strokeStyle = colour
    ctx.lineWidth = 1.6 * px
    ctx.stroke()
    const text = `${format(n.has, ed.taste.unit, 2)} ${n.holds ? '≤' : '>'} ${format(n.asked, ed.taste.unit, 2)}`
    pen.text(text, (n.a.x + n.b.x) / 2e6, (n.a.y + n.b.y) / 2e6 + 10 * px, 12 * px, { colour, weight: 600 })
  }
}

/** A ring around a place that the hand would meet. */
export function ring(pen: Pen, at: Point, colour: string) {
  pen.ctx.beginPath()
  pen.ctx.arc(at.x / 1e6, at.y / 1e6, 9 * pen.px, 0, 2 * Math.PI)
  pen.ctx.strokeStyle = colour
  pen.ctx.lineWidth = 2 * pen.px
  pen.ctx.stroke()
}
