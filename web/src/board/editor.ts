import { markRaw, reactive, shallowReactive, shallowRef } from 'vue'
import { boardPose, dist, same, snap } from '../canvas/geometry'
import { type Item, Scene } from '../canvas/scene'
import { type Box, boxOf, inside, meets } from '../canvas/viewport'
import { Previewer } from '../live/previewer'
import type { Project } from '../live/project'
import type { AnyObject, Kind, Kinds, Link, Placed, Point, Probe, Questions, Run } from '../live/wire.gen'
import { complain, say } from '../shell/notices'
import type { useTaste } from '../shell/taste'
import { boardColours } from '../shell/tokens'
import { TrackFlock, ViaFlock } from './copper'
import { alphaOf, orderOf } from './layering'
import { type Touched, touched, under } from './picking'
import { areaItem, holeItem, legendItem, type Look, lookOf, outlineItem, placedItems, trackItem, viaItems } from './draw'
import { courtyard } from './pattern'

export type BoardTool = 'select' | 'track' | 'outline' | 'hole' | 'text' | 'measure'
export const cornerStyles = ['straightFirst', 'diagonalFirst', 'square', 'free'] as const

/** What a person is doing on the board, and what is drawn of it. */
export class BoardEditor {
  readonly scene: Scene
  readonly state = reactive({
    tool: 'select' as BoardTool,
    layer: 0, // the id of the copper layer in work
    hidden: [] as number[],
    hoverNet: '',
    hovered: 0,
    showLinks: true,
    style: 0,
    width: 0,
    holeSize: 3_200_000,
    text: '',
    textHeight: 1_500_000,
    textBottom: false,
    blocked: '',
    routing: '',
    routeLength: 0,
    carrying: false,
  })
  readonly selection = shallowReactive(new Set<number>())
  readonly dragLinks = shallowRef<Record<string, Link[]> | null>(null)
  at: Point = { x: 0, y: 0 }
  raw: Point = { x: 0, y: 0 }
  boxFrom: Point | null = null
  drag: { from: Point; step: Point } | null = null
  rect: { from: Point; to: Point } | null = null
  measure: Point[] = []
  route: { net: number; runs: Run[]; start: Touched } | null = null
  probe: Probe | null = null
  target: Touched | null = null
  flagged: Point | null = null
  redraw: () => void = () => undefined
  private readonly previews: Previewer
  private drawnStack = ''
  /** Of which handing over the objects are drawn. */
  private handed = 0

  constructor(
    readonly project: Project,
    readonly taste: ReturnType<typeof useTaste>,
  ) {
    this.scene = markRaw(new Scene((l) => orderOf(this, l)))
    this.previews = new Previewer(project)
  }

  /** The copper layers from the top. */
  get copper() {
    return this.project.board.stack.filter((l) => l.copper)
  }
  /** The place of a copper layer among them, 0 at the top; −1: there is none. */
  position(layer: number) {
    return this.copper.findIndex((l) => l.id === layer)
  }
  readonly look = (): Look => lookOf(boardColours[this.taste.boardShade], this.project.board)
  get grid() {
    return this.taste.gridOn ? this.taste.boardGrid : 1_000
  }

  // ---- layers

  readonly alpha = (layer: string) => alphaOf(this, layer)
  toLayer(n: number) {
    if (this.position(n) < 0) return
    this.state.layer = n
    this.state.hidden = this.state.hidden.filter((h) => h !== n)
    this.scene.rearrange()
  }

  // ---- what is drawn

  private itemsOf(kind: Kind, o: AnyObject): Item[] {
    switch (kind) {
      case 'board':
        return outlineItem(o as Kinds['board'], this.look)
      case 'ruleArea':
        return [areaItem(o as Kinds['ruleArea'], this.look)]
      case 'placed':
        return placedItems(this.project, o as Placed, this.look)
      case 'track':
        return [trackItem(o as Kinds['track'], this.look)]
      case 'via':
        return viaItems(o as Kinds['via'], this.look)
      case 'hole':
        return [holeItem(o as Kinds['hole'], this.look)]
      case 'legend':
        return [legendItem(o as Kinds['legend'], this.project.rule('silkWidth'), this.look)]
    }
    return []
  }

  /** Draws everything anew, unless it is drawn of these objects already. */
  reload() {
    if (this.handed !== this.project.handed) this.load()
  }
  load() {
    this.handed = this.project.handed
    const { tracks, vias } = this.project
    const all = new Map<number, Item[]>()
    const through = new ViaFlock(vias, this.look)
    for (const kind of ['board', 'ruleArea', 'placed', 'hole', 'legend'] as Kind[])
      for (const o of this.project.all(kind)) all.set(o.id, this.itemsOf(kind, o))
    for (const o of tracks.beside()) all.set(o.id, this.itemsOf('track', o))
    for (const o of vias.values()) if (!through.has(o.id)) all.set(o.id, this.itemsOf('via', o))
    this.scene.load(all, [new TrackFlock(tracks, this.look), through])
    this.drawnStack = this.copper.map((l) => l.id).join()
    this.layersChanged()
  }

  changed(changes: { kind: Kind; id: number }[]) {
    const stack = this.copper.map((l) => l.id).join()
    const silk = changes.some((c) => c.kind === 'rule' && this.project.get('rule', c.id)?.kind === 'silkWidth')
    if (stack !== this.drawnStack || silk) {
      this.load() // layers, or the width of what is printed, are others now
      return
    }
    const feet = new Set(changes.filter((c) => c.kind === 'footprint').map((c) => this.project.get('footprint', c.id)?.name))
    if (feet.size)
      for (const p of this.project.all('placed')) if (feet.has(p.footprint)) this.scene.set(p.id, this.itemsOf('placed', p))
    const named = new Set(changes.filter((c) => c.kind === 'net').map((c) => c.id))
    if (named.size)
      for (const p of this.project.all('placed')) if (Object.values(p.nets).some((n) => named.has(n))) this.scene.touch(p.id)
    for (const c of changes) {
      const o = this.project.get(c.kind, c.id)
      if (!o) this.selection.delete(c.id)
      if (['board', 'ruleArea', 'placed', 'track', 'via', 'hole', 'legend'].includes(c.kind))
        this.scene.set(c.id, o ? this.itemsOf(c.kind, o) : [])
    }
  }

  /** The layer in work is one there is, and no other is hidden. */
  private layersChanged() {
    if (this.position(this.state.layer) < 0) this.state.layer = this.copper[0].id
    this.state.hidden = this.state.hidden.filter((h) => this.position(h) >= 0)
  }

  content(): Box {
    let b: Box | null = null
    const add = (x: Box | null) => {
      if (x)
        b = b
          ? {
              minX: Math.min(b.minX, x.minX),
              minY: Math.min(b.minY, x.minY),
              maxX: Math.max(b.maxX, x.maxX),
              maxY: Math.max(b.maxY, x.maxY),
            }
          : x
    }
    for (const kind of ['board', 'placed', 'hole'] as Kind[]) for (const o of this.project.all(kind)) add(this.scene.boxOf(o.id))
    return b ?? { minX: -5e6, minY: -5e6, maxX: 60e6, maxY: 45e6 }
  }
  boxOf(ids: Iterable<number>): Box | null {
    const boxes = [...ids].map((id) => this.scene.boxOf(id)).filter((b) => !!b)
    return boxes.length
      ? boxes.reduce((a, x) => ({
          minX: Math.min(a.minX, x.minX),
          minY: Math.min(a.minY, x.minY),
          maxX: Math.max(a.maxX, x.maxX),
          maxY: Math.max(a.maxY, x.maxY),
        }))
      : null
  }

  under(p: Point, tolerance: number): number[] {
    return under(this, p, tolerance)
  }

  touched(p: Point, tolerance: number): Touched | null {
    return touched(this, p, tolerance)
  }

  netUnder(p: Point, tolerance: number): string {
    return this.project.netName(this.touched(p, tolerance)?.net)
  }

  // ---- tools

  take(tool: BoardTool) {
    this.state.tool = tool
    this.dropRoute()
    this.endDrag()
    this.boxFrom = this.rect = null
    this.measure = []
    this.redraw()
  }

  back(): boolean {
    const runs = this.route?.runs
    if (this.drag) this.endDrag()
    else if (runs) {
      const last = runs[runs.length - 1]
      if (last.path.length > 1) last.path.pop()
      else if (runs.length > 1) {
        runs.pop()
        this.toLayer(runs[runs.length - 1].layer)
      } else this.dropRoute()
      this.askRoute()
    } else if (this.measure.length) this.measure = []
    else if (this.state.carrying) this.state.carrying = false
    else if (this.state.tool !== 'select') this.take('select')
    else if (this.selection.size) this.selection.clear()
    else if (this.project.lit.value || this.flagged) {
      this.project.light('')
      this.flagged = null
    } else return false
    this.redraw()
    return true
  }

  private endDrag() {
    this.drag = null
    this.dragLinks.value = null
    this.previews.stop()
    this.scene.hide([])
  }

  private dropRoute() {
    this.route = null
    this.probe = null
    this.target = null
    this.state.blocked = this.state.routing = ''
    this.previews.stop()
  }

  get width() {
    return this.state.width || this.probe?.width || this.project.rule('trackWidth')
  }

  down(p: Point, tolerance: number, e: { shiftKey: boolean; altKey: boolean; detail?: number }) {
    const at = snap(p, this.grid)
    switch (this.state.tool) {
      case 'track':
        this.trackClick(p, tolerance)
        return
      case 'outline':
        this.rect = { from: at, to: at }
        return
      case 'hole':
        this.project.edit('addHole', { at, diameter: this.state.holeSize }).catch(complain)
        return
      case 'text':
        if (!this.state.text.trim()) say('Type the text first.', 'error')
        else
          this.project
            .edit('addLegend', { at, text: this.state.text, height: this.state.textHeight, bottom: this.state.textBottom })
            .catch(complain)
        return
      case 'measure':
        if (this.measure.length >= 2) this.measure = []
        this.measure.push(this.touched(p, tolerance)?.at ?? at)
        this.redraw()
        return
    }
    const hits = this.under(p, tolerance)
    let id = hits[0]
    if (e.altKey && hits.length > 1) id = hits[(hits.findIndex((h) => this.selection.has(h)) + 1) % hits.length]
    if (id === undefined) {
      if (!e.shiftKey) this.selection.clear()
      this.boxFrom = p
    } else if (e.shiftKey) {
      if (this.selection.has(id)) this.selection.delete(id)
      else this.selection.add(id)
    } else {
      if (!this.selection.has(id)) {
        this.selection.clear()
        this.selection.add(id)
      }
      if (this.movable().length) this.drag = { from: p, step: { x: 0, y: 0 } }
    }
    this.redraw()
  }

  /** What of the selection can be moved. */
  movable(): number[] {
    return [...this.selection].filter((id) => {
      const f = this.project.find(id)
      return f?.kind === 'placed'
        ? !(f.object as Placed).locked
        : f?.kind === 'hole'
          ? !(f.object as Kinds['hole']).locked
          : f?.kind === 'legend'
    })
  }

  private anchor(id: number): Point {
    return (this.project.find(id)!.object as Placed).at
  }

  move(p: Point, tolerance: number) {
    this.raw = p
    this.at = snap(p, this.grid)
    if (this.drag) {
      const ids = this.movable()
      const first = this.anchor(ids[0])
      const to = snap({ x: first.x + p.x - this.drag.from.x, y: first.y + p.y - this.drag.from.y }, this.grid)
      const step =
        dist(p, this.drag.from) < tolerance * 0.6 && !this.drag.step.x && !this.drag.step.y
          ? { x: 0, y: 0 }
          : { x: to.x - first.x, y: to.y - first.y }
      if (!same(step, this.drag.step)) {
        this.drag.step = step
        this.scene.hide(ids)
        const drag = this.drag
        this.previews.ask('drag', { ids, step, pivot: { x: 0, y: 0 } }, (said) => {
          if (this.drag !== drag) return
          this.dragLinks.value = said.links
          this.redraw()
        })
      }
    } else if (this.rect) this.rect.to = this.at
    else if (this.state.tool === 'track') {
      const t = this.touched(p, tolerance)
      this.state.hovered = t?.id ?? 0
      if (this.route) {
        this.target = t && t.net === this.route.net && t.layers.includes(this.state.layer) ? t : null
        this.askRoute()
      } else this.target = t
    } else if (this.state.tool === 'select' && !this.boxFrom) {
      this.state.hovered = this.under(p, tolerance)[0] ?? 0
      this.state.hoverNet = this.netUnder(p, tolerance)
    } else if (this.state.tool === 'measure') this.target = this.touched(p, tolerance)
    this.redraw()
  }

  up(p: Point) {
    if (this.boxFrom) {
      const box = boxOf([this.boxFrom, p])
      const whole = p.x >= this.boxFrom.x
      if (box.maxX - box.minX > 0.2e6 || box.maxY - box.minY > 0.2e6)
        for (const id of this.scene.idsWithin(box)) {
          const found = this.project.find(id)
          if (!found || found.kind === 'board' || found.kind === 'ruleArea') continue
          const f = found.kind === 'placed' ? this.project.pattern((found.object as Placed).footprint) : undefined
          const own = f ? boxOf(courtyard(f, boardPose(found.object as Placed))) : this.scene.boxOf(id)!
          if (whole ? inside(own, box) : meets(own, box)) this.selection.add(id)
        }
      this.boxFrom = null
    } else if (this.drag) {
      const { step } = this.drag
      if (step.x || step.y) {
        this.project
          .edit('movePlaced', { ids: this.movable(), step })
          .catch(complain)
          .finally(() => this.endDrag())
        return
      }
      this.endDrag()
    } else if (this.rect) {
      const b = boxOf([this.rect.from, this.rect.to])
      this.rect = null
      if (b.maxX - b.minX > 1e6 && b.maxY - b.minY > 1e6) this.setRect(b)
    }
    this.redraw()
  }

  setRect(b: Box) {
    const outline = [{ x: b.minX, y: b.minY }, { x: b.maxX, y: b.minY }, { x: b.maxX, y: b.maxY }, { x: b.minX, y: b.maxY }] // prettier-ignore
    this.project.edit('setOutline', { outline }).catch(complain)
  }

  // ---- tracks

  /** Where the track stands that is being drawn. */
  private get from(): Point {
    const run = this.route!.runs[this.route!.runs.length - 1]
    return run.path[run.path.length - 1]
  }

  /** Asks for the way to the hand. */
  private askRoute() {
    const r = this.route
    if (!r) return
    this.previews.ask('track', this.way(r.net, this.target?.at ?? this.at), (probe) => {
      if (this.route !== r) return
      this.probe = probe
      this.state.routeLength = probe.length
      const b = probe.blocked
      this.state.blocked = b ? `Stopped before ${b.name}${b.net ? ` of ${b.net}` : ''}.` : ''
      this.redraw()
    })
  }
  /** What is asked about a track from where it was drawn to so far. */
  private way(net: number, to: Point): Questions['track']['asks'] {
    return { from: this.from, to, style: cornerStyles[this.state.style], layer: this.state.layer, net, width: this.state.width || undefined } // prettier-ignore
  }

  private trackClick(p: Point, tolerance: number) {
    if (!this.route) {
      const t = this.touched(p, tolerance)
      if (!t) say('Begin on a pad, a via or a track.', 'error')
      else if (!t.net)
        say(`${t.name[0].toUpperCase()}${t.name.slice(1)} belongs to no net, so no track can begin there.`, 'error')
      else {
        if (!t.layers.includes(this.state.layer)) this.toLayer(t.layers[0])
        this.route = { net: t.net, runs: [{ layer: this.state.layer, path: [t.at] }], start: t }
        this.state.routing = this.project.netName(t.net)
        this.project.light(this.state.routing)
        this.target = null
      }
      this.redraw()
      return
    }
    void this.fix()
  }

  /** Takes the way to the hand as drawn, and ends the track when it came to copper of its net. */
  private async fix() {
    const r = this.route!
    const target = this.target
    const to = target?.at ?? this.at
    const probe = await this.project.question('track', this.way(r.net, to)).catch(complain)
    if (!probe || this.route !== r) return
    const path = probe.path
    const run = r.runs[r.runs.length - 1]
    run.path.push(...path.slice(1).filter((p, i) => !same(p, path[i])))
    const arrived = target && !probe.blocked && !(target.id === r.start.id && same(target.at, r.start.at))
    if (arrived) this.finish()
    else this.askRoute()
    this.redraw()
  }

  /** Keeps what was drawn so far. */
  finish() {
    const r = this.route
    if (!r) return
    this.dropRoute()
    const runs = r.runs.filter((run, i) => run.path.length > 1 || i > 0)
    if (runs.some((run) => run.path.length > 1)) {
      // a hop at the very end leaves a via to go on from
      this.project.edit('drawTrack', { net: r.net, runs, width: this.state.width || undefined }).catch(complain)
    }
    this.redraw()
  }

  /** Changes to another copper layer: at the track's end while drawing, with a via. */
  async hop(to?: number) {
    const c = this.copper
    const next = to ?? (this.state.layer === c[0].id ? c[c.length - 1] : c[0]).id
    if (this.position(next) < 0 || next === this.state.layer) return
    const r = this.route
    if (!r) {
      this.toLayer(next)
      return
    }
    const aim = this.target?.at ?? this.at
    const probe = await this.project.question('track', this.way(r.net, aim)).catch(complain)
    if (!probe || this.route !== r) return
    if (probe.via) {
      say(`No via fits here: ${probe.via}.`, 'error')
      return
    }
    const run = r.runs[r.runs.length - 1]
    run.path.push(...probe.path.slice(1))
    const end = run.path[run.path.length - 1]
    r.runs.push({ layer: next, path: [end] })
    this.toLayer(next)
    this.askRoute()
    this.redraw()
  }

  /** Goes to the copper layer above (−1) or below (1), where there is one. */
  stepLayer(by: number) {
    const next = this.copper[this.position(this.state.layer) + by]
    if (next) void this.hop(next.id)
  }

  nextStyle() {
    this.state.style = (this.state.style + 1) % cornerStyles.length
    this.askRoute()
  }

  // ---- commands

  private pivot(): Point {
    const ids = this.movable()
    if (ids.length === 1) return this.anchor(ids[0])
    const b = this.boxOf(ids)!
    return snap({ x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 }, this.grid)
  }
  turn(angle: number) {
    const ids = this.movable()
    if (ids.length) this.project.edit('turnPlaced', { ids, pivot: this.pivot(), angle }).catch(complain)
  }
  flip() {
    const ids = this.movable()
    if (ids.length) this.project.edit('flipPlaced', { ids }).catch(complain)
  }
  lock() {
    const ids = [...this.selection].filter((id) => ['placed', 'track', 'via', 'hole'].includes(this.project.kind(id) ?? ''))
    if (!ids.length) return
    const locked = !ids.every((id) => (this.project.find(id)!.object as Placed).locked)
    this.project.edit('lock', { ids, locked }).catch(complain)
  }
  nudge(dx: number, dy: number) {
    const ids = this.movable()
    const g = this.taste.boardGrid
    if (ids.length) this.project.edit('movePlaced', { ids, step: { x: dx * g, y: dy * g } }).catch(complain)
  }
  remove() {
    if (this.selection.size) this.project.edit('remove', { ids: [...this.selection] }).catch(complain)
  }
  removeWhole() {
    const id = [...this.selection].find((i) => ['track', 'via'].includes(this.project.kind(i) ?? ''))
    if (id) this.project.edit('removeTrack', { id }).catch(complain)
  }
  removeNet() {
    const id = [...this.selection][0]
    const net =
      this.project.named('net', this.project.lit.value)?.id || (id && (this.project.find(id)?.object as Kinds['track']).net)
    if (net) this.project.edit('removeNetTracks', { net }).catch(complain)
    else say('Pick a track or highlight a net first.', 'error')
  }
  selectAll() {
    this.take('select')
    for (const kind of ['placed', 'track', 'via', 'hole', 'legend'] as Kind[])
      for (const o of this.project.all(kind)) this.selection.add(o.id)
    this.redraw()
  }
}

/** A part as it would stand while it is dragged. */
export function dragged(p: Placed, step: Point): Placed {
  return { ...p, at: { x: p.at.x + step.x, y: p.at.y + step.y } }
}
