import { useEventListener } from '@vueuse/core'
import type { Point } from '../live/wire.gen'
import type { Command } from '../shell/keys'
import type { Hand } from './CanvasView.vue'
import type { Sheet } from './plates'

/** What the pages with a canvas have in common. */

/** The dots of a grid, below everything: every second one, fourth one … where they would be dense. */
export function dots(
  look: () => { dots: string },
  grid: () => { pitch: number; on: boolean; apart: number; most?: number },
): Sheet {
  return {
    name: 'dots',
    order: -1,
    paint({ ctx, px }, b) {
      const g = grid()
      if (!g.on) return
      const scale = 1e-6 / px // pixels in a nanometre
      let pitch = g.pitch
      while (pitch * scale < g.apart) pitch *= 2
      if (g.most && pitch > g.pitch * g.most) return
      const m = ctx.getTransform()
      const size = Math.max(1, Math.round(m.a * px))
      ctx.setTransform(1, 0, 0, 1, 0, 0)
      ctx.fillStyle = look().dots
      for (let x = Math.ceil(b.minX / pitch) * pitch; x <= b.maxX; x += pitch)
        for (let y = Math.ceil(b.minY / pitch) * pitch; y <= b.maxY; y += pitch)
          ctx.fillRect(Math.round((m.a * x) / 1e6 + m.e), Math.round((m.d * y) / 1e6 + m.f), size, size)
    },
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
