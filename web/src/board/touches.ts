import type { Pen } from '../canvas/scene'
import type { BoardEditor } from './editor'

const disc = 'M-5 0a5 5 0 1 0 10 0a5 5 0 1 0 -10 0Z'

/** How pads and vias touch a copper area, each with its mark, 16 pixels wide. */
export const touchMarks = [
  { how: 'solid', title: 'joined solidly', path: disc },
  { how: 'spokes', title: 'joined by spokes', path: 'M-6 0H6M0 -6V6' },
  { how: 'passes', title: 'passing through', path: disc },
  { how: 'none', title: 'not joined', path: 'M-5 -5L5 5M5 -5L-5 5' },
] as const

/** Marks what touches the copper areas of the layer in work. */
export function paintTouches(ed: BoardEditor, { ctx, px }: Pen) {
  const c = ed.look().colours
  for (const m of touchMarks) {
    const path = new Path2D(m.path)
    for (const t of ed.touches.value) {
      if (t.how !== m.how) continue
      ctx.save()
      ctx.translate(t.at.x / 1e6, t.at.y / 1e6)
      ctx.scale(px, px)
      ctx.strokeStyle = m.how === 'none' ? c.finding : c.edge
      ctx.fillStyle = c.edge
      ctx.lineWidth = m.how === 'passes' ? 1.2 : 2
      ctx.globalAlpha = m.how === 'passes' ? 0.7 : 1
      if (m.how === 'solid') ctx.fill(path)
      ctx.stroke(path)
      ctx.restore()
    }
  }
}
