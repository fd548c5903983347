import { paintItem, type Pen } from '../../canvas/scene'
import { copperColour } from '../../shell/tokens'
import { drawRun, viaItems } from '../draw'
import type { BoardEditor } from '../editor'

/** Draws how pads would be led out, and rings around those that would not. */
export function paintEscape(ed: BoardEditor, pen: Pen) {
  const seen = ed.escape.value
  if (!seen) return
  const { ctx, px } = pen
  ctx.globalAlpha = 0.8
  for (const t of seen.tracks) drawRun(pen, [t.a, t.b], copperColour(ed.position(t.layer), ed.copper.length), t.width)
  for (const v of seen.vias) for (const it of viaItems(v, ed.look)) paintItem(it, pen)
  ctx.globalAlpha = 1
  ctx.strokeStyle = ed.look().colours.finding
  ctx.lineWidth = 2 * px
  for (const s of seen.stuck) {
    ctx.beginPath()
    ctx.arc(s.at.x / 1e6, s.at.y / 1e6, 8 * px, 0, 2 * Math.PI)
    ctx.stroke()
  }
}
