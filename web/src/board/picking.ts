import { inRing, nearestOn, pieceDistance } from '../canvas/arcs'
import { apply, boardPose, dist, inPolygon, segmentDistance } from '../canvas/geometry'
import { boxOf } from '../canvas/viewport'
import type { Kinds, Placed, Point } from '../live/wire.gen'
import { courtyard, nearOutline, padOutlines } from './pattern'
import type { BoardEditor } from './editor'
import { filledAt } from './pours'

/** Copper under the hand. */
export interface Touched {
  id: number
  net: number
  at: Point
  layers: number[]
  name: string
}

/** What lies under the place, best first: parts before copper before texts; small before large. */
export function under(ed: BoardEditor, p: Point, tolerance: number): number[] {
  const hits = new Map<number, number>()
  const box = boxOf([p], tolerance)
  const add = (id: number, rank: number) => hits.set(id, Math.min(rank, hits.get(id) ?? 99))
  for (const id of ed.scene.idsWithin(box)) {
    const found = ed.project.find(id)
    switch (found?.kind) {
      case 'placed': {
        const on = found.object as Placed
        const f = ed.project.pattern(on.footprint)
        if (f && inPolygon(p, courtyard(f, boardPose(on)))) add(id, 2)
        break
      }
      case 'track': {
        const t = found.object as Kinds['track']
        if (!ed.state.hidden.includes(t.layer) && pieceDistance(p, t.a, t.mid, t.b) <= t.width / 2 + tolerance / 2)
          add(id, t.layer === ed.state.layer ? 1 : 3)
        break
      }
      case 'via': {
        const v = found.object as Kinds['via']
        if (dist(p, v.at) <= v.diameter / 2 + tolerance / 2) add(id, 0)
        break
      }
      case 'hole': {
        const h = found.object as Kinds['hole']
        if (dist(p, h.at) <= Math.max(h.diameter, h.land ?? 0) / 2) add(id, 0)
        break
      }
      case 'legend':
        add(id, 4)
        break
      case 'figure':
        if (meetsFigure(p, found.object as Kinds['figure'], tolerance)) add(id, 4)
        break
      case 'dimension': {
        const m = ed.project.dimensions.get(id)
        if (m && segmentDistance(p, m.a, m.b) <= tolerance) add(id, 4)
        break
      }
      case 'pour':
      case 'ruleArea': {
        const ring = (found.object as Kinds['ruleArea']).outline ?? []
        if (ring.some((c, i) => pieceDistance(p, c, c.mid, ring[(i + 1) % ring.length]) <= tolerance)) add(id, 5)
      }
    }
  }
  return [...hits].sort((a, b) => a[1] - b[1]).map((h) => h[0])
}

/** Whether a place lies in a figure or on its lines. */
function meetsFigure(p: Point, f: Kinds['figure'], tolerance: number): boolean {
  if (f.filled && f.lines.filter((l) => inRing(p, l)).length % 2) return true
  const reach = (f.width ?? 0) / 2 + tolerance / 2
  return f.lines.some((l) => {
    if (l.length === 1) return dist(p, l[0]) <= reach
    const n = f.closed ? l.length : l.length - 1
    for (let i = 0; i < n; i++) if (pieceDistance(p, l[i], l[i].mid, l[(i + 1) % l.length]) <= reach) return true
    return false
  })
}

/** The copper under the place: pads before vias before tracks; those on the layer in work first. */
export function touched(ed: BoardEditor, p: Point, tolerance: number): Touched | null {
  const all = ed.copper.map((l) => l.id)
  let best: (Touched & { rank: number }) | null = null
  const offer = (t: Touched, rank: number) => {
    if (!t.layers.includes(ed.state.layer)) rank += 10
    if (!best || rank < best.rank) best = { ...t, rank }
  }
  for (const id of ed.scene.idsWithin(boxOf([p], tolerance))) {
    const found = ed.project.find(id)
    if (found?.kind === 'placed') {
      const on = found.object as Placed
      const t = boardPose(on)
      const f = ed.project.pattern(on.footprint)
      for (const [i, pad] of (ed.project.named('footprint', on.footprint)?.pads ?? []).entries()) {
        if (pad.bare || !f || !padOutlines(f.pads[i]).some((o) => nearOutline(p, o, t, tolerance / 2))) continue
        offer(
          {
            id: on.id,
            net: on.nets[pad.number] ?? 0,
            at: apply(t, pad.at),
            layers: pad.hole ? all : [!on.bottom !== !!pad.far ? all[0] : all[all.length - 1]],
            name: `pad ${on.designator}.${pad.number}`,
          },
          0,
        )
      }
    } else if (found?.kind === 'via') {
      const v = found.object as Kinds['via']
      if (dist(p, v.at) <= v.diameter / 2 + tolerance / 2)
        offer(
          { id: v.id, net: v.net ?? 0, at: v.at, layers: all.slice(ed.position(v.from), ed.position(v.to) + 1), name: 'via' },
          1,
        )
    } else if (found?.kind === 'track') {
      const t = found.object as Kinds['track']
      if (pieceDistance(p, t.a, t.mid, t.b) > t.width / 2 + tolerance / 2) continue
      const end = dist(p, t.a) < t.width ? t.a : dist(p, t.b) < t.width ? t.b : nearestOn(p, t.a, t.mid, t.b)
      offer({ id: t.id, net: t.net ?? 0, at: end, layers: [t.layer], name: 'track' }, 2)
    }
  }
  if (!best)
    for (const f of filledAt(ed.project, p))
      if (!ed.state.hidden.includes(f.layer))
        offer({ id: f.pour, net: ed.project.get('pour', f.pour)!.net, at: ed.onGrid(p), layers: [f.layer], name: 'copper area' }, 3) // prettier-ignore
  return best
}
