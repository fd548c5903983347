import { useEventListener } from '@vueuse/core'
import type { Point } from '../live/wire.gen'
import type { Command } from '../shell/keys'
import type { Hand } from './CanvasView.vue'
import type { Viewport } from './viewport'

/** What the pages with a canvas have in common. */

/** Paints the paper and the dots of its grid: every second one, fourth one … where they would be dense. */
export function paintPaper(
  ctx: CanvasRenderingContext2D,
  v: Viewport,
  look: { paper: string; dots: string },
  grid: { pitch: number; on: boolean; apart: number; most?: number },
) {
  const dpr = ctx.canvas.width / v.width
  ctx.fillStyle = look.paper
  ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height)
  if (!grid.on) return
  let pitch = grid.pitch
  while (pitch * v.scale < grid.apart) pitch *= 2
  if (grid.most && pitch > grid.pitch * grid.most) return
  ctx.fillStyle = look.dots
  const b = v.box
  for (let x = Math.ceil(b.minX / pitch) * pitch; x <= b.maxX; x += pitch)
    for (let y = Math.ceil(b.minY / pitch) * pitch; y <= b.maxY; y += pitch) {
      const p = v.toScreen({ x, y })
      ctx.fillRect(Math.round(p.x * dpr), Math.round(p.y * dpr), dpr, dpr)
    }
}

/** Lets go of the paper when the space bar comes up. */
export function usePanKey(hold: (on: boolean) => void) {
  useEventListener(window, 'keyup', (e) => e.key === ' ' && hold(false))
}

interface Picker {
  selection: Set<number>
  under(p: Point, tolerance: number): number[]
  redraw(): void
}
/**
 * Picks what the right button is pressed on, unless it is picked already; on nothing, nothing is. The
 * menu key leaves what is picked as it is.
 */
export function pickForMenu(ed: Picker, h: Hand, tolerance: number) {
  if (h.event.button !== 2) return
  const id = ed.under(h.at, tolerance)[0]
  if (id === undefined || !ed.selection.has(id)) ed.selection.clear()
  if (id !== undefined) ed.selection.add(id)
  ed.redraw()
}

/** The commands of the arrows, by one step and by ten. */
export function nudges(what: string, nudge: (dx: number, dy: number) => void, enabled?: () => boolean): Command[] {
  const ways = {
    ArrowLeft: ['left', -1, 0],
    ArrowRight: ['right', 1, 0],
    ArrowUp: ['up', 0, 1],
    ArrowDown: ['down', 0, -1],
  } as const
  return Object.entries(ways).flatMap(([key, [way, dx, dy]]) =>
    [1, 10].map((n) => ({
      id: key + n,
      title: `${what} ${way}${n > 1 ? ' by ten' : ''}`,
      keys: (n > 1 ? 'Shift ' : '') + key,
      group: 'Nudge',
      run: () => nudge(dx * n, dy * n),
      enabled,
    })),
  )
}
