import { mdiVectorLine } from '@mdi/js'
import { reactive } from 'vue'
import { same } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import { type Field, words } from '../../hands/fields'
import type { Press, Tool } from '../../hands/tool'
import { Previewer } from '../../live/previewer'
import { format } from '../../live/units'
import type { Point, Probe, Questions, Run } from '../../live/wire.gen'
import type { Command } from '../../shell/keys'
import { complain, say } from '../../shell/notices'
import { copperColour } from '../../shell/tokens'
import { drawLines } from '../draw'
import type { BoardEditor } from '../editor'
import { ring } from '../overlay'
import type { Touched } from '../picking'

const styles = [
  { id: 'straightFirst', name: '45°, straight first' },
  { id: 'diagonalFirst', name: '45°, slanted first' },
  { id: 'square', name: '90°' },
  { id: 'free', name: 'free' },
] as const

/** Draws tracks from copper to copper; the core finds the way to the hand. */
export class TrackTool implements Tool {
  readonly id = 'track'
  readonly name = 'Track'
  readonly icon = mdiVectorLine
  readonly keys = 'T'
  readonly menu = ['end', 'hop', 'style']
  readonly state = reactive({
    style: 0,
    /** What was typed; 0: as the rules say. */
    width: 0,
    /** The net that is being drawn, how far, and what stopped it. */
    routing: '',
    length: 0,
    blocked: '',
  })
  route: { net: number; runs: Run[]; start: Touched } | null = null
  probe: Probe | null = null
  target: Touched | null = null
  private readonly previews: Previewer

  constructor(private readonly ed: BoardEditor) {
    this.previews = new Previewer(ed.project)
  }

  get width() {
    return this.state.width || this.probe?.width || this.ed.project.rule('trackWidth')
  }
  drop() {
    this.route = null
    this.probe = null
    this.target = null
    this.state.blocked = this.state.routing = ''
    this.previews.stop()
  }

  /** Where the track stands that is being drawn. */
  private get from(): Point {
    const run = this.route!.runs[this.route!.runs.length - 1]
    return run.path[run.path.length - 1]
  }
  /** What is asked about a track from where it was drawn to so far. */
  private way(net: number, to: Point): Questions['track']['asks'] {
    return { from: this.from, to, style: styles[this.state.style].id, layer: this.ed.state.layer, net, width: this.state.width || undefined } // prettier-ignore
  }
  /** Asks for the way to the hand. */
  private ahead() {
    const r = this.route
    if (!r) return
    this.previews.ask('track', this.way(r.net, this.target?.at ?? this.ed.at), (probe) => {
      if (this.route !== r) return
      this.probe = probe
      this.state.length = probe.length
      const b = probe.blocked
      this.state.blocked = b ? `Stopped before ${b.name}${b.net ? ` of ${b.net}` : ''}.` : ''
      this.ed.redraw()
    })
  }

  move(p: Press) {
    const { ed } = this
    const t = ed.touched(p.at, p.tolerance)
    ed.state.hovered = t?.id ?? 0
    if (!this.route) {
      this.target = t
      return
    }
    this.target = t && t.net === this.route.net && t.layers.includes(ed.state.layer) ? t : null
    this.ahead()
  }
  down(p: Press) {
    if (this.route) void this.fix()
    else this.begin(p)
  }
  double() {
    this.finish()
  }
  private begin(p: Press) {
    const { ed } = this
    const t = ed.touched(p.at, p.tolerance)
    if (!t) return say('Begin on a pad, a via or a track.', 'error')
    if (!t.net)
      return say(`${t.name[0].toUpperCase()}${t.name.slice(1)} belongs to no net, so no track can begin there.`, 'error')
    if (!t.layers.includes(ed.state.layer)) ed.toLayer(t.layers[0])
    this.route = { net: t.net, runs: [{ layer: ed.state.layer, path: [t.at] }], start: t }
    this.state.routing = ed.project.netName(t.net)
    ed.project.light(this.state.routing)
    this.target = null
  }
  /** Takes the way to the hand as drawn, and ends the track when it came to copper of its net. */
  private async fix() {
    const r = this.route!
    const target = this.target
    const probe = await this.ed.project.question('track', this.way(r.net, target?.at ?? this.ed.at)).catch(complain)
    if (!probe || this.route !== r) return
    const path = probe.path
    const run = r.runs[r.runs.length - 1]
    const further = path.slice(1).filter((p, i) => !same(p, path[i]))
    run.path.push(...further)
    const arrived = target && !probe.blocked && !(target.id === r.start.id && same(target.at, r.start.at))
    if (arrived || (this.ed.keyed && !further.length)) this.finish()
    else this.ahead()
    this.ed.redraw()
  }
  /** Keeps what was drawn so far. */
  finish() {
    const r = this.route
    if (!r) return
    this.drop()
    const runs = r.runs.filter((run, i) => run.path.length > 1 || i > 0) // a hop at the very end leaves a via to go on from
    if (runs.some((run) => run.path.length > 1)) void this.ed.run('drawTrack', { net: r.net, runs, width: this.state.width || undefined }) // prettier-ignore
    this.ed.redraw()
  }
  back() {
    const runs = this.route?.runs
    if (!runs) return false
    const last = runs[runs.length - 1]
    if (last.path.length > 1) last.path.pop()
    else if (runs.length > 1) {
      runs.pop()
      this.ed.toLayer(runs[runs.length - 1].layer)
    } else this.drop()
    this.ahead()
    return true
  }
  key(name: string) {
    return name === 'Backspace' && !!this.route && this.ed.back()
  }

  /** Goes on on another copper layer, with a via where the track stands. */
  async hop(to: number) {
    const { ed } = this
    const r = this.route!
    const probe = await ed.project.question('track', this.way(r.net, this.target?.at ?? ed.at)).catch(complain)
    if (!probe || this.route !== r) return
    if (probe.via) {
      say(`No via fits here: ${probe.via}.`, 'error')
      return
    }
    const run = r.runs[r.runs.length - 1]
    run.path.push(...probe.path.slice(1))
    r.runs.push({ layer: to, path: [run.path[run.path.length - 1]] })
    ed.toLayer(to)
    this.ahead()
    ed.redraw()
  }
  nextStyle() {
    this.state.style = (this.state.style + 1) % styles.length
    this.ahead()
  }

  commands(): Command[] {
    const drawing = () => !!this.route
    const one = (id: string, title: string, keys: string, run: () => void): Command => ({ id, title, keys, group: 'Track', run, enabled: drawing }) // prettier-ignore
    return [
      one('hop', 'Hop to the other outer copper layer', 'Space', () => void this.ed.hop()),
      one('style', 'Next corner style', 'Tab', () => this.nextStyle()),
      one('end', 'End the track here', 'Enter', () => this.finish()),
    ]
  }
  strip(): Field[] {
    const { ed, state } = this
    void ed.project.docTick.value
    const layer = ed.copper[ed.position(ed.state.layer)]?.name
    return [
      ...(state.routing ? [words(state.routing, { mono: true, said: `Net: ${state.routing}` })] : []),
      words(`on ${layer}`),
      { as: 'length', label: 'Width', value: this.width, keep: (v) => (state.width = v) },
      { as: 'press', text: styles[state.style].name, title: 'Tab: next corner style', press: () => this.nextStyle() },
      ...(state.routing ? [words(`${format(state.length, ed.taste.unit, 2)} ${ed.taste.unit}`, { mono: true, quiet: true })] : []), // prettier-ignore
      ...(state.blocked ? [words(state.blocked, { wrong: true })] : []),
    ]
  }
  hint() {
    return this.state.routing
      ? 'click sets a corner · Space hops · Tab corner style · Enter ends · Esc steps back'
      : 'click a pad, via or track to begin · Esc ends'
  }

  paint(pen: Pen) {
    const { ed } = this
    const { ctx } = pen
    const c = ed.look().colours
    if (!this.route) {
      if (this.target?.net) ring(pen, this.target.at, c.select)
      return
    }
    const n = ed.copper.length
    const rule = (kind: string) => ed.project.rule(kind)
    const via = { size: this.probe?.viaSize ?? rule('viaDiameter'), hole: this.probe?.viaHole ?? rule('viaHole') }
    const disc = (at: Point, diameter: number, colour: string) => {
      ctx.beginPath()
      ctx.arc(at.x / 1e6, at.y / 1e6, diameter / 2e6, 0, 2 * Math.PI)
      ctx.fillStyle = colour
      ctx.fill()
    }
    for (const [i, run] of this.route.runs.entries()) {
      drawLines(pen, [run.path], copperColour(ed.position(run.layer), n), this.width)
      if (i === 0) continue
      disc(run.path[0], via.size, c.barrel)
      disc(run.path[0], via.hole, c.bore)
    }
    if (this.probe) {
      ctx.globalAlpha = 0.25
      drawLines(pen, [this.probe.path], c.link, this.width + 2 * this.probe.clearance)
      ctx.globalAlpha = 0.9
      drawLines(pen, [this.probe.path], copperColour(ed.position(ed.state.layer), n), this.width)
      ctx.globalAlpha = 1
      if (this.probe.rest?.length) {
        ctx.setLineDash([4 * pen.px, 4 * pen.px])
        drawLines(pen, [this.probe.rest], c.finding, 0)
        ctx.setLineDash([])
      }
      if (this.probe.blocked) ring(pen, this.probe.blocked.at, c.finding)
    }
    if (this.target) ring(pen, this.target.at, c.select)
  }
}
