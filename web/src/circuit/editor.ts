import { markRaw, reactive } from 'vue'
import { copyClip, readClip } from '../canvas/clipboard'
import { Scene } from '../canvas/scene'
import { type Box, boxOf } from '../canvas/viewport'
import { SelectTool } from '../hands/select'
import { Stage } from '../hands/stage'
import type { Grab, Press } from '../hands/tool'
import type { Project } from '../live/project'
import type { Drawn, Kinds, Kind, Part, PartRef, Point } from '../live/wire.gen'
import { say } from '../shell/notices'
import type { useTaste } from '../shell/taste'
import { circuitColours, type CircuitColours } from '../shell/tokens'
import { Ghost } from './ghost'
import { gripUnder } from './grips'
import { dots, type Inks, itemsOf, layerOrder, Pictures } from './marks'
import { MoveGrab, TextGrab } from './moving'
import { bundleOf, clusterBox, insideCluster, netUnder, type TextPlace, textUnder, under } from './picking'
import { BlockTool } from './tools/block'
import type { CircuitTool } from './tools/circuitTool'
import { ClusterTool } from './tools/cluster'
import { DrawTool } from './tools/draw'
import { LabelTool, PortTool } from './tools/naming'
import { NoteTool } from './tools/note'
import { OpenTool } from './tools/open'
import { PartTool } from './tools/part'
import { PasteTool } from './tools/paste'
import { SupplyTool } from './tools/supply'
import { TapTool } from './tools/tap'
import { WireTool } from './tools/wire'

/** What is being written before it is put on the sheet. */
export interface Draft {
  kind: 'note' | 'timing'
  id: number
  at: Point
  text: string
}

/** What a person is doing on a sheet, and what is drawn of it. The canvas page shows it. */
export class CircuitEditor extends Stage {
  readonly scene = markRaw(new Scene(layerOrder))
  readonly state = reactive({
    tool: 'select',
    hovered: 0,
    hoverNet: '',
    warning: '',
    sheet: 0,
    path: '',
    /** How often the sheet was drawn whole. */
    painted: 0,
  })
  readonly part = new PartTool(this)
  readonly note = new NoteTool(this)
  readonly copies = new PasteTool(this)
  readonly tools: CircuitTool[] = [
    new SelectTool(
      this,
      () => this.colours.select,
      {
        picked: 'drag moves, wires follow · Q E turn · M mirror · Del removes · V value · R designator or name',
        nothing: 'click picks · drag picks by box · middle drag moves the paper · wheel zooms · N part · C wire',
      },
      (p) => this.open(p),
    ),
    this.part,
    new WireTool(this),
    new WireTool(this, true),
    new TapTool(this),
    new LabelTool(this),
    new PortTool(this),
    new SupplyTool(this),
    new OpenTool(this),
    new BlockTool(this),
    new ClusterTool(this),
    this.note,
    new DrawTool(this),
    this.copies,
  ]
  readonly ghost: Ghost
  override readonly leastBox = 500_000
  /** What the page does for the hand: texts in place, sheets within, drafts, names, pictures. */
  editText: (what: TextPlace) => void = () => undefined
  enter: (sheet: number, path: string) => void = () => undefined
  write: (d: Draft) => void = () => undefined
  askName: () => void = () => undefined
  askPicture: (at: Point) => void = () => undefined
  nameCluster: (id: number) => void = () => undefined
  private readonly pictures: Pictures

  constructor(project: Project, taste: ReturnType<typeof useTaste>) {
    super(project, taste)
    this.ghost = new Ghost(project, () => this.redraw())
    this.pictures = new Pictures(
      (asset) => `/api/projects/${project.id}/assets/${asset}`,
      () => this.scene.invalidate(),
    )
  }

  /** The sheet on show, and which use of it. */
  get sheet() {
    return this.state.sheet
  }
  get path() {
    return this.state.path
  }
  get colours(): CircuitColours {
    return circuitColours[this.taste.circuitShade]
  }
  get inks(): Inks {
    return { colours: this.colours, pictures: this.pictures }
  }
  get grid() {
    return this.taste.gridOn ? this.taste.circuitGrid : 10_000
  }
  get step() {
    return this.taste.circuitGrid
  }

  // ---- what is drawn

  /** Shows a use of a sheet; the drawing comes from the core. */
  async load(sheet: number, path: string): Promise<void> {
    const other = sheet !== this.sheet || path !== this.path
    this.state.sheet = sheet
    this.state.path = path
    this.project.here.value = { sheet, path }
    if (other) {
      this.selection.clear()
      this.letGo()
      this.tool.drop?.()
    }
    await this.repaint()
  }

  async repaint() {
    const { sheet, path } = this
    const page = await this.project.question('sheet', { sheet, path }).catch(() => null)
    if (!page || sheet !== this.sheet || path !== this.path) return
    const all = new Map<number, ReturnType<typeof itemsOf>>()
    for (const d of page.items)
      if (d.id)
        all.set(
          d.id,
          itemsOf(d, () => this.inks),
        )
    all.set(-1, this.junctions())
    this.scene.load(all)
    this.state.painted++
  }

  private junctions() {
    const v = this.project.views.get(this.sheet)
    if (!v) return []
    return itemsOf({ id: 0, kind: 'wire', marks: dots(v.junctions, false) }, () => this.inks).concat(
      itemsOf({ id: 0, kind: 'wire', marks: dots(v.bundleJunctions, true) }, () => this.inks),
    )
  }

  changed(changes: { kind: Kind; id: number }[], drawn: Drawn[]) {
    const now = new Map(drawn.map((d) => [d.id, d]))
    let whole = false
    for (const c of changes) {
      const o = this.project.get(c.kind, c.id) as { sheet?: number; others?: unknown } | undefined
      if (!o) this.selection.delete(c.id)
      if (c.kind === 'settings' || c.kind === 'sheet') whole = true
      if (c.kind === 'symbol' || c.kind === 'part') whole ||= c.kind === 'symbol' ? false : !!o?.others && this.path !== ''
      const d = now.get(c.id)
      this.scene.set(c.id, d && o?.sheet === this.sheet ? itemsOf(d, () => this.inks) : c.kind === 'sheet' ? this.scene.items(c.id) : []) // prettier-ignore
    }
    if (whole) void this.repaint()
  }

  derived(uses = false) {
    if (uses) void this.repaint() // sheet n of m stands in every title block
    const now = this.junctions()
    const before = this.scene.items(-1) as typeof now
    if (JSON.stringify(now.map((i) => i.marks)) !== JSON.stringify(before.map((i) => i.marks))) this.scene.set(-1, now)
    this.redraw()
  }

  // ---- what lies under the hand

  under(p: Point, tolerance: number): number[] {
    return under(this, p, tolerance)
  }
  netUnder(p: Point, tolerance: number): string {
    return netUnder(this, p, tolerance)
  }
  content(): Box | null {
    return this.boxOf([...this.project.standing(this.sheet)].map((b) => b.object.id))
  }
  /** A cluster is picked with what lies inside. */
  override together(id: number): number[] {
    const found = this.project.find(id)
    return found?.kind === 'cluster' ? [id, ...insideCluster(this, found.object as Kinds['cluster'])] : [id]
  }
  roomOf(id: number): Box | null {
    const found = this.project.find(id)
    if (!found || found.kind === 'sheet') return null
    if (found.kind === 'wire') return boxOf([(found.object as Kinds['wire']).a, (found.object as Kinds['wire']).b])
    if (found.kind === 'cluster') return clusterBox(found.object as Kinds['cluster'])
    return this.scene.items(id).find((i) => i.layer !== 'text') ?? null
  }
  /** A frame is picked when it is all inside. */
  override picksWhole(id: number) {
    return this.project.kind(id) === 'cluster'
  }
  hold(p: Press): Grab {
    return new MoveGrab(this, p.at)
  }
  /** A picked part's texts can be moved by themselves; else the part is meant. */
  override handle(p: Press): Grab | null {
    const grip = gripUnder(this, p.at, p.tolerance)
    if (grip || p.shiftKey || p.altKey) return grip
    const text = textUnder(this, p.at)
    if (!text || (text.field !== 'designator' && text.field !== 'value') || !this.selection.has(text.id)) return null
    return new TextGrab(this, { ...text, field: text.field }, p.at)
  }
  readonly partKind = 'part'
  partsPicked(): PartRef[] {
    return this.picked('part').map((p) => ({ part: p.id, ...(this.path ? { path: this.path } : {}) }))
  }
  idsOf(parts: PartRef[]): number[] {
    const here = parts.filter((r) => (r.path ?? '') === this.path && this.project.get('part', r.part)?.sheet === this.sheet)
    return [...new Set(here.map((r) => r.part))]
  }

  /** A double click enters a block's sheet, or edits a text where it stands. */
  private open(p: Press) {
    const id = this.under(p.at, p.tolerance)[0]
    const block = id ? this.project.get('block', id) : undefined
    const title = textUnder(this, p.at)
    if (block && title?.id !== id) this.enterBlock(block)
    else if (title) this.editText(title)
  }
  enterBlock(block: Kinds['block']) {
    this.enter(block.of, this.path ? `${this.path}/${block.id}` : String(block.id))
  }
  /** A note or timing diagram that stands already, to be written anew. */
  rewrite(id: number) {
    const found = this.project.find(id)
    if (found?.kind !== 'note' && found?.kind !== 'timing') return
    const o = found.object as Kinds['note']
    this.write({ kind: found.kind, id, at: o.at, text: o.text })
  }

  // ---- commands

  private pivot(): Point {
    const ids = [...this.selection]
    const only = ids.length === 1 ? this.project.find(ids[0]) : undefined
    if (only && ['part', 'label', 'port', 'tap', 'supply', 'openMark'].includes(only.kind)) return (only.object as Part).at
    return this.middleOf(ids, this.step)
  }
  private get held(): CircuitTool {
    return this.tool
  }
  turn(quarters: number) {
    if (!this.picks) {
      this.held.turn?.(quarters)
      this.redraw()
    } else if (this.selection.size) void this.run('turnItems', { ids: [...this.selection], pivot: this.pivot(), quarters })
  }
  mirror() {
    if (!this.picks) {
      this.held.mirror?.()
      this.redraw()
    } else if (this.selection.size) void this.run('turnItems', { ids: [...this.selection], pivot: this.pivot(), mirror: true })
  }

  nudge(dx: number, dy: number) {
    if (this.lead(dx, dy)) return
    if (this.selection.size)
      void this.run('moveItems', { ids: [...this.selection], step: { x: dx * this.step, y: dy * this.step } })
  }

  arrange(how: 'column' | 'row' | 'across' | 'down') {
    const ids = [...this.selection].filter((id) => this.project.kind(id) !== 'wire')
    if (ids.length) void this.run('arrange', { ids, how })
  }

  selectAll() {
    this.take('select')
    for (const { object } of this.project.standing(this.sheet)) this.selection.add(object.id)
    this.redraw()
  }

  copy(): boolean {
    const found = [...this.selection].map((id) => this.project.find(id)).filter((b) => !!b)
    if (!found.length) return false
    copyClip({ items: found, from: this.middleOf(this.selection, this.step) })
    say(`Copied ${found.length} ${found.length === 1 ? 'thing' : 'things'}.`)
    return true
  }

  /** Takes the copies into the hand; a click puts them down. */
  paste() {
    const clip = readClip()
    if (!clip) return say('Nothing was copied yet: pick something and press Ctrl C.')
    this.copies.hold(clip)
  }

  duplicate() {
    if (this.copy()) this.paste()
  }

  cut() {
    if (this.copy()) this.remove()
  }

  /** Marks the free pins of the picked parts as left open on purpose. */
  markOpen() {
    const ids = this.picked('part').map((p) => p.id)
    if (ids.length) void this.run('markOpen', { ids })
  }

  bundleOf(id: number) {
    return bundleOf(this, id)
  }
}
