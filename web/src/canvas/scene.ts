import RBush from 'rbush'
import type { Pen } from './pen'
import type { Box } from './viewport'

export type { Pen } from './pen'

/** How things of one colour and width are painted together: traced into one path, filled or stroked at once. */
export interface Batch {
  /** Things of one key are painted together. */
  key: string
  trace(ctx: CanvasRenderingContext2D, px: number): void
  paint(ctx: CanvasRenderingContext2D, px: number): void
}

/** One thing of the drawing on one of its layers: painted by itself, or together with its like. */
export interface Item extends Box {
  id: number
  layer: string
  draw?(pen: Pen): void
  batch?: Batch
  /** It is seen only where a pixel is at most so many millimetres. */
  near?: number
}

/** Paints one thing by itself. */
export function paintItem(it: Item, pen: Pen) {
  if (it.near && pen.px > it.near) return
  if (it.batch) {
    pen.ctx.beginPath()
    it.batch.trace(pen.ctx, pen.px)
    it.batch.paint(pen.ctx, pen.px)
  }
  it.draw?.(pen)
}

/** Everything that stands still on a canvas, found by place, a layer apart from the other. */
export class Scene {
  private trees = new Map<string, RBush<Item>>()
  private of = new Map<number, Item[]>()
  /** What is to be painted anew since the canvas last looked; everything: all layers everywhere. */
  stale: { layer: string; box: Box }[] = []
  everything = true
  onStale: () => void = () => undefined
  private hidden = new Set<number>()

  constructor(readonly order: (layer: string) => number) {}

  private tree(layer: string) {
    let t = this.trees.get(layer)
    if (!t) this.trees.set(layer, (t = new RBush<Item>(9)))
    return t
  }

  /** Replaces what is drawn of an object. */
  set(id: number, items: Item[]) {
    for (const old of this.of.get(id) ?? []) {
      this.tree(old.layer).remove(old)
      this.spoil(old)
    }
    if (items.length) this.of.set(id, items)
    else this.of.delete(id)
    for (const it of items) {
      this.tree(it.layer).insert(it)
      this.spoil(it)
    }
    this.onStale()
  }

  /** Replaces everything at once. */
  load(all: Map<number, Item[]>) {
    this.of = all
    this.trees.clear()
    const by = new Map<string, Item[]>()
    for (const items of all.values())
      for (const it of items) {
        const list = by.get(it.layer)
        if (list) list.push(it)
        else by.set(it.layer, [it])
      }
    for (const [layer, items] of by) this.tree(layer).load(items)
    this.invalidate()
  }

  private spoil(it: Item) {
    if (!this.everything) this.stale.push({ layer: it.layer, box: it })
  }

  /** Everything looks otherwise. */
  invalidate() {
    this.everything = true
    this.stale = []
    this.onStale()
  }
  /** What is on the layers looks as before, but they lie otherwise over each other, or weaker or stronger. */
  rearrange() {
    this.onStale()
  }

  /** Leaves objects out while the hand has them; what it holds is drawn above. */
  hide(ids: Iterable<number>) {
    const next = new Set(ids)
    const changed = [...next, ...this.hidden].filter((id) => next.has(id) !== this.hidden.has(id))
    this.hidden = next
    changed.forEach((id) => this.touch(id))
  }
  /** An object looks otherwise. */
  touch(id: number) {
    for (const it of this.of.get(id) ?? []) this.spoil(it)
    this.onStale()
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

  /** The layers that hold anything, from the lowest. */
  layers(): string[] {
    return [...this.trees.keys()].sort((a, b) => this.order(a) - this.order(b))
  }
  /** What of a layer meets the box. */
  on(layer: string, b: Box): Item[] {
    const found = this.trees.get(layer)?.search(b) ?? []
    return this.hidden.size ? found.filter((i) => !this.hidden.has(i.id)) : found
  }
  /** Whether anything of a layer is seen in the box where a pixel is so many millimetres. */
  any(layer: string, b: Box, px: number) {
    return this.on(layer, b).some((i) => !i.near || px <= i.near)
  }
  /** What meets the box, in the order in which it is painted. */
  within(b: Box): Item[] {
    return this.layers().flatMap((l) => this.on(l, b).sort((a, c) => a.id - c.id))
  }

  /** Paints what of a layer meets the box. */
  paint(layer: string, pen: Pen, b: Box) {
    const { ctx, px } = pen
    const batches = new Map<string, Batch[]>()
    const alone: Item[] = []
    for (const it of this.on(layer, b)) {
      if (it.near && px > it.near) continue
      if (it.batch) {
        const list = batches.get(it.batch.key)
        if (list) list.push(it.batch)
        else batches.set(it.batch.key, [it.batch])
      }
      if (it.draw) alone.push(it)
    }
    for (const list of batches.values()) {
      ctx.beginPath()
      for (const one of list) one.trace(ctx, px)
      list[0].paint(ctx, px)
    }
    for (const it of alone.sort((a, c) => a.id - c.id)) it.draw!(pen)
  }
}
