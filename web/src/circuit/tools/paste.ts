import { mdiContentPaste } from '@mdi/js'
import { reactive } from 'vue'
import type { Clip } from '../../canvas/clipboard'
import { same } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import { type Field, oneOf, words } from '../../hands/fields'
import { Previewer } from '../../live/previewer'
import type { Foreseen, Outcome, Point } from '../../live/wire.gen'
import { complain } from '../../shell/notices'
import type { CircuitEditor } from '../editor'
import { moved, play } from '../marks'
import { type CircuitTool, turned } from './circuitTool'

/** Copies in the hand: they can be turned, and say what they would join before they are put down. */
export class PasteTool implements CircuitTool {
  readonly id = 'paste'
  readonly name = 'Copies'
  readonly icon = mdiContentPaste
  readonly keys = ''
  /** Names of the copies that the sheet bears already; whether they are to be numbered on. */
  readonly state = reactive({ names: [] as string[], numberOn: false, count: 0 })
  private clip: Clip | null = null
  private quarters = 0
  private mirrored = false
  private told: { at: Point; foreseen: Foreseen } | null = null
  private asked = ''
  private readonly asks: Previewer

  constructor(private readonly ed: CircuitEditor) {
    this.asks = new Previewer(ed.project)
  }

  /** Takes copies into the hand. */
  hold(clip: Clip) {
    this.ed.take(this.id)
    this.clip = clip
    this.quarters = 0
    this.mirrored = false
    this.told = null
    this.asked = ''
    Object.assign(this.state, { names: [], numberOn: false, count: clip.items.length })
    this.ask()
    this.ed.redraw()
  }

  drop() {
    this.clip = null
    this.told = null
    this.asks.stop()
  }
  move() {
    this.ask()
  }
  turn(quarters: number) {
    this.quarters = turned(this.quarters, quarters)
    this.ask()
  }
  mirror() {
    this.mirrored = !this.mirrored
    this.quarters = (4 - this.quarters) % 4 // a mirror after turns is turns the other way after a mirror
    this.ask()
  }
  down() {
    void this.put(this.ed.at)
  }

  private command(at: Point) {
    const { from, items } = this.clip!
    return {
      sheet: this.ed.sheet,
      about: from,
      step: { x: at.x - from.x, y: at.y - from.y },
      quarters: this.quarters,
      mirror: this.mirrored,
      numberOn: this.state.numberOn,
      items: items as never,
    }
  }

  /** Asks what the copies would be here. */
  private ask() {
    if (!this.clip) return
    const at = this.ed.at
    const key = JSON.stringify([at, this.quarters, this.mirrored, this.state.numberOn])
    if (key === this.asked) return
    this.asked = key
    this.asks.ask('foresee', this.ed.project.foresee('paste', this.command(at), this.ed.path), (foreseen) => {
      if (!this.clip) return
      this.told = { at, foreseen }
      this.state.names = foreseen.names ?? []
      this.ed.state.warning = foreseen.say
      this.ed.redraw()
    })
  }

  strip(): Field[] {
    const { count, names, numberOn } = this.state
    const held = words(`${count} ${count === 1 ? 'copy' : 'copies'} in the hand`)
    if (!names.length) return [held]
    const borne = `${names.length} ${names.length === 1 ? 'name is' : 'names are'} borne here already: ${names.slice(0, 4).join(', ')}${names.length > 4 ? ' …' : ''}` // prettier-ignore
    const ways = [{ value: false, title: 'Join them' }, { value: true, title: 'Number on' }] // prettier-ignore
    const keep = (on: boolean) => ((this.state.numberOn = on), this.ask())
    return [held, words(borne, { quiet: true }), oneOf('Names that are borne already', numberOn, ways, keep)]
  }
  hint() {
    return 'click puts the copies down · Q E turn · M mirror · Esc leaves it'
  }
  /** Draws the copies as the core drew them last, carried along. */
  paint(pen: Pen) {
    const { ed } = this
    if (!this.told) return
    const { at, foreseen } = this.told
    pen.ctx.globalAlpha = 0.85
    for (const d of foreseen.put ?? []) play(pen, moved(d.marks ?? [], ed.at.x - at.x, ed.at.y - at.y), ed.inks, ed.state.warning ? ed.colours.open : ed.colours.select) // prettier-ignore
    pen.ctx.globalAlpha = 1
  }

  private async put(at: Point) {
    if (!this.clip) return
    const { ed } = this
    const agreed: Outcome | undefined = this.told && same(this.told.at, at) ? this.told.foreseen.outcome : undefined
    const before = new Set([...ed.project.standing(ed.sheet)].map((b) => b.object.id))
    const done = await ed.project.edit('paste', this.command(at), agreed).catch(complain)
    if (!done) return
    ed.take('select')
    ed.selection.clear()
    for (const { object } of ed.project.standing(ed.sheet)) if (!before.has(object.id)) ed.selection.add(object.id)
    ed.redraw()
  }
}
