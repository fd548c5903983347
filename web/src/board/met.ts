import { apply, boardPose, dist } from '../canvas/geometry'
import { boxOf } from '../canvas/viewport'
import type { Anchor, Kinds, Placed, Point } from '../live/wire.gen'
import type { BoardEditor } from './editor'
import { courtyard } from './pattern'

/** What the hand met when it measures: a place, what lies there, and what a dimension follows from it. */
export interface Met {
  at: Point
  of?: number
  pad?: string
  anchor: Anchor
}

/** Meets pads, holes, vias and tracks, corners of the edge, the sides and origins of parts, else the grid. */
export function met(ed: BoardEditor, p: Point, tolerance: number): Met {
  const copper = ed.touched(p, tolerance)
  if (copper) {
    const pad = copper.name.startsWith('pad ') ? copper.name.slice(copper.name.lastIndexOf('.') + 1) : ''
    const spot = ed.project.kind(copper.id) === 'track' ? endOf(ed.project.get('track', copper.id)!, copper.at) : ''
    const at = copper.at
    const follows = pad || spot || ed.project.kind(copper.id) === 'via'
    return {
      at,
      of: copper.id,
      ...(pad ? { pad } : {}),
      anchor: follows ? { at, of: copper.id, ...(pad ? { pad } : {}), ...(spot ? { spot } : {}) } : { at },
    }
  }
  let best: (Met & { far: number }) | null = null
  const offer = (at: Point, of: number, anchor: Omit<Anchor, 'at' | 'of'> = {}) => {
    const far = dist(at, p)
    if (far <= tolerance && (!best || far < best.far)) best = { at, of, anchor: { at, of, ...anchor }, far }
  }
  const { id, outline, cutOuts } = ed.project.board
  for (const [line, edge] of [outline ?? [], ...(cutOuts ?? [])].entries())
    edge.forEach((c, corner) => offer({ x: c.x, y: c.y }, id, { ...(line ? { line } : {}), ...(corner ? { corner } : {}) }))
  const ids = ed.scene.idsWithin(boxOf([p], tolerance))
  for (const i of ids) {
    const found = ed.project.find(i)
    if (found?.kind === 'hole') offer((found.object as Kinds['hole']).at, i)
    else if (found?.kind === 'placed') partSpots(ed, found.object as Placed, offer)
  }
  if (best) return best
  const at = ed.onGrid(p)
  for (const i of ids) {
    const kind = ed.project.kind(i)
    if ((kind === 'placed' || kind === 'figure' || kind === 'legend' || kind === 'hole') && ed.under(p, tolerance).includes(i))
      return { at, of: i, anchor: { at } }
  }
  return { at, anchor: { at } }
}

/** The origin of a part, and the middles of the sides of its courtyard. */
function partSpots(ed: BoardEditor, p: Placed, offer: (at: Point, of: number, anchor: Omit<Anchor, 'at' | 'of'>) => void) {
  const f = ed.project.pattern(p.footprint)
  if (!f) return
  offer(apply(boardPose(p), { x: 0, y: 0 }), p.id, {})
  const b = boxOf(courtyard(f, boardPose(p)))
  const [x, y] = [Math.trunc((b.minX + b.maxX) / 2), Math.trunc((b.minY + b.maxY) / 2)]
  offer({ x: b.minX, y }, p.id, { spot: 'left' })
  offer({ x: b.maxX, y }, p.id, { spot: 'right' })
  offer({ x, y: b.minY }, p.id, { spot: 'bottom' })
  offer({ x, y: b.maxY }, p.id, { spot: 'top' })
}

const endOf = (t: Kinds['track'], at: Point) => (dist(t.a, at) === 0 ? 'begin' : dist(t.b, at) === 0 ? 'end' : '')
