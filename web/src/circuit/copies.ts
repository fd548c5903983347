import { reactive } from 'vue'
import type { Clip } from '../canvas/clipboard'
import { same } from '../canvas/geometry'
import { Previewer } from '../live/previewer'
import type { Foreseen, Outcome, Point } from '../live/wire.gen'
import { complain } from '../shell/notices'
import type { CircuitEditor } from './editor'

/** Copies in the hand: they can be turned, and say what they would join before they are put down. */
export class Copies {
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

  hold(clip: Clip) {
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

  turn(quarters: number) {
    this.quarters = (this.quarters + quarters + 4) % 4
    this.ask()
  }

  mirror() {
    this.mirrored = !this.mirrored
    this.quarters = (4 - this.quarters) % 4 // a mirror after turns is turns the other way after a mirror
    this.ask()
  }

  numberOn(on: boolean) {
    this.state.numberOn = on
    this.ask()
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

  /** What to draw at the hand: the copies as the core drew them last, carried along. */
  drawn(): { marks: Foreseen['put']; dx: number; dy: number } | null {
    if (!this.clip) return null
    this.ask()
    if (!this.told) return null
    const { at, foreseen } = this.told
    return { marks: foreseen.put, dx: this.ed.at.x - at.x, dy: this.ed.at.y - at.y }
  }

  async put(at: Point) {
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
