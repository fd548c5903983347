import { onSegment, same, segmentDistance } from '../canvas/geometry'
import { boxOf, meets } from '../canvas/viewport'
import type { Kinds, Part, Point } from '../live/wire.gen'
import { partTexts, pinAt, textBox } from './draw'
import type { CircuitEditor } from './editor'

/** What lies under the place, the best first: marks and parts before wires before texts. */
export function under(ed: CircuitEditor, p: Point, tolerance: number): number[] {
  const hits: { id: number; rank: number }[] = []
  const box = { minX: p.x - tolerance, minY: p.y - tolerance, maxX: p.x + tolerance, maxY: p.y + tolerance }
  const add = (id: number, rank: number) => {
    if (!hits.some((h) => h.id === id && h.rank <= rank)) hits.push({ id, rank })
  }
  for (const it of ed.scene.within(box)) {
    const found = ed.project.find(it.id)
    if (!found || found.kind === 'sheet') continue
    if (found.kind === 'wire') {
      const w = found.object as Kinds['wire']
      const d = segmentDistance(p, w.a, w.b)
      if (d <= tolerance) add(it.id, d < tolerance / 2 ? 1 : 2)
    } else if (found.kind === 'part') {
      const s = ed.project.symbolOf((found.object as Part).library)
      if (it.layer === 'text') add(it.id, 3)
      else if (s) add(it.id, 1.5)
    } else if (found.kind === 'label' || found.kind === 'supply' || found.kind === 'openMark') {
      const o = found.object as Kinds['supply']
      const tight = found.kind === 'supply' ? { minX: o.at.x - 3e6, maxX: o.at.x + 3e6, minY: o.at.y - (o.shape === 'ground' ? 7e6 : 0), maxY: o.at.y + (o.shape === 'ground' ? 0 : 5.5e6) } : it // prettier-ignore
      if (meets(tight, box)) add(it.id, 0)
    }
  }
  return [...new Set(hits.sort((a, b) => a.rank - b.rank).map((h) => h.id))]
}

/** The text of a part or label under the place, for editing it there. */
export function textUnder(
  ed: CircuitEditor,
  p: Point,
): { id: number; field: 'designator' | 'value' | 'name'; value: string; at: Point } | null {
  const box = boxOf([p], 0.5e6)
  for (const it of ed.scene.within(box).reverse()) {
    const found = ed.project.find(it.id)
    if (found?.kind === 'part' && it.layer === 'text') {
      const part = found.object as Part
      const texts = partTexts(part, ed.project.symbolOf(part.library)!)
      for (const field of ['designator', 'value'] as const)
        if (meets(textBox(texts[field]), box)) return { id: part.id, field, value: part[field], at: texts[field].at }
    }
    if (found?.kind === 'label' || found?.kind === 'supply') {
      const l = found.object as Kinds['label']
      return { id: l.id, field: 'name', value: l.name, at: l.at }
    }
  }
  return null
}

/** Whether something at the place would take a wire's end. */
export function connects(ed: CircuitEditor, p: Point): boolean {
  for (const w of ed.project.all('wire')) if (w.sheet === ed.sheet && onSegment(p, w.a, w.b)) return true
  for (const l of [...ed.project.all('label'), ...ed.project.all('supply')])
    if (l.sheet === ed.sheet && same(l.at, p)) return true
  return !!pinUnder(ed, p, 1)
}

export function pinUnder(ed: CircuitEditor, p: Point, tolerance: number): { part: Part; pin: string; at: Point } | null {
  for (const it of ed.scene.within({
    minX: p.x - tolerance,
    minY: p.y - tolerance,
    maxX: p.x + tolerance,
    maxY: p.y + tolerance,
  })) {
    if (it.layer !== 'body') continue
    const part = ed.project.get('part', it.id)
    const s = part && ed.project.symbolOf(part.library)
    for (const pin of s?.pins ?? []) {
      const at = pinAt(part!, pin)
      if (Math.hypot(at.x - p.x, at.y - p.y) <= tolerance) return { part: part!, pin: pin.number, at }
    }
  }
  return null
}

/** The net under the place. */
export function netUnder(ed: CircuitEditor, p: Point, tolerance: number): string {
  const pin = pinUnder(ed, p, tolerance)
  if (pin) return ed.project.netAtPin(pin.part.id, pin.pin) ?? ''
  for (const id of under(ed, p, tolerance)) {
    const net = ed.project.netOf(id)
    if (net) return net
  }
  return ''
}
