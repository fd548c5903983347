import type { Pen } from '../canvas/scene'
import type { Box } from '../canvas/viewport'

/** A pen for a small canvas that shows the box as large as it fits. */
export function offscreenPen(c: HTMLCanvasElement, box: Box, margin = 4, most = 24): Pen {
  const ctx = c.getContext('2d')!
  const mm = Math.min(c.width / ((box.maxX - box.minX) / 1e6 + margin), c.height / ((box.maxY - box.minY) / 1e6 + margin), most)
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  ctx.clearRect(0, 0, c.width, c.height)
  const [x, y] = [(box.minX + box.maxX) / 2e6, (box.minY + box.maxY) / 2e6]
  ctx.setTransform(mm, 0, 0, -mm, c.width / 2 - x * mm, c.height / 2 + y * mm)
  ctx.lineCap = ctx.lineJoin = 'round'
  return {
    ctx,
    px: 1 / mm,
    text(s, tx, ty, size, o = {}) {
      ctx.save()
      ctx.translate(tx, ty)
      if (o.angle) ctx.rotate((o.angle * Math.PI) / 180)
      ctx.scale(1, -1)
      ctx.font = `${o.weight ?? 400} ${size}px ${o.mono === false ? 'Barlow' : "'JetBrains Mono'"}`
      ctx.textAlign = o.align ?? 'center'
      ctx.textBaseline = 'middle'
      ctx.fillStyle = o.colour ?? '#000'
      ctx.fillText(s, 0, 0)
      ctx.restore()
    },
  }
}
