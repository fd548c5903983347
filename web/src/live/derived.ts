import { computed, ref, shallowRef } from 'vue'
import { inNaturalOrder, naturally } from './natural'
import { Objects } from './objects'
import type {
  CircuitNet,
  Delta,
  DimensionDrawn,
  Filled,
  Finding,
  Kinds,
  Link,
  LinkChange,
  PartRef,
  SheetUse,
  SheetView,
  Stages,
} from './wire.gen'

/** Severities of findings, the gravest first. */
export const severities = ['fault', 'todo', 'warning', 'note']
/** Where a severity stands among them. */
export const weight = (severity: string) => severities.indexOf(severity)

/** A net's open links after what changed of them. */
function relinked(was: Link[], c: LinkChange): Link[] {
  if (!c.gone && !c.at) return c.come ?? []
  const gone = new Set(c.gone)
  const out = was.filter((_, i) => !gone.has(i))
  c.at?.forEach((at, i) => out.splice(at, 0, c.come![i]))
  return out
}

/** What the core derived from a project's objects: nets, open links, findings, uses of sheets, how far the job is. */
export class Derived extends Objects {
  readonly derivedRev = ref(0)
  /** What follows from the design but is of an earlier revision still, by its name; -1: nothing of it is known yet. */
  readonly behind = shallowRef<Record<string, number>>({})
  /** Whether all that follows from the design is of its revision. */
  readonly current = computed(() => !Object.keys(this.behind.value).length)
  /** Whether something that follows from the design is not known yet at all. */
  unknown(what: string) {
    return this.behind.value[what] === -1
  }
  readonly stages = shallowRef<Stages>({
    circuit: 'none',
    library: 'none',
    board: 'none',
    differences: 0,
    fingerprint: '',
    parts: 0,
    nets: 0,
  })
  /** Uses of sheets, from the top down. */
  readonly places = shallowRef<SheetUse[]>([])
  /** The use of a sheet that is on show, or was last. */
  readonly here = shallowRef<{ sheet: number; path: string }>({ sheet: 0, path: '' })
  readonly derivedTick = ref(0)
  readonly nets = new Map<string, CircuitNet>()
  /** Open links by the id of their net. */
  readonly links = new Map<number, Link[]>()
  readonly findings = new Map<string, Finding>()
  readonly views = new Map<number, SheetView>()
  /** The board's dimensions as they are drawn now. */
  readonly dimensions = new Map<number, DimensionDrawn>()
  /** What copper areas fill, tile by tile. */
  readonly filled = new Map<string, Filled>()
  private netOfItem = new Map<string, string>()
  private netOfPin = new Map<string, string>()
  private derivedListeners = new Set<(d: Delta) => void>()

  readonly findingList = computed(() => {
    void this.derivedTick.value
    return [...this.findings.values()].sort((a, b) => weight(a.severity) - weight(b.severity) || naturally(a.key, b.key))
  })
  /** Findings that nobody excused. */
  readonly openFindings = computed(() => this.findingList.value.filter((f) => !f.excused && f.severity !== 'note'))
  readonly netList = computed(() => {
    void this.derivedTick.value
    return inNaturalOrder(
      [...this.nets.values()].filter((n) => n.pins.length > 0),
      (n) => n.name,
    )
  })

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
  onDerived(f: (d: Delta) => void) {
    this.derivedListeners.add(f)
    return () => this.derivedListeners.delete(f)
  }

  protected derive(d: Delta) {
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
    for (const id of d.lostDimensions ?? []) this.dimensions.delete(id)
    for (const m of d.dimensions ?? []) this.dimensions.set(m.id, m)
    for (const f of d.filled ?? []) {
      const key = `${f.pour} ${f.layer} ${f.x} ${f.y}`
      if (f.lines.length) this.filled.set(key, f)
      else this.filled.delete(key)
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

  protected override clear() {
    super.clear()
    for (const map of [this.nets, this.links, this.findings, this.views, this.filled, this.netOfItem, this.netOfPin]) map.clear()
  }
}
