import { computed, ref, shallowRef } from 'vue'
import type {
  ObjectChange,
  Commands,
  Drawn,
  HandoffState,
  History,
  Kind,
  JobState,
  Message,
  Messages,
  Outcome,
  PartRef,
  Person,
  Questions,
  Request,
  Shared,
} from './wire.gen'
import { Derived } from './derived'
import { NotDone } from './notDone'
import { person } from './person'

type Listener = (changed: { kind: Kind; id: number }[], whole: boolean, drawn: Drawn[]) => void

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

/** How long an answer may take before it is said that there is none, in milliseconds. */
const patience = 2000
/** The most that is sent at once, in characters. */
const largest = 30_000_000

/**
 * The mirror of an open project: the objects as the core has them, and what the core derived
 * from them. It changes only by what the core sends. Vue reads it through the ticks; the
 * canvases listen to the changes themselves.
 */
export class Project extends Derived {
  readonly name = ref('')
  /** Coming: the stage in view is here, and the rest is on its way. */
  readonly state = ref<'opening' | 'coming' | 'open' | 'lost' | 'gone' | 'broken'>('opening')
  /** Whether everything was here once. */
  readonly whole = ref(false)
  readonly trouble = ref('')
  readonly rev = ref(0)
  readonly history = shallowRef<History>({ undo: '', redo: '', steps: 0, kept: '' })
  readonly handoff = shallowRef<HandoffState | null>(null)
  /** Long work beside the hand, of anybody in the project. */
  readonly jobs = shallowRef<JobState[]>([])
  /** The net in the light, on every stage. */
  readonly lit = ref('')
  /** The parts picked on any stage, here or in another window of the project. */
  readonly picked = shallowRef<PartRef[]>([])
  readonly lastRefusal = ref('')
  /** What of another person's an edit of one's own replaced. */
  readonly told = shallowRef<{ text: string; bad: boolean } | null>(null)
  /** How many of one's own acts were done. */
  readonly succeeded = ref(0)
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
  /** Whether the stage in view has been shown. */
  readonly seen = ref(false)
  /** How often the objects were handed over whole. */
  handed = 0
  private listeners = new Set<Listener>()
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

  readonly handoffCurrent = computed(
    () => !!this.handoff.value && this.handoff.value.fingerprint === this.stages.value.fingerprint,
  )

  constructor(
    readonly id: number,
    private readonly asShown = false,
    /** The stage in view, whose objects are to come first. */
    private readonly stage = '',
  ) {
    super()
    this.connect()
    this.watchman = window.setInterval(() => this.watch(), 250)
    window.addEventListener('beforeunload', this.leaving)
  }

  /** Whether what the stage is drawn from is here. */
  has(stage: string) {
    return this.whole.value || (stage === 'board' && this.stage === stage && this.state.value !== 'opening')
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
  /**
   * Asks the core for a change; resolves when it is kept on the disk. What it would join or part
   * is asked about first, unless the person was told already: that is what agreed says.
   */
  edit<K extends keyof Commands>(kind: K, fields: Commands[K], agreed?: Outcome): Promise<Message> {
    const cmd = { kind, v: 1, ...fields }
    return this.ask({ t: 'edit', cmd, rev: this.rev.value, ...(agreed ? { agreed } : {}) }, true).then((m) => {
      if (m.t !== 'asks') {
        if (m.t === 'done' && (m.over || m.said)) this.told.value = { text: m.over || m.said!, bad: !!m.over || !!m.lost }
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
    return this.step('undo')
  }
  redo() {
    return this.step('redo')
  }
  /** Takes a step back, or does it again; tells what that was. */
  private step(t: 'undo' | 'redo') {
    return this.ask({ t }, true).then((m) => (m.t === 'done' ? m.took : undefined))
  }
  /** Whether a thing of the circuit stands on the sheet that is in view. */
  onSheet(id: number) {
    return (this.find(id)?.object as { sheet?: number } | undefined)?.sheet === this.here.value.sheet
  }
  /** Asks something that changes nothing. */
  question<K extends keyof Questions>(kind: K, fields: Questions[K]['asks']): Promise<Questions[K]['answers']> {
    return this.ask({ t: 'ask', question: { kind, ...fields } }, false).then((m) => (m as Messages['answer']).answer as Questions[K]['answers']) // prettier-ignore
  }
  /** Has the whole board checked anew. */
  checkAll() {
    return this.ask({ t: 'check' }, false)
  }
  /** Says that the stage in view is shown: the program may go on with what follows from it, and the page with what stands beside the drawing. */
  shown() {
    this.seen.value = true
    if (this.state.value === 'coming') this.socket?.send(JSON.stringify({ t: 'shown', ref: '' }))
  }
  /** Stops long work. */
  stop(job: string) {
    return this.ask({ t: 'giveUp', job }, false)
  }
  /** How far the long work of a kind is, 0 to 1; nothing, when none runs. */
  shareOf(kind: string): number | null {
    return this.jobs.value.find((j) => j.kind === kind)?.share ?? null
  }

  /** Whether the project was seen in this window. */
  get was() {
    return this.run !== ''
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
    const works = this.jobs.value.some((j) => j.kind === 'search' || j.kind === 'act') // and is seen to
    this.silent.value = this.state.value === 'open' && !works && [...this.waiting.values()].some((w) => now - w.since > patience)
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
        this.looksOf(m)
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
          w?.fail(new NotDone(m.why))
          return
        }
        if (m.t === 'done') this.succeeded.value++
        w?.done(m)
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
      this.looksOf(m)
      for (const b of m.objects ?? []) this.put(b.kind, b.object!)
    }
    this.begun = []
    this.docTick.value++
  }

  /** Everything is handed over anew. */
  private emptied(m: Messages['open']) {
    this.clear()
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

  private apply(changes: ObjectChange[], drawn: Drawn[]) {
    for (const c of changes) {
      if (c.after) this.put(c.kind, c.after)
      else this.drop(c.kind, c.id)
    }
    this.docTick.value++
    this.listeners.forEach((f) => f(changes, false, drawn))
  }
}
