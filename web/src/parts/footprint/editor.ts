import { markRaw, reactive, shallowRef } from 'vue'
import { dist, inPolygon, segmentDistance, snap } from '../../canvas/geometry'
import { type Item, Scene } from '../../canvas/scene'
import { type Box, boxOf, union } from '../../canvas/viewport'
import { nearOutline, padOutlines } from '../../board/pattern'
import { Pictures } from '../../circuit/marks'
import { SelectTool } from '../../hands/select'
import { Stage } from '../../hands/stage'
import type { Grab, Press, Tool } from '../../hands/tool'
import type { Project } from '../../live/project'
import type { Commands, Footprint, FootprintShown, Point } from '../../live/wire.gen'
import { complain } from '../../shell/notices'
import type { useTaste } from '../../shell/taste'
import { boardColours } from '../../shell/tokens'
import { idOf, pieceOf, refOf, withRefs } from '../pieces'
import { BeneathTool } from './tools/beneath'
import { FromHereTool } from './tools/fromHere'
import { LineTool } from './tools/line'
import { MeasureTool } from './tools/measure'
import { OriginTool } from './tools/origin'
import { PadTool } from './tools/pad'
import { RepeatTool } from './tools/repeat'
import { EdgeDrag, padGrips } from './corners'
import { PieceDrag } from './dragging'
import { dimensionLine, dimensionPlaces, figureItem, layers, openingItem, padItems, paintDimension, textItem, traceFigure, yardItem } from './draw' // prettier-ignore
import { features, type Found, nearest, padBox } from './features'

type Pieces = Omit<Commands['footprintPieces'], 'footprint'>
const still = { at: { x: 0, y: 0 }, angle: 0, mirror: false }

/** What a person is doing on a footprint. */
export class FootprintEditor extends Stage {
  readonly scene = markRaw(new Scene((l) => layers.indexOf(l)))
  readonly state = reactive({
    tool: 'select',
    hovered: 0,
    hoverNet: '',
    warning: '',
    footprint: 0,
    hidden: [] as string[],
  })
  readonly pad = new PadTool(this)
  readonly fromHere = new FromHereTool(this)
  readonly measure = new MeasureTool(this)
  readonly beneath = new BeneathTool(this)
  readonly repeat = new RepeatTool(this)
  readonly tools: Tool[] = [
    new SelectTool(this, () => this.colours.select, {
      picked: 'drag moves · arrows nudge · Q E turn · Del removes · details on the right',
      nothing: 'click picks · drag picks by box · middle drag moves the paper · wheel zooms · P pad',
    }),
    this.pad,
    this.fromHere,
    this.repeat,
    new LineTool(this),
    this.measure,
    this.beneath,
    new OriginTool(this),
  ]
  /** What the program says of the footprint: findings, agreements, openings. */
  readonly shown = shallowRef<FootprintShown | null>(null)
  readonly pictures: Pictures
  private asked = 0

  constructor(project: Project, taste: ReturnType<typeof useTaste>) {
    super(project, taste)
    this.pictures = new Pictures(
      (asset) => `/api/projects/${project.id}/assets/${asset}`,
      () => this.scene.invalidate(),
    )
  }

  get colours() {
    return boardColours[this.taste.boardShade]
  }
  get edited() {
    return this.state.footprint
  }
  get f(): Footprint | undefined {
    return this.project.get('footprint', this.state.footprint)
  }
  get pattern() {
    return this.f && this.project.patterns.get(this.f.id)
  }
  get grid() {
    return this.taste.gridOn ? this.taste.partGrid : 1_000
  }
  get step() {
    return this.taste.partGrid
  }
  /** Pads with their refs. */
  get pads() {
    return withRefs(this.f?.pads ?? [])
  }
  padOf(id: number) {
    const { what, ref } = pieceOf(id)
    return what === 'pad' ? this.pads.find((p) => p.id === ref) : undefined
  }
  pickedPads() {
    return [...this.selection].map((id) => this.padOf(id)).filter((p) => !!p)
  }
  features(): Found[] {
    return this.f ? features(this.f, this.pattern) : []
  }
  /** Where the hand snaps to: a feature near it, else the grid. */
  feature(p: Point, tolerance: number): Found | null {
    return nearest(this.features(), p, tolerance)
  }

  // ---- what is drawn

  readonly look = () => this.colours
  readonly alpha = (layer: string) => (this.state.hidden.includes(layer === 'barrel' || layer === 'bore' || layer === 'name' ? 'copper' : layer) ? 0 : layer === 'beneath' ? (this.f?.beneath?.opacity ?? 50) / 100 : 1) // prettier-ignore

  load() {
    const all = new Map<number, Item[]>()
    const put = (it: Item) => all.set(it.id, [...(all.get(it.id) ?? []), it])
    const f = this.f
    if (f) {
      const shape = this.pattern
      f.pads.forEach((p, i) => {
        const s = shape?.pads[i]
        if (s) padItems(p, refOf(p, i), s, this.look).forEach(put)
      })
      const usual = this.project.rule('silkWidth')
      f.silk.forEach((g, i) => put(figureItem(g, refOf(g, i), 'silk', usual, this.look)))
      f.body.forEach((g, i) => put(figureItem(g, refOf(g, i), 'body', usual, this.look)))
      if (f.courtyard?.length > 2) put(yardItem(f.courtyard, this.look))
      put(textItem(f.designatorAt, 'REF', 1, this.look))
      if (f.valueAt) put(textItem(f.valueAt, 'VAL', 2, this.look))
      for (const o of this.shown.value?.mask ?? []) put(openingItem(o, 'mask', this.look))
      for (const o of this.shown.value?.paste ?? []) put(openingItem(o, 'paste', this.look))
      const b = f.beneath
      const asset = b && this.project.get('asset', b.asset)
      if (b && asset && !b.hidden) {
        const h = (b.width * asset.height) / asset.width
        put({
          minX: b.at.x,
          minY: b.at.y,
          maxX: b.at.x + b.width,
          maxY: b.at.y + h, // prettier-ignore
          id: idOf('beneath', 1),
          layer: 'beneath',
          draw: ({ ctx }) => {
            const img = this.pictures.get(b.asset)
            if (!img) return
            ctx.save()
            ctx.translate(b.at.x / 1e6, (b.at.y + h) / 1e6)
            ctx.scale(1, -1)
            ctx.drawImage(img, 0, 0, b.width / 1e6, h / 1e6)
            ctx.restore()
          },
        })
      }
    }
    this.scene.load(all)
    this.redraw()
  }
  /** Opens a footprint, or none. */
  open(id: number) {
    if (this.state.footprint !== id) {
      this.selection.clear()
      this.take('select')
      this.shown.value = null
    }
    this.state.footprint = id
    this.load()
    void this.ask()
  }
  /** Asks anew what is to be said of it. */
  async ask() {
    const id = this.state.footprint
    if (!this.f) return
    const n = ++this.asked
    const said = await this.project.question('footprint', { footprint: id }).catch(() => null)
    if (n !== this.asked || !said) return
    this.shown.value = said
    this.load()
  }
  changed(changes: { kind: string; id: number }[]) {
    if (!changes.some((c) => (c.kind === 'footprint' && c.id === this.state.footprint) || c.kind === 'rule' || c.kind === 'asset')) return // prettier-ignore
    const there = new Set([
      ...this.pads.map((p) => idOf('pad', p.id)),
      ...(this.f?.silk ?? []).map((g, i) => idOf('silk', refOf(g, i))),
      ...(this.f?.body ?? []).map((g, i) => idOf('body', refOf(g, i))),
      ...(this.f?.dimensions ?? []).map((d) => idOf('dimension', d.id)),
      idOf('text', 1),
      idOf('text', 2), // prettier-ignore
    ])
    for (const id of [...this.selection]) if (!there.has(id)) this.selection.delete(id)
    this.load()
    void this.ask()
  }

  content(): Box {
    let b: Box | null = null
    for (const what of this.scene.layers())
      if (what !== 'name' && what !== 'text') for (const it of this.itemsOn(what)) b = union(b, it)
    return b ? union(b, { minX: -0.5e6, minY: -0.5e6, maxX: 0.5e6, maxY: 0.5e6 }) : { minX: -6e6, minY: -5e6, maxX: 6e6, maxY: 5e6 } // prettier-ignore
  }
  private itemsOn(layer: string) {
    return this.scene.within({ minX: -1e10, minY: -1e10, maxX: 1e10, maxY: 1e10 }).filter((i) => i.layer === layer)
  }

  // ---- what lies under the hand

  under(p: Point, tolerance: number): number[] {
    const f = this.f
    if (!f) return []
    const out: number[] = []
    const seen = (layer: string) => !this.state.hidden.includes(layer)
    if (seen('dimension')) for (const d of this.dimensions()) if (d.near(p) <= tolerance) out.push(idOf('dimension', d.id))
    if (seen('copper'))
      f.pads.forEach((pad, i) => {
        const s = this.pattern?.pads[i]
        if (s && [...padOutlines(s), ...(s.bore ? [s.bore] : [])].some((o) => nearOutline(p, o, still, tolerance / 3))) out.push(idOf('pad', refOf(pad, i))) // prettier-ignore
      })
    for (const what of ['silk', 'body'] as const)
      if (seen(what))
        f[what].forEach((g, i) => {
          if (figureDistance(g, p) <= Math.max(tolerance * 0.7, (g.width ?? 0) / 2)) out.push(idOf(what, refOf(g, i)))
        })
    if (seen('text'))
      for (const [ref, at] of [[1, f.designatorAt], [2, f.valueAt]] as const)
        if (at && Math.abs(p.x - at.x) < 2e6 && Math.abs(p.y - at.y) < 0.7e6) out.push(idOf('text', ref)) // prettier-ignore
    return out
  }
  netUnder() {
    return ''
  }
  roomOf(id: number): Box | null {
    const { what } = pieceOf(id)
    return ['pad', 'silk', 'body', 'text'].includes(what) ? this.boxOfPiece(id) : null
  }
  private boxOfPiece(id: number): Box | null {
    const { what, ref } = pieceOf(id)
    if (what !== 'pad') return this.scene.boxOf(id)
    const i = this.pads.findIndex((p) => p.id === ref)
    const s = this.pattern?.pads[i]
    return s ? padBox(s) : null
  }
  readonly leastBox = 20_000
  hold(p: Press): Grab | null {
    const grip = this.gripAt(p)
    if (grip) return grip
    return this.movable().length ? new PieceDrag(this, p.at) : null
  }
  /** The one free pad that is picked: its edge has grips. */
  get shaped() {
    const [pad, ...more] = this.pickedPads()
    return pad?.form === 'free' && !more.length && this.selection.size === 1 ? pad : undefined
  }
  private gripAt(p: Press): Grab | null {
    const pad = this.shaped
    if (!pad) return null
    const g = padGrips(pad).find((x) => dist(x.at, p.at) <= p.tolerance * 0.8)
    return g ? new EdgeDrag(this, pad, g) : null
  }
  movable() {
    return [...this.selection].filter((id) => ['pad', 'silk', 'body', 'text'].includes(pieceOf(id).what))
  }
  readonly partKind = 'footprint'
  partsPicked() {
    return []
  }
  idsOf() {
    return []
  }
  // what is picked here is none of the circuit's
  share() {}
  follow() {}

  /** The dimension lines as they stand, with how far a place is from each. */
  dimensions() {
    const f = this.f
    const list = (f?.dimensions ?? []).flatMap((d) => {
      const said = this.shown.value?.agreements.find((a) => a.id === d.id)
      return said && !said.lost ? [{ ...d, said, way: d.way ?? '' }] : []
    })
    const all = this.features().reduce<Box | null>((b, x) => union(b, boxOf([x.at])), null)
    const size = all ? Math.max(all.maxX - all.minX, all.maxY - all.minY) : 0
    const places = all ? dimensionPlaces(list, all, Math.max(0.8e6, size * 0.045)) : []
    return list.map((d, i) => {
      const { lineA, lineB } = dimensionLine(d.said, d.way, places[i])
      return { ...d, at: places[i], near: (p: Point) => segmentDistance(p, lineA, lineB) }
    })
  }
  paintDimensions(pen: Parameters<typeof paintDimension>[0], words: (nm: number) => string) {
    if (this.state.hidden.includes('dimension')) return
    for (const d of this.dimensions()) {
      const c = this.colours
      const picked = this.selection.has(idOf('dimension', d.id))
      const colour = picked ? c.select : d.says ? (d.said.agrees ? c.agrees : c.finding) : c.text
      paintDimension(pen, d.said, d.way, colour, `${words(d.said.has)}${d.says ? (d.said.agrees ? ' ✓' : ' ✗') : ''}`, d.at)
    }
  }

  // ---- changes

  edit(pieces: Pieces) {
    return this.project.edit('footprintPieces', { footprint: this.state.footprint, ...pieces }).catch(complain)
  }
  /** The pieces moved by a step. */
  moved(step: Point): Pieces {
    const f = this.f!
    const add = (p: Point) => ({ x: p.x + step.x, y: p.y + step.y })
    return this.with((p) => ({ ...p, at: add(p.at) }), (pts) => pts.map(add), this.selection.has(idOf('text', 1)) ? add(f.designatorAt) : undefined, f.valueAt && this.selection.has(idOf('text', 2)) ? add(f.valueAt) : undefined) // prettier-ignore
  }
  private with(
    pad: (p: Footprint['pads'][number]) => Footprint['pads'][number],
    places: (pts: Point[]) => Point[],
    designatorAt?: Point,
    valueAt?: Point,
  ): Pieces {
    const f = this.f!
    const figures = (what: 'silk' | 'body') =>
      withRefs(f[what])
        .filter((g) => this.selection.has(idOf(what, g.id)))
        .map((g) => ({ ...g, pts: places(g.pts) }))
    const pads = this.pickedPads().map(pad)
    const [silk, body] = [figures('silk'), figures('body')]
    return {
      ...(pads.length ? { pads } : {}),
      ...(silk.length ? { silk } : {}),
      ...(body.length ? { body } : {}),
      ...(designatorAt ? { designatorAt } : {}),
      ...(valueAt ? { valueAt } : {}),
    }
  }
  shift(step: Point) {
    if (this.movable().length && (step.x || step.y)) void this.edit(this.moved(step))
  }
  nudge(dx: number, dy: number) {
    if (this.lead(dx, dy)) return
    this.shift({ x: dx * this.step, y: dy * this.step })
  }
  /** Turns what is picked by quarters about its middle. */
  turn(quarters: number) {
    const ids = this.movable()
    if (!ids.length) return
    const c = this.middleOf(ids, 1000)
    const n = ((quarters % 4) + 4) % 4
    const about = (p: Point) => {
      let [x, y] = [p.x - c.x, p.y - c.y]
      for (let i = 0; i < n; i++) [x, y] = [-y + 0, x]
      return { x: x + c.x, y: y + c.y }
    }
    void this.edit(this.with((p) => ({ ...p, at: about(p.at), angle: ((p.angle ?? 0) + n * 90_000) % 360_000 }), (pts) => pts.map(about))) // prettier-ignore
  }
  remove() {
    const of = (what: string) => [...this.selection].map(pieceOf).filter((p) => p.what === what).map((p) => p.ref) // prettier-ignore
    const [removePads, silk, body, removeDimensions] = ['pad', 'silk', 'body', 'dimension'].map(of)
    const removeFigures = [...silk, ...body]
    if (removePads.length + removeFigures.length + removeDimensions.length) void this.edit({ removePads, removeFigures, removeDimensions }) // prettier-ignore
  }
  selectAll() {
    this.take('select')
    const f = this.f
    if (!f) return
    this.pads.forEach((p) => this.selection.add(idOf('pad', p.id)))
    for (const what of ['silk', 'body'] as const) f[what].forEach((g, i) => this.selection.add(idOf(what, refOf(g, i))))
    this.redraw()
  }
  /** The number after the greatest there is. */
  nextNumber(): string {
    const taken = this.pads.map((p) => Number(p.number)).filter((n) => Number.isInteger(n))
    return String(Math.max(0, ...taken) + 1)
  }
  onGrid(p: Point) {
    return snap(p, this.grid)
  }
}

/** How far a place is from a figure's line. */
function figureDistance(g: Footprint['silk'][number], p: Point): number {
  if (g.form === 'circle') return Math.abs(dist(p, g.pts[0]) - (g.r ?? 0))
  const pts = g.form === 'line' || g.form === 'arc' ? g.pts : [...g.pts, g.pts[0]]
  let least = Infinity
  for (let i = 0; i + 1 < pts.length; i++) least = Math.min(least, segmentDistance(p, pts[i], pts[i + 1]))
  if ((g.form === 'solid' || g.form === 'area') && inPolygon(p, g.pts)) return 0
  return least
}

export { traceFigure }
