import { apply, boardPose, dist, inPolygon, padCore, segmentDistance } from '../canvas/geometry'
import { boxOf, meets } from '../canvas/viewport'
import type { Kinds, Placed, Point } from '../live/wire.gen'
import { courtyard, padBox } from './draw'
import type { BoardEditor } from './editor'

/** Copper under the hand. */
export interface Touched {
  id: number
  net: string
  at: Point
  layers: number[]
  name: string
}

/** What lies under the place, best first: parts before copper before texts; small before large. */
export function under(ed: BoardEditor, p: Point, tolerance: number): number[] {
  const hits = new Map<number, number>()
  const box = boxOf([p], tolerance)
  const add = (id: number, rank: number) => hits.set(id, Math.min(rank, hits.get(id) ?? 99))
  for (const it of ed.scene.within(box)) {
    const found = ed.project.find(it.id)
    switch (found?.kind) {
      case 'placed': {
        const on = found.object as Placed
        const f = ed.project.named('footprint', on.footprint)
        if (f && inPolygon(p, courtyard(f, boardPose(on)))) add(it.id, 2)
        break
      }
      case 'track': {
        const t = found.object as Kinds['track']
        if (!ed.state.hidden.includes(t.layer) && segmentDistance(p, t.a, t.b) <= t.width / 2 + tolerance / 2)
          add(it.id, t.layer === ed.state.layer ? 1 : 3)
        break
      }
      case 'via': {
        const v = found.object as Kinds['via']
        if (dist(p, v.at) <= v.diameter / 2 + tolerance / 2) add(it.id, 0)
        break
      }
      case 'hole': {
        const h = found.object as Kinds['hole']
        if (dist(p, h.at) <= h.diameter / 2) add(it.id, 0)
        break
      }
      case 'legend':
        add(it.id, 4)
    }
  }
  return [...hits].sort((a, b) => a[1] - b[1]).map((h) => h[0])
}

/** The copper under the place: pads before vias before tracks; those on the layer in work first. */
export function touched(ed: BoardEditor, p: Point, tolerance: number): Touched | null {
  const all = ed.copperNames.map((_, i) => i)
  let best: (Touched & { rank: number }) | null = null
  const offer = (t: Touched, rank: number) => {
    if (!t.layers.includes(ed.state.layer)) rank += 10
    if (!best || rank < best.rank) best = { ...t, rank }
  }
  for (const it of ed.scene.within(boxOf([p], tolerance))) {
    const found = ed.project.find(it.id)
    if (found?.kind === 'placed') {
      const on = found.object as Placed
      const t = boardPose(on)
      for (const pad of ed.project.named('footprint', on.footprint)?.pads ?? []) {
        if (!meets(padBox(pad, t), boxOf([p], tolerance / 2))) continue
        const core = padCore(pad)
        const pts = core.pts.map((q) => apply(t, q))
        const near =
          inPolygon(p, pts) || Math.min(...pts.map((q, i) => segmentDistance(p, q, pts[(i + 1) % 4]))) <= core.r + tolerance / 2
        if (near && !pad.bare)
          offer(
            {
              id: on.id,
              net: on.nets[pad.number] ?? '',
              at: apply(t, pad.at),
              layers: pad.hole ? all : [on.bottom ? all.length - 1 : 0],
              name: `pad ${on.designator}.${pad.number}`,
            },
            0,
          )
      }
    } else if (found?.kind === 'via') {
      const v = found.object as Kinds['via']
      if (dist(p, v.at) <= v.diameter / 2 + tolerance / 2)
        offer({ id: v.id, net: v.net, at: v.at, layers: all.filter((i) => i >= v.from && i <= v.to), name: 'via' }, 1)
    } else if (found?.kind === 'track') {
      const t = found.object as Kinds['track']
      if (segmentDistance(p, t.a, t.b) > t.width / 2 + tolerance / 2) continue
      const end = dist(p, t.a) < t.width ? t.a : dist(p, t.b) < t.width ? t.b : nearestOn(p, t.a, t.b)
      offer({ id: t.id, net: t.net, at: end, layers: [t.layer], name: 'track' }, 2)
    }
  }
  return best
}

function nearestOn(p: Point, a: Point, b: Point): Point {
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy)))
  return { x: Math.round(a.x + t * dx), y: Math.round(a.y + t * dy) }
}
