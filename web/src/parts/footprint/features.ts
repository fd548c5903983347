import { type Box, boxOf, union } from '../../canvas/viewport'
import { dist } from '../../canvas/geometry'
import type { Feature, Footprint, Outline, Pattern, Point } from '../../live/wire.gen'
import { outlineBox, padOutlines } from '../../board/pattern'
import { refOf } from '../pieces'

/** A place of a footprint that the hand snaps to, and what it is of. */
export interface Found {
  feature: Feature
  at: Point
  name: string
}

const still = { at: { x: 0, y: 0 }, angle: 0, mirror: false }

/** The box of a pad's copper, or of its hole where it has none. */
export const padBox = (p: Pattern['pads'][number]): Box | null =>
  padOutlines(p).reduce<Box | null>((b, o) => union(b, outlineBox(o, still)), null)

const middle = (b: Box): Point => ({ x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 })
const spotWords: Record<string, string> = {
  centre: 'middle',
  left: 'left edge',
  right: 'right edge',
  top: 'upper edge',
  bottom: 'lower edge',
  hole: 'hole',
}

function spots(b: Box, of: 'pad' | 'body' | 'courtyard', name: string, pad?: number, centre?: Point): Found[] {
  const c = middle(b)
  const at: Record<string, Point> = {
    centre: centre ?? c,
    left: { x: b.minX, y: c.y },
    right: { x: b.maxX, y: c.y },
    top: { x: c.x, y: b.maxY },
    bottom: { x: c.x, y: b.minY },
  }
  return Object.entries(at).map(([spot, p]) => ({
    feature: { of, ...(pad ? { pad } : {}), spot },
    at: p,
    name: `${spotWords[spot]} of ${name}`,
  }))
}

const holeMiddle = (o: Outline): Point => middle(boxOf(o.corners))

/** All features of a footprint. */
export function features(f: Footprint, pattern: Pattern | undefined): Found[] {
  const out: Found[] = [{ feature: { of: 'origin' }, at: { x: 0, y: 0 }, name: 'origin' }]
  f.pads.forEach((p, i) => {
    const shape = pattern?.pads[i]
    const b = shape && padBox(shape)
    if (!b) return
    const name = p.number ? `pad ${p.number}` : 'a hole'
    out.push(...spots(b, 'pad', name, refOf(p, i), p.at))
    const bore = shape.bore && holeMiddle(shape.bore)
    if (bore && dist(bore, p.at) > 1000) out.push({ feature: { of: 'pad', pad: refOf(p, i), spot: 'hole' }, at: bore, name: `hole of ${name}` }) // prettier-ignore
  })
  const body = f.body.flatMap((g) => (g.r ? [boxOf(g.pts, g.r)] : [boxOf(g.pts)])).reduce<Box | null>(union, null)
  if (body) out.push(...spots(body, 'body', 'the outline'))
  if (f.courtyard?.length) out.push(...spots(boxOf(f.courtyard), 'courtyard', 'the courtyard'))
  return out
}

/** The feature nearest to a place, within the tolerance; middles before edges. */
export function nearest(list: Found[], p: Point, tolerance: number): Found | null {
  let best: Found | null = null
  let least = Infinity
  for (const f of list) {
    const d = dist(f.at, p)
    const rank = d + (f.feature.spot === 'centre' ? 0 : f.feature.of === 'origin' ? 1 : tolerance / 3)
    if (d <= tolerance && rank < least) {
      least = rank
      best = f
    }
  }
  return best
}

/** The feature that the reference names, where it still is. */
export const locate = (list: Found[], x: Feature): Found | undefined =>
  list.find((f) => f.feature.of === x.of && (f.feature.pad ?? 0) === (x.pad ?? 0) && (f.feature.spot ?? '') === (x.spot ?? ''))
