import RBush from 'rbush'
import type { Box } from './viewport'

/** One mark of a key, where it lies. */
export interface Marked<K, M> extends Box {
  key: K
  mark: M
}

/** The marks of a map whose values are replaced, never changed, found by place. The tree follows the map when it is asked. */
export class Marks<K, V, M> {
  private readonly tree = new RBush<Marked<K, M>>(9)
  private readonly held = new Map<K, { of: V; marks: Marked<K, M>[] }>()
  private seen = NaN

  /** The tick is another number whenever the map changed; read gives the marks of a value with their boxes. */
  constructor(
    private readonly from: ReadonlyMap<K, V>,
    private readonly tick: () => number,
    private readonly read: (v: V, key: K) => [M, Box][],
  ) {}

  within(box: Box): Marked<K, M>[] {
    this.follow()
    return this.tree.search(box)
  }

  private follow() {
    if (this.tick() === this.seen) return
    this.seen = this.tick()
    const [gone, come]: Marked<K, M>[][] = [[], []]
    for (const [key, { of, marks }] of this.held) {
      if (this.from.get(key) === of) continue
      gone.push(...marks)
      this.held.delete(key)
    }
    for (const [key, of] of this.from) {
      if (this.held.has(key)) continue
      const marks = this.read(of, key).map(([mark, b]) => ({ key, mark, minX: b.minX, minY: b.minY, maxX: b.maxX, maxY: b.maxY }))
      this.held.set(key, { of, marks })
      come.push(...marks)
    }
    if (gone.length > 200) {
      this.tree.clear()
      this.tree.load([...this.held.values()].flatMap((h) => h.marks))
      return
    }
    for (const m of gone) this.tree.remove(m)
    if (come.length > 200) this.tree.load(come)
    else for (const m of come) this.tree.insert(m)
  }
}
