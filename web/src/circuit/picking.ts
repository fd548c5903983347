import { onSegment, same, segmentDistance } from '../canvas/geometry'
import { apply, partPose } from '../canvas/geometry'
import { type Box, boxOf, inside, meets } from '../canvas/viewport'
import type { Kinds, Part, Point, Symbol as SymbolDrawing } from '../live/wire.gen'
import type { CircuitEditor } from './editor'

export const pinAt = (p: Part, pin: SymbolDrawing['pins'][number]): Point => apply(partPose(p), pin.at)

/** Where wires meet the pin of a block. */
export function blockPinAt(b: Kinds['block'], pin: Kinds['block']['pins'][number]): Point {
  const { x, y } = b.at
  return [
    { x: x + b.size.x, y: y + pin.pos },
    { x: x + pin.pos, y: y + b.size.y },
    { x, y: y + pin.pos },
    { x: x + pin.pos, y },
  ][pin.side]
}

export const tapEnd = (t: Pick<Kinds['tap'], 'at' | 'turn'>): Point => {
  const [dx, dy] = [[1, 1], [-1, 1], [-1, -1], [1, -1]][t.turn] // prettier-ignore
  return { x: t.at.x + dx * 2.5e6, y: t.at.y + dy * 2.5e6 }
}

/** Ranks of what lies under the hand, the best first; frames are only picked at their edge. */
const ranks: Record<string, number> = { openMark: 0, tap: 0.2, label: 0, supply: 0.1, port: 0, part: 1.5, block: 1.8, text: 3, timing: 3.2, picture: 3.4, note: 3.1, shape: 3.3, cluster: 3.5 } // prettier-ignore

function nearEdge(p: Point, b: Box, tolerance: number): boolean {
  const wide = { minX: b.minX - tolerance, minY: b.minY - tolerance, maxX: b.maxX + tolerance, maxY: b.maxY + tolerance }
  const within = { minX: b.minX + tolerance, minY: b.minY + tolerance, maxX: b.maxX - tolerance, maxY: b.maxY - tolerance }
  const at = boxOf([p])
  return meets(at, wide) && !inside(at, within)
}

export const clusterBox = (c: Kinds['cluster']): Box => boxOf([c.a, c.b])

function hits(ed: CircuitEditor, id: number, layer: string, item: Box, p: Point, tolerance: number): number | null {
  const found = ed.project.find(id)
  if (!found) return null
  const box = boxOf([p], tolerance)
  switch (found.kind) {
    case 'sheet':
      return null
    case 'wire': {
      const w = found.object as Kinds['wire']
      const d = segmentDistance(p, w.a, w.b)
      return d <= tolerance ? (d < tolerance / 2 ? 1 : 2) : null
    }
    case 'tap': {
      const t = found.object as Kinds['tap']
      return segmentDistance(p, t.at, tapEnd(t)) <= tolerance * 1.3 ? ranks.tap : null
    }
    case 'supply': {
      const s = found.object as Kinds['supply']
      return Math.hypot(p.x - s.at.x, p.y - s.at.y) < 7.5e6 && meets(item, box) ? ranks.supply : null
    }
    case 'cluster': {
      const b = clusterBox(found.object as Kinds['cluster'])
      const tab = { minX: b.minX, maxX: item.maxX, minY: b.maxY, maxY: item.maxY }
      return nearEdge(p, b, tolerance * 1.3) || (p.x < Math.max(b.maxX, tab.maxX) && p.y > b.maxY && meets(tab, box)) ? ranks.cluster : null // prettier-ignore
    }
    case 'shape': {
      const s = found.object as Kinds['shape']
      if (s.form === 'rectangle' || s.form === 'ellipse') return s.tint !== 'none' || nearEdge(p, item, tolerance * 1.5) ? ranks.shape : null // prettier-ignore
      for (let i = 0; i + 1 < s.pts.length; i++) if (segmentDistance(p, s.pts[i], s.pts[i + 1]) <= tolerance) return ranks.shape
      return null
    }
  }
  return layer === 'text' ? ranks.text : (ranks[found.kind] ?? 3)
}

/** What lies under the place, the best first: marks and parts before wires before texts. */
export function under(ed: CircuitEditor, p: Point, tolerance: number): number[] {
  const found: { id: number; rank: number }[] = []
  for (const it of ed.scene.within(boxOf([p], tolerance))) {
    const rank = hits(ed, it.id, it.layer, it, p, tolerance)
    if (rank !== null && !found.some((h) => h.id === it.id && h.rank <= rank)) found.push({ id: it.id, rank })
  }
  return [...new Set(found.sort((a, b) => a.rank - b.rank).map((h) => h.id))]
}

export interface TextPlace {
  id: number
  field: 'designator' | 'value' | 'name' | 'title' | 'text'
  value: string
  at: Point
}

/** The text of a part, label or note under the place, for editing it there. */
export function textUnder(ed: CircuitEditor, p: Point): TextPlace | null {
  const box = boxOf([p], 0.5e6)
  for (const it of ed.scene.within(box).reverse()) {
    const found = ed.project.find(it.id)
    const field = (it as { field?: string }).field
    const middle = { x: (it.minX + it.maxX) / 2, y: (it.minY + it.maxY) / 2 }
    if (found?.kind === 'part' && field) {
      const part = found.object as Part
      const f = field as 'designator' | 'value'
      return {
        id: it.id,
        field: f,
        value: f === 'designator' ? (part.others?.[ed.path] ?? part.designator) : part.value,
        at: middle,
      }
    }
    if (found?.kind === 'block' && field === 'name')
      return { id: it.id, field: 'name', value: (found.object as Kinds['block']).name, at: middle }
    const named = found?.kind === 'block' ? null : named_(found?.kind, found?.object)
    if (named !== null && under(ed, p, 0.5e6).includes(it.id))
      return { id: it.id, field: 'name', value: named, at: found!.kind === 'cluster' ? { x: it.minX + 8e6, y: it.maxY } : middle }
    if (found?.kind === 'note' || found?.kind === 'timing')
      return { id: it.id, field: 'text', value: (found.object as Kinds['note']).text, at: middle }
  }
  return null
}

function named_(kind: string | undefined, o: unknown): string | null {
  if (kind === 'label' || kind === 'supply' || kind === 'port') return (o as Kinds['label']).name
  if (kind === 'tap') return (o as Kinds['tap']).member
  if (kind === 'cluster') return (o as Kinds['cluster']).title
  if (kind === 'block') return (o as Kinds['block']).name
  return null
}
/** The name an object bears, or null. */
export const nameOf = (found: { kind: string; object: unknown } | undefined) => named_(found?.kind, found?.object)

/** Whether something at the place would take a wire's (or a bundle's) end. */
export function connects(ed: CircuitEditor, p: Point, bundle: boolean): boolean {
  for (const it of ed.scene.within(boxOf([p], 1))) {
    const found = ed.project.find(it.id)
    if (found?.kind === 'wire') {
      const w = found.object as Kinds['wire']
      if (!!w.bundle === bundle && onSegment(p, w.a, w.b)) return true
    } else if (found && ['label', 'supply', 'port', 'tap'].includes(found.kind) && same((found.object as Part).at, p)) return true
  }
  return !!pinUnder(ed, p, 1)
}

export interface PinPlace {
  part: number
  pin: string
  at: Point
}

/** The pin of a part or block, or the end of a tap, near the place. */
export function pinUnder(ed: CircuitEditor, p: Point, tolerance: number): PinPlace | null {
  let best: PinPlace | null = null
  let least = tolerance
  const offer = (part: number, pin: string, at: Point) => {
    const d = Math.hypot(at.x - p.x, at.y - p.y)
    if (d <= least) {
      least = d
      best = { part, pin, at }
    }
  }
  for (const it of ed.scene.within(boxOf([p], tolerance))) {
    const found = it.layer === 'text' ? undefined : ed.project.find(it.id)
    if (found?.kind === 'part') {
      const part = found.object as Part
      for (const pin of ed.project.symbolOf(part.library, part.unit)?.pins ?? []) offer(part.id, pin.number, pinAt(part, pin))
    } else if (found?.kind === 'block') {
      const b = found.object as Kinds['block']
      for (const pin of b.pins ?? []) offer(b.id, pin.name, blockPinAt(b, pin))
    } else if (found?.kind === 'tap') {
      const t = found.object as Kinds['tap']
      offer(t.id, '', tapEnd(t))
    }
  }
  return best
}

/**
 * The direction, in quarter turns, that leads away from what stands at a place: from the body of a
 * pin's part or block, from the wire that ends there. null where nothing is.
 */
export function outwardAt(ed: CircuitEditor, p: Point): number | null {
  const quarter = (dx: number, dy: number) => (Math.abs(dx) >= Math.abs(dy) ? (dx >= 0 ? 0 : 2) : dy >= 0 ? 1 : 3)
  const pin = pinUnder(ed, p, 1)
  const found = pin && ed.project.find(pin.part)
  if (found?.kind === 'part') {
    const part = found.object as Part
    const drawn = ed.project.symbolOf(part.library, part.unit)?.pins.find((q) => q.number === pin!.pin)
    if (drawn) {
      const [ux, uy] = [[1, 0], [0, 1], [-1, 0], [0, -1]][drawn.turn & 3] // prettier-ignore
      const inner = apply(partPose(part), { x: drawn.at.x + ux * drawn.length, y: drawn.at.y + uy * drawn.length })
      return quarter(p.x - inner.x, p.y - inner.y)
    }
  } else if (found?.kind === 'block') {
    const b = found.object as Kinds['block']
    return b.pins?.find((q) => q.name === pin!.pin)?.side ?? null
  }
  for (const it of ed.scene.within(boxOf([p], 1))) {
    const w = ed.project.get('wire', it.id)
    if (w && same(w.a, p)) return quarter(p.x - w.b.x, p.y - w.b.y)
    if (w && same(w.b, p)) return quarter(p.x - w.a.x, p.y - w.a.y)
  }
  return null
}

/** The net under the place. */
export function netUnder(ed: CircuitEditor, p: Point, tolerance: number): string {
  const pin = pinUnder(ed, p, tolerance)
  const at = pin && ed.project.netAtPin(pin.part, pin.pin, ed.path)
  if (at) return at
  for (const id of under(ed, p, tolerance)) {
    const net = ed.project.netOf(id, ed.path)
    if (net) return net
  }
  return ''
}

/** The bundle an object is of. */
export const bundleOf = (ed: CircuitEditor, id: number) =>
  ed.project.views.get(ed.sheet)?.bundles.find((b) => b.items.includes(id))

/** What lies inside a cluster, wholly or by its place. */
export function insideCluster(ed: CircuitEditor, c: Kinds['cluster']): number[] {
  const b = clusterBox(c)
  const out: number[] = []
  for (const { kind, object } of ed.project.standing(c.sheet)) {
    if (object.id === c.id) continue
    const o = object as unknown as { a?: Point; b?: Point; at?: Point; pts?: Point[]; size?: Point }
    const pts = kind === 'block' || kind === 'picture' ? [o.at!, { x: o.at!.x + o.size!.x, y: o.at!.y + o.size!.y }] : (o.pts ?? (o.a ? [o.a, o.b!] : [o.at!])) // prettier-ignore
    if (pts.every((p) => inside(boxOf([p]), b))) out.push(object.id)
  }
  return out
}
