import RBush from 'rbush'
import type { Box } from './viewport'

/** What a drawing routine gets: the context in millimetres, y up, and a pixel in millimetres. */
export interface Pen {
  ctx: CanvasRenderingContext2D
  px: number
  /** Draws a text whose middle (or left or right end) is at a place, upright on the screen. */
  text(
    s: string,
    x: number,
    y: number,
    size: number,
    opts?: { align?: CanvasTextAlign; angle?: number; mono?: boolean; colour?: string; weight?: number },
  ): void
}

export interface Item extends Box {
  id: number
  layer: string
  draw(pen: Pen): void
}

/** Everything that stands still on a canvas, found by place. */
export class Scene {
  private tree = new RBush<Item>(9)
  private of = new Map<number, Item[]>()
  /** Boxes to paint anew; null: everything. */
  dirty: Box[] | null = null
  onDirty: () => void = () => undefined
  private hidden = new Set<number>()

  constructor(private readonly order: (layer: string) => number) {}

  clear() {
    this.tree.clear()
    this.of.clear()
    this.dirty = null
    this.onDirty()
  }

  /** Replaces what is drawn of an object. */
  set(id: number, items: Item[]) {
    for (const old of this.of.get(id) ?? []) {
      this.tree.remove(old)
      this.dirty?.push(old)
    }
    if (items.length) this.of.set(id, items)
    else this.of.delete(id)
    for (const it of items) {
      this.tree.insert(it)
      this.dirty?.push(it)
    }
    this.onDirty()
  }

  /** Replaces everything at once. */
  load(all: Map<number, Item[]>) {
    this.of = all
    this.tree.clear()
    this.tree.load([...all.values()].flat())
    this.invalidate()
  }

  invalidate() {
    this.dirty = null
    this.onDirty()
  }

  /** Leaves objects out while the hand has them; what it holds is drawn above. */
  hide(ids: Iterable<number>) {
    const next = new Set(ids)
    const changed = [...next, ...this.hidden].filter((id) => next.has(id) !== this.hidden.has(id))
    this.hidden = next
    changed.forEach((id) => this.touch(id))
  }

  touch(id: number) {
    for (const it of this.of.get(id) ?? []) this.dirty?.push(it)
    this.onDirty()
  }

  boxOf(id: number): Box | null {
    const items = this.of.get(id)
    if (!items?.length) return null
    return items.reduce<Box>(
      (b, i) => ({
        minX: Math.min(b.minX, i.minX),
        minY: Math.min(b.minY, i.minY),
        maxX: Math.max(b.maxX, i.maxX),
        maxY: Math.max(b.maxY, i.maxY),
      }),
      items[0],
    )
  }
  items(id: number) {
    return this.of.get(id) ?? []
  }
  get size() {
    return this.of.size
  }

  /** What meets the box, in the order in which it is painted. */
  within(b: Box): Item[] {
    const found = this.tree.search(b)
    const seen = this.hidden.size ? found.filter((i) => !this.hidden.has(i.id)) : found
    return seen.sort((a, c) => this.order(a.layer) - this.order(c.layer) || a.id - c.id)
  }
}
