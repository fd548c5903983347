import { tracePoints } from '../../canvas/geometry'
import { paintItem, type Pen } from '../../canvas/scene'
import type { HopSeen, Point, Run, TrackWay } from '../../live/wire.gen'
import { copperColour } from '../../shell/tokens'
import { drawRun, trackItem, viaItems } from '../draw'
import type { BoardEditor } from '../editor'
import { ring } from '../overlay'
import type { TrackTool } from './track'

/** Draws a track in the making: what is fixed, the way to the hand with its clearance, what makes way for it, and why it stops. */
export function paintTrack(ed: BoardEditor, tool: TrackTool, pen: Pen) {
  const { route, way, finished, target } = tool
  const c = ed.look().colours
  for (const { runs } of tool.laid)
    for (const run of runs) if (run.path.length > 1) drawRun(pen, run.path, copperColour(ed.position(run.layer), ed.copper.length), run.width || tool.width) // prettier-ignore
  if (!route) {
    if (target?.net) ring(pen, target.at, c.select)
    return
  }
  const n = ed.copper.length
  const colour = (layer: number) => copperColour(ed.position(layer), n)
  const { via } = tool
  const disc = (at: Point, diameter: number, fill: string) => {
    pen.ctx.beginPath()
    pen.ctx.arc(at.x / 1e6, at.y / 1e6, diameter / 2e6, 0, 2 * Math.PI)
    pen.ctx.fillStyle = fill
    pen.ctx.fill()
  }
  const runs = (list: Run[], before?: Run) => {
    for (const [i, run] of list.entries()) {
      if (run.path.length > 1) drawRun(pen, run.path, colour(run.layer), run.width || tool.width)
      const last = list[i - 1] ?? before
      if (!last || last.layer === run.layer) continue
      const hop = tool.hops.get(run)
      if (hop) {
        paintHop(ed, pen, hop)
        continue
      }
      disc(run.path[0], via.size, c.barrel)
      disc(run.path[0], via.hole, c.bore)
    }
  }
  if (way) paintMoved(ed, pen, way)
  if (!way?.whole) runs(route.runs)
  const last = route.runs[route.runs.length - 1]
  if (finished) {
    pen.ctx.globalAlpha = 0.75
    runs(finished.runs, last)
    pen.ctx.globalAlpha = 1
  }
  if (way) {
    pen.ctx.globalAlpha = 0.25
    for (const run of way.runs) if (run.path.length > 1) drawRun(pen, run.path, c.link, (run.width ?? 0) + 2 * way.clearance)
    pen.ctx.globalAlpha = 0.9
    runs(way.whole ?? way.runs, way.whole ? undefined : last)
    pen.ctx.globalAlpha = 1
    if (way.rest && way.rest.length > 1) {
      pen.ctx.beginPath()
      tracePoints(pen.ctx, way.rest, false)
      pen.ctx.setLineDash([4 * pen.px, 4 * pen.px])
      pen.ctx.strokeStyle = c.finding
      pen.ctx.lineWidth = 1.5 * pen.px
      pen.ctx.stroke()
      pen.ctx.setLineDash([])
    }
    if (way.blocked) ring(pen, way.blocked.at, c.finding)
    if (way.hop && tool.state.choosing) {
      pen.ctx.globalAlpha = 0.6
      paintHop(ed, pen, way.hop)
      pen.ctx.globalAlpha = 1
    }
  }
  if (target) ring(pen, target.at, c.select)
}

/** The holes of a hop, and what joins those that stand apart. */
function paintHop(ed: BoardEditor, pen: Pen, hop: HopSeen) {
  for (const t of hop.tracks ?? []) drawRun(pen, [t.a, t.b], copperColour(ed.position(t.layer), ed.copper.length), t.width)
  for (const v of hop.vias) for (const it of viaItems(v, ed.look)) paintItem(it, pen)
}

/** What makes way: its old place faint, its new place full. */
export function paintMoved(ed: BoardEditor, pen: Pen, way: Pick<TrackWay, 'moved' | 'movedVias'>) {
  const n = ed.copper.length
  pen.ctx.globalAlpha = 0.3
  for (const m of way.moved ?? [])
    for (const id of m.ids) {
      const t = ed.project.get('track', id)
      if (t) paintItem(trackItem(t, ed.look), pen)
    }
  for (const m of way.movedVias ?? []) {
    const v = ed.project.get('via', m.id)
    if (v) for (const it of viaItems(v, ed.look)) paintItem(it, pen)
  }
  pen.ctx.globalAlpha = 1
  for (const m of way.moved ?? []) drawRun(pen, m.path, copperColour(ed.position(m.layer), n), m.width)
  for (const m of way.movedVias ?? []) {
    const v = ed.project.get('via', m.id)
    if (v) for (const it of viaItems({ ...v, at: m.to }, ed.look)) paintItem(it, pen)
  }
}
