import RBush from 'rbush'
import type { Pen } from './pen'
import { type Box, union } from './viewport'

export type { Pen } from './pen'

/** How things of one colour and width are painted together: traced into one path, filled or stroked at once. */
export interface Batch {
  /** Things of one key are painted together, where a pixel is so many millimetres. */
  key(px: number): string
  trace(ctx: CanvasRenderingContext2D, px: number): void
  paint(ctx: CanvasRenderingContext2D, px: number): void
}

/** One thing of the drawing on one of its layers: painted by itself, or together with its like. */
export interface Item extends Box {
  id: number
  layer: string
  draw?(pen: Pen): void
  batches?: () => Batch[]
  /** It is seen only where a pixel is at most so many millimetres. */
  near?: number
}

/** Paints one thing by itself. */
export function paintItem(it: Item, pen: Pen) {
  if (it.near && pen.px > it.near) return
  for (const b of it.batches?.() ?? []) {
    pen.ctx.beginPath()
    b.trace(pen.ctx, pen.px)
    b.paint(pen.ctx, pen.px)
  }
  it.draw?.(pen)
}

/** Where a thing lies: on a layer, within a box. */
export interface Spot {
  layer: string
  box: Box
}

/** A great many things of one kind that are not held as items; each can be taken out. */
export interface Flock {
  layers(): Iterable<string>
  /** The ids of what of a layer meets the box. */
  on(layer: string, b: Box): number[]
  /** Whether any of a layer may meet the box; there may be none although it says so. */
  any(layer: string, b: Box): boolean
  paint(layer: string, pen: Pen, b: Box, hidden: Set<number>): void
  /** Where the thing lies; nothing: it is none of these, or was taken out. */
  spots(id: number): Spot[]
  /** Takes the thing out. */
  drop(id: number): void
}

/** Everything that stands still on a canvas, found by place, a layer apart from the other. */
export class Scene {
  private trees = new Map<string, RBush<Item>>()
  private of = new Map<number, Item[]>()
  private flocks: Flock[] = []
  /** What is to be painted anew since the canvas last looked; everything: all layers everywhere. */
  stale: Spot[] = []
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
      this.spoil(old.layer, old)
    }
    for (const f of this.flocks) {
      for (const { layer, box } of f.spots(id)) this.spoil(layer, box)
      f.drop(id)
    }
    if (items.length) this.of.set(id, items)
    else this.of.delete(id)
    for (const it of items) {
      this.tree(it.layer).insert(it)
      this.spoil(it.layer, it)
    }
    this.onStale()
  }

  /** What is drawn of an object, but for those drawn in flocks. */
  itemsOf(id: number): readonly Item[] {
    return this.of.get(id) ?? []
  }

  /** Replaces everything at once. */
  load(all: Map<number, Item[]>, flocks: Flock[] = []) {
    this.of = all
    this.flocks = flocks
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

  private spoil(layer: string, box: Box) {
    if (!this.everything) this.stale.push({ layer, box })
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
  /** Whether anything is left out. */
  get hides() {
    return this.hidden.size > 0
  }
  /** An object looks otherwise. */
  touch(id: number) {
    for (const { layer, box } of this.spots(id)) this.spoil(layer, box)
    this.onStale()
  }

  private spots(id: number): Spot[] {
    const own = (this.of.get(id) ?? []).map((it) => ({ layer: it.layer, box: it as Box }))
    return own.length ? own : this.flocks.flatMap((f) => f.spots(id))
  }
  boxOf(id: number): Box | null {
    const boxes = this.spots(id).map((s) => s.box)
    return boxes.reduce<Box | null>(union, null)
  }
  items(id: number) {
    return this.of.get(id) ?? []
  }
  get size() {
    return this.of.size
  }

  /** The layers that hold anything, from the lowest. */
  layers(): string[] {
    const all = new Set([...this.trees.keys(), ...this.flocks.flatMap((f) => [...f.layers()])])
    return [...all].sort((a, b) => this.order(a) - this.order(b))
  }
  /** Whether a layer holds anything. */
  holds(layer: string) {
    return !!this.trees.get(layer)?.all().length || this.flocks.some((f) => [...f.layers()].includes(layer))
  }
  /** The items of a layer that meet the box. */
  private on(layer: string, b: Box): Item[] {
    const found = this.trees.get(layer)?.search(b) ?? []
    return this.hidden.size ? found.filter((i) => !this.hidden.has(i.id)) : found
  }
  /** Whether anything of a layer is seen in the box where a pixel is so many millimetres. */
  any(layer: string, b: Box, px: number) {
    return this.on(layer, b).some((i) => !i.near || px <= i.near) || this.flocks.some((f) => f.any(layer, b))
  }
  /** The items that meet the box, in the order in which they are painted. */
  within(b: Box): Item[] {
    return this.layers().flatMap((l) => this.on(l, b).sort((a, c) => a.id - c.id))
  }
  /** The ids of all that meets the box, each once. */
  idsWithin(b: Box): Set<number> {
    const out = new Set<number>()
    for (const l of this.layers()) {
      for (const it of this.on(l, b)) out.add(it.id)
      for (const f of this.flocks) for (const id of f.on(l, b)) if (!this.hidden.has(id)) out.add(id)
    }
    return out
  }

  /** Paints what of a layer meets the box. */
  paint(layer: string, pen: Pen, b: Box) {
    const { ctx, px } = pen
    for (const f of this.flocks) f.paint(layer, pen, b, this.hidden)
    const batches = new Map<string, Batch[]>()
    const alone: Item[] = []
    for (const it of this.on(layer, b)) {
      if (it.near && px > it.near) continue
      for (const one of it.batches?.() ?? []) {
        const key = one.key(px)
        const list = batches.get(key)
        if (list) list.push(one)
        else batches.set(key, [one])
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
