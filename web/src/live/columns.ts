import type { Copper, Kinds } from './wire.gen'

/** Where the objects of one kind stand, by their ids. */
export interface Table<T> {
  readonly size: number
  get(id: number): T | undefined
  set(id: number, o: T): unknown
  delete(id: number): unknown
  values(): Iterable<T>
  clear(): void
}

/** A column as it travels: base64 of 32-bit whole numbers, the lowest byte first. */
export function numbers(text: string | undefined): Int32Array {
  if (!text) return new Int32Array(0)
  const raw = atob(text)
  const bytes = new Uint8Array(raw.length)
  for (let i = 0; i < raw.length; i++) bytes[i] = raw.charCodeAt(i)
  return new Int32Array(bytes.buffer)
}

/** The place of a number in a rising column, or −1. */
export function find(column: Int32Array, n: number): number {
  let [lo, hi] = [0, column.length - 1]
  while (lo <= hi) {
    const mid = (lo + hi) >> 1
    if (column[mid] === n) return mid
    if (column[mid] < n) lo = mid + 1
    else hi = mid - 1
  }
  return -1
}

/**
 * Many objects of one kind, held as the columns they came in; an object is made of its row when somebody asks for
 * it. What changed since stands beside the columns.
 */
abstract class Columns<T extends { id: number }> implements Table<T> {
  id: Int32Array = new Int32Array(0)
  private gone = new Uint8Array(0)
  private left = 0
  private readonly later = new Map<number, T>()

  protected abstract at(row: number): T

  /** Begins with these rows, whose ids rise. */
  protected begin(id: Int32Array) {
    this.id = id
    this.gone = new Uint8Array(id.length)
    this.left = id.length
    this.later.clear()
  }
  clear() {
    this.begin(new Int32Array(0))
  }
  get size() {
    return this.left + this.later.size
  }
  private row(id: number) {
    const row = find(this.id, id)
    return row >= 0 && !this.gone[row] ? row : -1
  }
  get(id: number): T | undefined {
    const later = this.later.get(id)
    if (later) return later
    const row = this.row(id)
    return row < 0 ? undefined : this.at(row)
  }
  has(id: number) {
    return this.later.has(id) || this.row(id) >= 0
  }
  set(id: number, o: T) {
    this.delete(id)
    this.later.set(id, o)
  }
  delete(id: number) {
    this.later.delete(id)
    const row = this.row(id)
    if (row < 0) return
    this.gone[row] = 1
    this.left--
  }
  *values(): Generator<T> {
    for (let row = 0; row < this.id.length; row++) if (!this.gone[row]) yield this.at(row)
    yield* this.later.values()
  }
  /** Objects that stand beside the columns. */
  beside(): Iterable<T> {
    return this.later.values()
  }
  /** Whether a row still is what it was. */
  holds(row: number) {
    return !this.gone[row]
  }
}

/** The tracks of a board. */
export class Tracks extends Columns<Kinds['track']> {
  layer = this.id
  net = this.id
  width = this.id
  ax = this.id
  ay = this.id
  bx = this.id
  by = this.id
  bent = this.id
  mx = this.id
  my = this.id
  private locked = this.id

  take(c: Copper['tracks']) {
    this.begin(numbers(c.id))
    this.layer = numbers(c.layer)
    this.net = numbers(c.net)
    this.width = numbers(c.width)
    this.ax = numbers(c.ax)
    this.ay = numbers(c.ay)
    this.bx = numbers(c.bx)
    this.by = numbers(c.by)
    this.bent = numbers(c.bent)
    this.mx = numbers(c.mx)
    this.my = numbers(c.my)
    this.locked = numbers(c.locked)
  }
  /** The place an arc goes through; nothing: the row is straight. */
  mid(row: number) {
    const i = this.bent.length ? find(this.bent, row) : -1
    return i < 0 ? undefined : { x: this.mx[i], y: this.my[i] }
  }
  protected at(row: number): Kinds['track'] {
    const o: Kinds['track'] = {
      id: this.id[row],
      layer: this.layer[row],
      a: { x: this.ax[row], y: this.ay[row] },
      b: { x: this.bx[row], y: this.by[row] },
      width: this.width[row],
    }
    const mid = this.mid(row)
    if (mid) o.mid = mid
    if (this.net[row]) o.net = this.net[row]
    if (find(this.locked, row) >= 0) o.locked = true
    return o
  }
}

/** The vias of a board. */
export class Vias extends Columns<Kinds['via']> {
  net = this.id
  x = this.id
  y = this.id
  diameter = this.id
  hole = this.id
  from = this.id
  to = this.id
  private locked = this.id

  take(c: Copper['vias']) {
    this.begin(numbers(c.id))
    this.net = numbers(c.net)
    this.x = numbers(c.x)
    this.y = numbers(c.y)
    this.diameter = numbers(c.diameter)
    this.hole = numbers(c.hole)
    this.from = numbers(c.from)
    this.to = numbers(c.to)
    this.locked = numbers(c.locked)
  }
  protected at(row: number): Kinds['via'] {
    const o: Kinds['via'] = {
      id: this.id[row],
      at: { x: this.x[row], y: this.y[row] },
      diameter: this.diameter[row],
      hole: this.hole[row],
      from: this.from[row],
      to: this.to[row],
    }
    if (this.net[row]) o.net = this.net[row]
    if (find(this.locked, row) >= 0) o.locked = true
    return o
  }
}
