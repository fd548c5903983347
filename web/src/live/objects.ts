import { ref } from 'vue'
import { type Table, Tracks, Vias } from './columns'
import type { AnyObject, Kind, Kinds, Lettered, Pattern, Point } from './wire.gen'
import { kindNames as kinds } from './wire.gen'

export type Boxed = { kind: Kind; object: AnyObject }

/** Whether a sheet's object is of the circuit or beside it: whatever has a sheet's id but is no copper. */
const standing = new Set<Kind>(['part', 'wire', 'label', 'port', 'tap', 'supply', 'openMark', 'block', 'cluster', 'note', 'picture', 'timing', 'shape']) // prettier-ignore

/** What an object is found by beside its id: a rule for everything by its kind, others by their name. */
function nameOf(kind: Kind, o: AnyObject): string {
  if (kind === 'rule') {
    const r = o as Kinds['rule']
    return Object.keys(r.a ?? {}).length + Object.keys(r.b ?? {}).length ? '' : r.kind
  }
  return ['libraryPart', 'symbol', 'footprint', 'net'].includes(kind) ? (o as Kinds['symbol']).name : ''
}

/** The objects of a project as the core has them, found by their kind, id, name and sheet. */
export class Objects {
  /** Counts on with each change, for what Vue shows. */
  readonly docTick = ref(0)
  /** The board's tracks and vias, which are many. */
  readonly tracks = new Tracks()
  readonly vias = new Vias()
  /** What footprints look like, by their ids. */
  readonly patterns = new Map<number, Pattern>()
  /** The outlines of texts of the board in outline fonts, around their middles. */
  readonly texts = new Map<number, Point[][]>()
  private sheets = new Map<number, Map<number, Boxed>>()
  private names = new Map<string, AnyObject>()
  private tables = new Map<Kind, Table<AnyObject>>(kinds.map((k) => [k, k === 'track' ? this.tracks : k === 'via' ? this.vias : new Map()])) // prettier-ignore
  private kindOf = new Map<number, Kind>()

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

  protected put(kind: Kind, o: AnyObject) {
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

  protected drop(kind: Kind, id: number) {
    const old = this.tables.get(kind)!.get(id)
    if (!old) return
    const name = `${kind} ${nameOf(kind, old)}`
    if (kind === 'net' && this.names.get(name) === old) this.names.delete(name)
    this.tables.get(kind)!.delete(id)
    this.kindOf.delete(id)
    if (standing.has(kind)) this.sheets.get((old as { sheet: number }).sheet)?.delete(id)
  }

  /** What comes with objects: what footprints and texts look like. */
  protected looksOf(m: { patterns?: Pattern[]; texts?: Lettered[] }) {
    for (const p of m.patterns ?? []) this.patterns.set(p.footprint, p)
    for (const t of m.texts ?? []) this.texts.set(t.id, t.rings)
  }

  protected clear() {
    for (const t of this.tables.values()) t.clear()
    for (const map of [this.kindOf, this.sheets, this.names, this.patterns, this.texts]) map.clear()
  }
}
