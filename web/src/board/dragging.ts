import { boardPose, dist, same, snap, tracePoints } from '../canvas/geometry'
import { type Item, paintItem, type Pen } from '../canvas/scene'
import { type Field, oneOf } from '../hands/fields'
import type { Grab, Press } from '../hands/tool'
import { Previewer } from '../live/previewer'
import type { Boxed } from '../live/objects'
import { format } from '../live/units'
import type { Corner, Kinds, Obstacle, Placed, Point, Questions } from '../live/wire.gen'
import { complain } from '../shell/notices'
import { areaItem, holeItem, placedItems, trackItem, viaItems } from './draw'
import { pourItem } from './pours'
import { figureItem, legendItem } from './drawn'
import { type Guide, Guides, paintGuides } from './guides'
import { paintNotes } from './overlay'
import type { BoardEditor } from './editor'
import { courtyard } from './pattern'
import { paintMoved } from './tools/trackPicture'

/** What the tracks do that lead to what is picked. */
export function trackOptions(ed: BoardEditor): Field[] {
  void ed.project.docTick.value
  if (!ed.picked('placed').length || !ed.project.tracks.size) return []
  return [oneOf('Tracks of what moves', ed.taste.tracks, [{ value: 'along', title: 'Tracks go along' }, { value: 'open', title: 'Tracks become open links' }], (v) => (ed.taste.tracks = v))] // prettier-ignore
}

/** What of a move needs to be known before it is made. */
export function warningOf(ed: BoardEditor, said: Questions['drag']['answers']): string {
  const { touches, near, going, sought } = said
  const called = (o: Obstacle) => o.name + (o.net ? ` of ${o.net}` : '')
  const [t] = touches ?? []
  if (t) return `Would touch ${called(t)}.`
  const [n] = near ?? []
  const long = (nm: number) => `${format(nm, ed.taste.unit, 3)} ${ed.taste.unit}`
  if (n) return `Would come within ${long(n.measured)} of ${called(n)}; the rules ask for ${long(n.required)}.`
  const over = clashing(ed, said)
  if (over.length) return `Would lie over ${over.slice(0, 4).join(', ')}.`
  if (!going?.length || ed.taste.tracks === 'open') return ''
  const nets = new Set(going.map((id) => ed.project.netName(ed.project.get('track', id)?.net)))
  return `${sought ? 'A longer way is sought when it is put down' : 'No way to follow'}: ${[...nets].slice(0, 4).join(', ')}.`
}

/** The parts that others would come to lie over, where none lies over them already. */
function clashing(ed: BoardEditor, { clashes }: Questions['drag']['answers']): string[] {
  if (!clashes?.length) return []
  const known = new Set(ed.project.findingList.value.flatMap((f) => (f.kind === 'spacing' ? (f.objects ?? []) : [])))
  const picked = new Set(ed.selection)
  const fresh = clashes.filter((id) => !known.has(id))
  const others = fresh.filter((id) => !picked.has(id))
  return (others.length ? others : fresh).flatMap((id) => ed.project.get('placed', id)?.designator ?? [])
}

/** What is picked and can be moved, in the hand: the first of it keeps to the grid. */
export class BoardDrag implements Grab {
  step: Point = { x: 0, y: 0 }
  private readonly ids: number[]
  private readonly first: Point
  private readonly previews: Previewer
  private readonly guides: Guides
  private lines: Guide[] = []

  constructor(
    private readonly ed: BoardEditor,
    private readonly from: Point,
  ) {
    this.ids = ed.movable()
    this.first = ed.anchor(this.ids[0])
    this.previews = new Previewer(ed.project)
    this.guides = new Guides(ed, this.ids)
  }

  move(p: Press) {
    const { ed, first, from } = this
    const still = !this.step.x && !this.step.y
    if (still && dist(p.at, from) < p.tolerance * 0.6) return // the hand only trembles
    const free = { x: p.at.x - from.x, y: p.at.y - from.y }
    const to = snap({ x: first.x + free.x, y: first.y + free.y }, ed.grid)
    const grid = { x: to.x - first.x, y: to.y - first.y }
    const kept = p.altKey ? { step: grid, lines: [] } : this.guides.keep(free, grid, p.tolerance * 0.8)
    const { step } = kept
    this.lines = kept.lines
    if (same(step, this.step)) return
    this.step = step
    ed.scene.hide(this.ids)
    this.preview()
  }
  /** Asks what the move would do as it stands. */
  preview() {
    const { ed, step, ids } = this
    this.previews.ask('drag', { ids, step, pivot: { x: 0, y: 0 }, tracks: ed.taste.tracks }, (said) => {
      if (ed.grab !== this) return
      ed.dragLinks.value = said.links
      ed.held.value = said
      ed.state.warning = warningOf(ed, said)
      ed.scene.hide([...ids, ...carriedAway(said)])
      ed.redraw()
    })
  }
  drop() {
    const { ed, step } = this
    if (!step.x && !step.y) {
      this.cancel()
      return
    }
    ed.grab = this // shown where it was dropped until it is there
    ed.project
      .edit('movePlaced', { ids: this.ids, step, tracks: ed.taste.tracks })
      .catch(complain)
      .finally(() => ed.grab === this && ed.letGo())
  }
  cancel() {
    this.previews.stop()
    this.ed.dragLinks.value = null
    this.ed.held.value = null
    this.ed.state.warning = ''
    this.ed.scene.hide([])
  }

  paint(pen: Pen) {
    const { ed, step } = this
    const parts = this.ids.flatMap((id) => {
      const p = ed.project.get('placed', id)
      return p ? [{ ...p, at: { x: p.at.x + step.x, y: p.at.y + step.y } }] : []
    })
    paintCarried(ed, pen, ed.held.value, parts)
    for (const id of this.ids) this.held(pen, id)
    paintGuides(pen, this.lines, ed.look().colours.select)
  }
  private held(pen: Pen, id: number) {
    const { ed, step } = this
    const found = ed.project.find(id)
    const moved = (at: Point) => ({ x: at.x + step.x, y: at.y + step.y })
    if (found && found.kind !== 'placed') for (const it of carriedItems(ed, found, moved)) paintItem(it, pen)
  }
}

/** The courtyard of a part that lies over another's. */
function tint(ed: BoardEditor, { ctx }: Pen, p: Placed | undefined) {
  const f = p && ed.project.pattern(p.footprint)
  if (!f) return
  ctx.beginPath()
  tracePoints(ctx, courtyard(f, boardPose(p)), true)
  ctx.globalAlpha = 0.3
  ctx.fillStyle = ed.look().colours.finding
  ctx.fill()
  ctx.globalAlpha = 1
}

/** Parts as they would stand, with the tracks that follow, those that go, the parts that they would lie over, and notes about their places. */
export function paintCarried(ed: BoardEditor, pen: Pen, said: Questions['drag']['answers'] | null, parts: Placed[]) {
  if (said) paintMoved(ed, pen, said)
  pen.ctx.globalAlpha = 0.3
  for (const id of said?.going ?? []) {
    const t = ed.project.get('track', id)
    if (t) paintItem(trackItem(t, ed.look), pen)
  }
  pen.ctx.globalAlpha = 1
  const carried = new Set(parts.map((p) => p.id))
  for (const p of parts) {
    for (const it of placedItems(ed.project, p, ed.look)) paintItem(it, pen)
    const f = ed.project.pattern(p.footprint)
    pen.ctx.beginPath()
    if (f) tracePoints(pen.ctx, courtyard(f, boardPose(p)), true)
    pen.ctx.strokeStyle = ed.look().colours.select
    pen.ctx.lineWidth = 1.5 * pen.px
    pen.ctx.stroke()
    if (said?.clashes.includes(p.id)) tint(ed, pen, p)
  }
  for (const id of said?.clashes ?? []) if (!carried.has(id)) tint(ed, pen, ed.project.get('placed', id))
  paintNotes(ed, pen, said?.notes ?? [])
}

/** What lies otherwise once things are carried: it is not seen where it was. */
export const carriedAway = (said: Questions['drag']['answers']) => [
  ...(said.moved ?? []).flatMap((m) => m.ids),
  ...(said.movedVias ?? []).map((m) => m.id),
  ...(said.going ?? []),
]

/** What else is moved as it would lie. */
function carriedItems(ed: BoardEditor, { kind, object }: Boxed, moved: (at: Point) => Point): Item[] {
  const { project, look } = ed
  const line = (l: Corner[]) => l.map((c) => ({ ...moved(c), ...(c.mid ? { mid: moved(c.mid) } : {}) }))
  switch (kind) {
    case 'hole': {
      const h = object as Kinds['hole']
      return [holeItem({ ...h, at: moved(h.at) }, look)]
    }
    case 'legend': {
      const l = object as Kinds['legend']
      return [legendItem({ ...l, at: moved(l.at) }, project.texts.get(l.id), project.rule('silkWidth'), look)]
    }
    case 'figure': {
      const f = object as Kinds['figure']
      return [figureItem({ ...f, lines: f.lines.map(line) }, look)]
    }
    case 'ruleArea': {
      const a = object as Kinds['ruleArea']
      return [areaItem({ ...a, outline: line(a.outline) }, look)]
    }
    case 'pour': {
      const a = object as Kinds['pour']
      return pourItem(project, { ...a, outline: line(a.outline ?? []) }, look)
    }
    case 'track': {
      const t = object as Kinds['track']
      return [trackItem({ ...t, a: moved(t.a), b: moved(t.b), ...(t.mid ? { mid: moved(t.mid) } : {}) }, look)]
    }
    case 'via': {
      const v = object as Kinds['via']
      return viaItems({ ...v, at: moved(v.at) }, look)
    }
  }
  return []
}
