import type { Drawing, Point } from '../live/wire.gen'
import { copperColour, palette } from '../shell/tokens'

/** The colour of a file's role in the overlay: copper as on the board, of so many layers. */
export function roleColour(role: string, layers: number): string {
  if (role.startsWith('copper-')) return copperColour(Number(role.slice('copper-'.length)) - 1, layers)
  if (role.startsWith('mask')) return '#9C6BC4'
  if (role.startsWith('paste')) return '#B9C0CC'
  if (role === 'silk-top') return '#F4ECDC'
  if (role === 'silk-bottom') return '#C9B8E8'
  if (/^(plated|laser)/.test(role)) return '#D9906F'
  if (role === 'unplated') return palette.periwinkle
  return '#F4ECDC'
}

/** Paints a file as its reader sees it: dark marks in its colour, clear ones taken away. */
export function paintDrawing(ctx: CanvasRenderingContext2D, d: Drawing, colour: string) {
  ctx.lineCap = ctx.lineJoin = 'round'
  ctx.fillStyle = ctx.strokeStyle = colour
  for (const m of d.marks ?? []) {
    ctx.globalCompositeOperation = m.dark ? 'source-over' : 'destination-out'
    for (const s of m.shapes) {
      ctx.beginPath()
      s.pts.forEach((p: Point, i: number) => (i ? ctx.lineTo(p.x / 1e6, p.y / 1e6) : ctx.moveTo(p.x / 1e6, p.y / 1e6)))
      if (s.area) {
        ctx.closePath()
        ctx.fill()
      } else if (s.pts.length === 1) {
        ctx.arc(s.pts[0].x / 1e6, s.pts[0].y / 1e6, s.r / 1e6, 0, 2 * Math.PI)
        ctx.fill()
        continue
      }
      if (s.r > 0) {
        ctx.lineWidth = (2 * s.r) / 1e6
        ctx.stroke()
      }
    }
  }
  ctx.globalCompositeOperation = 'source-over'
  for (const h of d.holes ?? []) {
    ctx.beginPath()
    if (h.slot?.x || h.slot?.y) {
      ctx.moveTo(h.at.x / 1e6, h.at.y / 1e6)
      ctx.lineTo((h.at.x + h.slot.x) / 1e6, (h.at.y + h.slot.y) / 1e6)
      ctx.lineWidth = h.diameter / 1e6
      ctx.stroke()
      continue
    }
    ctx.arc(h.at.x / 1e6, h.at.y / 1e6, h.diameter / 2e6, 0, 2 * Math.PI)
    ctx.fill()
  }
}
