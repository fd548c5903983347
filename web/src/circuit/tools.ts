import { same, snap } from '../canvas/geometry'
import { boxOf } from '../canvas/viewport'
import { Previewer } from '../live/previewer'
import type { Foreseen, Kinds, Point } from '../live/wire.gen'
import { complain, say } from '../shell/notices'
import type { CircuitEditor } from './editor'
import { connects, netUnder, outwardAt, under } from './picking'
import { shapeOf, rememberShape } from './supplies'

export type ToolName =
  | 'select' | 'part' | 'wire' | 'bundle' | 'tap' | 'label' | 'port' | 'supply' | 'open' | 'block' | 'cluster' | 'note' | 'draw' | 'paste' // prettier-ignore
export type DrawForm = 'line' | 'arrow' | 'rectangle' | 'ellipse' | 'timing' | 'picture'

/** What the option strips set. */
export const freshOptions = () => ({
  turn: 0,
  mirror: false,
  labelName: '',
  portName: '',
  portWay: 'in' as 'in' | 'out' | 'both',
  supplyName: 'GND',
  supplyShape: 'ground',
  supplyFeeds: false,
  lead: '' as '' | 'level' | 'upright',
  freeAngle: false,
  member: '',
  tapAll: false,
  blockOf: 0,
  clusterTint: 'sky',
  noteTint: 'sand',
  drawForm: 'line' as DrawForm,
  drawTint: 'none',
})

/** What is being written before it is put on the sheet. */
export interface Draft {
  kind: 'note' | 'timing'
  id: number
  at: Point
  text: string
}

/** What the hand does with a tool other than Select. */
export class ToolHand {
  path: Point[] = []
  from: Point | null = null
  /** The way the core found for the wire in hand, and what the whole of it would join. */
  plan: { from: Point; to: Point; way: Point[]; told: Foreseen | null } | null = null
  private readonly asks: Previewer
  private turns: Partial<Record<ToolName, number>> = {}
  askName: (tool: ToolName) => void = () => undefined
  /** Which way the hand left the last corner: its first leg goes that way. */
  private level: boolean | null = null
  write: (d: Draft) => void = () => undefined
  askPicture: (at: Point) => void = () => undefined
  nameCluster: (id: number) => void = () => undefined

  constructor(private readonly ed: CircuitEditor) {
    this.asks = new Previewer(ed.project)
  }

  // ---- which way things stand: each kind arrives upright and keeps the turn it was given

  turnOf(tool: ToolName): number {
    return this.turns[tool] ?? 0
  }
  keepTurn(tool: ToolName, turn: number) {
    this.turns[tool] = turn
  }
  /** Labels and ports point away from what they name, unless they were turned. */
  ownTurn(): number | null {
    const { state } = this.ed
    if ((state.tool !== 'label' && state.tool !== 'port') || this.turns[state.tool] !== undefined) return null
    return outwardAt(this.ed, this.ed.at)
  }
  get turn(): number {
    return this.ownTurn() ?? this.ed.state.turn
  }

  drop() {
    this.path = []
    this.from = null
    this.level = null
    this.plan = null
    this.asks.stop()
  }

  /** Steps back one level; tells whether there was one. */
  back(): boolean {
    if (this.path.length) {
      this.path.pop()
      this.plan = null
      this.ahead()
    } else if (this.from) this.from = null
    else return false
    this.ed.redraw()
    return true
  }

  netUnder(p: Point, tolerance: number) {
    return netUnder(this.ed, p, tolerance)
  }

  /** Asks the core for the wire's way from its last corner to the hand, and what it would join. */
  ahead() {
    const { ed } = this
    if ((ed.state.tool !== 'wire' && ed.state.tool !== 'bundle') || !this.path.length) return
    const from = this.path[this.path.length - 1]
    const to = ed.at
    if (same(from, to)) {
      this.plan = null
      ed.state.warning = ''
      return
    }
    if (Math.abs(to.x - from.x) + Math.abs(to.y - from.y) <= 2.6e6)
      this.level = Math.abs(to.x - from.x) >= Math.abs(to.y - from.y)
    const motion = outwardAt(ed, from) !== null || this.level === null ? '' : this.level ? 'level' : 'upright'
    const lead = ed.state.freeAngle ? 'straight' : ed.state.lead || motion
    const points = [...this.path]
    this.asks.ask('wire', { sheet: ed.sheet, path: ed.path, points, to, lead, bundle: ed.state.tool === 'bundle' }, (m) => {
      if (points.length !== this.path.length || !this.path.length) return
      this.plan = { from, to, way: m.way ?? [from, to], told: m.foreseen ?? null }
      ed.state.warning = m.foreseen?.say ?? ''
      ed.redraw()
    })
  }

  /** The lead that the wire does not have now. */
  other(): 'level' | 'upright' {
    const way = this.way(this.ed.at)
    return way.length > 1 && way[0].y === way[1].y ? 'upright' : 'level'
  }

  /** The wire's way from its last corner to the hand, as far as it is known. */
  way(to: Point): Point[] {
    const from = this.path[this.path.length - 1]
    if (!from || same(from, to)) return from ? [from] : []
    const p = this.plan
    if (p && same(p.from, from) && same(p.to, to)) return p.way
    if (from.x === to.x || from.y === to.y || this.ed.state.freeAngle) return [from, to]
    return Math.abs(to.x - from.x) >= Math.abs(to.y - from.y)
      ? [from, { x: to.x, y: from.y }, to]
      : [from, { x: from.x, y: to.y }, to]
  }

  down(at: Point) {
    const { ed } = this
    const { state } = ed
    switch (state.tool) {
      case 'part':
        if (ed.part)
          void ed.run('placePart', {
            sheet: ed.sheet,
            library: ed.part.part!.name,
            at,
            turn: state.turn,
            mirror: state.mirror,
          })
        return
      case 'wire':
      case 'bundle':
        this.wireClick(at)
        return
      case 'tap':
        this.tapClick(at)
        return
      case 'label':
        if (!state.labelName.trim()) say('Type the name of the net first.', 'error')
        else void this.named('labelName', ed.run('placeLabel', { sheet: ed.sheet, name: state.labelName, at, turn: this.turn }))
        return
      case 'port':
        if (!state.portName.trim()) say('Type the name of the port first.', 'error')
        else void this.named('portName', ed.run('placePort', { sheet: ed.sheet, name: state.portName, way: state.portWay, at, turn: this.turn })) // prettier-ignore
        return
      case 'paste':
        void ed.copies.put(at)
        return
      case 'supply':
        rememberShape(state.supplyName, state.supplyShape)
        void ed.run('placeSupply', {
          sheet: ed.sheet,
          name: state.supplyName,
          shape: state.supplyShape,
          feeds: state.supplyFeeds,
          at,
          turn: state.turn,
        })
        return
      case 'open':
        void ed.run('placeOpenMark', { sheet: ed.sheet, at })
        return
      case 'note':
        this.write({ kind: 'note', id: 0, at: snap(at, 1.25e6), text: '' })
        return
      case 'draw':
        if (state.drawForm === 'timing')
          this.write({ kind: 'timing', id: 0, at, text: 'CLK: clock 8\nDATA: free 2, data 4 "D7 to D0", free 2' })
        else if (state.drawForm === 'picture') this.askPicture(at)
        else this.from = at
        return
      case 'block':
      case 'cluster':
        this.from = at
    }
  }

  /** After a name was placed its field is selected anew, and a number at its end counts up. */
  private async named(field: 'labelName' | 'portName', done: Promise<unknown>) {
    const { ed } = this
    const placed = ed.state[field]
    if (!(await done)) return
    const next = /[0-9](\[|,|$)/.test(placed) ? await ed.project.question('nextName', { text: placed }).catch(() => null) : null
    if (next && ed.state[field] === placed) ed.state[field] = next
    if (ed.state.tool === 'label' || ed.state.tool === 'port') this.askName(ed.state.tool)
  }

  /** The supply in hand, by its name; its shape is remembered. */
  supply(name: string) {
    const { ed } = this
    ed.state.supplyName = name
    ed.state.supplyShape = shapeOf(ed.project, name) ?? ed.state.supplyShape
    ed.redraw()
  }

  up(at: Point) {
    const from = this.from
    this.from = null
    if (!from) return
    const { ed } = this
    const b = boxOf([from, at])
    const size = { x: b.maxX - b.minX, y: b.maxY - b.minY }
    switch (ed.state.tool) {
      case 'block':
        void ed.run('placeBlock', {
          sheet: ed.sheet,
          at: size.x > 5e6 ? { x: b.minX, y: b.minY } : at,
          ...(ed.state.blockOf ? { of: ed.state.blockOf } : {}),
          ...(size.x > 5e6 && size.y > 5e6 ? { size } : {}),
        })
        break
      case 'cluster':
        if (size.x < 5e6 || size.y < 5e6) say('Drag a frame around what belongs together.')
        else void this.frame(b)
        break
      case 'draw':
        if (size.x + size.y < 1e6) return
        void ed.run('drawItem', {
          item: {
            kind: 'shape',
            object: { sheet: ed.sheet, form: ed.state.drawForm, pts: [from, at], tint: ed.state.drawTint },
          },
        })
    }
  }

  private async frame(b: { minX: number; minY: number; maxX: number; maxY: number }) {
    const { ed } = this
    const n = [...ed.project.standing(ed.sheet)].filter((o) => o.kind === 'cluster').length + 1
    const before = new Set(ed.project.all('cluster').map((c) => c.id))
    await ed.run('drawItem', {
      item: {
        kind: 'cluster',
        object: {
          sheet: ed.sheet,
          title: `Cluster ${n}`,
          a: { x: b.minX, y: b.minY },
          b: { x: b.maxX, y: b.maxY },
          tint: ed.state.clusterTint,
        },
      },
    })
    const made = ed.project.all('cluster').find((c) => !before.has(c.id))
    ed.take('select')
    if (made) this.nameCluster(made.id)
  }

  double() {
    if (this.ed.state.tool === 'wire' || this.ed.state.tool === 'bundle') this.finish()
  }

  private wireClick(at: Point) {
    if (!this.path.length) this.path = [at]
    else {
      const way = this.way(at)
      if (way.length < 2) {
        this.finish()
        return
      }
      const told = this.plan && same(this.plan.to, at) ? this.plan.told : null
      this.path.push(...way.slice(1))
      this.level = null
      this.ed.state.lead = ''
      this.said = told
      if (connects(this.ed, at, this.ed.state.tool === 'bundle')) this.finish()
    }
    this.ed.redraw()
  }
  /** What was said of the wire up to its last corner. */
  private said: Foreseen | null = null

  finish() {
    const { ed } = this
    const path = this.path
    const agreed = this.said?.outcome
    this.said = null
    this.drop()
    ed.state.warning = ''
    if (path.length > 1)
      void ed.project.edit('drawWire', { sheet: ed.sheet, path, bundle: ed.state.tool === 'bundle' }, agreed).catch(complain)
    ed.redraw()
  }

  /** The bundle near a place, the wire of it there, and which of its members no tap takes yet. */
  bundleNear(at: Point) {
    const { ed } = this
    for (const id of under(ed, at, 1.5e6)) {
      const w = ed.project.get('wire', id)
      const bundle = w?.bundle ? ed.bundleOf(id) : undefined
      if (!w || !bundle) continue
      const taken = new Set(
        bundle.items.map((i) => ed.project.get('tap', i)?.member).filter((m): m is string => !!m), // prettier-ignore
      )
      return { wire: w, bundle, left: (bundle.members ?? []).filter((m) => !taken.has(m)) }
    }
    return null
  }

  /** What a tap (or all at once) placed here would take. */
  tapPlan(at: Point): { members: string[]; step: Point; wire: Point } {
    const { state } = this.ed
    const near = this.bundleNear(at)
    const named = state.member.trim()
    const members = named ? [named] : state.tapAll ? (near?.left ?? []) : (near?.left ?? []).slice(0, 1)
    const upright = near ? near.wire.a.x === near.wire.b.x : true
    const right = state.turn === 0 || state.turn === 3
    const up = state.turn < 2
    const wide = Math.max(1, ...members.map((m) => m.length)) * 1.8 + 3
    return {
      members,
      step: upright ? { x: 0, y: -2.5e6 } : { x: Math.ceil(wide / 2.5) * 2.5e6, y: 0 },
      wire: !state.tapAll ? { x: 0, y: 0 } : upright ? { x: right ? 10e6 : -10e6, y: 0 } : { x: 0, y: up ? 5e6 : -5e6 },
    }
  }

  private tapClick(at: Point) {
    const plan = this.tapPlan(at)
    if (!plan.members.length) {
      say('Click on a bundle that has a name, or type the member to take.', 'error')
      return
    }
    this.ed.project
      .edit('placeTaps', { sheet: this.ed.sheet, at, turn: this.ed.state.turn, ...plan })
      .then(() => (this.ed.state.member = ''))
      .catch(complain)
  }

  /** The object a placing tool would put down, at the origin, for its ghost. */
  held(): { kind: 'part' | 'label' | 'port' | 'supply' | 'openMark'; object: Record<string, unknown> } | null {
    const s = this.ed.state
    const origin = { x: 0, y: 0 }
    switch (s.tool) {
      case 'part': {
        const p = this.ed.part?.part
        return p
          ? { kind: 'part', object: { library: p.name, unit: p.units?.length ? 1 : 0, at: origin, turn: s.turn, mirror: s.mirror, designator: '', value: '' } } // prettier-ignore
          : null
      }
      case 'label':
        return { kind: 'label', object: { name: s.labelName || 'name', at: origin, turn: this.turn } }
      case 'port':
        return { kind: 'port', object: { name: s.portName || 'name', way: s.portWay, at: origin, turn: this.turn } }
      case 'supply':
        return {
          kind: 'supply',
          object: { name: s.supplyName, shape: s.supplyShape, feeds: s.supplyFeeds, at: origin, turn: s.turn },
        }
      case 'open':
        return { kind: 'openMark', object: { at: origin } }
    }
    return null
  }

  /** A note or timing diagram that stands already, to be written anew. */
  rewrite(id: number) {
    const found = this.ed.project.find(id)
    if (found?.kind !== 'note' && found?.kind !== 'timing') return
    const o = found.object as Kinds['note']
    this.write({ kind: found.kind, id, at: o.at, text: o.text })
  }
}
