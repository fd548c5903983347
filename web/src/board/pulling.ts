import { nearestOn } from '../canvas/arcs'
import { dist, same } from '../canvas/geometry'
import type { Pen } from '../canvas/scene'
import type { Grab, Press } from '../hands/tool'
import { Previewer } from '../live/previewer'
import type { Point, Pulled, Questions } from '../live/wire.gen'
import { complain } from '../shell/notices'
import type { BoardEditor } from './editor'
import { ring } from './overlay'
import { paintMoved } from './tools/trackPicture'

/** A piece of a track, a corner of it or a via in the hand: what hangs on it follows, others make way when the track tool says so. */
export class PullDrag implements Grab {
  private readonly previews: Previewer
  private readonly from: Point
  private readonly corner: boolean
  private to: Point
  private pulled: Pulled | null = null
  private moved = false

  constructor(
    private readonly ed: BoardEditor,
    private readonly id: number,
    private readonly press: Press,
  ) {
    this.previews = new Previewer(ed.project)
    const t = ed.project.get('track', id)
    this.from = t ? nearestOn(press.at, t.a, t.mid, t.b) : ed.project.get('via', id)!.at
    this.corner = press.altKey
    this.to = this.from
  }

  private asks(): Questions['pull']['asks'] {
    const { from, to, id, corner, press, ed } = this
    return { id, from, to, grip: Math.round(press.tolerance * 1.5), corner, aside: ed.track.state.manner === 'aside' }
  }
  move(p: Press) {
    const { ed } = this
    if (!this.moved && dist(p.at, this.press.at) < p.tolerance * 0.6) return // the hand only trembles
    this.moved = true
    const to = ed.onGrid(p.at)
    if (same(to, this.to)) return
    this.to = to
    this.previews.ask('pull', this.asks(), (said) => {
      if (ed.grab !== this) return
      this.pulled = said
      const b = said.blocked
      ed.state.warning = b ? `Stopped before ${b.name}${b.net ? ` of ${b.net}` : ''}.` : ''
      ed.scene.hide([...said.moved.flatMap((m) => m.ids), ...(said.movedVias ?? []).map((m) => m.id)])
      ed.redraw()
    })
  }
  drop() {
    const { ed } = this
    ed.state.warning = ''
    if (!this.moved || same(this.to, this.from)) {
      this.cancel()
      return
    }
    const { id, from, to, grip, corner, aside } = this.asks()
    const act =
      ed.project.kind(id) === 'via'
        ? ed.project.edit('pullVia', { id, to, aside })
        : ed.project.edit('pullTrack', { id, from, to, grip, corner, aside })
    ed.grab = this // shown where it was dropped until it is there
    act.catch(complain).finally(() => ed.grab === this && ed.letGo())
  }
  cancel() {
    this.previews.stop()
    this.ed.state.warning = ''
    this.ed.scene.hide([])
  }

  paint(pen: Pen) {
    if (!this.pulled) return
    paintMoved(this.ed, pen, this.pulled)
    if (this.pulled.blocked) ring(pen, this.pulled.blocked.at, this.ed.look().colours.finding)
  }
}
