import { boardPose } from '../../canvas/geometry'
import type { Pen } from '../../canvas/pen'
import type { Box } from '../../canvas/viewport'
import type { Project } from '../../live/project'
import type { Kinds, Placed } from '../../live/wire.gen'
import { drawTrack } from '../draw'
import type { BoardEditor } from '../editor'
import { alphaOf } from '../layering'
import { padOutlines, paintOutline } from '../pattern'
import { paintNetFills } from '../pours'

/** Colours that nets and classes may be given: none is that of a copper layer or of what is picked. */
export const hues = ['#e4572e', '#f2a7b5', '#b8e04a', '#4ad6e0', '#5a7bff', '#c05bd8', '#f5e663', '#ffffff']

/** The colour of each net that has one: its own, else that of its class. */
export function tintsOf(project: Project): Map<number, string> {
  const own = new Map<string, string>()
  const classes = new Map<string, string>()
  for (const t of project.all('tint')) (t.class ? classes : own).set(t.name, t.colour)
  const out = new Map<number, string>()
  if (!own.size && !classes.size) return out
  for (const n of project.all('net')) {
    const colour = own.get(n.name) ?? (n.class ? classes.get(n.class) : undefined)
    if (colour) out.set(n.id, colour)
  }
  return out
}

/** Draws the copper of nets that have a colour in it, as strongly as its layer is drawn: of the layer in work, or of all others. Of joints, only vias and pads are drawn, on all layers. */
export function drawTints(ed: BoardEditor, pen: Pen, box: Box, tints: Map<number, string>, work: boolean, joints = false) {
  const { ctx } = pen
  const strength = (layer: number) => (joints ? 1 : alphaOf(ed, 'copper-' + layer))
  for (const layer of joints
    ? []
    : ed.copper.map((l) => l.id).filter((l) => (l === ed.state.layer) === work && strength(l) > 0)) {
    ctx.globalAlpha = 0.45 * strength(layer)
    for (const [net, colour] of tints) paintNetFills(pen, ed.project, net, layer, box, colour)
  }
  for (const id of ed.scene.idsWithin(box)) {
    const found = ed.project.find(id)
    if (found?.kind === 'track' && !joints) {
      const t = found.object as Kinds['track']
      const colour = t.net && tints.get(t.net)
      if (!colour || (t.layer === ed.state.layer) !== work) continue
      ctx.globalAlpha = strength(t.layer)
      drawTrack(pen, t, colour, t.width)
    } else if (found?.kind === 'via' && work) {
      const v = found.object as Kinds['via']
      const colour = v.net && tints.get(v.net)
      if (colour) drawRing(pen, v, colour)
    } else if (found?.kind === 'placed') {
      drawPads(ed, pen, found.object as Placed, tints, (l) => joints || (l === ed.state.layer) === work, strength)
    }
  }
  ctx.globalAlpha = 1
}

function drawRing({ ctx }: Pen, v: Kinds['via'], colour: string) {
  const [outer, inner] = [v.diameter / 2e6, v.hole / 2e6]
  ctx.globalAlpha = 1
  ctx.beginPath()
  ctx.arc(v.at.x / 1e6, v.at.y / 1e6, (outer + inner) / 2, 0, 2 * Math.PI)
  ctx.strokeStyle = colour
  ctx.lineWidth = outer - inner
  ctx.stroke()
}

function drawPads(
  ed: BoardEditor,
  pen: Pen,
  p: Placed,
  tints: Map<number, string>,
  on: (l: number) => boolean,
  strength: (l: number) => number,
) {
  const f = ed.project.pattern(p.footprint)
  if (!f || !Object.values(p.nets).some((n) => tints.has(n))) return
  const { copper } = ed
  for (const [i, pad] of (ed.project.named('footprint', p.footprint)?.pads ?? []).entries()) {
    const colour = tints.get(p.nets[pad.number])
    const layer = pad.hole ? ed.state.layer : copper[p.bottom !== !!pad.far ? copper.length - 1 : 0].id
    if (!colour || !on(layer)) continue
    pen.ctx.globalAlpha = strength(layer)
    paintOutline(pen, padOutlines(f.pads[i])[0], boardPose(p), colour)
  }
}
