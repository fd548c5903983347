import type { Pen } from '../canvas/scene'
import type { Weighed } from '../hands/stage'
import type { Commands, Questions } from '../live/wire.gen'
import { complain } from '../shell/notices'
import { carriedAway, paintCarried, warningOf } from './dragging'
import type { BoardEditor } from './editor'

/** The acts that carry what is picked elsewhere on the board. */
export type CarryActs = 'turnPlaced' | 'flipPlaced' | 'swapPlaced' | 'lineUp' | 'gather'
type Act = { [K in CarryActs]: { kind: K; fields: Commands[K] } }[CarryActs]

/** What such acts are called where one is weighed. */
const doing: Record<CarryActs, string> = {
  turnPlaced: 'turns it',
  flipPlaced: 'changes its side',
  swapPlaced: 'lets them change places',
  lineUp: 'lines them up',
  gather: 'gathers them',
}

/**
 * An act that carries what is picked elsewhere: it is done at once where nothing would be touched or opened; else it is seen first, with what it would
 * touch and open, and done by Enter or given up by Esc. While it is found out all stays as it was.
 */
export class Weighing implements Weighed {
  private act: Act | null = null
  private said: Questions['weigh']['answers'] | null = null
  private asked = 0
  private line: Promise<unknown> = Promise.resolve()

  /** Brings the keys to the drawing, also from a list: Enter and Esc are this act's now. The page gives it the means. */
  toHand: () => void = () => undefined

  constructor(private readonly ed: BoardEditor) {}

  /** Whether an act is seen that is not done yet. */
  get open() {
    return this.said !== null
  }

  /** Weighs an act, once those before it are. */
  carry(act: Act) {
    this.line = this.line.then(() => this.weigh(this.after(act))).catch(complain)
    return this.line
  }
  /** The act together with the one that is seen: what is turned again is turned by the sum. */
  private after(act: Act): Act {
    const was = this.act
    if (!this.open || was?.kind !== 'turnPlaced' || act.kind !== 'turnPlaced') return act
    if (was.fields.ids.join() !== act.fields.ids.join()) return act
    return { kind: act.kind, fields: { ...was.fields, angle: (was.fields.angle + act.fields.angle) % 360_000 } }
  }
  private async weigh(act: Act) {
    const { ed } = this
    this.drop()
    const mine = ++this.asked
    if (act.kind === 'turnPlaced' && !act.fields.angle) return // all the way round
    const { cmd } = ed.project.foresee(act.kind, act.fields as never)
    const said = await ed.project.question('weigh', { cmd, tracks: ed.taste.tracks }).catch(() => null)
    if (mine !== this.asked) return
    const why = said && warningOf(ed, said)
    if (!why) return this.put(act)
    this.act = act
    this.said = said
    ed.state.warning = `${why} Enter ${doing[act.kind]} all the same, Esc leaves it as it was.`
    this.toHand()
    ed.dragLinks.value = said.links
    ed.scene.hide([...said.parts.map((p) => p.id), ...carriedAway(said)])
    ed.redraw()
  }
  private put({ kind, fields }: Act) {
    return this.ed.project.edit(kind, { ...fields, tracks: this.ed.taste.tracks } as never)
  }
  /** Does what is seen. */
  go(): boolean {
    const { act } = this
    if (!this.open || !act) return false
    this.drop()
    this.line = this.put(act).catch(complain)
    return true
  }
  /** Gives up what is seen; tells whether there was something. */
  drop(): boolean {
    if (!this.open) return false
    this.act = this.said = null
    this.asked++
    this.ed.state.warning = ''
    this.ed.dragLinks.value = null
    this.ed.scene.hide([])
    this.ed.redraw()
    return true
  }
  paint(pen: Pen) {
    if (this.said) paintCarried(this.ed, pen, this.said, this.said.parts)
  }
}
