import { reactive } from 'vue'
import type { Pen } from '../../canvas/scene'
import { type Field, oneOf } from '../../hands/fields'
import type { Mark, Point } from '../../live/wire.gen'
import { complain, say } from '../../shell/notices'
import type { CircuitEditor } from '../editor'
import { tapIcon } from '../icons'
import { play } from '../marks'
import { line } from '../pens'
import { tapEnd, under } from '../picking'
import { type CircuitTool, turned } from './circuitTool'

/** Leads members out of bundles. */
export class TapTool implements CircuitTool {
  readonly id = 'tap'
  readonly name = 'Tap'
  readonly icon = tapIcon
  readonly keys = 'I'
  readonly state = reactive({ turn: 0, member: '', all: false })

  constructor(private readonly ed: CircuitEditor) {}

  /** The bundle near a place, the wire of it there, and which of its members no tap takes yet. */
  private near(at: Point) {
    const { ed } = this
    for (const id of under(ed, at, 1.5e6)) {
      const w = ed.project.get('wire', id)
      const bundle = w?.bundle ? ed.bundleOf(id) : undefined
      if (!w || !bundle) continue
      const taken = new Set(bundle.items.map((i) => ed.project.get('tap', i)?.member).filter((m) => !!m))
      return { wire: w, left: (bundle.members ?? []).filter((m) => !taken.has(m)) }
    }
    return null
  }
  /** What a tap (or all at once) placed here would take. */
  plan(at: Point): { members: string[]; step: Point; wire: Point } {
    const { turn, all } = this.state
    const near = this.near(at)
    const named = this.state.member.trim()
    const members = named ? [named] : all ? (near?.left ?? []) : (near?.left ?? []).slice(0, 1)
    const upright = near ? near.wire.a.x === near.wire.b.x : true
    const right = turn === 0 || turn === 3
    const wide = Math.max(1, ...members.map((m) => m.length)) * 1.8 + 3
    return {
      members,
      step: upright ? { x: 0, y: -2.5e6 } : { x: Math.ceil(wide / 2.5) * 2.5e6, y: 0 },
      wire: !all ? { x: 0, y: 0 } : upright ? { x: right ? 10e6 : -10e6, y: 0 } : { x: 0, y: turn < 2 ? 5e6 : -5e6 },
    }
  }
  down() {
    const { ed } = this
    const plan = this.plan(ed.at)
    if (!plan.members.length) return say('Click on a bundle that has a name, or type the member to take.', 'error')
    ed.project
      .edit('placeTaps', { sheet: ed.sheet, at: ed.at, turn: this.state.turn, ...plan })
      .then(() => (this.state.member = ''))
      .catch(complain)
  }
  turn(quarters: number) {
    this.state.turn = turned(this.state.turn, quarters)
  }
  strip(): Field[] {
    const { state } = this
    const members = [{ value: false, title: 'Next member' }, { value: true, title: 'All at once' }] // prettier-ignore
    return [
      oneOf('Members', state.all, members, (v) => (state.all = v)),
      { as: 'name', label: 'or', value: state.member, names: [], empty: 'D3', type: (v) => (state.member = v) },
    ]
  }
  hint() {
    return 'click on a bundle leads a member out · Q E turn · Esc ends'
  }
  paint(pen: Pen) {
    const { ed } = this
    const { turn } = this.state
    const plan = this.plan(ed.at)
    const marks: Mark[] = []
    const list = plan.members.length ? plan.members : ['?']
    const left = turn === 1 || turn === 2
    list.forEach((member, i) => {
      const t = { at: { x: ed.at.x + i * plan.step.x, y: ed.at.y + i * plan.step.y }, turn }
      const end = tapEnd(t)
      marks.push(line(t.at, end, 'select', 0.42e6))
      marks.push(line(end, { x: end.x + plan.wire.x, y: end.y + plan.wire.y }, 'select', 0.42e6))
      marks.push({ t: member, p: [end.x + (left ? -0.7e6 : 0.7e6), end.y + 1.25e6], z: 2e6, a: left ? 1 : -1, f: 'label' })
    })
    pen.ctx.globalAlpha = 0.85
    play(pen, marks, ed.inks, ed.colours.select)
    pen.ctx.globalAlpha = 1
  }
}
