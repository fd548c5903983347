import Flatbush from 'flatbush'
import { pieceBox, traceTo } from '../canvas/arcs'
import type { Flock, Pen, Spot } from '../canvas/scene'
import type { Box } from '../canvas/viewport'
import { find, type Tracks, type Vias } from '../live/columns'
import { copperColour } from '../shell/tokens'
import type { Look } from './draw'

/** Some rows of a table, found by place. */
class Rows {
  private tree: Flatbush | null = null
  constructor(
    readonly rows: number[],
    private readonly box: (row: number) => Box,
  ) {}
  private indexed(): Flatbush {
    if (!this.tree) {
      this.tree = new Flatbush(this.rows.length, 16, Int32Array)
      for (const row of this.rows) {
        const { minX, minY, maxX, maxY } = this.box(row)
        this.tree.add(Math.floor(minX), Math.floor(minY), Math.ceil(maxX), Math.ceil(maxY))
      }
      this.tree.finish()
    }
    return this.tree
  }
  within(b: Box): number[] {
    if (!this.rows.length) return []
    return this.indexed()
      .search(b.minX, b.minY, b.maxX, b.maxY)
      .map((i) => this.rows[i])
  }
  /** Whether any of those that are held lies in the circle around the box: asked more often than what lies there. */
  any(b: Box, held: (row: number) => boolean): boolean {
    if (!this.rows.length) return false
    const reach = Math.hypot(b.maxX - b.minX, b.maxY - b.minY) / 2
    return this.indexed().neighbors((b.minX + b.maxX) / 2, (b.minY + b.maxY) / 2, 1, reach, (i) => held(this.rows[i])).length > 0 // prettier-ignore
  }
}

/** The tracks of a board as they came, painted from their columns. */
export class TrackFlock implements Flock {
  private readonly byLayer = new Map<string, Rows>()
  private readonly gone: Uint8Array

  constructor(
    private readonly t: Tracks,
    private readonly look: () => Look,
  ) {
    this.gone = new Uint8Array(t.id.length)
    const by = new Map<number, number[]>()
    for (let row = 0; row < t.id.length; row++) {
      if (!t.holds(row)) {
        this.gone[row] = 1
        continue
      }
      const list = by.get(t.layer[row])
      if (list) list.push(row)
      else by.set(t.layer[row], [row])
    }
    for (const [layer, rows] of by) this.byLayer.set('copper-' + layer, new Rows(rows, (row) => this.box(row)))
  }

  private box(row: number): Box {
    const { t } = this
    const grow = t.width[row] / 2
    if (t.bent.length) {
      const mid = t.mid(row)
      if (mid) return pieceBox({ x: t.ax[row], y: t.ay[row] }, mid, { x: t.bx[row], y: t.by[row] }, grow)
    }
    const [ax, ay, bx, by] = [t.ax[row], t.ay[row], t.bx[row], t.by[row]]
    return {
      minX: Math.min(ax, bx) - grow,
      minY: Math.min(ay, by) - grow,
      maxX: Math.max(ax, bx) + grow,
      maxY: Math.max(ay, by) + grow,
    }
  }

  layers() {
    return this.byLayer.keys()
  }
  private rows(layer: string, b: Box) {
    return (
      this.byLayer
        .get(layer)
        ?.within(b)
        .filter((row) => !this.gone[row]) ?? []
    )
  }
  on(layer: string, b: Box): number[] {
    return this.rows(layer, b).map((row) => this.t.id[row])
  }
  any(layer: string, b: Box) {
    return !!this.byLayer.get(layer)?.any(b, (row) => !this.gone[row])
  }
  paint(layer: string, { ctx, px }: Pen, b: Box, hidden: Set<number>) {
    const { t } = this
    const by = new Map<number, number[]>()
    for (const row of this.rows(layer, b)) {
      if (hidden.size && hidden.has(t.id[row])) continue
      const list = by.get(t.width[row])
      if (list) list.push(row)
      else by.set(t.width[row], [row])
    }
    if (!by.size) return
    const look = this.look()
    ctx.strokeStyle = copperColour(look.position(Number(layer.slice('copper-'.length))), look.layers)
    for (const [width, rows] of by) {
      ctx.lineWidth = Math.max(width / 1e6, 0.8 * px)
      ctx.lineCap = width / 1e6 < 2 * px ? 'butt' : 'round' // nobody sees the ends of fine lines
      ctx.beginPath()
      for (const row of rows) {
        ctx.moveTo(t.ax[row] / 1e6, t.ay[row] / 1e6)
        const mid = t.bent.length ? t.mid(row) : undefined
        if (mid) traceTo(ctx, { x: t.ax[row], y: t.ay[row] }, mid, { x: t.bx[row], y: t.by[row] })
        else ctx.lineTo(t.bx[row] / 1e6, t.by[row] / 1e6)
      }
      ctx.stroke()
    }
    ctx.lineCap = 'round'
  }
  private row(id: number) {
    const row = find(this.t.id, id)
    return row >= 0 && !this.gone[row] ? row : -1
  }
  spots(id: number): Spot[] {
    const row = this.row(id)
    return row < 0 ? [] : [{ layer: 'copper-' + this.t.layer[row], box: this.box(row) }]
  }
  drop(id: number) {
    const row = this.row(id)
    if (row >= 0) this.gone[row] = 1
  }
}

/** The vias of a board as they came that go through all of it. */
export class ViaFlock implements Flock {
  private readonly all: Rows
  private readonly gone: Uint8Array

  constructor(
    private readonly v: Vias,
    private readonly look: () => Look,
  ) {
    this.gone = new Uint8Array(v.id.length)
    const { at, layers } = look()
    const rows: number[] = []
    for (let row = 0; row < v.id.length; row++)
      if (v.holds(row) && v.from[row] === at(0) && v.to[row] === at(layers - 1)) rows.push(row)
      else this.gone[row] = 1
    this.all = new Rows(rows, (row) => this.box(row))
  }

  /** Whether a via is among them. */
  has(id: number) {
    return this.row(id) >= 0
  }
  private box(row: number): Box {
    const { x, y, diameter } = this.v
    const r = diameter[row] / 2
    return { minX: x[row] - r, minY: y[row] - r, maxX: x[row] + r, maxY: y[row] + r }
  }
  layers() {
    return this.all.rows.length ? ['barrel', 'bore'] : []
  }
  private rows(layer: string, b: Box) {
    return layer === 'barrel' || layer === 'bore' ? this.all.within(b).filter((row) => !this.gone[row]) : []
  }
  on(layer: string, b: Box): number[] {
    return this.rows(layer, b).map((row) => this.v.id[row])
  }
  any(layer: string, b: Box) {
    return (layer === 'barrel' || layer === 'bore') && this.all.any(b, (row) => !this.gone[row])
  }
  paint(layer: string, { ctx }: Pen, b: Box, hidden: Set<number>) {
    const rows = this.rows(layer, b)
    if (!rows.length) return
    const { v } = this
    const of = layer === 'bore' ? v.hole : v.diameter
    const c = this.look().colours
    ctx.beginPath()
    for (const row of rows) {
      if (hidden.size && hidden.has(v.id[row])) continue
      const [x, y, r] = [v.x[row] / 1e6, v.y[row] / 1e6, of[row] / 2e6]
      ctx.moveTo(x + r, y)
      ctx.arc(x, y, r, 0, 2 * Math.PI)
    }
    ctx.fillStyle = layer === 'bore' ? c.bore : c.barrel
    ctx.fill()
  }
  private row(id: number) {
    const row = find(this.v.id, id)
    return row >= 0 && !this.gone[row] ? row : -1
  }
  spots(id: number): Spot[] {
    const row = this.row(id)
    return row < 0 ? [] : ['barrel', 'bore'].map((layer) => ({ layer, box: this.box(row) }))
  }
  drop(id: number) {
    const row = this.row(id)
    if (row >= 0) this.gone[row] = 1
  }
}
