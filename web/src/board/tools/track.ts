import { mdiVectorLine } from '@mdi/js'
import { reactive } from 'vue'
import { same } from '../../canvas/geometry'
import type { Pen } from '../../canvas/scene'
import { choice, type Field, words } from '../../hands/fields'
import type { Press, Tool } from '../../hands/tool'
import { Previewer } from '../../live/previewer'
import { format } from '../../live/units'
import type { Finished, HopSeen, HopTried, Point, Questions, Run, TrackWay } from '../../live/wire.gen'
import type { Command } from '../../shell/keys'
import { complain, say } from '../../shell/notices'
import type { BoardEditor } from '../editor'
import type { Touched } from '../picking'
import { paintTrack } from './trackPicture'

/** How a track turns. */
const styles = [
  { value: 'straightFirst', title: '45°, straight first' },
  { value: 'diagonalFirst', title: '45°, slanted first' },
  { value: 'round', title: 'rounded' },
  { value: 'square', title: '90°' },
  { value: 'free', title: 'free' },
]
/** What it does at an obstacle. */
const manners = [
  { value: 'stop', title: 'stop' },
  { value: 'around', title: 'go around' },
  { value: 'aside', title: 'make way' },
]

/** A track that is being drawn. */
export interface Route {
  net: number
  runs: Run[]
  start: Touched
}

/** Draws tracks from copper to copper; the core finds the way to the hand. */
export class TrackTool implements Tool {
  readonly id = 'track'
  readonly name = 'Track'
  readonly icon = mdiVectorLine
  readonly keys = 'T'
  readonly menu = ['end', 'finish', 'hop', 'style', 'wider', 'narrower', 'manner', 'other']
  readonly state = reactive({
    style: 'straightFirst',
    radius: 1_000_000,
    manner: 'stop',
    /** It goes round obstacles by the other side, until the next corner. */
    other: false,
    neck: false,
    /** A new way takes the place of an old one between the same places. */
    renew: true,
    /** The layer that the next hop leads to, when another than the other outer one was chosen; and by which way, 0: the best that fits. */
    hopTo: 0,
    hopBy: 0,
    /** The table of ways is open: the hop at the hand is shown. */
    choosing: false,
    /** What was tried for a hop at the hand, the best first. */
    ways: [] as HopTried[],
    /** What was typed or taken from the list; 0: as the rules say. */
    width: 0,
    /** Widths that the rules and other tracks of the net have. */
    widths: [] as number[],
    /** The net that is being drawn, how far, how far it has yet to go, and what stopped it. */
    routing: '',
    length: 0,
    open: 0,
    blocked: '',
    /** A way to the end is shown, and waits to be taken. */
    shown: false,
  })
  route: Route | null = null
  /** Tracks that the program has yet to keep: they are seen as they were drawn. */
  readonly laid = new Set<Route>()
  way: TrackWay | null = null
  finished: Finished | null = null
  target: Touched | null = null
  /** The hops that runs are come to by. */
  readonly hops = new WeakMap<Run, HopSeen>()
  private readonly previews: Previewer

  constructor(private readonly ed: BoardEditor) {
    this.previews = new Previewer(ed.project)
  }

  get width() {
    return this.state.width || this.way?.width || this.ed.project.rule('trackWidth')
  }
  /** The via that a hop would make. */
  get via() {
    const rule = (kind: string) => this.ed.project.rule(kind)
    return { size: this.way?.viaSize ?? rule('viaDiameter'), hole: this.way?.viaHole ?? rule('viaHole') }
  }
  drop() {
    this.route = null
    this.way = null
    this.finished = null
    this.target = null
    this.state.blocked = this.state.routing = ''
    this.state.shown = this.state.other = false
    this.state.ways = []
    this.state.hopTo = this.state.hopBy = 0
    this.ed.scene.hide([])
    this.previews.stop()
  }

  private get last(): Run {
    return this.route!.runs[this.route!.runs.length - 1]
  }
  /** Where the track stands that is being drawn. */
  private get from(): Point {
    const { path } = this.last
    const { x, y } = path[path.length - 1]
    return { x, y }
  }
  /** What is asked about a track from where it was drawn to so far. */
  private asks(r: Route, to: Point): Questions['track']['asks'] {
    const { style, radius, manner, other, neck, width } = this.state
    return {
      from: this.from,
      to,
      style: style === 'round' ? 'straightFirst' : style,
      round: style === 'round' ? radius : undefined,
      manner,
      other,
      neck,
      layer: this.ed.state.layer,
      net: r.net,
      width: width || undefined,
      done: r.runs.filter((run) => run.path.length > 1),
      ...this.hopAsked(),
    }
  }
  /** What is asked about the next hop. */
  private hopAsked(): Partial<Questions['track']['asks']> {
    const { ed } = this
    if (ed.copper.length < 2) return {}
    const to = this.state.hopTo && this.state.hopTo !== ed.state.layer ? this.state.hopTo : ed.across
    return { hopTo: to, hopBy: this.state.hopBy || undefined }
  }
  /** Asks for the way to the hand. */
  ahead() {
    const r = this.route
    if (!r || this.state.shown) return
    this.previews.ask('track', this.asks(r, this.target?.at ?? this.ed.at), (way) => {
      if (this.route !== r || this.state.shown) return
      this.way = way
      this.state.length = way.length
      this.state.open = way.open ?? 0
      this.state.ways = way.ways ?? []
      const b = way.blocked
      const whose = b?.net ? ` of ${b.net}` : ''
      this.state.blocked = !b
        ? ''
        : this.state.manner === 'aside'
          ? `Not past ${b.name}${whose}.`
          : `Stopped before ${b.name}${whose}.`
      this.ed.scene.hide([...(way.moved ?? []).flatMap((m) => m.ids), ...(way.movedVias ?? []).map((m) => m.id)])
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
    if (this.state.shown) this.accept()
    else if (this.route) void this.fix()
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
    const short = this.shorted(t)
    if (short) say(`${short} A track from here would be of both; mend that first.`, 'error')
    else if (!ed.project.board.outline?.length)
      say('The board has no outline yet: nothing keeps a track from where its edge will be.')
    if (!t.layers.includes(ed.state.layer)) ed.toLayer(t.layers[0])
    this.route = { net: t.net, runs: [{ layer: ed.state.layer, path: [t.at] }], start: t }
    this.state.routing = ed.project.netName(t.net)
    ed.project.light(this.state.routing)
    this.target = null
    this.offer()
  }
  /** The finding that says that the net of what is touched lies on another's copper already. */
  private shorted({ net, name }: Touched): string | undefined {
    const { project } = this.ed
    const own = (id: number) => (project.get('track', id) ?? project.get('via', id))?.net === net
    const touching = [...project.findings.values()].filter((f) => f.kind === 'clearance' && !f.measured)
    return touching.find((f) => f.objects?.some(own) || f.text.toLowerCase().includes(name.toLowerCase()))?.text
  }
  /** Asks which widths there are for the net on the layer in work. */
  private offer() {
    const { net } = this.route!
    this.ed.project
      .question('trackWidths', { net, layer: this.ed.state.layer })
      .then((list) => this.route?.net === net && (this.state.widths = list))
      .catch(complain)
  }
  /** The next wider or narrower of the widths that are offered. */
  private step(by: 1 | -1) {
    const { widths } = this.state
    const now = this.width
    const next = by > 0 ? widths.find((w) => w > now) : widths.filter((w) => w < now).at(-1)
    if (next) this.change({ width: next })
    else
      say(by > 0 ? 'The rules and this net’s tracks have no wider one.' : 'The rules and this net’s tracks have no narrower one.')
  }
  /** Puts further runs to those that are drawn; tells whether there was anything. */
  private add(runs: Run[]): boolean {
    let some = false
    for (const run of runs) {
      const path = run.path.filter((c, i) => !i || !same(c, run.path[i - 1]))
      if (path.length < 2) continue
      some = true
      const old = this.last
      if (old.path.length === 1) Object.assign(old, { width: run.width, path })
      else if (old.width === run.width && old.layer === run.layer) old.path = [...old.path.slice(0, -1), ...path]
      else this.route!.runs.push({ ...run, path })
    }
    return some
  }
  /** Takes the way to the hand as drawn, and ends the track when it came to copper of its net. */
  private async fix() {
    const r = this.route!
    const target = this.target
    const way = await this.ed.project.question('track', this.asks(r, target?.at ?? this.ed.at)).catch(complain)
    if (!way || this.route !== r) return
    const further = this.add(way.runs)
    this.state.other = false
    const arrived = target && !way.blocked && !(target.id === r.start.id && same(target.at, r.start.at))
    if (arrived || (this.ed.keyed && !further)) this.finish()
    else this.ahead()
    this.ed.redraw()
  }
  /** Keeps what was drawn so far, or takes the way that is shown to its end. */
  finish() {
    if (this.state.shown) this.accept()
    else this.lay()
  }
  /** Lays what was drawn, and from there the way that was sought. What is refused stays in the hand. */
  private lay(sought: Run[] = []) {
    const r = this.route
    if (!r) return
    const { manner, width, renew, style, radius } = this.state
    this.drop()
    const runs = r.runs.filter((run, i) => run.path.length > 1 || i > 0) // a hop at the very end leaves a via to go on from
    this.ed.redraw()
    if (![...runs, ...sought].some((run) => run.path.length > 1)) return
    this.laid.add(r)
    this.ed.project
      .edit('drawTrack', {
        net: r.net,
        runs,
        ...(sought.length ? { sought } : {}),
        width: width || undefined,
        aside: manner === 'aside',
        renew,
        round: style === 'round' ? radius : undefined,
      })
      .catch((e: unknown) => this.refused(r, e))
      .finally(() => (this.laid.delete(r), this.ed.redraw()))
  }
  /** A track that was refused is in the hand again, or waits to be taken up when that holds something else by now. */
  private refused(r: Route, e: unknown) {
    const why = e instanceof Error ? e.message : String(e)
    if (this.ed.tool === this && !this.route) {
      this.goOn(r)
      if (why) say(why, 'error')
    } else
      say(why || 'A track was not laid.', 'error', {
        label: 'Take it up again',
        run: () => (this.ed.take(this.id), this.goOn(r)),
      })
  }
  private goOn(r: Route) {
    this.route = r
    this.state.routing = this.ed.project.netName(r.net)
    this.ed.project.light(this.state.routing)
    if (this.ed.state.layer !== this.last.layer) this.ed.toLayer(this.last.layer)
    this.offer()
    this.ahead()
    this.ed.redraw()
  }
  /** Shows a way to what the net has yet to reach. */
  async complete() {
    const r = this.route
    if (!r || this.state.shown) return
    const { width } = this.state
    const asks = { from: this.from, begun: r.start.at, layer: this.ed.state.layer, net: r.net, width: width || undefined, hops: this.ed.copper.length > 1, done: r.runs.filter((run) => run.path.length > 1), manner: this.state.manner } // prettier-ignore
    const finished = await this.ed.project.question('finish', asks).catch(complain)
    if (!finished || this.route !== r) return
    this.finished = finished
    this.state.shown = true
    this.state.length = finished.length
    this.state.open = 0
    this.state.blocked = ''
    this.way = null
    this.ed.scene.hide([])
    this.ed.redraw()
  }
  /** Takes the way that is shown. */
  private accept() {
    const { finished } = this
    this.finished = null
    this.state.shown = false
    if (!finished || !this.route) return
    this.lay(finished.runs)
  }
  back() {
    const runs = this.route?.runs
    if (!runs) return false
    const last = runs[runs.length - 1]
    if (this.state.shown) {
      this.state.shown = false
      this.finished = null
    } else if (last.path.length > 1) {
      last.path = last.path.slice(0, -1)
      delete last.path[last.path.length - 1].mid
      if (last.path.length === 1 && runs.length > 1 && runs[runs.length - 2].layer === last.layer) runs.pop()
    } else if (runs.length > 1) {
      runs.pop()
      this.ed.toLayer(runs[runs.length - 1].layer)
    } else this.drop()
    this.ahead()
    return true
  }
  key(name: string) {
    return name === 'Backspace' && !!this.route && this.ed.back()
  }

  /** Goes on on another copper layer, with a via at the nearest place to the hand where one fits. */
  async hop(to: number) {
    const { ed } = this
    const r = this.route!
    const asks = { ...this.asks(r, this.target?.at ?? ed.at), hop: true }
    if (asks.hopTo !== to) Object.assign(asks, { hopTo: to, hopBy: undefined }) // a way is one between two layers
    const way = await ed.project.question('track', asks).catch(complain)
    if (!way || this.route !== r) return
    if (way.via) {
      say(`No via fits here: ${way.via}.`, 'error')
      return
    }
    this.add(way.runs)
    const run: Run = { layer: to, path: [this.from] }
    if (way.hop) {
      const { holes, own } = way.hop
      run.hop = { holes, ...(own ? { own } : {}) }
      run.path = [holes[holes.length - 1].at]
      this.hops.set(run, way.hop)
    }
    r.runs.push(run)
    this.state.hopBy = 0
    ed.toLayer(to)
    this.offer()
    this.ahead()
    ed.redraw()
  }
  private next(list: readonly { value: string }[], now: string) {
    return list[(list.findIndex((o) => o.value === now) + 1) % list.length].value
  }
  nextStyle() {
    this.state.style = this.next(styles, this.state.style)
    this.ahead()
  }
  private change(what: Partial<TrackTool['state']>) {
    Object.assign(this.state, what)
    this.ahead()
  }

  commands(): Command[] {
    const drawing = () => !!this.route
    const one = (id: string, title: string, keys: string, run: () => void): Command => ({ id, title, keys, group: 'Track', run, enabled: drawing }) // prettier-ignore
    return [
      one('hop', 'Hop to the other outer copper layer', 'Space', () => void this.ed.hop(this.hopAsked().hopTo)),
      one('style', 'Next corner style', 'Tab', () => this.nextStyle()),
      one('manner', 'At an obstacle: stop, go around, make way', 'J', () => this.change({ manner: this.next(manners, this.state.manner) })), // prettier-ignore
      one('other', 'Go around by the other side', 'Shift J', () => this.change({ other: !this.state.other })),
      one('neck', 'Narrow where only that fits', 'Shift N', () => this.change({ neck: !this.state.neck })),
      one('wider', 'A wider track from here', 'U', () => this.step(1)),
      one('narrower', 'A narrower track from here', 'Shift U', () => this.step(-1)),
      one('finish', 'Show a way to the end', 'Shift Enter', () => void this.complete()),
      one('end', 'End the track here', 'Enter', () => this.finish()),
    ]
  }
  /** The widths of the rules and of the net's tracks, with the one in use. */
  private widthChoice(short: (v: number) => string): Field {
    const { widths, width } = this.state
    const all = [...new Set([...widths, width])].filter((w) => w > 0).sort((a, b) => a - b)
    const options = [{ value: 0, title: 'as the rules' }, ...all.map((w) => ({ value: w, title: short(w) }))]
    return choice('Widths of the rules', width, options, (w) => this.change({ width: w }))
  }
  strip(): Field[] {
    const { ed, state } = this
    void ed.project.docTick.value
    const short = (v: number) => format(v, ed.taste.unit, 2)
    const long = (v: number) => `${format(v, ed.taste.unit, 2)} ${ed.taste.unit}`
    return [
      ...(state.routing ? [words(state.routing, { mono: true, said: `Net: ${state.routing}` })] : []),
      { as: 'length', label: 'Width', value: this.width, keep: (v) => this.change({ width: v }) },
      ...(state.routing && state.widths.length ? [this.widthChoice(short)] : []),
      choice('Corners', state.style, styles, (style) => this.change({ style })),
      ...(state.style === 'round' ? [{ as: 'length', label: 'Radius', value: state.radius, keep: (radius: number) => this.change({ radius }) } as Field] : []), // prettier-ignore
      choice('At obstacles', state.manner, manners, (manner) => this.change({ manner })),
      { as: 'tick', label: 'Narrow', value: state.neck, keep: (neck) => this.change({ neck }) },
      { as: 'tick', label: 'Old way goes', value: state.renew, keep: (renew) => this.change({ renew }) },
      ...(state.routing && ed.copper.length > 2 ? [choice('Hop to', this.hopAsked().hopTo!, ed.copper.filter((l) => l.id !== ed.state.layer).map((l) => ({ value: l.id, title: l.name })), (hopTo) => this.change({ hopTo, hopBy: 0 }))] : []), // prettier-ignore
      ...(state.routing && ed.copper.length > 1 ? [{ as: 'tick', label: 'Ways', value: state.choosing, keep: (choosing) => this.change({ choosing }) } as Field] : []), // prettier-ignore
      ...(state.routing && ed.copper.length > 1 ? [words(`via ${short(this.via.size)} / ${short(this.via.hole)}`, { mono: true, quiet: true, said: 'Via and its hole' })] : []), // prettier-ignore
      ...(state.routing ? [words(state.open ? `${long(state.length)}, ${long(state.open)} to go` : long(state.length), { mono: true, quiet: true })] : []), // prettier-ignore
      ...(state.blocked ? [words(state.blocked, { wrong: true })] : []),
    ]
  }
  hint() {
    if (this.state.shown) return 'click or Enter takes the way that is shown · Esc drops it'
    return this.state.routing
      ? 'click sets a corner · Space hops · Tab corners · U width · J at obstacles · Shift Enter shows the way to the end · Enter ends · Esc steps back'
      : 'click a pad, via or track to begin · Esc ends'
  }

  paint(pen: Pen) {
    paintTrack(this.ed, this, pen)
  }
}
