import { markRaw, reactive, shallowRef } from 'vue'
import { boardPose, snap } from '../canvas/geometry'
import { Marks } from '../canvas/marks'
import { type Item, Scene } from '../canvas/scene'
import { type Box, boxOf, union } from '../canvas/viewport'
import { SelectTool } from '../hands/select'
import { Stage } from '../hands/stage'
import type { Grab, Press, Tool } from '../hands/tool'
import type { Project } from '../live/project'
import type {
  AnyObject,
  Delta,
  DimensionDrawn,
  Filled,
  Kind,
  Kinds,
  Link,
  NoteLine,
  PartRef,
  Placed,
  Point,
  Questions,
  Touch,
} from '../live/wire.gen'
import { complain, say } from '../shell/notices'
import type { useTaste } from '../shell/taste'
import { boardColours } from '../shell/tokens'
import { TrackFlock, ViaFlock } from './copper'
import { areaGrip, AreaGripDrag, shapedArea } from './areaShape'
import { DimensionDrag } from './dimensions'
import { BoardDrag, trackOptions } from './dragging'
import { Weighing } from './weighing'
import { LabelDrag, labelHolds } from './labels'
import { areaItem, holeItem, type Look, lookOf, outlineItem, placedItems, trackItem, viaItems } from './draw'
import { dimensionItem, figureItem, legendItem } from './drawn'
import { alphaOf, orderOf } from './layering'
import { courtyard } from './pattern'
import { type Touched, touched, under } from './picking'
import { filledItem, pourItem, TileIds } from './pours'
import { PullDrag } from './pulling'
import { AreaTool } from './tools/area'
import { FigureTool } from './tools/figure'
import { HoleTool } from './tools/hole'
import { MeasureTool } from './tools/measure'
import { OutlineTool } from './tools/outline'
import { PlaceTool } from './tools/place'
import { PourTool } from './tools/pour'
import { TextTool } from './tools/text'
import { TrackTool } from './tools/track'

const moves = new Set<Kind>(['placed', 'hole', 'legend', 'figure', 'ruleArea', 'pour'])
/** Kinds of objects that are drawn as items. */
const drawnKinds: Kind[] = ['board', 'ruleArea', 'pour', 'placed', 'track', 'via', 'hole', 'legend', 'figure']

/** What a step back closes, in this order. */
const panels = ['viewing', 'touching', 'carrying', 'drawing', 'logo', 'beginning', 'ruling', 'widths', 'stacking'] as const

/** What a person is doing on the board, and what is drawn of it. */
export class BoardEditor extends Stage {
  readonly scene = markRaw(new Scene((l) => orderOf(this, l)))
  readonly state = reactive({
    tool: 'select',
    hovered: 0,
    hoverNet: '',
    warning: '',
    layer: 0, // the id of the copper layer in work
    hidden: [] as number[],
    sight: 'work' as 'work' | 'finished' | 'space', // how the board is seen
    beside: false, // what is not the board in work is seen beside it
    finishedParts: true, // the finished board is seen with its parts
    flipped: false, // the board is seen from below
    others: '', // how layers beside the one in work are seen: dimmed, the 'next' ones alone, 'plain'
    unseen: [] as string[], // surfaces that are not seen: '' silk, mask, paste
    netAlone: false, // the highlighted net is seen alone, through all layers
    viewing: false, // how the board is seen is being said
    links: 'all' as 'all' | 'picked' | 'class' | 'none',
    linkClass: '',
    hideSupplies: false,
    carrying: false,
    ruling: false, // the rules are open
    widths: false, // the widths for currents are open
    stacking: false, // the stack is open
    touching: false, // what touches the copper areas of the layer in work is marked
    escaping: false, // the pads of what is picked are being led out
    beginning: false, // what the board is to be is being said
    drawing: false, // an outline is being taken from a drawing
    logo: false, // a logo is being taken from a drawing
  })
  readonly track = new TrackTool(this)
  readonly measure = new MeasureTool(this)
  readonly text = new TextTool(this)
  readonly figure = new FigureTool(this)
  readonly tools: Tool[] = [
    new SelectTool(
      this,
      () => this.look().colours.select,
      {
        picked: 'drag moves · J tracks along or open · Q E turn · M other side · L lock · arrows nudge · Del removes',
        nothing: 'click picks · drag picks by box · middle drag moves the board · wheel zooms · T track',
      },
      undefined,
      () => trackOptions(this),
    ),
    this.track,
    new PlaceTool(this),
    new OutlineTool(this),
    new HoleTool(this),
    new AreaTool(this),
    new PourTool(this),
    this.text,
    this.figure,
    this.measure,
  ]
  /** The open links of the nets that the hand moves. */
  readonly dragLinks = shallowRef<Record<string, Link[]> | null>(null)
  /** The open links and the faults of the board, by place. */
  readonly linkMarks = markRaw(new Marks(this.project.links, () => this.project.derivedTick.value, (list) => list.map((l) => [l, boxOf([l.a, l.b])]))) // prettier-ignore
  readonly faultMarks = markRaw(new Marks(this.project.findings, () => this.project.derivedTick.value, (f) => f.stage === 'board' && f.severity === 'fault' && !f.excused ? [[f, boxOf([f.at])]] : [])) // prettier-ignore
  /** What would carry the picked elsewhere, seen before it is done. */
  readonly weighing = new Weighing(this)
  protected override readonly weighed = this.weighing
  /** How pads would be led out. */
  readonly escape = shallowRef<Questions['escape']['answers'] | null>(null)
  /** Things that a list points at. */
  readonly pointed = shallowRef(new Set<number>())
  /** What else the core says of what the hand moves. */
  readonly held = shallowRef<Questions['drag']['answers'] | null>(null)
  /** What touches the copper areas of the layer in work. */
  readonly touches = shallowRef<Touch[]>([])
  /** What the notes about the places of what is picked measure. */
  readonly notes = shallowRef<NoteLine[]>([])
  flagged: Point | null = null
  /** The finding whose place is flagged, when it is one's. */
  shownFinding = ''
  private drawnStack = ''
  /** Of which handing over the objects are drawn. */
  private handed = 0

  constructor(project: Project, taste: ReturnType<typeof useTaste>) {
    super(project, taste)
  }

  /** The copper layers from the top. */
  get copper() {
    return this.project.board.stack.filter((l) => l.kind === 'copper')
  }
  /** The place of a copper layer among them, 0 at the top; −1: there is none. */
  position(layer: number) {
    return this.copper.findIndex((l) => l.id === layer)
  }
  readonly look = (): Look => lookOf(boardColours[this.taste.boardShade], this.project.board)
  get grid() {
    return this.taste.gridOn ? this.taste.boardGrid : 1_000
  }
  get step() {
    return this.taste.boardGrid
  }
  onGrid(p: Point) {
    return snap(p, this.grid)
  }

  // ---- layers

  readonly alpha = (layer: string) => alphaOf(this, layer)
  toLayer(n: number) {
    if (this.position(n) < 0) return
    this.state.layer = n
    this.state.hidden = this.state.hidden.filter((h) => h !== n)
    this.scene.rearrange()
  }

  /** Whether the finished board takes the place of the one in work. */
  get finished() {
    return this.state.sight === 'finished' && !this.state.beside
  }
  /** Whether the board is seen, or worked on, from below. */
  get below() {
    const c = this.copper
    return this.state.flipped || (c.length > 1 && this.state.layer === c[c.length - 1].id)
  }
  get mirrored() {
    return this.state.flipped
  }

  // ---- what is drawn

  private itemsOf(kind: Kind, o: AnyObject): Item[] {
    switch (kind) {
      case 'board':
        return outlineItem(o as Kinds['board'], this.look)
      case 'ruleArea':
        return [areaItem(o as Kinds['ruleArea'], this.look)]
      case 'pour':
        return pourItem(this.project, o as Kinds['pour'], this.look)
      case 'placed':
        return placedItems(this.project, o as Placed, this.look)
      case 'track':
        return [trackItem(o as Kinds['track'], this.look)]
      case 'via':
        return viaItems(o as Kinds['via'], this.look)
      case 'hole':
        return [holeItem(o as Kinds['hole'], this.look)]
      case 'legend':
        return [legendItem(o as Kinds['legend'], this.project.texts.get(o.id), this.project.rule('silkWidth'), this.look)]
      case 'figure':
        return [figureItem(o as Kinds['figure'], this.look)]
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
    for (const kind of drawnKinds.filter((k) => k !== 'track' && k !== 'via'))
      for (const o of this.project.all(kind)) all.set(o.id, this.itemsOf(kind, o))
    for (const f of this.project.filled.values()) all.set(this.tileIds.of(f), [this.tile(f)])
    for (const m of this.project.dimensions.values()) all.set(m.id, [this.dimension(m)])
    for (const o of tracks.beside()) all.set(o.id, this.itemsOf('track', o))
    for (const o of vias.values()) if (!through.has(o.id)) all.set(o.id, this.itemsOf('via', o))
    this.scene.load(all, [new TrackFlock(tracks, this.look), through])
    this.drawnStack = this.copper.map((l) => l.id).join()
    this.layersChanged()
  }

  changed(changes: { kind: Kind; id: number }[]) {
    this.weighing.drop() // it was of the board as it was
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
      if (drawnKinds.includes(c.kind)) this.scene.set(c.id, o ? this.itemsOf(c.kind, o) : [])
    }
  }

  private readonly dimension = (m: DimensionDrawn) => dimensionItem(m, this.look, () => this.taste.unit)
  private readonly tileIds = new TileIds()
  private readonly tile = (f: Filled) => filledItem(this.project, f, this.look, () => this.taste.fills)
  /** The next way to draw what copper areas fill. */
  otherFills() {
    this.taste.fills = ({ full: 'hatch', hatch: 'edges', edges: 'full' } as const)[this.taste.fills]
    for (const f of this.project.filled.values()) this.scene.touch(this.tileIds.of(f))
  }
  /** Dimensions follow what they measure, and copper areas what they give way to. */
  derived(d: Delta) {
    for (const id of d.lostDimensions ?? []) {
      this.scene.set(id, [])
      this.selection.delete(id)
    }
    for (const m of d.dimensions ?? []) this.scene.set(m.id, [this.dimension(m)])
    for (const f of d.filled ?? []) this.scene.set(this.tileIds.of(f), f.lines.length ? [this.tile(f)] : [])
  }

  /** The layer in work is one there is, at first the uppermost that holds anything; and no other is hidden. */
  private layersChanged() {
    if (this.position(this.state.layer) < 0)
      this.state.layer = (this.copper.find((l) => this.scene.holds('copper-' + l.id)) ?? this.copper[0]).id
    this.state.hidden = this.state.hidden.filter((h) => this.position(h) >= 0)
  }

  content(): Box {
    let b: Box | null = null
    for (const kind of ['board', 'placed', 'hole'] as Kind[])
      for (const o of this.project.all(kind)) {
        const x = this.scene.boxOf(o.id)
        if (x) b = union(b, x)
      }
    return b ?? { minX: -5e6, minY: -5e6, maxX: 60e6, maxY: 45e6 }
  }

  // ---- what lies under the hand

  under(p: Point, tolerance: number): number[] {
    return under(this, p, tolerance)
  }
  touched(p: Point, tolerance: number): Touched | null {
    return touched(this, p, tolerance)
  }
  netUnder(p: Point, tolerance: number): string {
    return this.project.netName(this.touched(p, tolerance)?.net)
  }
  roomOf(id: number): Box | null {
    const found = this.project.find(id)
    if (!found || ['board', 'ruleArea', 'pour'].includes(found.kind)) return null
    const f = found.kind === 'placed' ? this.project.pattern((found.object as Placed).footprint) : undefined
    return f ? boxOf(courtyard(f, boardPose(found.object as Placed))) : this.scene.boxOf(id)
  }
  hold(p: Press): Grab | null {
    const [id] = this.selection
    const m = this.selection.size === 1 ? this.project.dimensions.get(id) : undefined
    if (m) return new DimensionDrag(this, m)
    if (this.movable().length) return new BoardDrag(this, p.at)
    const copper = this.selection.size === 1 && ['track', 'via'].includes(this.project.kind(id) ?? '')
    return copper && !(this.project.find(id)!.object as Kinds['track']).locked ? new PullDrag(this, id, p) : null
  }
  readonly partKind = 'placed'
  partsPicked(): PartRef[] {
    return this.picked('placed').map((p) => ({ part: p.part, ...(p.path ? { path: p.path } : {}) }))
  }
  idsOf(parts: PartRef[]): number[] {
    const want = new Set(parts.map((r) => `${r.part} ${r.path ?? ''}`))
    return want.size ? this.project.all('placed').filter((p) => want.has(`${p.part} ${p.path ?? ''}`)).map((p) => p.id) : [] // prettier-ignore
  }
  override pickedBack() {
    const open = this.state.escaping
    this.state.escaping = false
    return open
  }
  lastBack() {
    const open = panels.find((p) => this.state[p])
    if (open) this.state[open] = false
    else if (this.flagged) this.flagged = null
    else return false
    return true
  }

  /** What of the selection can be moved; alone: without the copper that goes along with parts. */
  movable(alone = false): number[] {
    const parts = !alone && this.picked('placed').length > 0
    return [...this.selection].filter((id) => {
      const f = this.project.find(id)
      const copper = f?.kind === 'track' || f?.kind === 'via' // goes along with parts, and not by itself
      return !!f && (copper ? parts : moves.has(f.kind)) && !(f.object as Placed).locked
    })
  }

  anchor(id: number): Point {
    const { kind, object } = this.project.find(id)!
    if (kind === 'figure') return (object as Kinds['figure']).lines[0][0]
    if (kind === 'ruleArea') return (object as Kinds['ruleArea']).outline[0]
    if (kind === 'pour') return (object as Kinds['pour']).outline?.[0] ?? { x: 0, y: 0 }
    return kind === 'track' ? (object as Kinds['track']).a : (object as Placed).at
  }

  /** Lets a person choose a font's file, for texts or to write in; the page gives it the means. */
  askFont: (take: (name: string, data: string) => void) => void = () => undefined
  chooseFont(ids: number[], then: (face: number) => void = () => undefined) {
    this.askFont((name, data) => {
      const before = new Set(this.project.all('asset').map((a) => a.id))
      this.project
        .edit('addFont', { name, data, ids })
        .then(() => {
          const face = this.project.all('asset').find((a) => a.type === 'font' && !before.has(a.id))
          if (face) then(face.id)
        })
        .catch(complain)
    })
  }

  /** Asks what the notes of what is picked measure. */
  async measureNotes() {
    const ids = this.picked('placed').map((p) => p.id)
    const said = ids.length && ids.length < 200 ? await this.project.question('drag', { ids, step: { x: 0, y: 0 }, pivot: { x: 0, y: 0 } }).catch(() => null) : null // prettier-ignore
    this.notes.value = said?.notes ?? []
    this.redraw()
  }
  lineUp(how: string, gap = 0) {
    const ids = this.movable(true)
    const inOrder = [...this.selection].filter((id) => ids.includes(id)) // in which they were picked
    void this.weighing.carry({ kind: 'lineUp', fields: { ids: inOrder, how, gap } })
  }
  swap() {
    const two = this.picked('placed')
    if (two.length === 2) void this.weighing.carry({ kind: 'swapPlaced', fields: { a: two[0].id, b: two[1].id } })
    else say('Pick the two parts that are to change places.', 'error')
  }
  orderLabels() {
    const ids = this.picked('placed').map((p) => p.id)
    this.project.edit('orderLabels', { ids }).catch(complain)
  }
  /** The designator of the one part that is picked can be taken by itself, and the corners of an area. */
  override handle(p: Press): Grab | null {
    const area = shapedArea(this)
    const grip = area && areaGrip(area, p)
    if (grip) return new AreaGripDrag(this, area, grip)
    const [part] = this.picked('placed')
    if (!part || !labelHolds(this, part, p.at)) return null
    return new LabelDrag(this, part, p.at)
  }

  /** Brings the parts that are picked together at the cursor. */
  gather() {
    const ids = this.picked('placed').map((p) => p.id)
    if (ids.length) void this.weighing.carry({ kind: 'gather', fields: { ids, at: this.onGrid(this.raw) } })
  }
  /** Picks all parts of the clusters, or the sheets, of what is picked. */
  async pickTogether(sheet: boolean) {
    const ids = this.picked('placed').map((p) => p.id)
    const all = await this.project.question('together', { ids, ...(sheet ? { sheet } : {}) }).catch(complain)
    for (const id of all ?? []) this.selection.add(id)
    this.redraw()
  }

  // ---- layers

  /** The outer copper layer that a hop leads to where none is said. */
  get across() {
    const c = this.copper
    return (this.state.layer === c[0].id ? c[c.length - 1] : c[0]).id
  }
  /** Changes to another copper layer; a track that is being drawn goes on there, with a via. */
  async hop(to?: number) {
    const c = this.copper
    const next = to ?? this.across
    if (c.length === 1 && this.track.route) say('The board has one copper layer: there is no other to hop to.', 'error')
    if (this.position(next) < 0 || next === this.state.layer) return
    if (this.track.route) await this.track.hop(next)
    else this.toLayer(next)
  }

  /** Goes to the copper layer above (−1) or below (1), where there is one. */
  stepLayer(by: number) {
    const next = this.copper[this.position(this.state.layer) + by]
    if (next) void this.hop(next.id)
  }

  // ---- commands

  /** Tracks go along with parts that are moved, or become open links. */
  otherTracks() {
    this.taste.tracks = this.taste.tracks === 'along' ? 'open' : 'along'
    if (this.grab instanceof BoardDrag) this.grab.preview()
  }
  private pivot(): Point {
    const ids = this.movable()
    return ids.length === 1 ? this.anchor(ids[0]) : this.middleOf(ids, this.grid)
  }
  /** Left is left as it is seen, also from below. */
  turn(angle: number) {
    if (this.state.flipped) angle = -angle
    const ids = this.movable()
    if (ids.length) void this.weighing.carry({ kind: 'turnPlaced', fields: { ids, pivot: this.pivot(), angle } })
  }
  flip() {
    const ids = this.movable(true).filter((id) => !['ruleArea', 'pour'].includes(this.project.kind(id) ?? ''))
    if (ids.length) void this.weighing.carry({ kind: 'flipPlaced', fields: { ids } })
  }
  lock() {
    const ids = [...this.selection].filter((id) => drawnKinds.includes(this.project.kind(id) ?? 'board'))
    if (!ids.length) return
    const locked = !ids.every((id) => (this.project.find(id)!.object as Placed).locked)
    this.project.edit('lock', { ids, locked }).catch(complain)
  }
  /** To the right as it is seen, also from below. */
  nudge(right: number, dy: number) {
    const dx = this.state.flipped ? -right : right
    if (this.lead(dx, dy)) return
    const ids = this.movable()
    const g = this.step
    if (ids.length)
      this.project.edit('movePlaced', { ids, step: { x: dx * g, y: dy * g }, tracks: this.taste.tracks }).catch(complain)
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
  /** Makes the tracks that are picked shorter and straighter. */
  tidy() {
    const ids = this.picked('track').map((t) => t.id)
    if (ids.length) this.project.edit('tidyTracks', { ids }).catch(complain)
    else say('Pick the tracks that are to be tidied.', 'error')
  }
  removeAllTracks() {
    this.project.edit('removeAllTracks', {}).catch(complain)
  }
  selectAll() {
    this.take('select')
    for (const kind of ['placed', 'track', 'via', 'hole', 'legend', 'figure'] as Kind[])
      for (const o of this.project.all(kind)) this.selection.add(o.id)
    this.redraw()
  }
}
