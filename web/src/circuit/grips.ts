import { snap } from '../canvas/geometry'
import type { Box } from '../canvas/viewport'
import type { Grab } from '../hands/tool'
import type { Kind, Kinds, Point } from '../live/wire.gen'
import type { CircuitEditor } from './editor'
import { box } from './pens'
import { blockPinAt } from './picking'

/** A corner of a block, cluster, note, picture or shape, or a pin of a block, held by the hand. */
interface Grip {
  id: number
  box: () => Box
  move(p: Point): void
  keep(): void
}

/** The grip under the hand of what is picked, as the hand holds it. */
export function gripUnder(ed: CircuitEditor, p: Point, tolerance: number): Grab | null {
  const grip = gripAt(ed, p, tolerance)
  return (
    grip && {
      move: () => grip.move(ed.at),
      drop: () => grip.keep(),
      paint: (pen) => box(pen, grip.box(), ed.colours.select, false),
    }
  )
}

/** The box whose lower right corner can be dragged, of what has one. */
export function gripBox(ed: CircuitEditor, id: number): Box | null {
  const found = ed.project.find(id)
  switch (found?.kind) {
    case 'block':
    case 'picture': {
      const o = found.object as Kinds['block']
      return { minX: o.at.x, minY: o.at.y, maxX: o.at.x + o.size.x, maxY: o.at.y + o.size.y }
    }
    case 'cluster': {
      const c = found.object as Kinds['cluster']
      return { minX: Math.min(c.a.x, c.b.x), minY: Math.min(c.a.y, c.b.y), maxX: Math.max(c.a.x, c.b.x), maxY: Math.max(c.a.y, c.b.y) } // prettier-ignore
    }
    case 'note': {
      const n = found.object as Kinds['note']
      const b = ed.scene.boxOf(id)
      return { minX: n.at.x, maxX: n.at.x + n.width, minY: b?.minY ?? n.at.y - n.size, maxY: n.at.y }
    }
    case 'shape': {
      const s = found.object as Kinds['shape']
      const xs = s.pts.map((p) => p.x)
      const ys = s.pts.map((p) => p.y)
      return { minX: Math.min(...xs), minY: Math.min(...ys), maxX: Math.max(...xs), maxY: Math.max(...ys) }
    }
  }
  return null
}

/** A pin of a block held by the hand: it goes along the block's sides. */
function pinGrip(ed: CircuitEditor, p: Point, tolerance: number): Grip | null {
  const block = ed.project.get('block', [...ed.selection][0])
  const pin = block?.pins?.find((q) => {
    const at = blockPinAt(block, q)
    return Math.hypot(at.x - p.x, at.y - p.y) <= tolerance * 1.3
  })
  if (!block || !pin) return null
  let now = { side: pin.side, pos: pin.pos }
  const small = 1e6
  return {
    id: block.id,
    box: () => {
      const at = blockPinAt(block, { ...pin, ...now })
      return { minX: at.x - small, maxX: at.x + small, minY: at.y - small, maxY: at.y + small }
    },
    move(to) {
      const [w, h] = [block.size.x, block.size.y]
      const [x, y] = [to.x - block.at.x, to.y - block.at.y]
      const far = [Math.abs(x - w), Math.abs(y - h), Math.abs(x), Math.abs(y)]
      const side = far.indexOf(Math.min(...far))
      const long = side % 2 ? w : h
      const pos = Math.round(Math.max(0, Math.min(long, side % 2 ? x : y)) / 2.5e6) * 2.5e6
      now = { side, pos: Math.min(pos, long) }
    },
    keep() {
      if (now.side !== pin.side || now.pos !== pin.pos) void ed.run('movePin', { block: block.id, pin: pin.name, ...now })
    },
  }
}

function gripAt(ed: CircuitEditor, p: Point, tolerance: number): Grip | null {
  const id = [...ed.selection][0]
  const pin = pinGrip(ed, p, tolerance)
  if (pin) return pin
  const start = gripBox(ed, id)
  if (!start || Math.hypot(p.x - start.maxX, p.y - start.minY) > tolerance * 1.6) return null
  const found = ed.project.find(id)!
  const least = found.kind === 'block' ? 10e6 : 5e6
  let now = { ...start }
  return {
    id,
    box: () => now,
    move(to) {
      const q = found.kind === 'note' || found.kind === 'picture' ? snap(to, 1e6) : to
      now = { ...start, maxX: Math.max(q.x, start.minX + least), minY: Math.min(q.y, start.maxY - least) }
      if (found.kind === 'note') now.minY = start.minY
      if (found.kind === 'picture') {
        const k = (start.maxY - start.minY) / (start.maxX - start.minX)
        now.minY = start.maxY - Math.round((now.maxX - now.minX) * k)
      }
    },
    keep() {
      const size = { x: now.maxX - now.minX, y: now.maxY - now.minY }
      const at = { x: now.minX, y: now.minY }
      const draw = (kind: Kind, o: object) => void ed.run('drawItem', { item: { kind, object: { ...found.object, ...o } } })
      switch (found.kind) {
        case 'block': {
          const b = found.object as Kinds['block']
          const by = b.at.y - at.y // pins of the sides keep their place on the sheet
          const pins = (b.pins ?? []).map((q) => ({ ...q, pos: Math.max(0, Math.min(q.side % 2 ? size.x : size.y, q.side % 2 ? q.pos : q.pos + by)) })) // prettier-ignore
          void ed.run('setBlock', { id, at, size, pins })
          break
        }
        case 'picture':
          draw('picture', { at, size })
          break
        case 'cluster':
          draw('cluster', { a: at, b: { x: now.maxX, y: now.maxY } })
          break
        case 'note':
          draw('note', { width: size.x })
          break
        case 'shape': {
          const k = { x: size.x / Math.max(1, start.maxX - start.minX), y: size.y / Math.max(1, start.maxY - start.minY) }
          const pts = (found.object as Kinds['shape']).pts.map((q) => ({ x: Math.round(now.minX + (q.x - start.minX) * k.x), y: Math.round(now.maxY + (q.y - start.maxY) * k.y) })) // prettier-ignore
          draw('shape', { pts })
        }
      }
    },
  }
}
