import { arcOf } from '../../canvas/arcs'
import { dist } from '../../canvas/geometry'
import type { Corner } from '../../live/wire.gen'

/** How long a side of a closed line is, and the radius of one that is an arc; 0: it is straight. */
export function sideOf(edge: Corner[], i: number) {
  const [a, b] = [edge[i], edge[(i + 1) % edge.length]]
  const k = a.mid && arcOf(a, a.mid, b)
  return k
    ? { length: Math.round(k.r * Math.abs(k.to - k.from)), radius: Math.round(k.r) }
    : { length: Math.round(dist(a, b)), radius: 0 }
}
