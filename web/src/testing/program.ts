import { vi } from 'vitest'
import type { Boxed, Messages } from '../live/wire.gen'

type Sent = Record<string, unknown> & { t: string; ref: string }
type Tell = { [T in keyof Messages]: { t: T } & Partial<Messages[T]> }[keyof Messages]

/** The other end of a connection, held by a test: it keeps what the browser sent and answers when told to. */
export class Line {
  static all: Line[] = []
  static get last() {
    return Line.all[Line.all.length - 1]
  }
  onmessage: (e: { data: string }) => void = () => undefined
  onclose: () => void = () => undefined
  readonly sent: Sent[] = []
  closed = false
  constructor(readonly url: string) {
    Line.all.push(this)
  }
  send(s: string) {
    this.sent.push(JSON.parse(s) as Sent)
  }
  close() {
    this.closed = true
    this.onclose()
  }
  /** Tells the browser something. */
  tell(m: Tell) {
    this.onmessage({ data: JSON.stringify(m) })
  }
  /** What was sent of a kind, the last of it. */
  lastOf(t: string): Sent {
    const found = this.sent.filter((s) => s.t === t).pop()
    if (!found) throw new Error(`nothing of the kind ${t} was sent, only ${this.sent.map((s) => s.t).join(', ')}`)
    return found
  }
  /** Answers the last request of a kind. */
  answer(t: string, m: Tell) {
    this.tell({ ...m, ref: this.lastOf(t).ref } as Tell)
  }
  /** The last question of a kind. */
  asked(kind: string): Record<string, unknown> {
    return this.questionOf(kind).question as Record<string, unknown>
  }
  /** Answers it. */
  say(kind: string, answer: unknown) {
    this.tell({ t: 'answer', ref: this.questionOf(kind).ref, answer })
  }
  private questionOf(kind: string): Sent {
    const found = this.sent.filter((s) => s.t === 'ask' && (s.question as { kind: string }).kind === kind).pop()
    if (!found) throw new Error(`nothing was asked of the kind ${kind}`)
    return found
  }
}

/** Gives the browser's surroundings to what is tested; listens are the window's own events. */
export function surroundings() {
  Line.all = []
  const listens = new Map<string, (e: unknown) => void>()
  const store = new Map<string, string>()
  vi.stubGlobal('WebSocket', Line)
  vi.stubGlobal('location', { protocol: 'http:', host: 'here.test' })
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => void store.set(k, v),
  })
  vi.stubGlobal('window', {
    setInterval: (f: () => void, ms: number) => setInterval(f, ms),
    addEventListener: (k: string, f: (e: unknown) => void) => void listens.set(k, f),
    removeEventListener: (k: string) => void listens.delete(k),
  })
  return { listens, store }
}

export const nothingDerived = {
  rev: 1,
  sheets: [],
  places: [],
  nets: [],
  lostNets: [],
  redrawn: [],
  links: {},
  findings: [],
  mended: [],
  stages: { circuit: 'begun', library: 'none', board: 'none', differences: 0, fingerprint: 'f', parts: 0, nets: 0 },
}
export const noHistory = { undo: '', redo: '', steps: 0, kept: '' }

/** Hands a project over on the line. */
export function handOver(
  line: Line,
  objects: Boxed[],
  more: Partial<Messages['open']> = {},
  ready: Partial<Messages['ready']> = {},
) {
  line.tell({ t: 'open', name: 'Weir Gauge', rev: 1, objects, ...more })
  line.tell({ t: 'ready', people: [], run: 'R', seq: 0, derived: nothingDerived, history: noHistory, ...ready })
}

/** Lets promises that are answered run on. */
export const settle = async () => {
  for (let i = 0; i < 8; i++) await Promise.resolve()
}
