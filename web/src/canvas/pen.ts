/** The other end of a text: seen from below, what is aligned to the left is so to the right. */
const other: Partial<Record<CanvasTextAlign, CanvasTextAlign>> = { left: 'right', right: 'left', start: 'end', end: 'start' }

/** What a drawing routine gets: the context in millimetres, y up, and a pixel in millimetres. */
export interface Pen {
  ctx: CanvasRenderingContext2D
  px: number
  /** Draws a text whose middle (or left or right end) is at a place, upright on the screen. */
  text(
    s: string,
    x: number,
    y: number,
    size: number,
    opts?: { align?: CanvasTextAlign; angle?: number; mono?: boolean; colour?: string; weight?: number },
  ): void
}

/**
 * A pen for a context whose left upper corner lies at a place of the drawing, in device pixels of the scale. Mirrored, x goes to the left, and
 * left is counted from where x is 0 all the same.
 */
export function penAt(ctx: CanvasRenderingContext2D, scale: number, dpr: number, left: number, top: number, mirror = false): Pen {
  const mm = scale * 1e6
  ctx.setTransform((mirror ? -1 : 1) * mm * dpr, 0, 0, -mm * dpr, -left, -top)
  ctx.lineCap = 'round'
  ctx.lineJoin = 'round'
  const px = 1 / mm
  return {
    ctx,
    px,
    text(s, x, y, size, o = {}) {
      if (size / px < 3.5) return // too small to read
      ctx.save()
      ctx.translate(x, y)
      if (o.angle) ctx.rotate((o.angle * Math.PI) / 180)
      const k = size / 20
      ctx.scale(mirror ? -k : k, -k)
      ctx.font = `${o.weight ?? 400} 20px ${o.mono === false ? 'Barlow' : "'JetBrains Mono'"}`
      const align = o.align ?? 'center'
      ctx.textAlign = mirror ? (other[align] ?? align) : align
      ctx.textBaseline = 'middle'
      if (o.colour) ctx.fillStyle = o.colour
      ctx.fillText(s, 0, 1)
      ctx.restore()
    },
  }
}
