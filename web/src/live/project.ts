import { computed, ref, shallowRef } from 'vue'
import type {
  AnyObject,
  ObjectChange,
  Commands,
  Delta,
  Drawn,
  Finding,
  HandoffState,
  History,
  Kind,
  Kinds,
  Link,
  LinkChange,
  JobState,
  Message,
  Messages,
  CircuitNet,
  Outcome,
  PartRef,
  Pattern,
  Person,
  Questions,
  SheetUse,
  Request,
  Shared,
  SheetView,
  Stages,
} from './wire.gen'
import { type Table, Tracks, Vias } from './columns'
import { inNaturalOrder, naturally } from './natural'
import { person } from './person'
import { kindNames as kinds } from './wire.gen'

export type Boxed = { kind: Kind; object: AnyObject }
type Listener = (changed: { kind: Kind; id: number }[], whole: boolean, drawn: Drawn[]) => void

/** Whether a sheet's object is of the circuit or beside it: whatever has a sheet's id but is no copper. */
const standing = new Set<Kind>(['part', 'wire', 'label', 'port', 'tap', 'supply', 'openMark', 'block', 'cluster', 'note', 'picture', 'timing', 'shape']) // prettier-ignore

interface Waiting {
  send: string
  edit: boolean
  since: number
  done: (m: Message) => void
  fail: (e: Error) => void
}

/** A question before an act: what it would join or part. */
export interface Asking {
  text: string
  go: () => void
  leave: () => void
}

/** Nothing went wrong: the person chose to leave things as they are. */
export class LeftAlone extends Error {
  constructor() {
    super('')
  }
}

/** What an object is found by beside its id: a rule for everything by its kind, others by their name. */
function nameOf(kind: Kind, o: AnyObject): string {
  if (kind === 'rule') {
    const r = o as Kinds['rule']
    return Object.keys(r.a ?? {}).length + Object.keys(r.b ?? {}).length ? '' : r.kind
  }
  return ['libraryPart', 'symbol', 'footprint', 'net'].includes(kind) ? (o as Kinds['symbol']).name : ''
}

/** A net's open links after what changed of them. */
function relinked(was: Link[], c: LinkChange): Link[] {
  if (!c.gone && !c.at) return c.come ?? []
  const gone = new Set(c.gone)
  const out = was.filter((_, i) => !gone.has(i))
  c.at?.forEach((at, i) => out.splice(at, 0, c.come![i]))
  return out
}

/** How long an answer may take before it is said that there is none, in milliseconds. */
const patience = 2000
/** The most that is sent at once, in characters. */
const largest = 30_000_000

/**
 * The mirror of an open project: the objects as the core has them, and what the core derived
 * from them. It changes only by what the core sends. Vue reads it through the ticks; the
 * canvases listen to the changes themselves.
 */
export class Project {
  readonly name = ref('')
  /** Coming: the stage in view is here, and the rest is on its way. */
  readonly state = ref<'opening' | 'coming' | 'open' | 'lost' | 'gone' | 'broken'>('opening')
  /** Whether everything was here once. */
  readonly whole = ref(false)
  readonly trouble = ref('')
  readonly rev = ref(0)
  readonly derivedRev = ref(0)
  /** What follows from the design but is of an earlier revision still, by its name. */
  readonly behind = shallowRef<Record<string, number>>({})
  readonly history = shallowRef<History>({ undo: '', redo: '', steps: 0, kept: '' })
  readonly stages = shallowRef<Stages>({ circuit: 'none', board: 'none', differences: 0, fingerprint: '', parts: 0, nets: 0 })
  readonly handoff = shallowRef<HandoffState | null>(null)
  /** Long work beside the hand, of anybody in the project. */
  readonly jobs = shallowRef<JobState[]>([])
  /** The net in the light, on every stage. */
  readonly lit = ref('')
  /** The parts picked on any stage, here or in another window of the project. */
  readonly picked = shallowRef<PartRef[]>([])
  /** Uses of sheets, from the top down. */
  readonly places = shallowRef<SheetUse[]>([])
  /** The use of a sheet that is on show, or was last. */
  readonly here = shallowRef<{ sheet: number; path: string }>({ sheet: 0, path: '' })
  readonly docTick = ref(0)
  readonly derivedTick = ref(0)
  readonly lastRefusal = ref('')
  /** What of another person's an edit of one's own replaced. */
  readonly told = ref('')
  /** Edits that are not kept yet, and whether the program has let them wait for long. */
  readonly pending = ref(0)
  readonly silent = ref(false)
  /** What the program asks before it does it: an act would join or part nets. */
  readonly asking = shallowRef<Asking | null>(null)
  /** Who is in the project, oneself first, and what others picked. */
  readonly people = shallowRef<Person[]>([])
  readonly others = shallowRef(new Map<string, Shared>())
  /** What others picked, each with the name they said. */
  readonly othersPicked = computed(() =>
    this.people.value
      .filter((p) => !p.you && this.others.value.has(p.who))
      .map((p) => ({ name: p.name, ...this.others.value.get(p.who)! })),
  )
  /** What could not be read of the project. */
  readonly missing = shallowRef<string[]>([])
  /** Whether the project is shown and cannot be changed from here. */
  readonly looks = ref(false)
  readonly nets = new Map<string, CircuitNet>()
  /** Open links by the id of their net. */
  readonly links = new Map<number, Link[]>()
  readonly findings = new Map<string, Finding>()
  readonly views = new Map<number, SheetView>()
  private netOfItem = new Map<string, string>()
  private sheets = new Map<number, Map<number, Boxed>>()
  private names = new Map<string, AnyObject>()
  private netOfPin = new Map<string, string>()
  /** The board's tracks and vias, which are many. */
  readonly tracks = new Tracks()
  readonly vias = new Vias()
  /** What footprints look like, by their ids. */
  readonly patterns = new Map<number, Pattern>()
  /** How often the objects were handed over whole. */
  handed = 0
  private tables = new Map<Kind, Table<AnyObject>>(kinds.map((k) => [k, k === 'track' ? this.tracks : k === 'via' ? this.vias : new Map()])) // prettier-ignore
  private kindOf = new Map<number, Kind>()
  private listeners = new Set<Listener>()
  private derivedListeners = new Set<(d: Delta) => void>()
  private socket: WebSocket | null = null
  private waiting = new Map<string, Waiting>()
  private watchman = 0
  private tries = 0
  private closed = false
  private counter = 0
  /** The opening of the project that is held, and the last numbered message heard of it. */
  private run = ''
  private seq = 0
  private readonly stem = Math.random().toString(36).slice(2, 10) + Date.now().toString(36)

  readonly findingList = computed(() => {
    void this.derivedTick.value
    const rank = { fault: 0, warning: 1, todo: 2 } as Record<string, number>
    return [...this.findings.values()].sort((a, b) => rank[a.severity] - rank[b.severity] || naturally(a.key, b.key))
  })
  /** Findings that nobody excused. */
  readonly openFindings = computed(() => this.findingList.value.filter((f) => !f.excused))
  readonly netList = computed(() => {
    void this.derivedTick.value
    return inNaturalOrder(
      [...this.nets.values()].filter((n) => n.pins.length > 0),
      (n) => n.name,
    )
  })
  readonly handoffCurrent = computed(
    () => !!this.handoff.value && this.handoff.value.fingerprint === this.stages.value.fingerprint,
  )

  constructor(
    readonly id: number,
    private readonly asShown = false,
    /** The stage in view, whose objects are to come first. */
    private readonly stage = '',
  ) {
    this.connect()
    this.watchman = window.setInterval(() => this.watch(), 250)
    window.addEventListener('beforeunload', this.leaving)
  }

  all<K extends Kind>(kind: K): Kinds[K][] {
    return [...this.tables.get(kind)!.values()] as Kinds[K][]
  }
  get<K extends Kind>(kind: K, id: number): Kinds[K] | undefined {
    return this.tables.get(kind)!.get(id) as Kinds[K] | undefined
  }
  find(id: number): Boxed | undefined {
    const kind = this.kind(id)
    return kind && { kind, object: this.tables.get(kind)!.get(id)! }
  }
  kind(id: number): Kind | undefined {
    return this.kindOf.get(id) ?? (this.tracks.has(id) ? 'track' : this.vias.has(id) ? 'via' : undefined)
  }
  /** What the footprint of the name looks like. */
  pattern(footprint: string): Pattern | undefined {
    const f = this.named('footprint', footprint)
    return f && this.patterns.get(f.id)
  }
  /** Whether what the stage is drawn from is here. */
  has(stage: string) {
    return this.whole.value || (stage === 'board' && this.stage === stage && this.state.value !== 'opening')
  }
  get settings() {
    return this.all('settings')[0]
  }
  get board() {
    return this.all('board')[0]
  }
  symbolOf(library: string, unit = 0): Kinds['symbol'] | undefined {
    const part = this.named('libraryPart', library)
    return part && this.named('symbol', (unit && part.units?.[unit - 1]) || part.symbol)
  }
  named<K extends 'libraryPart' | 'symbol' | 'footprint' | 'net'>(kind: K, name: string): Kinds[K] | undefined {
    return this.names.get(`${kind} ${name}`) as Kinds[K] | undefined
  }
  /** The name of a net of the board; of none, nothing. */
  netName(id: number | undefined) {
    return (id && this.get('net', id)?.name) || ''
  }
  /** What the rule of a kind asks for that holds for everything, in nanometres. */
  rule(kind: string): number {
    return (this.names.get(`rule ${kind}`) as Kinds['rule'] | undefined)?.value.fixed ?? 0
  }
  /** What stands on a sheet. */
  *standing(sheet: number): Generator<Boxed> {
    yield* this.sheets.get(sheet)?.values() ?? []
  }
  /** The net of a wire, label or mark in the use of its sheet that is on show. */
  netOf(item: number, path = this.here.value.path) {
    return this.netOfItem.get(`${path}|${item}`)
  }
  netAtPin(part: number, pin: string, path = this.here.value.path) {
    return this.netOfPin.get(`${path}|${part}.${pin}`)
  }
  /** A part's designator in a use of its sheet, with the letter of its unit. */
  called(p: Kinds['part'], path = this.here.value.path) {
    return (p.others?.[path] ?? p.designator) + (p.unit ? String.fromCharCode(64 + p.unit) : '')
  }
  /** The parts that stand on a sheet, in all its uses. */
  partsOn(sheet: number): PartRef[] {
    return this.all('part').filter((p) => p.sheet === sheet).flatMap((p) => this.usesOf(sheet).map((u) => ({ part: p.id, ...(u.path ? { path: u.path } : {}) }))) // prettier-ignore
  }
  /** The parts inside a cluster. */
  partsWithin(c: Kinds['cluster']): PartRef[] {
    const on = (v: number, a: number, b: number) => v >= Math.min(a, b) && v <= Math.max(a, b)
    return this.partsOn(c.sheet).filter((r) => {
      const p = this.get('part', r.part)!
      return on(p.at.x, c.a.x, c.b.x) && on(p.at.y, c.a.y, c.b.y)
    })
  }
  /** The uses of a sheet. */
  usesOf(sheet: number) {
    return this.places.value.filter((p) => p.sheet === sheet)
  }
  /** Picks parts on all stages and in all windows. */
  pick(parts: PartRef[]) {
    this.picked.value = parts
    this.tellOthers()
  }
  private tellOthers() {
    if (this.state.value === 'open') void this.ask({ t: 'share', shared: { parts: this.picked.value, net: this.lit.value } }, false).catch(() => undefined) // prettier-ignore
  }
  light(net: string) {
    if (this.lit.value === net) return
    this.lit.value = net
    this.tellOthers()
  }
  private takeShared(s: Shared) {
    this.picked.value = s.parts ?? []
    this.lit.value = s.net
  }

  onChange(f: Listener) {
    this.listeners.add(f)
    return () => this.listeners.delete(f)
  }
  onDerived(f: (d: Delta) => void) {
    this.derivedListeners.add(f)
    return () => this.derivedListeners.delete(f)
  }

  /**
   * Asks the core for a change; resolves when it is kept on the disk. What it would join or part
   * is asked about first, unless the person was told already: that is what agreed says.
   */
  edit<K extends keyof Commands>(kind: K, fields: Commands[K], agreed?: Outcome): Promise<Message> {
    const cmd = { kind, v: 1, ...fields }
    return this.ask({ t: 'edit', cmd, rev: this.rev.value, ...(agreed ? { agreed } : {}) }, true).then((m) => {
      if (m.t !== 'asks') {
        if (m.t === 'done' && m.over) this.told.value = m.over
        return m
      }
      return new Promise<Message>((done, fail) => {
        const outcome = m.outcome
        this.asking.value?.leave()
        this.asking.value = {
          text: m.why,
          go: () => ((this.asking.value = null), this.edit(kind, fields, outcome).then(done, fail)),
          leave: () => ((this.asking.value = null), fail(new LeftAlone())),
        }
      })
    })
  }
  /** What the question is made of that asks what an edit would do, without doing it. */
  foresee<K extends keyof Commands>(kind: K, fields: Commands[K], path = this.here.value.path) {
    return { cmd: { kind, v: 1, ...fields }, path }
  }
  /** Says who works here. */
  introduce(name: string) {
    person.name = name.trim().slice(0, 40)
    return this.ask({ t: 'person', text: person.name }, false)
  }
  undo() {
    return this.ask({ t: 'undo' }, true)
  }
  redo() {
    return this.ask({ t: 'redo' }, true)
  }
  /** Asks something that changes nothing. */
  question<K extends keyof Questions>(kind: K, fields: Questions[K]['asks']): Promise<Questions[K]['answers']> {
    return this.ask({ t: 'ask', question: { kind, ...fields } }, false).then((m) => (m as Messages['answer']).answer as Questions[K]['answers']) // prettier-ignore
  }
  /** Has the whole board checked anew. */
  checkAll() {
    return this.ask({ t: 'check' }, false)
  }
  /** Says that the stage in view is shown: the program may go on with what follows from it. */
  shown() {
    if (this.state.value === 'coming') this.socket?.send(JSON.stringify({ t: 'shown', ref: '' }))
  }
  /** Stops long work. */
  stop(job: string) {
    return this.ask({ t: 'stop', job }, false)
  }
  /** How far the long work of a kind is, 0 to 1; nothing, when none runs. */
  shareOf(kind: string): number | null {
    return this.jobs.value.find((j) => j.kind === kind)?.share ?? null
  }

  /** Whether the program hears what is sent. */
  private get reached() {
    return this.state.value === 'open' || this.state.value === 'coming'
  }
  private ask(r: Partial<Request>, edit: boolean): Promise<Message> {
    const ref = `${this.stem}-${++this.counter}`
    const send = JSON.stringify({ ...r, ref })
    return new Promise((done, fail) => {
      if (!this.reached && !(edit && this.state.value === 'lost')) {
        fail(new Error('There is no connection to the program just now, so nothing was changed.'))
        return
      }
      if (send.length > largest) {
        fail(
          new Error(
            `This is too large to be sent at once: ${Math.round(send.length / 1e6)} MB; ${largest / 1e6} MB is the most.`,
          ),
        )
        return
      }
      this.waiting.set(ref, { send, edit, since: performance.now(), done, fail })
      this.count()
      if (this.state.value === 'open' || (this.reached && !edit)) this.socket!.send(send) // else when all is here
    })
  }

  private count() {
    this.pending.value = [...this.waiting.values()].filter((w) => w.edit).length
    if (!this.pending.value) this.silent.value = false
  }
  /** Notices when the program does not answer. */
  private watch() {
    const now = performance.now()
    this.silent.value = this.state.value === 'open' && [...this.waiting.values()].some((w) => now - w.since > patience)
  }
  private leaving = (e: BeforeUnloadEvent) => {
    if (this.pending.value) e.preventDefault()
  }

  private connect() {
    const proto = location.protocol === 'https:' ? 'wss' : 'ws'
    const s = new WebSocket(
      `${proto}://${location.host}/api/projects/${this.id}/live?who=${person.id}&name=${encodeURIComponent(person.name)}&stage=${this.stage}${this.asShown ? '&look=1' : ''}${this.run ? `&run=${this.run}&seq=${this.seq}` : ''}`,
    )
    this.socket = s
    s.onmessage = (e) => this.receive(JSON.parse(e.data as string) as Message)
    s.onclose = () => {
      if (this.closed || this.state.value === 'gone' || this.state.value === 'broken') return
      if (this.reached) this.state.value = 'lost'
      for (const [ref, w] of this.waiting)
        if (!w.edit) {
          this.waiting.delete(ref)
          w.fail(new Error('The connection was lost.'))
        }
      this.tries++
      setTimeout(() => !this.closed && this.probe(), Math.min(3000, 150 * 2 ** Math.min(this.tries, 5)))
    }
  }

  /** Before a new try, finds out whether the project is still there. */
  private async probe() {
    try {
      const list = (await (await fetch('/api/projects')).json()) as { id: number }[]
      if (!list.some((p) => p.id === this.id)) {
        this.state.value = 'gone'
        return
      }
    } catch {
      // the program is not back yet
    }
    if (!this.closed) this.connect()
  }

  close() {
    this.closed = true
    clearInterval(this.watchman)
    window.removeEventListener('beforeunload', this.leaving)
    this.socket?.close()
  }

  private receive(m: Message) {
    if ('seq' in m && m.seq) this.seq = m.seq
    switch (m.t) {
      case 'open':
        this.begun = [m]
        if (this.state.value === 'opening') this.unpack()
        break
      case 'more':
        this.begun.push(m)
        if (this.state.value === 'coming') this.unpack()
        break
      case 'ready':
        this.ready(m)
        break
      case 'again':
        this.history.value = m.history!
        this.jobs.value = m.jobs ?? []
        this.others.value = new Map()
        this.greet(m.people)
        this.goOn()
        break
      case 'changes':
        for (const p of m.patterns ?? []) this.patterns.set(p.footprint, p)
        this.apply(m.changes, m.drawn ?? [])
        this.rev.value = m.rev
        break
      case 'history':
        this.history.value = m.history!
        break
      case 'people':
        this.greet(m.people)
        break
      case 'broken':
        this.trouble.value = m.why
        this.state.value = 'broken'
        break
      case 'derived':
        this.derive(m.derived!)
        break
      case 'name':
        this.name.value = m.name
        break
      case 'handoff':
        this.handoff.value = m.handoff
        break
      case 'job':
        this.jobs.value = [...this.jobs.value.filter((j) => j.id !== m.job.id), ...(m.job.ended ? [] : [m.job])]
        if (m.job.why) this.lastRefusal.value = m.job.why
        break
      case 'shared':
        if (m.who) this.others.value = new Map(this.others.value).set(m.who, m.shared!)
        else this.takeShared(m.shared!)
        break
      case 'gone':
        this.state.value = 'gone'
        break
      default: {
        const w = this.waiting.get(m.ref)
        this.waiting.delete(m.ref)
        this.count()
        if (m.t === 'refused') {
          this.lastRefusal.value = m.why
          w?.fail(new Error(m.why))
        } else w?.done(m)
      }
    }
  }

  /** Parcels that came and are not unpacked yet. */
  private begun: (Messages['open'] | Messages['more'])[] = []

  /** Takes in the parcels that came. */
  private unpack() {
    for (const m of this.begun) {
      if ('rev' in m) this.emptied(m)
      if (m.copper) {
        this.tracks.take(m.copper.tracks)
        this.vias.take(m.copper.vias)
      }
      for (const p of m.patterns ?? []) this.patterns.set(p.footprint, p)
      for (const b of m.objects ?? []) this.put(b.kind, b.object!)
    }
    this.begun = []
    this.docTick.value++
  }

  /** Everything is handed over anew. */
  private emptied(m: Messages['open']) {
    for (const t of this.tables.values()) t.clear()
    this.kindOf.clear()
    this.sheets.clear()
    this.names.clear()
    this.patterns.clear()
    for (const map of [this.nets, this.links, this.findings, this.views, this.netOfItem, this.netOfPin]) map.clear()
    this.handed++
    this.name.value = m.name
    this.rev.value = m.rev
    this.missing.value = m.missing ?? []
    this.looks.value = !!m.looks
    if (this.state.value === 'opening') this.state.value = 'coming'
  }

  /** All is here, and what follows from it. */
  private ready(m: Messages['ready']) {
    this.unpack()
    this.history.value = m.history!
    this.handoff.value = m.handoff ?? null
    this.jobs.value = m.jobs ?? []
    this.others.value = new Map()
    this.greet(m.people ?? [])
    this.run = m.run
    this.seq = m.seq
    this.state.value = 'open'
    this.whole.value = true
    this.derive(m.derived!)
    this.listeners.forEach((f) => f([], true, []))
    this.goOn()
  }

  /** The connection is there: what was asked before it broke, or while it was, is sent. */
  private goOn() {
    this.tries = 0
    this.state.value = 'open'
    for (const w of this.waiting.values())
      if (w.edit) {
        w.since = performance.now()
        this.socket!.send(w.send)
      }
  }

  private greet(people: Person[]) {
    this.people.value = people
    const here = new Set(people.map((p) => p.who))
    this.others.value = new Map([...this.others.value].filter(([who]) => here.has(who)))
  }

  private put(kind: Kind, o: AnyObject) {
    this.drop(kind, o.id)
    if (kind === 'footprint') for (const list of ['pads', 'silk', 'body', 'courtyard'] as const) (o as Kinds['footprint'])[list] ??= [] // prettier-ignore
    this.tables.get(kind)!.set(o.id, o)
    if (kind !== 'track' && kind !== 'via') this.kindOf.set(o.id, kind)
    if (standing.has(kind)) {
      const sheet = (o as { sheet: number }).sheet
      if (!this.sheets.has(sheet)) this.sheets.set(sheet, new Map())
      this.sheets.get(sheet)!.set(o.id, { kind, object: o })
    }
    const name = nameOf(kind, o)
    if (name) this.names.set(`${kind} ${name}`, o)
  }

  private drop(kind: Kind, id: number) {
    const old = this.tables.get(kind)!.get(id)
    if (!old) return
    const name = `${kind} ${nameOf(kind, old)}`
    if (kind === 'net' && this.names.get(name) === old) this.names.delete(name)
    this.tables.get(kind)!.delete(id)
    this.kindOf.delete(id)
    if (standing.has(kind)) this.sheets.get((old as { sheet: number }).sheet)?.delete(id)
  }

  private apply(changes: ObjectChange[], drawn: Drawn[]) {
    for (const c of changes) {
      if (c.after) this.put(c.kind, c.after)
      else this.drop(c.kind, c.id)
    }
    this.docTick.value++
    this.listeners.forEach((f) => f(changes, false, drawn))
  }

  private derive(d: Delta) {
    for (const n of d.lostNets ?? []) this.dropNet(n)
    for (const n of d.nets ?? []) {
      this.dropNet(n.name)
      n.pins ??= []
      n.uses ??= []
      this.nets.set(n.name, n)
    }
    for (const n of d.nets ?? []) {
      for (const u of n.uses) for (const i of u.items ?? []) this.netOfItem.set(`${u.path ?? ''}|${i}`, n.name)
      for (const p of n.pins) this.netOfPin.set(`${p.path ?? ''}|${p.part}.${p.pin}`, n.name)
    }
    for (const r of d.redrawn ?? []) this.redraw(r.net, r.uses ?? [])
    for (const [net, c] of Object.entries(d.links ?? {})) {
      const links = relinked(this.links.get(Number(net)) ?? [], c)
      if (links.length) this.links.set(Number(net), links)
      else this.links.delete(Number(net))
    }
    for (const k of d.mended ?? []) this.findings.delete(k)
    for (const f of d.findings ?? []) this.findings.set(f.key, f)
    for (const v of d.sheets ?? []) {
      const { junctions, bundleJunctions, loose, bundles, unmatched } = v
      this.views.set(v.sheet, { sheet: v.sheet, junctions: junctions ?? [], bundleJunctions: bundleJunctions ?? [], loose: loose ?? [], bundles: bundles ?? [], unmatched: unmatched ?? [] }) // prettier-ignore
    }
    if (d.places?.length) this.places.value = d.places
    this.stages.value = d.stages
    this.derivedRev.value = d.rev
    this.behind.value = d.behind ?? {}
    this.derivedTick.value++
    this.derivedListeners.forEach((f) => f(d))
  }

  /** A net that joins what it joined, with other wires in some uses of sheets. */
  private redraw(name: string, uses: CircuitNet['uses']) {
    const old = this.nets.get(name)
    if (!old) return
    const key = (u: CircuitNet['uses'][number]) => `${u.path ?? ''}#${u.sheet}`
    const changed = new Map(uses.map((u) => [key(u), u]))
    for (const u of old.uses.filter((x) => changed.has(key(x))))
      for (const i of u.items ?? []) if (this.netOfItem.get(`${u.path ?? ''}|${i}`) === name) this.netOfItem.delete(`${u.path ?? ''}|${i}`) // prettier-ignore
    const kept = old.uses.filter((x) => !changed.has(key(x)))
    const now = uses.filter((u) => u.items?.length)
    for (const u of now) for (const i of u.items ?? []) this.netOfItem.set(`${u.path ?? ''}|${i}`, name)
    this.nets.set(name, { ...old, uses: [...kept, ...now] })
  }

  private dropNet(name: string) {
    const old = this.nets.get(name)
    if (!old) return
    for (const u of old.uses)
      for (const i of u.items ?? []) {
        const key = `${u.path ?? ''}|${i}`
        if (this.netOfItem.get(key) === name) this.netOfItem.delete(key)
      }
    for (const p of old.pins) {
      const key = `${p.path ?? ''}|${p.part}.${p.pin}`
      if (this.netOfPin.get(key) === name) this.netOfPin.delete(key)
    }
    this.nets.delete(name)
  }
}
