import { markRaw, reactive, shallowReactive } from 'vue'
import { copyClip, readClip } from '../canvas/clipboard'
import { same, snap } from '../canvas/geometry'
import { Scene } from '../canvas/scene'
import { type Box, boxOf, inside, meets, union } from '../canvas/viewport'
import { Previewer } from '../live/previewer'
import type { Project } from '../live/project'
import type { Drawn, Foreseen, Item as LibraryItem, Kinds, Kind, Part, Point } from '../live/wire.gen'
import { complain, say } from '../shell/notices'
import type { useTaste } from '../shell/taste'
import { circuitColours, type CircuitColours } from '../shell/tokens'
import { Copies } from './copies'
import { Ghost } from './ghost'
import { type Grip, gripUnder } from './grips'
import { dots, electrical, type Inks, itemsOf, layerOrder, Pictures } from './marks'
import { bundleOf, clusterBox, insideCluster, pinUnder, type TextPlace, textUnder, under } from './picking'
import { ToolHand, type ToolName, freshOptions } from './tools'

/** What a person is doing on a sheet, and what is drawn of it. The canvas page shows it. */
export class CircuitEditor {
  readonly scene = markRaw(new Scene(layerOrder))
  readonly state = reactive({
    tool: 'select' as ToolName,
    ...freshOptions(),
    hovered: 0,
    hoverNet: '',
    finding: false,
    warning: '',
    sheet: 0,
    path: '',
    /** What is picked lies in the sheet's clusters that were picked by their frame. */
    painted: 0,
  })
  readonly selection = shallowReactive(new Set<number>())
  readonly hand: ToolHand
  readonly ghost: Ghost
  part: LibraryItem | null = null
  /** Parts to be put in the place of others rather than placed. */
  replacing: number[] = []
  at: Point = { x: 0, y: 0 }
  /** The hand's own place, off the grid. */
  raw: Point = { x: 0, y: 0 }
  boxFrom: Point | null = null
  drag: { from: Point; step: Point; told: Point | null; moved: Foreseen | null } | null = null
  /** Copies in the hand, to be put down with a click. */
  readonly copies: Copies
  /** The hand is led by the arrow keys: Enter puts down what it holds. */
  keyed = false
  grip: Grip | null = null
  /** A designator or value on its way to another place. */
  textDrag: { id: number; field: 'designator' | 'value'; from: Point; at: Point; start: Point } | null = null
  redraw: () => void = () => undefined
  editText: (what: TextPlace) => void = () => undefined
  enter: (sheet: number, path: string) => void = () => undefined
  private readonly previews: Previewer
  private readonly pictures: Pictures

  constructor(
    readonly project: Project,
    private readonly taste: ReturnType<typeof useTaste>,
  ) {
    this.previews = new Previewer(project)
    this.hand = new ToolHand(this)
    this.ghost = new Ghost(project, () => this.redraw())
    this.copies = new Copies(this)
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

  // ---- what is drawn

  /** Shows a use of a sheet; the drawing comes from the core. */
  async load(sheet: number, path: string): Promise<void> {
    const other = sheet !== this.sheet || path !== this.path
    this.state.sheet = sheet
    this.state.path = path
    this.project.here.value = { sheet, path }
    if (other) {
      this.selection.clear()
      this.hand.drop()
      this.grip = null
      this.textDrag = null
      this.boxFrom = null
      this.endDrag()
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

  // ---- picking

  under(p: Point, tolerance: number): number[] {
    return under(this, p, tolerance)
  }

  boxOf(ids: Iterable<number>): Box | null {
    let b: Box | null = null
    for (const id of ids) {
      const x = this.scene.boxOf(id)
      if (x) b = union(b, x)
    }
    return b
  }

  content(): Box | null {
    return this.boxOf([...this.project.standing(this.sheet)].map((b) => b.object.id))
  }

  /** Picks one thing: a cluster with what lies inside. */
  pick(id: number, add = false) {
    const found = this.project.find(id)
    const group = found?.kind === 'cluster' ? [id, ...insideCluster(this, found.object as Kinds['cluster'])] : [id]
    if (add && this.selection.has(id)) {
      group.forEach((g) => this.selection.delete(g))
      return
    }
    if (!add) this.selection.clear()
    group.forEach((g) => this.selection.add(g))
  }

  /** The picked objects of a kind. */
  picked<K extends Kind>(kind: K): Kinds[K][] {
    return [...this.selection].map((id) => this.project.get(kind, id)).filter((o) => !!o)
  }

  // ---- tools

  take(tool: ToolName) {
    this.state.tool = tool
    this.state.turn = this.hand.turnOf(tool)
    this.state.mirror = false
    this.hand.drop()
    this.copies.drop()
    this.drag = null
    this.grip = null
    this.boxFrom = null
    this.state.warning = ''
    this.scene.hide([])
    if (tool !== 'part') {
      this.part = null
      this.replacing = []
    }
    this.state.finding = tool === 'part' && !this.part
    this.redraw()
  }

  choose(item: LibraryItem) {
    if (this.replacing.length) {
      const ids = this.replacing
      this.take('select')
      this.run('replacePart', { ids, library: item.part!.name })
      return
    }
    this.part = item
    this.state.finding = false
    this.state.tool = 'part'
    this.redraw()
  }

  /** Steps back one level; tells whether there was one. */
  back(): boolean {
    if (this.textDrag) this.textDrag = null
    else if (this.grip) this.grip = null
    else if (this.drag) this.endDrag()
    else if (this.hand.back()) return true
    else if (this.keyed && this.state.tool === 'select' && !this.selection.size) this.keyed = false
    else if (this.state.finding && this.part) this.state.finding = false
    else if (this.state.tool !== 'select') this.take('select')
    else if (this.selection.size) this.selection.clear()
    else if (this.project.lit.value) this.project.light('')
    else return false
    this.redraw()
    return true
  }

  private endDrag() {
    this.drag = null
    this.state.warning = ''
    this.previews.stop()
    this.scene.hide([])
  }

  /** Where the hand would put something: a pin near it, else the grid. */
  aim(p: Point, tolerance: number): Point {
    if (['wire', 'bundle', 'open', 'label', 'port', 'supply'].includes(this.state.tool)) {
      const pin = pinUnder(this, p, tolerance)
      if (pin) return pin.at
    }
    return snap(p, this.grid)
  }

  down(p: Point, tolerance: number, e: { shiftKey: boolean; altKey: boolean }) {
    const at = this.aim(p, tolerance)
    this.keyed = false
    if (this.state.tool !== 'select') {
      this.at = at
      this.hand.down(at)
      return
    }
    const grip = this.selection.size === 1 ? gripUnder(this, p, tolerance) : null
    if (grip) {
      this.grip = grip
      return
    }
    // a picked part's texts can be moved by themselves; else the part is meant
    const text = this.selection.size === 1 && !e.shiftKey && !e.altKey ? textUnder(this, p) : null
    if (text && (text.field === 'designator' || text.field === 'value') && this.selection.has(text.id)) {
      this.textDrag = { id: text.id, field: text.field, from: p, at: text.at, start: text.at }
      return
    }
    const hits = this.under(p, tolerance)
    let id = hits[0]
    if (e.altKey && hits.length > 1) {
      const now = hits.findIndex((h) => this.selection.has(h))
      id = hits[(now + 1) % hits.length]
    }
    if (id === undefined) {
      if (!e.shiftKey) this.selection.clear()
      this.boxFrom = p
    } else if (e.shiftKey) {
      this.pick(id, true)
    } else {
      if (!this.selection.has(id) || e.altKey) this.pick(id)
      this.drag = { from: snap(p, this.grid), step: { x: 0, y: 0 }, told: null, moved: null }
    }
    this.redraw()
  }

  move(p: Point, tolerance: number) {
    this.raw = p
    this.keyed = false
    this.at = this.aim(p, tolerance)
    this.hand.ahead()
    if (this.textDrag) {
      const t = this.textDrag
      t.at = snap({ x: t.start.x + p.x - t.from.x, y: t.start.y + p.y - t.from.y }, 250_000)
    } else if (this.grip) {
      this.grip.move(this.at)
    } else if (this.drag) {
      const now = snap(p, this.grid)
      const step = { x: now.x - this.drag.from.x, y: now.y - this.drag.from.y }
      if (!same(step, this.drag.step)) this.dragTo(step)
    } else if (this.state.tool === 'select' && !this.boxFrom) {
      this.state.hovered = this.under(p, tolerance)[0] ?? 0
      this.state.hoverNet = this.hand.netUnder(p, tolerance)
    }
    this.redraw()
  }

  /** Asks the core what moving the selection would do and shows it, with what it would join. */
  private dragTo(step: Point) {
    const drag = this.drag!
    drag.step = step
    this.previews.ask('foresee', this.project.foresee('moveItems', { ids: [...this.selection], step }, this.path), (foreseen) => {
      if (this.drag !== drag) return
      drag.moved = foreseen
      drag.told = step
      this.state.warning = foreseen.say
      this.scene.hide([...(foreseen.put ?? []).map((b) => b.id), ...(foreseen.remove ?? [])])
      this.redraw()
    })
  }

  up(p: Point) {
    if (this.textDrag) this.dropText(p)
    else if (this.grip) {
      const g = this.grip
      this.grip = null
      g.keep()
    } else if (this.boxFrom) {
      this.pickBox(boxOf([this.boxFrom, p]), p.x >= this.boxFrom.x)
      this.boxFrom = null
    } else if (this.drag) {
      const { step, told, moved } = this.drag
      const ids = [...this.selection]
      if (step.x || step.y) {
        const agreed = told && same(told, step) ? moved?.outcome : undefined // what was said before the hand let go
        this.project
          .edit('moveItems', { ids, step }, agreed)
          .catch(complain)
          .finally(() => this.endDrag())
        return
      }
      this.endDrag()
    } else if (this.state.tool !== 'select') this.hand.up(this.at)
    this.redraw()
  }

  private dropText(p: Point) {
    const t = this.textDrag!
    this.textDrag = null
    const part = this.project.get('part', t.id)
    if (part && Math.hypot(p.x - t.from.x, p.y - t.from.y) > 0.4e6)
      this.run('moveText', { id: t.id, text: t.field, at: { x: t.at.x - part.at.x, y: t.at.y - part.at.y } })
  }

  /** Picks by a box: drawn to the right what is inside, to the left what it touches. */
  private pickBox(box: Box, whole: boolean) {
    if (box.maxX - box.minX < 0.5e6 && box.maxY - box.minY < 0.5e6) return
    for (const it of this.scene.within(box)) {
      const found = this.project.find(it.id)
      if (!found || found.kind === 'sheet' || it.layer === 'text') continue
      let own: Box = it
      if (found.kind === 'wire') own = boxOf([(found.object as Kinds['wire']).a, (found.object as Kinds['wire']).b])
      if (found.kind === 'cluster') {
        own = clusterBox(found.object as Kinds['cluster'])
        if (!inside(own, box)) continue // a frame is picked when it is all inside
      }
      if (whole ? inside(own, box) : meets(own, box)) this.selection.add(it.id)
    }
  }

  double(p: Point, tolerance: number) {
    if (this.state.tool !== 'select') {
      this.hand.double()
      return
    }
    const id = this.under(p, tolerance)[0]
    const block = id ? this.project.get('block', id) : undefined
    const title = textUnder(this, p)
    if (block && title?.id !== id) {
      this.enter(block.of, this.path ? `${this.path}/${block.id}` : String(block.id))
      return
    }
    if (title) this.editText(title)
  }

  run<K extends Parameters<Project['edit']>[0]>(kind: K, fields: Parameters<typeof this.project.edit<K>>[1]) {
    return this.project.edit(kind, fields).catch(complain)
  }

  // ---- commands

  private pivot(): Point {
    const ids = [...this.selection]
    const only = ids.length === 1 ? this.project.find(ids[0]) : undefined
    if (only && ['part', 'label', 'port', 'tap', 'supply', 'openMark'].includes(only.kind)) return (only.object as Part).at
    const b = this.boxOf(ids)!
    return snap({ x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 }, this.taste.circuitGrid)
  }

  turn(quarters: number) {
    if (this.state.tool === 'paste') this.copies.turn(quarters)
    else if (this.state.tool !== 'select') {
      this.state.turn = ((this.hand.ownTurn() ?? this.state.turn) + quarters + 4) % 4
      this.hand.keepTurn(this.state.tool, this.state.turn)
      this.hand.ahead()
      this.redraw()
    } else if (this.selection.size) void this.run('turnItems', { ids: [...this.selection], pivot: this.pivot(), quarters })
  }

  mirror() {
    if (this.state.tool === 'paste') this.copies.mirror()
    else if (this.state.tool !== 'select') {
      this.state.mirror = !this.state.mirror
      this.redraw()
    } else if (this.selection.size) void this.run('turnItems', { ids: [...this.selection], pivot: this.pivot(), mirror: true })
  }

  remove() {
    if (this.selection.size) void this.run('remove', { ids: [...this.selection] })
  }

  nudge(dx: number, dy: number) {
    if (this.lead(dx, dy)) return
    if (this.selection.size)
      void this.run('moveItems', {
        ids: [...this.selection],
        step: { x: dx * this.taste.circuitGrid, y: dy * this.taste.circuitGrid },
      })
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
    const b = this.boxOf(this.selection)!
    copyClip({ items: found, from: snap({ x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 }, this.taste.circuitGrid) })
    say(`Copied ${found.length} ${found.length === 1 ? 'thing' : 'things'}.`)
    return true
  }

  /** Takes the copies into the hand; a click puts them down. */
  paste() {
    const clip = readClip()
    if (!clip) return say('Nothing was copied yet: pick something and press Ctrl C.')
    this.take('paste')
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

  // ---- the hand led by keys

  /** Moves the hand by steps of the grid, when a tool is in hand or nothing is picked. */
  lead(dx: number, dy: number): boolean {
    if (this.state.tool === 'select' && this.selection.size) return false
    const g = this.taste.circuitGrid
    const from = snap(this.at, g)
    this.keyed = true
    this.at = this.raw = { x: from.x + dx * g, y: from.y + dy * g }
    if (this.grip) this.grip.move(this.at)
    this.hand.ahead()
    this.show(this.at)
    this.redraw()
    return true
  }
  /** Brings a place into view. */
  show: (p: Point) => void = () => undefined

  /** What a click would do where the keys led the hand. */
  press(tolerance: number): boolean {
    if (!this.keyed) return false
    if (this.state.tool === 'select') {
      const id = this.under(this.at, tolerance)[0]
      if (id === undefined) return false
      this.pick(id)
    } else {
      const two = ['block', 'cluster'].includes(this.state.tool) || (this.state.tool === 'draw' && !['timing', 'picture'].includes(this.state.drawForm)) // prettier-ignore
      if (two && this.hand.from) this.hand.up(this.at)
      else this.hand.down(this.at)
    }
    this.redraw()
    return true
  }

  /** Tells the other stages and windows which parts are picked here. */
  share() {
    const parts = this.picked('part').map((p) => ({ part: p.id, ...(this.path ? { path: this.path } : {}) }))
    const now = this.project.picked.value
    if (JSON.stringify(parts) !== JSON.stringify(now)) this.project.pick(parts)
  }

  /** Takes over what was picked elsewhere, as far as it stands on this sheet. */
  follow() {
    const here = this.project.picked.value.filter(
      (r) => (r.path ?? '') === this.path && this.project.get('part', r.part)?.sheet === this.sheet,
    )
    const ids = new Set(here.map((r) => r.part))
    const own = this.picked('part').map((p) => p.id)
    if (ids.size === own.length && own.every((id) => ids.has(id))) return
    this.selection.clear()
    ids.forEach((id) => this.selection.add(id))
    this.redraw()
  }

  bundleOf(id: number) {
    return bundleOf(this, id)
  }
  electrical(kind: Kind) {
    return electrical.includes(kind)
  }
}
