import { dist, same, snap } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import { paintOutline } from '../../board/pattern'
import type { Grab, Press } from '../../hands/tool'
import type { Point } from '../../live/wire.gen'
import { copperColour } from '../../shell/tokens'
import { pieceOf, withRefs } from '../pieces'
import { traceFigure } from './draw'
import type { FootprintEditor } from './editor'

/** What is picked of a footprint, in the hand: the first of it keeps to the grid. */
export class PieceDrag implements Grab {
  step: Point = { x: 0, y: 0 }
  private readonly ids: number[]
  private readonly first: Point

  constructor(
    private readonly ed: FootprintEditor,
    private readonly from: Point,
  ) {
    this.ids = ed.movable()
    this.first = ed.pickedPads()[0]?.at ?? from
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
    if (!step.x && !step.y) {
      this.cancel()
      return
    }
    ed.grab = this // shown where it was dropped until it is there
    void ed.edit(ed.moved(step)).finally(() => ed.grab === this && ed.letGo())
  }
  cancel() {
    this.ed.scene.hide([])
  }
  paint(pen: Pen) {
    const { ed, step } = this
    const f = ed.f
    if (!f) return
    const pose = { at: step, angle: 0, mirror: false }
    const { ctx, px } = pen
    for (const id of this.ids) {
      const { what, ref } = pieceOf(id)
      if (what === 'pad') {
        const i = ed.pads.findIndex((p) => p.id === ref)
        const s = ed.pattern?.pads[i]
        if (!s) continue
        for (const o of Object.values(s.on ?? {})) paintOutline(pen, o, pose, copperColour(0, 2))
        if (s.barrel) paintOutline(pen, s.barrel, pose, ed.colours.barrel)
        if (s.bore) paintOutline(pen, s.bore, pose, ed.colours.bore)
        continue
      }
      ctx.beginPath()
      if (what === 'silk' || what === 'body') {
        const g = withRefs(f[what]).find((x) => x.id === ref)
        if (!g) continue
        traceFigure(ctx, { ...g, pts: g.pts.map((p) => ({ x: p.x + step.x, y: p.y + step.y })) })
        ctx.lineWidth = Math.max((g.width || 120_000) / 1e6, px)
      } else if (what === 'text') {
        const at = ref === 1 ? f.designatorAt : f.valueAt!
        pen.text(ref === 1 ? 'REF' : 'value', (at.x + step.x) / 1e6, (at.y + step.y) / 1e6, 1.1, { colour: ed.colours.select })
        continue
      }
      ctx.strokeStyle = ed.colours.select
      ctx.stroke()
    }
  }
}
