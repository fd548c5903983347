import { mdiVectorSquare } from '@mdi/js'
import { reactive } from 'vue'
import { ringBox } from '../../canvas/arcs'
import { dist, same } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import { type EdgeGrip, gripsOf, led, paintEdge, paintGrips } from '../../hands/edge'
import { choice, type Field, oneOf, words } from '../../hands/fields'
import { paintFrame } from '../../hands/select'
import type { Grab, Press, Tool } from '../../hands/tool'
import { format } from '../../live/units'
import type { Commands, Corner, Point } from '../../live/wire.gen'
import { complain } from '../../shell/notices'
import { saveFile } from '../../shell/saving'
import type { BoardEditor } from '../editor'
import { sideOf } from './side'

type Form = 'rectangle' | 'circle' | 'slot' | 'free'
/** A grip of the outline (line 0) or of a cut-out. */
interface Chosen extends EdgeGrip {
  line: number
}

/** Draws and shapes the board's edge and what is cut out of it, with the hand or by numbers. */
export class OutlineTool implements Tool {
  readonly id = 'outline'
  readonly name = 'Outline'
  readonly icon = mdiVectorSquare
  readonly keys = 'Y'
  readonly menu = ['edgeRound', 'edgeBevel', 'edgeDrop', 'edgeStraight', 'edgeCutAway', '', 'drawingIn', 'drawingOut']
  readonly state = reactive({
    form: 'rectangle' as Form,
    cut: false,
    radius: 0,
    slot: 2_000_000,
    size: 3_000_000, // of corners rounded or cut off
    chosen: null as { line: number; corner: number; kind: EdgeGrip['kind'] } | null,
  })
  /** Corners of a free line on its way. */
  private way: Point[] = []
  /** What was typed of an outline that is not there yet: it is drawn when both sides are known. */
  private readonly asked = reactive<{ x: number; y: number; w: number | null; h: number | null }>({ x: 0, y: 0, w: null, h: null }) // prettier-ignore

  constructor(private readonly ed: BoardEditor) {}

  // ---- what there is

  get lines(): Corner[][] {
    const { outline, cutOuts } = this.ed.project.board
    return outline?.length ? [outline, ...(cutOuts ?? [])] : []
  }
  get grips(): Chosen[] {
    return this.lines.flatMap((edge, line) => gripsOf(edge).map((g) => ({ ...g, line })))
  }
  private get chosen(): Chosen | undefined {
    const c = this.state.chosen
    return c
      ? this.grips.find((g) => g.line === c.line && g.corner === c.corner && (g.kind === 'corner') === (c.kind === 'corner'))
      : undefined
  }
  private edit(e: Commands['shapeEdge']) {
    return this.ed.run('shapeEdge', e)
  }
  /** Shapes what is chosen. */
  private shape(act: string, more: { to?: Point; size?: number } = {}) {
    const c = this.state.chosen
    if (c) void this.edit({ line: c.line, corner: c.corner, act, to: more.to ?? { x: 0, y: 0 }, size: more.size ?? 0 })
  }
  private choose(g: EdgeGrip & { line: number }) {
    this.state.chosen = { line: g.line, corner: g.corner, kind: g.kind }
  }

  // ---- the hand

  down(p: Press) {
    const { ed, state } = this
    const grip = this.way.length ? undefined : this.grips.find((g) => dist(g.at, p.at) <= p.tolerance * 0.9)
    if (grip) {
      this.choose(grip)
      ed.grab = new GripDrag(this, ed, grip)
      return
    }
    if (state.form === 'free') {
      const first = this.way[0]
      if (first && this.way.length > 2 && dist(first, p.at) <= p.tolerance) void this.close()
      else if (!this.way.length || !same(this.way[this.way.length - 1], ed.at)) this.way.push({ ...ed.at })
      return
    }
    const from = { ...ed.at }
    let to: Point = from
    ed.grab = {
      move: () => void (to = { ...ed.at }),
      drop: () => {
        if (this.slip(from, to)) state.chosen = null
        else void this.draw(from, to)
      },
      paint: (pen) => this.frame(pen, from, to),
    }
  }
  /** What is too small to be meant. */
  private slip(a: Point, b: Point) {
    const least = this.lines.length && this.state.cut ? 300_000 : 1_000_000
    const [w, h] = [Math.abs(b.x - a.x), Math.abs(b.y - a.y)]
    return this.state.form === 'rectangle' ? Math.min(w, h) <= least : Math.max(w, h) <= least / 2
  }
  private async draw(a: Point, b: Point, corners?: Corner[]) {
    const { form, cut, radius, slot } = this.state
    const has = this.lines.length > 0
    const done = await this.ed.run('drawEdge', {
      form,
      a,
      b,
      r: form === 'slot' ? Math.round(slot / 2) : radius,
      cut: cut && has,
      ...(corners ? { corners } : {}),
    })
    if (!done && corners && !this.way.length) this.way = corners // refused, it is in the hand again
    this.state.chosen = null
  }
  private async close() {
    const corners = this.way
    if (corners.length < 3) return
    this.way = []
    await this.draw(corners[0], corners[0], corners)
  }
  double() {
    void this.close()
  }
  key(name: string) {
    if (name === 'Enter' && this.way.length > 2) {
      void this.close()
      return true
    }
    if ((name === 'Delete' || name === 'Backspace') && this.state.chosen) {
      this.drop1()
      return true
    }
    return false
  }
  back() {
    if (this.way.length) this.way.pop()
    else if (this.state.chosen) this.state.chosen = null
    else return false
    return true
  }
  drop() {
    this.way = []
    this.state.chosen = null
  }
  private drop1() {
    const c = this.chosen
    if (!c) return
    if (c.kind === 'corner') this.shape('drop')
    else this.shape('radius')
    this.state.chosen = null
  }

  commands() {
    const corner = () => this.chosen?.kind === 'corner'
    const run = (id: string, title: string, run: () => void, enabled: () => boolean) => ({ id, title, group: 'Outline', run, enabled }) // prettier-ignore
    const cut = () => (this.state.chosen?.line ?? 0) > 0
    return [
      run('edgeRound', 'Round the corner', () => this.shape('round', { size: this.state.size }), corner),
      run('edgeBevel', 'Cut the corner off', () => this.shape('bevel', { size: this.state.size }), corner),
      run('edgeDrop', 'Take the corner out', () => this.drop1(), corner),
      run('edgeStraight', 'Make the side straight', () => this.drop1(), () => this.chosen?.kind === 'arc'), // prettier-ignore
      run('edgeCutAway', 'Take the cut-out away', () => this.dropCut(), cut),
      run(
        'drawingIn',
        'Outline from a DXF drawing',
        () => (this.ed.state.drawing = true),
        () => true,
      ),
      run(
        'drawingOut',
        'Write the outline as a DXF drawing',
        () => void saveFile(`/projects/${this.ed.project.id}/outline.dxf`, 'outline.dxf').catch(complain),
        () => this.lines.length > 0,
      ),
    ]
  }
  private dropCut() {
    void this.ed.run('dropCut', { line: this.state.chosen!.line })
    this.state.chosen = null
  }

  // ---- what is shown

  paint(pen: Pen) {
    const { ed } = this
    const colour = ed.look().colours.select
    if (!ed.grab) paintGrips(pen, this.grips, colour, this.chosen)
    if (this.way.length) {
      const { ctx, px } = pen
      ctx.beginPath()
      ctx.moveTo(this.way[0].x / 1e6, this.way[0].y / 1e6)
      for (const q of [...this.way.slice(1), ed.at]) ctx.lineTo(q.x / 1e6, q.y / 1e6)
      ctx.strokeStyle = colour
      ctx.lineWidth = 1.6 * px
      ctx.stroke()
      ctx.fillStyle = colour
      const f = this.way[0]
      ctx.fillRect(f.x / 1e6 - 4 * px, f.y / 1e6 - 4 * px, 8 * px, 8 * px)
    }
  }
  private frame(pen: Pen, from: Point, to: Point) {
    const { ed } = this
    const c = ed.look().colours
    const side = (nm: number) => format(Math.abs(nm), ed.taste.unit, 3)
    let text = `${side(to.x - from.x)} × ${side(to.y - from.y)} ${ed.taste.unit}`
    if (this.state.form === 'rectangle') paintFrame(pen, from, to, c.select)
    else {
      const { ctx, px } = pen
      const r = dist(from, to)
      ctx.beginPath()
      if (this.state.form === 'circle') ctx.arc(from.x / 1e6, from.y / 1e6, r / 1e6, 0, 2 * Math.PI)
      else {
        ctx.moveTo(from.x / 1e6, from.y / 1e6)
        ctx.lineTo(to.x / 1e6, to.y / 1e6)
      }
      ctx.strokeStyle = c.select + (this.state.form === 'slot' ? '88' : '')
      ctx.lineCap = 'round'
      ctx.lineWidth = this.state.form === 'slot' ? this.state.slot / 1e6 : 1.6 * px
      ctx.stroke()
      text = this.state.form === 'circle' ? `radius ${side(r)} ${ed.taste.unit}` : `${side(r)} ${ed.taste.unit}`
    }
    pen.text(text, (from.x + to.x) / 2e6, (from.y + to.y) / 2e6, 14 * pen.px, { colour: c.text })
  }

  strip(): Field[] {
    void this.ed.project.docTick.value
    const c = this.chosen
    return c ? this.chosenFields(c) : this.drawFields()
  }
  private length(label: string, value: number | null, keep: (v: number) => void, empty?: string): Field {
    return { as: 'length', label, value, keep, ...(empty ? { empty } : {}) }
  }
  private press(text: string, press: () => void, title?: string): Field {
    return { as: 'press', text, press, ...(title ? { title } : {}) }
  }
  private chosenFields(c: Chosen): Field[] {
    const edge = this.lines[c.line]
    const named = (what: string) =>
      c.line ? `Cut-out ${c.line}, ${what} ${c.corner + 1}` : `${what[0].toUpperCase()}${what.slice(1)} ${c.corner + 1}`
    if (c.kind === 'corner')
      return [
        words(named('corner')),
        this.length('x', c.at.x, (x) => this.shape('move', { to: { ...c.at, x } })),
        this.length('y', c.at.y, (y) => this.shape('move', { to: { ...c.at, y } })),
        this.length('by', this.state.size, (v) => (this.state.size = v)),
        this.press('Round', () => this.shape('round', { size: this.state.size }), 'Round the corner by that radius'),
        this.press('Round all', () => this.shape('roundAll', { size: this.state.size }), 'Round all corners by that radius'),
        this.press(
          'Cut off',
          () => this.shape('bevel', { size: this.state.size }),
          'Cut the corner off, so much along both sides',
        ),
        this.press('Take out', () => this.drop1()),
        ...(c.line ? [this.press('Take the cut-out away', () => this.dropCut())] : []),
      ]
    const s = sideOf(edge, c.corner)
    return [
      words(named('side')),
      ...(s.radius
        ? [
            this.length('Radius', s.radius, (size) => this.shape('radius', { size })),
            words(`${format(s.length, this.ed.taste.unit, 3)} ${this.ed.taste.unit} long`, { quiet: true }),
            this.press('Straight', () => this.shape('radius')),
          ]
        : [
            this.length('Length', s.length, (size) => this.shape('length', { size })),
            this.length('Radius', null, (size) => this.shape('radius', { size }), 'straight'),
          ]),
      this.press('Corner here', () => this.shape('add', { to: c.at }), 'Make a corner in its middle'),
      ...(c.line ? [this.press('Take the cut-out away', () => this.dropCut())] : []),
    ]
  }
  private drawFields(): Field[] {
    const { ed, state } = this
    const forms = [
      { value: 'rectangle' as const, title: 'Rectangle' },
      { value: 'circle' as const, title: 'Circle' },
      { value: 'slot' as const, title: 'Slot' },
      { value: 'free' as const, title: 'Free' },
    ]
    const has = this.lines.length > 0
    const cut = has && (state.cut || state.form === 'slot')
    return [
      ...(has ? [oneOf('What is drawn', state.cut ? 'cut' : 'edge', [{ value: 'edge', title: 'Outline' }, { value: 'cut', title: 'Cut-out' }], (v) => (state.cut = v === 'cut'))] : []), // prettier-ignore
      choice('Form', state.form, forms, (v) => {
        state.form = v
        this.way = []
        if (v === 'slot' && has) state.cut = true
      }),
      ...(state.form === 'rectangle' ? [this.length('Corners', state.radius, (v) => (state.radius = v))] : []),
      ...(state.form === 'slot' ? [this.length('Slot’s width', state.slot, (v) => (state.slot = v))] : []),
      ...(state.form === 'rectangle' && !cut ? this.sizeFields(ed) : []),
      this.press('From a drawing', () => (ed.state.drawing = true), 'Take the outline from a DXF drawing'),
    ]
  }
  private sizeFields(ed: BoardEditor): Field[] {
    const { asked, state } = this
    const b = ed.project.board.outline?.length ? ringBox(ed.project.board.outline) : null
    const sides = b ? { x: b.minX, y: b.minY, w: b.maxX - b.minX, h: b.maxY - b.minY } : asked
    const field = (label: string, k: 'x' | 'y' | 'w' | 'h'): Field =>
      this.length(
        label,
        sides[k],
        (v) => {
          const s = { ...sides, [k]: v }
          if (!b) Object.assign(asked, s)
          if (b && (k === 'w' || k === 'h')) return void ed.run('sizeEdge', k === 'w' ? { width: v } : { height: v })
          if (b) {
            const by = Math.round(v - (k === 'x' ? b.minX : b.minY))
            return void ed.run('shapeEdge', {
              line: 0,
              corner: 0,
              act: 'moveAll',
              to: k === 'x' ? { x: by, y: 0 } : { x: 0, y: by },
            })
          }
          if (s.w === null || s.h === null) return
          const corner = { x: s.x + s.w, y: s.y + s.h }
          void ed.run('drawEdge', { form: 'rectangle', a: { x: s.x, y: s.y }, b: corner, r: state.radius })
        },
        label.toLowerCase(),
      )
    return [field('Width', 'w'), field('Height', 'h'), field('x', 'x'), field('y', 'y')]
  }
  hint() {
    if (this.way.length) return 'click sets corners · Enter or the first corner closes · Esc takes one back'
    if (this.state.chosen)
      return 'drag moves it · Alt drag moves the whole line · Shift drag bends a side · Del takes it out · Esc lets it go'
    const draw = this.state.form === 'free' ? 'click sets corners' : 'drag draws'
    return this.lines.length ? `${draw} · drag a corner or a side’s middle · Shift drag bends a side · Esc ends` : `${draw}, or type its exact size · Esc ends` // prettier-ignore
  }
}

/** A grip of the edge in the hand. With Shift, a side is bent instead of broken; with Alt the whole line moves. */
class GripDrag implements Grab {
  private to: Point | null = null
  private bend = false
  private all = false

  constructor(
    private readonly tool: OutlineTool,
    private readonly ed: BoardEditor,
    private readonly grip: Chosen,
  ) {}
  private get edge() {
    const line = this.tool.lines[this.grip.line] ?? []
    if (!this.to) return line
    if (!this.all) return led(line, this.grip, this.to, this.bend)
    const by = (p: Point) => ({ x: p.x + this.by.x, y: p.y + this.by.y })
    return line.map((c) => ({ ...by(c), ...(c.mid ? { mid: by(c.mid) } : {}) }))
  }
  private get by(): Point {
    const { to, grip } = this
    return to ? { x: to.x - grip.at.x, y: to.y - grip.at.y } : { x: 0, y: 0 }
  }
  move(p: Press) {
    if (!this.to && dist(p.at, this.grip.at) < p.tolerance * 0.4) return
    this.to = this.ed.onGrid(p.at)
    this.bend = p.shiftKey
    this.all = p.altKey
  }
  drop() {
    const { ed, grip, to } = this
    if (!to) return
    if (this.all) {
      ed.grab = this
      void ed.run('shapeEdge', { line: grip.line, corner: grip.corner, act: 'moveAll', to: this.by }).finally(() => ed.grab === this && ed.letGo()) // prettier-ignore
      return
    }
    const act = grip.kind === 'corner' ? 'move' : grip.kind === 'arc' || this.bend ? 'bend' : 'add'
    ed.grab = this // shown where it was dropped until it is there
    void ed.run('shapeEdge', { line: grip.line, corner: grip.corner, act, to }).finally(() => {
      if (act === 'add') this.tool.state.chosen = { line: grip.line, corner: grip.corner + 1, kind: 'corner' }
      if (act === 'bend') this.tool.state.chosen = { line: grip.line, corner: grip.corner, kind: 'arc' }
      if (ed.grab === this) ed.letGo()
    })
  }
  cancel() {
    this.to = null
  }
  paint(pen: Pen) {
    paintEdge(pen, this.edge, this.ed.look().colours.select)
    const to = this.to
    if (!to) return
    const c = this.ed.look().colours
    const say = (nm: number) => format(nm, this.ed.taste.unit, 3)
    pen.text(`${say(to.x)}, ${say(to.y)}`, to.x / 1e6, to.y / 1e6 + 14 * pen.px, 13 * pen.px, { colour: c.text })
  }
}
