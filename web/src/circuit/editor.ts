import { markRaw, reactive, shallowReactive } from 'vue'
import { copyClip, readClip } from '../canvas/clipboard'
import { same, snap } from '../canvas/geometry'
import { type Item, Scene } from '../canvas/scene'
import { type Box, boxOf, inside, meets } from '../canvas/viewport'
import { Previewer, type Project } from '../live/project'
import type { AnyObject, Item as LibraryItem, Kinds, Kind, MovedPreview, Part, Point } from '../live/wire.gen'
import { complain, say } from '../shell/notices'
import type { useTaste } from '../shell/taste'
import { circuitColours, type CircuitColours } from '../shell/tokens'
import { connects, netUnder, pinUnder, textUnder, under } from './picking'
import { drawJunction, drawLabel, drawOpenMark, drawSupply, frameItem, labelBox, layerOrder, partItems, supplyBox, symbolBox, wireItem } from './draw' // prettier-ignore

export type ToolName = 'select' | 'part' | 'wire' | 'label' | 'supply' | 'open'

/** What a person is doing on a sheet, and what is drawn of it. The canvas page shows it. */
export class CircuitEditor {
  readonly scene = markRaw(new Scene(layerOrder))
  readonly state = reactive({
    tool: 'select' as ToolName,
    turn: 0,
    mirror: false,
    labelName: '',
    supplyName: 'GND',
    supplyShape: 'ground' as 'ground' | 'bar',
    bendFlipped: false,
    hovered: 0,
    hoverNet: '',
    finding: false,
    warning: '',
    sheet: 0,
  })
  readonly selection = shallowReactive(new Set<number>())
  part: LibraryItem | null = null
  at: Point = { x: 0, y: 0 }
  wirePath: Point[] = []
  boxFrom: Point | null = null
  drag: { from: Point; step: Point; moved: MovedPreview | null } | null = null
  /** A designator or value on its way to another place. */
  textDrag: { id: number; field: 'designator' | 'value'; from: Point; at: Point; start: Point } | null = null
  redraw: () => void = () => undefined
  editText: (what: { id: number; field: 'designator' | 'value' | 'name'; value: string; at: Point }) => void = () => undefined
  private readonly previews: Previewer

  constructor(
    readonly project: Project,
    private readonly taste: ReturnType<typeof useTaste>,
  ) {
    this.previews = new Previewer(project)
  }

  /** The sheet on show. */
  get sheet() {
    return this.state.sheet
  }

  get colours(): CircuitColours {
    return circuitColours[this.taste.circuitShade]
  }
  private readonly c = () => this.colours
  get grid() {
    return this.taste.gridOn ? this.taste.circuitGrid : 10_000
  }

  // ---- what is drawn

  private onSheet(o: AnyObject) {
    return (o as { sheet?: number }).sheet === this.sheet
  }

  private itemsOf(kind: Kind, o: AnyObject): Item[] {
    switch (kind) {
      case 'sheet':
        return o.id === this.sheet ? [frameItem(this.project, o as Kinds['sheet'], this.c)] : []
      case 'part':
        return this.onSheet(o) ? partItems(this.project, o as Part, this.c) : []
      case 'wire':
        return this.onSheet(o) ? [wireItem(o as Kinds['wire'], this.c)] : []
      case 'label': {
        const l = o as Kinds['label']
        return this.onSheet(o)
          ? [{ ...labelBox(l), id: l.id, layer: 'mark', draw: (pen) => drawLabel(pen, l, this.colours) }]
          : []
      }
      case 'supply': {
        const s = o as Kinds['supply']
        return this.onSheet(o)
          ? [{ ...supplyBox(s), id: s.id, layer: 'mark', draw: (pen) => drawSupply(pen, s, this.colours) }]
          : []
      }
      case 'openMark': {
        const m = o as Kinds['openMark']
        return this.onSheet(o)
          ? [{ ...boxOf([m.at], 1.6e6), id: m.id, layer: 'mark', draw: (pen) => drawOpenMark(pen, m.at, this.colours.open) }]
          : []
      }
    }
    return []
  }

  /** Draws the whole sheet anew. */
  load(sheet: number) {
    this.state.sheet = sheet
    const all = new Map<number, Item[]>()
    for (const kind of ['sheet', 'part', 'wire', 'label', 'supply', 'openMark'] as Kind[])
      for (const o of this.project.all(kind)) {
        const items = this.itemsOf(kind, o)
        if (items.length) all.set(o.id, items)
      }
    all.set(-1, this.junctions())
    this.scene.load(all)
  }

  private junctions(): Item[] {
    return (this.project.views.get(this.sheet)?.junctions ?? []).map((j) => ({
      ...boxOf([j], 1e6),
      id: -1,
      layer: 'junction',
      draw: (pen) => drawJunction(pen, j, this.colours.wire),
    }))
  }

  changed(changes: { kind: Kind; id: number }[]) {
    for (const c of changes) {
      const o = this.project.get(c.kind, c.id)
      if (!o) this.selection.delete(c.id)
      if (c.kind === 'settings') {
        this.scene.set(this.sheet, this.itemsOf('sheet', this.project.get('sheet', this.sheet)!))
        continue
      }
      this.scene.set(c.id, o ? this.itemsOf(c.kind, o) : [])
    }
  }

  derived() {
    const now = this.junctions()
    const before = this.scene.items(-1)
    if (now.length !== before.length || now.some((n, i) => n.minX !== before[i].minX || n.minY !== before[i].minY))
      this.scene.set(-1, now)
    this.redraw()
  }

  // ---- picking

  under(p: Point, tolerance: number): number[] {
    return under(this, p, tolerance)
  }

  connects(p: Point): boolean {
    return connects(this, p)
  }

  netUnder(p: Point, tolerance: number): string {
    return netUnder(this, p, tolerance)
  }

  boxOf(ids: Iterable<number>): Box | null {
    let b: Box | null = null
    for (const id of ids) {
      const x = this.scene.boxOf(id)
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
    return b
  }

  content(): Box | null {
    return this.boxOf(
      [...this.project.all('part'), ...this.project.all('wire')].filter((o) => o.sheet === this.sheet).map((o) => o.id),
    )
  }

  // ---- tools

  take(tool: ToolName) {
    this.state.tool = tool
    this.wirePath = []
    this.drag = null
    this.boxFrom = null
    this.state.warning = ''
    this.scene.hide([])
    if (tool !== 'part') this.part = null
    if (tool === 'part' && !this.part) this.state.finding = true
    else this.state.finding = false
    this.redraw()
  }

  choose(item: LibraryItem) {
    this.part = item
    this.state.finding = false
    this.state.tool = 'part'
    this.redraw()
  }

  /** Steps back one level; tells whether there was one. */
  back(): boolean {
    if (this.textDrag) {
      this.textDrag = null
    } else if (this.drag) {
      this.endDrag()
    } else if (this.wirePath.length) {
      this.wirePath.pop()
    } else if (this.state.finding && this.part) {
      this.state.finding = false
    } else if (this.state.tool !== 'select') {
      this.take('select')
    } else if (this.selection.size) {
      this.selection.clear()
    } else if (this.project.lit.value) {
      this.project.lit.value = ''
    } else return false
    this.redraw()
    return true
  }

  private endDrag() {
    this.drag = null
    this.state.warning = ''
    this.previews.stop()
    this.scene.hide([])
  }

  /** The wire's way from its last corner to the hand, bent once. */
  wireWay(to: Point): Point[] {
    const from = this.wirePath[this.wirePath.length - 1]
    if (!from || same(from, to)) return from ? [from] : []
    if (from.x === to.x || from.y === to.y) return [from, to]
    const level = Math.abs(to.x - from.x) >= Math.abs(to.y - from.y) !== this.state.bendFlipped
    return level ? [from, { x: to.x, y: from.y }, to] : [from, { x: from.x, y: to.y }, to]
  }

  /** Where the hand would put something: a pin near it, else the grid. */
  aim(p: Point, tolerance: number): Point {
    if (this.state.tool === 'wire' || this.state.tool === 'open' || this.state.tool === 'label' || this.state.tool === 'supply') {
      const pin = pinUnder(this, p, tolerance)
      if (pin) return pin.at
    }
    return snap(p, this.grid)
  }

  down(p: Point, tolerance: number, e: { shiftKey: boolean; altKey: boolean }) {
    const at = this.aim(p, tolerance)
    switch (this.state.tool) {
      case 'part':
        if (this.part) void this.place(at)
        return
      case 'wire':
        this.wireClick(at)
        return
      case 'label':
        if (!this.state.labelName.trim()) say('Type the name of the net first.', 'error')
        else this.run('placeLabel', { sheet: this.sheet, name: this.state.labelName, at, turn: this.state.turn })
        return
      case 'supply':
        this.run('placeSupply', {
          sheet: this.sheet,
          name: this.state.supplyName,
          shape: this.state.supplyShape,
          at,
          turn: this.state.turn,
        })
        return
      case 'open':
        this.run('placeOpenMark', { sheet: this.sheet, at })
        return
    }
    // a picked part's texts can be moved by themselves; else the part is meant
    const text = this.selection.size === 1 && !e.shiftKey && !e.altKey ? textUnder(this, p) : null
    if (text && text.field !== 'name' && this.selection.has(text.id)) {
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
      if (this.selection.has(id)) this.selection.delete(id)
      else this.selection.add(id)
    } else {
      if (!this.selection.has(id)) {
        this.selection.clear()
        this.selection.add(id)
      }
      this.drag = { from: snap(p, this.grid), step: { x: 0, y: 0 }, moved: null }
    }
    this.redraw()
  }

  move(p: Point, tolerance: number) {
    this.at = this.aim(p, tolerance)
    if (this.textDrag) {
      const t = this.textDrag
      t.at = snap({ x: t.start.x + p.x - t.from.x, y: t.start.y + p.y - t.from.y }, 250_000)
    } else if (this.drag) {
      const now = snap(p, this.grid)
      const step = { x: now.x - this.drag.from.x, y: now.y - this.drag.from.y }
      if (!same(step, this.drag.step)) {
        this.drag.step = step
        const drag = this.drag
        this.previews.ask({ t: 'previewMove', ids: [...this.selection], step, sheet: this.sheet }, (m) => {
          if (this.drag !== drag) return
          drag.moved = m.moved!
          const joined = m.moved!.joined ?? []
          const parted = m.moved!.parted ?? []
          this.state.warning = [
            ...joined.map(([a, b]) => `This would join ${a} and ${b}.`),
            ...parted.map((n) => `This would part ${n}.`),
          ].join(' ')
          this.scene.hide([...(m.moved!.put ?? []).map((b) => b.object!.id), ...(m.moved!.remove ?? [])])
          this.redraw()
        })
      }
    } else if (this.state.tool === 'select' && !this.boxFrom) {
      this.state.hovered = this.under(p, tolerance)[0] ?? 0
      this.state.hoverNet = this.netUnder(p, tolerance)
    }
    this.redraw()
  }

  up(p: Point) {
    const t = this.textDrag
    if (t) {
      this.textDrag = null
      const part = this.project.get('part', t.id)
      if (part && Math.hypot(p.x - t.from.x, p.y - t.from.y) > 0.4e6)
        this.run('moveText', { id: t.id, text: t.field, at: { x: t.at.x - part.at.x, y: t.at.y - part.at.y } })
      this.redraw()
      return
    }
    if (this.boxFrom) {
      const box = boxOf([this.boxFrom, p])
      const whole = p.x >= this.boxFrom.x
      if (box.maxX - box.minX > 0.5e6 || box.maxY - box.minY > 0.5e6)
        for (const it of this.scene.within(box)) {
          const found = this.project.find(it.id)
          if (!found || found.kind === 'sheet' || it.layer === 'text') continue
          const part = found.kind === 'part' ? (found.object as Part) : null
          const own = part ? symbolBox(part, this.project.symbolOf(part.library)!) : found.kind === 'wire' ? boxOf([(found.object as Kinds['wire']).a, (found.object as Kinds['wire']).b]) : it // prettier-ignore
          if (whole ? inside(own, box) : meets(own, box)) this.selection.add(it.id)
        }
      this.boxFrom = null
    } else if (this.drag) {
      const { step } = this.drag
      const ids = [...this.selection]
      if (step.x || step.y) {
        this.project
          .edit('moveItems', { ids, step })
          .catch(complain)
          .finally(() => this.endDrag())
        return
      }
      this.endDrag()
    }
    this.redraw()
  }

  double(p: Point) {
    if (this.state.tool === 'wire') {
      this.finishWire()
      return
    }
    if (this.state.tool !== 'select') return
    const t = textUnder(this, p)
    if (t) this.editText(t)
  }

  private wireClick(at: Point) {
    if (!this.wirePath.length) {
      this.wirePath = [at]
    } else {
      const way = this.wireWay(at)
      if (way.length < 2) {
        this.finishWire()
        return
      }
      this.wirePath.push(...way.slice(1))
      if (this.connects(at)) this.finishWire()
    }
    this.redraw()
  }

  finishWire() {
    const path = this.wirePath
    this.wirePath = []
    if (path.length > 1) this.run('drawWire', { sheet: this.sheet, path })
    this.redraw()
  }

  private async place(at: Point) {
    const { turn, mirror } = this.state
    await this.project.edit('placePart', { sheet: this.sheet, library: this.part!.part!.name, at, turn, mirror }).catch(complain)
  }

  private run<K extends Parameters<Project['edit']>[0]>(kind: K, fields: Parameters<typeof this.project.edit<K>>[1]) {
    this.project.edit(kind, fields).catch(complain)
  }

  // ---- commands

  private pivot(): Point {
    const ids = [...this.selection]
    const only = ids.length === 1 ? this.project.find(ids[0]) : undefined
    if (only && 'at' in only.object!) return (only.object as Part).at
    const b = this.boxOf(ids)!
    return snap({ x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 }, this.taste.circuitGrid)
  }

  turn(quarters: number) {
    if (this.state.tool !== 'select') {
      this.state.turn = (this.state.turn + quarters + 4) % 4
      this.redraw()
    } else if (this.selection.size) this.run('turnItems', { ids: [...this.selection], pivot: this.pivot(), quarters })
  }

  mirror() {
    if (this.state.tool !== 'select') {
      this.state.mirror = !this.state.mirror
      this.redraw()
    } else if (this.selection.size) this.run('turnItems', { ids: [...this.selection], pivot: this.pivot(), mirror: true })
  }

  remove() {
    if (this.selection.size) this.run('remove', { ids: [...this.selection] })
  }

  nudge(dx: number, dy: number) {
    if (this.selection.size)
      this.run('moveItems', {
        ids: [...this.selection],
        step: { x: dx * this.taste.circuitGrid, y: dy * this.taste.circuitGrid },
      })
  }

  selectAll() {
    this.take('select')
    for (const kind of ['part', 'wire', 'label', 'supply', 'openMark'] as Kind[])
      for (const o of this.project.all(kind)) if (this.onSheet(o)) this.selection.add(o.id)
    this.redraw()
  }

  copy(): boolean {
    if (!this.selection.size) return false
    const items = [...this.selection].map((id) => this.project.find(id)).filter((b) => !!b)
    copyClip({ items: items.map((b) => ({ kind: b.kind, object: b.object })), from: this.pivot() })
    say(`${items.length} ${items.length === 1 ? 'thing' : 'things'} copied.`)
    return true
  }

  async paste(at?: Point) {
    const clip = readClip()
    if (!clip?.items.length) {
      say('Nothing was copied yet.', 'error')
      return
    }
    const to = at ?? snap(this.at, this.taste.circuitGrid)
    let step = snap({ x: to.x - clip.from.x, y: to.y - clip.from.y }, this.taste.circuitGrid)
    if (!step.x && !step.y) step = { x: 2 * this.taste.circuitGrid, y: -2 * this.taste.circuitGrid }
    try {
      const before = new Set([...this.project.all('part'), ...this.project.all('wire'), ...this.project.all('label'), ...this.project.all('supply'), ...this.project.all('openMark')].map((o) => o.id)) // prettier-ignore
      await this.project.edit('paste', { sheet: this.sheet, step, items: clip.items as never })
      this.take('select')
      this.selection.clear()
      for (const kind of ['part', 'wire', 'label', 'supply', 'openMark'] as Kind[])
        for (const o of this.project.all(kind)) if (!before.has(o.id) && this.onSheet(o)) this.selection.add(o.id)
      this.redraw()
    } catch (e) {
      complain(e)
    }
  }

  async duplicate() {
    if (!this.copy()) return
    const p = this.pivot()
    await this.paste({ x: p.x + 4 * this.taste.circuitGrid, y: p.y - 4 * this.taste.circuitGrid })
  }
}
