import { mdiTrayArrowDown } from '@mdi/js'
import { reactive } from 'vue'
import { ringBox } from '../../canvas/arcs'
import { boardPose, same, tracePoints } from '../../canvas/geometry'
import { paintItem, type Pen } from '../../canvas/scene'
import { type Field, oneOf, words } from '../../hands/fields'
import type { Press, Tool } from '../../hands/tool'
import { Previewer } from '../../live/previewer'
import type { Placed, Point, Waiting } from '../../live/wire.gen'
import { complain, say } from '../../shell/notices'
import { placedItems } from '../draw'
import type { BoardEditor } from '../editor'
import { type Guide, Guides, paintGuides } from '../guides'
import { paintNotes } from '../overlay'
import { courtyard } from '../pattern'

type By = 'connections' | 'size'

/** Lays the parts that stand beside the board one after the other: the next one hangs at the hand until a click puts it down. */
export class PlaceTool implements Tool {
  readonly id = 'place'
  readonly name = 'Place next'
  readonly icon = mdiTrayArrowDown
  readonly keys = 'P'
  readonly state = reactive({ by: 'connections' as By, waiting: [] as Waiting[], skipped: 0, angle: 0, bottom: false })
  private guides: Guides | null = null
  private lines: Guide[] = []
  private at: Point | null = null
  private asked: Point | null = null
  private busy = false
  private readonly previews: Previewer

  constructor(private readonly ed: BoardEditor) {
    this.previews = new Previewer(ed.project)
  }

  private get next(): Placed | undefined {
    const w = this.state.waiting[this.state.skipped]
    return w && this.ed.project.get('placed', w.id)
  }
  take() {
    void this.look()
  }
  drop() {
    this.forget()
    this.state.waiting = []
    this.ed.scene.hide([])
  }
  private forget() {
    this.previews.stop()
    this.ed.dragLinks.value = null
    this.ed.held.value = null
    this.lines = []
    this.asked = null
  }
  /** Asks what is to be placed. */
  private async look() {
    const list = await this.ed.project.question('placeNext', { by: this.state.by }).catch(complain)
    if (this.ed.state.tool !== this.id) return
    this.state.waiting = list ?? []
    this.state.skipped = 0
    this.hang()
    if (!this.state.waiting.length) {
      say(this.ed.project.board.outline?.length ? 'All parts stand on the board.' : 'Draw the board’s outline first.')
      this.ed.take('select')
    }
  }
  /** The next part hangs at the hand as it stands. */
  private hang() {
    this.forget()
    const p = this.next
    this.ed.scene.hide(p ? [p.id] : [])
    this.state.angle = p?.angle ?? 0
    this.state.bottom = !!p?.bottom
    this.guides = p ? new Guides(this.ed, [p.id], this.board()) : null
    this.ed.redraw()
  }

  private board() {
    const { outline } = this.ed.project.board
    return outline?.length ? ringBox(outline) : undefined
  }
  private held(): Placed | null {
    const p = this.next
    return p && this.at ? { ...p, at: this.at, angle: this.state.angle, bottom: this.state.bottom } : null
  }
  move(p: Press) {
    const part = this.next
    if (!part || this.busy) return
    const grid = this.ed.onGrid(p.at)
    const turned = this.state.angle !== part.angle || this.state.bottom !== !!part.bottom
    const by = (q: Point) => ({ x: q.x - part.at.x, y: q.y - part.at.y })
    const kept = p.altKey || turned || !this.guides ? { step: by(grid), lines: [] } : this.guides.keep(by(p.at), by(grid), p.tolerance * 0.8) // prettier-ignore
    this.lines = kept.lines
    this.at = { x: part.at.x + kept.step.x, y: part.at.y + kept.step.y }
    if (this.asked && same(this.asked, this.at)) return
    this.asked = this.at
    this.preview()
  }
  private preview() {
    const part = this.next
    if (!part || !this.at) return
    const step = { x: this.at.x - part.at.x, y: this.at.y - part.at.y }
    const angle = (((this.state.angle - part.angle) % 360_000) + 360_000) % 360_000
    this.previews.ask('drag', { ids: [part.id], step, pivot: part.at, ...(angle ? { angle } : {}) }, (said) => {
      if (this.ed.state.tool !== this.id || this.next?.id !== part.id) return
      this.ed.dragLinks.value = said.links
      this.ed.held.value = said
      this.ed.redraw()
    })
  }
  async down() {
    const p = this.held()
    if (!p || this.busy) return
    this.busy = true
    const done = await this.ed.project
      .edit('setPlaced', { id: p.id, x: p.at.x, y: p.at.y, angle: p.angle, bottom: !!p.bottom, tracks: this.ed.taste.tracks })
      .catch(complain)
    this.busy = false
    if (done !== undefined) await this.look()
  }
  key(name: string) {
    const p = this.next
    if (!p) return false
    if (name === 'Q' || name === 'E')
      this.state.angle = (((this.state.angle + (name === 'Q' ? 90_000 : -90_000)) % 360_000) + 360_000) % 360_000
    else if (name === 'M') this.state.bottom = !this.state.bottom
    else if (name === 'Tab') {
      this.skip()
      return true
    } else return false
    this.lines = []
    this.preview()
    this.ed.redraw()
    return true
  }
  private skip() {
    this.state.skipped = (this.state.skipped + 1) % Math.max(1, this.state.waiting.length)
    this.hang()
  }

  strip(): Field[] {
    const { state } = this
    const w = state.waiting[state.skipped]
    return [
      oneOf('Which comes next', state.by, [{ value: 'connections' as By, title: 'Most connected' }, { value: 'size' as By, title: 'Largest' }], (v) => ((state.by = v), void this.look())), // prettier-ignore
      ...(w
        ? [
            words(w.designator, { mono: true }),
            words(`${w.connections} ${w.connections === 1 ? 'connection' : 'connections'} to the board · ${state.waiting.length} to place`, { quiet: true }), // prettier-ignore
            { as: 'press' as const, text: 'Another', title: 'Leave it for later (Tab)', press: () => this.skip() },
          ]
        : []),
    ]
  }
  hint() {
    return 'click puts it down · Q E turn · M other side · Tab another one · Alt off the lines · Esc ends'
  }
  paint(pen: Pen) {
    const p = this.held()
    if (!p) return
    const { ed } = this
    for (const it of placedItems(ed.project, p, ed.look)) paintItem(it, pen)
    const f = ed.project.pattern(p.footprint)
    const c = ed.look().colours
    if (f) {
      pen.ctx.beginPath()
      tracePoints(pen.ctx, courtyard(f, boardPose(p)), true)
      pen.ctx.strokeStyle = c.select
      pen.ctx.lineWidth = 1.5 * pen.px
      pen.ctx.stroke()
      if (ed.held.value?.clashes.length) {
        pen.ctx.globalAlpha = 0.3
        pen.ctx.fillStyle = c.finding
        pen.ctx.fill()
        pen.ctx.globalAlpha = 1
      }
    }
    paintNotes(ed, pen, ed.held.value?.notes ?? [])
    paintGuides(pen, this.lines, c.select)
  }
}
