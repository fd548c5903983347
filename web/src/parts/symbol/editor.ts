import { markRaw, reactive, shallowRef } from 'vue'
import { dist, same, segmentDistance, snap } from '../../canvas/geometry'
import { type Item, type Pen, Scene } from '../../canvas/scene'
import { type Box, boxOf, union } from '../../canvas/viewport'
import { marksBox, play } from '../../circuit/marks'
import { SelectTool } from '../../hands/select'
import { Stage } from '../../hands/stage'
import type { Grab, Press, Tool } from '../../hands/tool'
import type { Project } from '../../live/project'
import type { Commands, Mark, Pin, Point, Symbol as Drawing, SymbolShown } from '../../live/wire.gen'
import { complain } from '../../shell/notices'
import type { useTaste } from '../../shell/taste'
import { circuitColours } from '../../shell/tokens'
import { OriginTool } from '../footprint/tools/origin'
import type { Found } from '../footprint/features'
import { idOf, pieceOf, withRefs } from '../pieces'
import { FigureTool } from './tools/figure'
import { PinTool } from './tools/pin'

type Pieces = Omit<Commands['symbolPieces'], 'symbol'>
const layers = ['figure', 'pin', 'text']

/** The step from a pin's place towards the body, by quarter turns. */
export const ways: Point[] = [{ x: 1, y: 0 }, { x: 0, y: 1 }, { x: -1, y: 0 }, { x: 0, y: -1 }] // prettier-ignore
export const footOf = (p: Pick<Pin, 'at' | 'turn' | 'length'>): Point => ({ x: p.at.x + ways[p.turn].x * p.length, y: p.at.y + ways[p.turn].y * p.length }) // prettier-ignore

/** What a person is doing on a symbol. */
export class SymbolEditor extends Stage {
  readonly scene = markRaw(new Scene((l) => layers.indexOf(l)))
  readonly state = reactive({ tool: 'select', hovered: 0, hoverNet: '', warning: '', symbol: 0 })
  readonly pin = new PinTool(this)
  readonly tools: Tool[] = [
    new SelectTool(this, () => this.colours.select, {
      picked: 'drag moves · arrows nudge · Q E turn · Del removes · details on the right',
      nothing: 'click picks · drag picks by box · drag a side of the body to resize it · P pin',
    }),
    this.pin,
    new FigureTool(this),
    new OriginTool(this),
  ]
  readonly shown = shallowRef<SymbolShown | null>(null)
  private asked = 0

  constructor(project: Project, taste: ReturnType<typeof useTaste>) {
    super(project, taste)
  }
  get colours() {
    return circuitColours[this.taste.circuitShade] as (typeof circuitColours)['light'] & { select: string; text: string }
  }
  get edited() {
    return this.state.symbol
  }
  get s(): Drawing | undefined {
    return this.project.get('symbol', this.state.symbol)
  }
  get pins() {
    return withRefs(this.s?.pins ?? [])
  }
  get figures() {
    return withRefs(this.s?.figures ?? [])
  }
  get grid() {
    return this.taste.gridOn ? this.taste.circuitGrid : 100_000
  }
  get step() {
    return this.taste.circuitGrid
  }
  pickedPins() {
    const refs = new Set([...this.selection].map(pieceOf).filter((p) => p.what === 'pin').map((p) => p.ref)) // prettier-ignore
    return this.pins.filter((p) => refs.has(p.id))
  }

  // ---- what is drawn

  load() {
    const all = new Map<number, Item[]>()
    const s = this.shown.value
    const put = (what: 'pin' | 'figure', ref: number, marks: Mark[]) => {
      const id = idOf(what, ref)
      all.set(id, [{ ...marksBox(marks), id, layer: what, draw: (pen: Pen) => play(pen, marks, { colours: this.colours, pictures: null }) }]) // prettier-ignore
    }
    for (const f of s?.figures ?? []) put('figure', f.ref, f.marks)
    for (const p of s?.pins ?? []) put('pin', p.ref, p.marks)
    const d = this.s
    if (d)
      for (const [ref, at, words] of [[1, d.designatorAt, 'U?'], [2, d.valueAt, 'value']] as const) {
        const id = idOf('text', ref)
        all.set(id, [{ minX: at.x - 4e6, maxX: at.x + 4e6, minY: at.y - 1.8e6, maxY: at.y + 1.8e6, id, layer: 'text', draw: (pen) => pen.text(words, at.x / 1e6, at.y / 1e6, 3.1, { colour: ref === 1 ? this.colours.ink : this.colours.quiet }) }]) // prettier-ignore
      } // prettier-ignore
    this.scene.load(all)
    this.redraw()
  }
  open(id: number) {
    if (this.state.symbol !== id) {
      this.selection.clear()
      this.take('select')
      this.shown.value = null
    }
    this.state.symbol = id
    this.load()
    return this.ask()
  }
  async ask() {
    if (!this.s) return
    const n = ++this.asked
    const said = await this.project.question('symbol', { symbol: this.state.symbol }).catch(() => null)
    if (n !== this.asked || !said) return
    this.shown.value = said
    this.load()
  }
  changed(changes: { kind: string; id: number }[]) {
    if (!changes.some((c) => (c.kind === 'symbol' && c.id === this.state.symbol) || c.kind === 'libraryPart')) return
    const there = new Set([...this.pins.map((p) => idOf('pin', p.id)), ...this.figures.map((f) => idOf('figure', f.id)), idOf('text', 1), idOf('text', 2)]) // prettier-ignore
    for (const id of [...this.selection]) if (!there.has(id)) this.selection.delete(id)
    void this.ask()
  }
  content(): Box {
    let b: Box | null = null
    for (const it of this.scene.within({ minX: -1e10, minY: -1e10, maxX: 1e10, maxY: 1e10 })) b = union(b, it)
    return b ?? { minX: -15e6, minY: -12e6, maxX: 15e6, maxY: 12e6 }
  }

  // ---- what lies under the hand

  under(p: Point, tolerance: number): number[] {
    const out: number[] = []
    for (const pin of this.pins) if (segmentDistance(p, pin.at, footOf(pin)) <= tolerance) out.push(idOf('pin', pin.id))
    const d = this.s
    if (d)
      for (const [ref, at] of [[1, d.designatorAt], [2, d.valueAt]] as const)
        if (Math.abs(p.x - at.x) < 4e6 && Math.abs(p.y - at.y) < 1.8e6) out.push(idOf('text', ref)) // prettier-ignore
    for (const f of [...this.figures].reverse()) {
      if (f.form === 'text') {
        const b = this.scene.boxOf(idOf('figure', f.id))
        if (b && p.x >= b.minX && p.x <= b.maxX && p.y >= b.minY && p.y <= b.maxY) out.push(idOf('figure', f.id))
        continue
      }
      const pts = ['line', 'arc', 'circle'].includes(f.form) ? f.pts : [...f.pts, f.pts[0]]
      let least = f.form === 'circle' ? Math.abs(dist(p, f.pts[0]) - (f.r ?? 0)) : Infinity
      for (let i = 0; i + 1 < pts.length; i++) least = Math.min(least, segmentDistance(p, pts[i], pts[i + 1]))
      if (least <= tolerance) out.push(idOf('figure', f.id))
    }
    return out
  }
  netUnder() {
    return ''
  }
  roomOf(id: number): Box | null {
    const { what, ref } = pieceOf(id)
    if (what === 'pin') {
      const p = this.pins.find((x) => x.id === ref)
      return p ? boxOf([p.at, footOf(p)]) : null
    }
    return this.scene.boxOf(id)
  }
  hold(p: Press): Grab | null {
    return this.selection.size ? new SymbolDrag(this, p.at) : null
  }
  /** A side or corner of the body under the hand: dragging it resizes the body, with its pins. */
  sideUnder(p: Point, tolerance: number): { x: -1 | 0 | 1; y: -1 | 0 | 1 } | null {
    const b = this.shown.value?.body
    if (!b) return null
    const near = (v: number, at: number) => Math.abs(v - at) <= tolerance
    const along = (v: number, lo: number, hi: number) => v >= lo - tolerance && v <= hi + tolerance
    const x = along(p.y, b.min.y, b.max.y) ? (near(p.x, b.min.x) ? -1 : near(p.x, b.max.x) ? 1 : 0) : 0
    const y = along(p.x, b.min.x, b.max.x) ? (near(p.y, b.min.y) ? -1 : near(p.y, b.max.y) ? 1 : 0) : 0
    return x || y ? { x, y } : null
  }
  handle(p: Press): Grab | null {
    const { what, ref } = pieceOf([...this.selection][0])
    if (what !== 'figure' || ref !== this.shown.value?.bodyRef) return null
    const side = this.sideUnder(p.at, p.tolerance)
    return side && new BodyDrag(this, side)
  }
  readonly partKind = 'symbol'
  partsPicked() {
    return []
  }
  idsOf() {
    return []
  }
  share() {}
  follow() {}
  feature(p: Point, tolerance: number): Found | null {
    let best: Found | null = null
    let least = tolerance
    const offer = (at: Point, name: string) => {
      if (dist(at, p) < least) {
        least = dist(at, p)
        best = { feature: { of: 'origin' }, at, name }
      }
    }
    for (const pin of this.pins) offer(pin.at, `end of pin ${pin.number}`)
    for (const f of this.figures) for (const q of f.pts) offer(q, 'corner')
    return best
  }

  // ---- changes

  edit(pieces: Pieces) {
    return this.project.edit('symbolPieces', { symbol: this.state.symbol, ...pieces }).catch(complain)
  }
  private carried(place: (p: Point) => Point, turnBy = 0) {
    const pins = this.pickedPins().map((p) => ({ ...p, at: place(p.at), turn: (p.turn + turnBy + 4) % 4 }))
    const figures = this.figures.filter((f) => this.selection.has(idOf('figure', f.id))).map((f) => ({ ...f, pts: f.pts.map(place) })) // prettier-ignore
    return { pins, figures }
  }
  async shift(step: Point) {
    if (!step.x && !step.y) return
    const { pins, figures } = this.carried((p) => ({ x: p.x + step.x, y: p.y + step.y }))
    if (pins.length || figures.length)
      await this.edit({ ...(pins.length ? { pins } : {}), ...(figures.length ? { figures } : {}) })
    const d = this.s!
    const text = (ref: number, at: Point) => (this.selection.has(idOf('text', ref)) ? { x: at.x + step.x, y: at.y + step.y } : undefined) // prettier-ignore
    const [designatorAt, valueAt] = [text(1, d.designatorAt), text(2, d.valueAt)]
    if (designatorAt || valueAt) await this.project.edit('setSymbol', { symbol: this.state.symbol, ...(designatorAt ? { designatorAt } : {}), ...(valueAt ? { valueAt } : {}) }).catch(complain) // prettier-ignore
  }
  nudge(dx: number, dy: number) {
    if (this.lead(dx, dy)) return
    void this.shift({ x: dx * this.step, y: dy * this.step })
  }
  turn(quarters: 1 | -1) {
    const ids = [...this.selection].filter((id) => pieceOf(id).what !== 'text')
    if (!ids.length) return
    const c = this.middleOf(ids, this.step)
    const about = (p: Point) => (quarters === 1 ? { x: c.x - (p.y - c.y), y: c.y + (p.x - c.x) } : { x: c.x + (p.y - c.y), y: c.y - (p.x - c.x) }) // prettier-ignore
    const { pins, figures } = this.carried(about, quarters)
    void this.edit({ ...(pins.length ? { pins } : {}), ...(figures.length ? { figures } : {}) })
  }
  remove() {
    const of = (what: string) => [...this.selection].map(pieceOf).filter((p) => p.what === what).map((p) => p.ref) // prettier-ignore
    const [removePins, removeFigures] = [of('pin'), of('figure')]
    if (removePins.length + removeFigures.length) void this.edit({ removePins, removeFigures })
  }
  selectAll() {
    this.take('select')
    this.pins.forEach((p) => this.selection.add(idOf('pin', p.id)))
    this.figures.forEach((f) => this.selection.add(idOf('figure', f.id)))
    this.redraw()
  }
  nextNumber(taken = new Set(this.pins.map((p) => p.number))): string {
    for (let n = 1; ; n++) if (!taken.has(String(n))) return String(n)
  }
}

/** What is picked of a symbol, in the hand. */
class SymbolDrag implements Grab {
  private step: Point = { x: 0, y: 0 }
  private readonly ids: number[]
  private readonly first: Point
  constructor(
    private readonly ed: SymbolEditor,
    private readonly from: Point,
  ) {
    this.ids = [...ed.selection]
    this.first = ed.pickedPins()[0]?.at ?? snap(from, ed.grid)
  }
  move(p: Press) {
    const still = !this.step.x && !this.step.y
    if (still && dist(p.at, this.from) < p.tolerance * 0.6) return
    const { first, from } = this
    const to = snap({ x: first.x + p.at.x - from.x, y: first.y + p.at.y - from.y }, this.ed.grid)
    const step = { x: to.x - first.x, y: to.y - first.y }
    if (same(step, this.step)) return
    this.step = step
    this.ed.scene.hide(this.ids)
  }
  drop() {
    const { ed, step } = this
    if (!step.x && !step.y) return this.cancel()
    ed.grab = this
    void ed.shift(step).finally(() => ed.grab === this && ed.letGo())
  }
  cancel() {
    this.ed.scene.hide([])
  }
  paint(pen: Pen) {
    const { ed, step } = this
    pen.ctx.save()
    pen.ctx.translate(step.x / 1e6, step.y / 1e6)
    for (const id of this.ids) for (const it of ed.scene.items(id)) it.draw?.(pen)
    pen.ctx.restore()
  }
}

/** A side or corner of the body, in the hand. */
class BodyDrag implements Grab {
  private box: { min: Point; max: Point }
  constructor(
    private readonly ed: SymbolEditor,
    private readonly side: { x: number; y: number },
  ) {
    const b = ed.shown.value!.body!
    this.box = { min: { ...b.min }, max: { ...b.max } }
  }
  move() {
    const { ed, side, box } = this
    const at = ed.at
    if (side.x < 0) box.min.x = Math.min(at.x, box.max.x - 1e6)
    if (side.x > 0) box.max.x = Math.max(at.x, box.min.x + 1e6)
    if (side.y < 0) box.min.y = Math.min(at.y, box.max.y - 1e6)
    if (side.y > 0) box.max.y = Math.max(at.y, box.min.y + 1e6)
  }
  drop() {
    const { ed, box } = this
    const b = ed.shown.value?.body
    if (b && same(b.min, box.min) && same(b.max, box.max)) return
    ed.project.edit('resizeBody', { symbol: ed.state.symbol, box }).catch(complain)
  }
  paint({ ctx, px }: Pen) {
    const { min, max } = this.box
    ctx.strokeStyle = this.ed.colours.select
    ctx.lineWidth = 1.6 * px
    ctx.strokeRect(min.x / 1e6, min.y / 1e6, (max.x - min.x) / 1e6, (max.y - min.y) / 1e6)
  }
}
