import { penAt } from './pen'
import type { Pen, Scene } from './scene'
import type { Box, Viewport } from './viewport'

/** A layer that is not of the scene: it has an order among those of the scene, and a routine that paints it. */
export interface Sheet {
  name: string
  order: number
  /** Whether there is nothing to paint anywhere. */
  empty?: () => boolean
  paint: (pen: Pen, box: Box) => void
}

interface Tile {
  x: number
  y: number
  /** Null: nothing is on it. */
  canvas: HTMLCanvasElement | null
  /** What of it is to be painted anew, in pixels of its own; 'all' until it is begun. */
  stale: 'all' | Rect[]
  /** Whether it was painted whole once. */
  whole: boolean
  used: number
}
export type Rect = [x: number, y: number, w: number, h: number]

/** The side of a tile, in device pixels. */
const side = 256
/** The most tiles that are kept: 256 kB each. */
const mostTiles = 700
/** How long painting may hold up a frame at most and at least, in milliseconds. */
const mostBudget = 9
const leastBudget = 1
/** A frame that comes so many milliseconds after the one before is late, or in time. */
const lateFrame = 28
const timely = 20
/** Tiles that take longer than so many milliseconds are painted by quarters, between which a frame may come. */
const long = 5
const quarters: Rect[] = [0, 1].flatMap((x) => [0, 1].map((y): Rect => [(x * side) / 2, (y * side) / 2, side / 2, side / 2]))

/**
 * The picture of what stands still, each layer by itself as tiles that are laid over each other: hiding a layer
 * or making it weaker paints nothing. Tiles are painted a few in each frame; until those of a place are there, the
 * picture as it was before the scale changed stands for them.
 */
export class Plates {
  private tiles = new Map<string, Map<string, Tile>>()
  /** The picture as it was at another scale, and how its layers lay. */
  private still: { canvas: HTMLCanvasElement; scale: number; left: number; top: number; arranged: string } | null = null
  /** Whether all in view is painted. */
  private done = false
  private scale = 0
  private mirror = false
  private clock = 0
  /** What is shown now: where, and how the layers lay. */
  private shown: { left: number; top: number; arranged: string } | null = null
  private cost = 0
  /** How long a tile of a layer took last, in milliseconds. */
  private readonly took = new Map<string, number>()
  /** How long it took to paint what was seen at the scale before, in milliseconds. */
  lastCost = 0
  /** What a frame may spend on painting now: the browser draws what is painted only afterwards, which shows in the frame that follows. */
  private budget = mostBudget
  /** When the frame began that painted last; 0: the last one painted nothing. The one after it is to be asked for. */
  painted = 0

  constructor(
    private readonly scene: Scene,
    private readonly dpr: number,
    private readonly sheets: () => Sheet[],
    private readonly alpha: (layer: string) => number,
    private readonly ground: (ctx: CanvasRenderingContext2D) => void,
  ) {}

  /** Everything is painted anew. */
  forget() {
    this.tiles.clear()
    this.still = null
    this.shown = null
    this.scale = 0
  }
  /** A layer beside the scene is painted anew. */
  renew(sheet: string) {
    this.tiles.delete(sheet)
    this.shown = null
  }

  /** The same, but what was painted of it is shown until it is. */
  refresh(sheet: string) {
    for (const t of this.tiles.get(sheet)?.values() ?? []) t.stale = 'all'
  }

  private layers() {
    const sheets = this.sheets()
    const all = [...this.scene.layers().map((name) => ({ name, order: this.scene.order(name) })), ...sheets]
    return all.sort((a, b) => a.order - b.order).map((l) => l.name)
  }

  private box(x: number, y: number, w: number, h: number): Box {
    const k = this.scale * this.dpr
    if (this.mirror) return { minX: -(x + w) / k, maxX: -x / k, minY: -(y + h) / k, maxY: -y / k }
    return { minX: x / k, maxX: (x + w) / k, minY: -(y + h) / k, maxY: -y / k }
  }

  /** Takes in what changed of the scene. */
  private follow() {
    if (this.scene.everything) {
      this.forget()
      this.scene.everything = false
    }
    const k = this.scale * this.dpr
    const grow = 4 * this.dpr
    for (const { layer, box } of this.scene.stale) {
      const [from, to] = this.mirror ? [-box.maxX, -box.minX] : [box.minX, box.maxX]
      const [x0, y0] = [Math.floor(from * k - grow), Math.floor(-box.maxY * k - grow)]
      const [x1, y1] = [Math.ceil(to * k + grow), Math.ceil(-box.minY * k + grow)]
      for (const t of this.tiles.get(layer)?.values() ?? []) {
        const x = Math.max(x0, t.x * side)
        const y = Math.max(y0, t.y * side)
        const [w, h] = [Math.min(x1, (t.x + 1) * side) - x, Math.min(y1, (t.y + 1) * side) - y]
        if (w > 0 && h > 0 && t.stale !== 'all') t.stale.push([x - t.x * side, y - t.y * side, w, h])
      }
    }
    this.scene.stale = []
  }

  /** Keeps what the canvas shows, if that is all, or there is nothing better. */
  private keep(ctx: CanvasRenderingContext2D) {
    if (!this.shown || (!this.done && this.still)) return
    const { width, height } = ctx.canvas
    const canvas = this.still?.canvas ?? document.createElement('canvas')
    canvas.width = width
    canvas.height = height
    canvas.getContext('2d', { alpha: false })!.drawImage(ctx.canvas, 0, 0)
    this.still = { canvas, scale: this.scale, ...this.shown }
  }

  /** Begins with another scale; what was shown stands for it meanwhile. */
  private rescale(ctx: CanvasRenderingContext2D, scale: number) {
    if (scale === this.scale) return
    this.keep(ctx)
    this.tiles = new Map()
    this.scale = scale
    this.shown = null
    this.done = false
    this.lastCost = this.cost
    this.cost = 0
  }
  /** Whether the picture is of another scale than the view. */
  stretched(view: Viewport) {
    return this.scale > 0 && this.scale !== view.scale
  }

  /**
   * Shows the view on the canvas, and paints what is missing as far as there is time. Without paint it shows what there
   * is. It tells whether more is to be painted.
   */
  show(ctx: CanvasRenderingContext2D, view: Viewport, paint: boolean): boolean {
    if (this.mirror !== view.mirror) {
      this.forget()
      this.mirror = view.mirror
    }
    this.follow()
    if (!this.scale || paint) this.rescale(ctx, view.scale)
    const { width, height } = ctx.canvas
    const k = view.scale * this.dpr
    const left = Math.round(view.way * view.cx * k - width / 2)
    const top = Math.round(-view.cy * k - height / 2)
    this.clock++
    if (view.scale !== this.scale) {
      this.stretch(ctx, view.scale, left, top)
      this.painted = 0
      return true
    }
    const began = performance.now()
    this.learn(began)
    const layers = this.layers()
    const news: Rect[] = []
    const { more, any } = this.paint(layers, left, top, width, height, news)
    this.lay(ctx, layers, left, top, news)
    this.done = !more
    if (this.done) this.still = null
    this.drop()
    this.painted = any ? began : 0
    return more
  }

  /** Spends less in the next frames where the last one made this one late. */
  private learn(now: number) {
    if (!this.painted) return
    const gap = now - this.painted
    if (gap > lateFrame) this.budget = Math.max(leastBudget, this.budget * 0.5)
    else if (gap < timely) this.budget = Math.min(mostBudget, this.budget * 1.2)
  }

  private tile(layer: string, x: number, y: number): Tile {
    let plate = this.tiles.get(layer)
    if (!plate) this.tiles.set(layer, (plate = new Map()))
    const key = `${x} ${y}`
    let t = plate.get(key)
    if (!t) plate.set(key, (t = { x, y, canvas: null, stale: 'all', whole: false, used: 0 }))
    t.used = this.clock
    return t
  }

  /** Paints tiles of the view that are missing or stale, those in the middle first. */
  private paint(layers: string[], left: number, top: number, width: number, height: number, news: Rect[]) {
    const started = performance.now()
    const places: { x: number; y: number; far: number }[] = []
    for (let x = Math.floor(left / side); x * side < left + width; x++)
      for (let y = Math.floor(top / side); y * side < top + height; y++)
        places.push({ x, y, far: Math.hypot((x + 0.5) * side - left - width / 2, (y + 0.5) * side - top - height / 2) })
    places.sort((a, b) => a.far - b.far)
    let more = false
    let any = false
    const seen = layers.filter((l) => this.alpha(l) > 0)
    for (const { x, y } of places) {
      const at: Rect = [x * side - left, y * side - top, side, side]
      const tiles = seen.map((layer) => ({ layer, t: this.tile(layer, x, y) }))
      const before = tiles.every(({ t }) => t.whole)
      let painted = false
      for (const { layer, t } of tiles) {
        if (t.stale !== 'all' && !t.stale.length) continue
        if (t.stale === 'all' || t.stale.length > 12) t.stale = (this.took.get(layer) ?? long) < long ? [[0, 0, side, side]] : [...quarters] // prettier-ignore
        while (t.stale.length && performance.now() - started <= this.budget) {
          const r = t.stale.pop()!
          any = this.timed(layer, t, r) || any
          painted = true
          if (before) news.push([at[0] + r[0], at[1] + r[1], r[2], r[3]])
        }
        if (t.stale.length) {
          more = true
          break
        }
        t.whole = true
      }
      if (painted && !before && (!this.still || tiles.every(({ t }) => t.whole))) news.push(at)
    }
    this.cost += performance.now() - started
    return { more, any }
  }

  /** Paints a part of a tile, and notes how long a whole one would take; tells whether there was anything. */
  private timed(layer: string, t: Tile, r: Rect): boolean {
    const from = performance.now()
    if (!this.fill(layer, t, r)) return false // nothing says nothing of others
    const share = (r[2] * r[3]) / (side * side)
    if (share >= 0.25) this.took.set(layer, (performance.now() - from) / share)
    return true
  }

  /** Paints a part of a tile; tells whether there was anything. */
  private fill(layer: string, t: Tile, [rx, ry, w, h]: Rect): boolean {
    const grow = 4 * this.dpr
    const box = this.box(t.x * side + rx - grow, t.y * side + ry - grow, w + 2 * grow, h + 2 * grow)
    const sheet = this.sheets().find((s) => s.name === layer)
    const empty = sheet ? !!sheet.empty?.() : !this.scene.any(layer, box, 1 / (this.scale * 1e6))
    if (!t.canvas) {
      if (empty) return false
      t.canvas = document.createElement('canvas')
      t.canvas.width = t.canvas.height = side
    }
    const ctx = t.canvas.getContext('2d')!
    ctx.save()
    ctx.setTransform(1, 0, 0, 1, 0, 0)
    ctx.beginPath()
    ctx.rect(rx, ry, w, h)
    ctx.clip()
    ctx.clearRect(rx, ry, w, h)
    if (!empty) {
      const pen = penAt(ctx, this.scale, this.dpr, t.x * side, t.y * side, this.mirror)
      if (sheet) sheet.paint(pen, box)
      else this.scene.paint(layer, pen, box)
    }
    ctx.restore()
    return !empty
  }

  /** Lays the layers over each other where the canvas does not show them yet. */
  private lay(ctx: CanvasRenderingContext2D, layers: string[], left: number, top: number, news: Rect[]) {
    const { width, height } = ctx.canvas
    const arranged = layers.map((l) => `${l}:${this.alpha(l)}`).join()
    ctx.setTransform(1, 0, 0, 1, 0, 0)
    let where = news
    if (this.shown?.arranged !== arranged) where = [[0, 0, width, height]]
    else {
      const [dx, dy] = [this.shown.left - left, this.shown.top - top]
      if (dx || dy) {
        if (Math.abs(dx) >= width || Math.abs(dy) >= height) where = [[0, 0, width, height]]
        else {
          ctx.globalCompositeOperation = 'copy'
          ctx.drawImage(ctx.canvas, dx, dy)
          ctx.globalCompositeOperation = 'source-over'
          where = [...news]
          if (dx) where.push([dx > 0 ? 0 : width + dx, 0, Math.abs(dx), height])
          if (dy) where.push([0, dy > 0 ? 0 : height + dy, width, Math.abs(dy)])
        }
      }
    }
    this.shown = { left, top, arranged }
    if (!where.length) return
    const still = this.still?.arranged === arranged
    const seen = layers.filter((l) => this.alpha(l) > 0)
    for (const r of where.length > 40 ? ([[0, 0, width, height]] as Rect[]) : united(where)) {
      ctx.save()
      ctx.beginPath()
      ctx.rect(...r)
      ctx.clip()
      this.layWithin(ctx, r, seen, left, top, still)
      ctx.restore()
    }
  }

  /** Lays the layers that are seen over each other within a rectangle, to which the context is clipped. */
  private layWithin(
    ctx: CanvasRenderingContext2D,
    [rx, ry, w, h]: Rect,
    seen: string[],
    left: number,
    top: number,
    still: boolean,
  ) {
    this.ground(ctx)
    const missing: Rect[] = []
    for (let x = Math.floor((left + rx) / side); x * side < left + rx + w; x++)
      for (let y = Math.floor((top + ry) / side); y * side < top + ry + h; y++) {
        const [px, py] = [x * side - left, y * side - top]
        const tiles = seen.map((layer) => ({ layer, t: this.tile(layer, x, y) }))
        if (still && !tiles.every(({ t }) => t.whole)) {
          missing.push([px, py, side, side])
          continue
        }
        for (const { layer, t } of tiles) {
          ctx.globalAlpha = this.alpha(layer)
          if (t.canvas && t.whole) ctx.drawImage(t.canvas, px, py)
        }
      }
    ctx.globalAlpha = 1
    if (!missing.length) return
    ctx.beginPath()
    for (const r of missing) ctx.rect(...r)
    ctx.clip()
    this.drawStill(ctx, this.scale, left, top)
  }

  private drawStill(ctx: CanvasRenderingContext2D, scale: number, left: number, top: number) {
    const s = this.still!
    const k = scale / s.scale
    ctx.drawImage(s.canvas, s.left * k - left, s.top * k - top, s.canvas.width * k, s.canvas.height * k)
  }

  /** Shows what there is at another scale. */
  private stretch(ctx: CanvasRenderingContext2D, scale: number, left: number, top: number) {
    this.keep(ctx)
    ctx.setTransform(1, 0, 0, 1, 0, 0)
    this.ground(ctx)
    if (this.still) this.drawStill(ctx, scale, left, top)
    this.shown = null
  }

  /** Lets go of tiles that were not shown for long. */
  private drop() {
    let n = 0
    for (const p of this.tiles.values()) for (const t of p.values()) if (t.canvas) n++
    if (n <= mostTiles) return
    const all = [...this.tiles.values()].flatMap((p) => [...p].map(([key, t]) => ({ p, key, t })))
    all.sort((a, b) => a.t.used - b.t.used)
    for (const { p, key, t } of all) {
      if (n <= mostTiles / 2 || t.used === this.clock) break
      if (t.canvas) n--
      p.delete(key)
    }
  }
}

/**
 * Rectangles that cover those given, fewer and hardly larger: clipping to one is quick, to several at once it is not. They may overlap, where one
 * around both would be much larger.
 */
export function united(rects: Rect[]): Rect[] {
  const out: Rect[] = []
  for (const one of rects) {
    let r = one
    for (let i = 0; i < out.length; i++) {
      const both = around(out[i], r)
      if (area(both) > 1.2 * (area(out[i]) + area(r))) continue
      out.splice(i, 1)
      r = both
      i = -1 // what it has become may be put together with others
    }
    out.push(r)
  }
  return out
}
const area = ([, , w, h]: Rect) => w * h
function around([ax, ay, aw, ah]: Rect, [bx, by, bw, bh]: Rect): Rect {
  const [x, y] = [Math.min(ax, bx), Math.min(ay, by)]
  return [x, y, Math.max(ax + aw, bx + bw) - x, Math.max(ay + ah, by + bh) - y]
}
