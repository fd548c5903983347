import type { Kinds } from '../live/wire.gen'

type House = Kinds['house']
type HouseClass = House['classes'][number]

/** A house with one of its classes as f makes it. */
export const withClass = (h: House, name: string, f: (c: HouseClass) => HouseClass): House => ({
  ...h,
  classes: h.classes.map((c) => (c.name === name ? f(c) : c)),
})

/** A class with a limit set; 0: the thing is not made. */
export function withLimit(c: HouseClass, limit: string, bound: number): HouseClass {
  const limits = { ...c.limits, [limit]: bound }
  if (!bound) delete limits[limit]
  return { ...c, limits }
}

/** A name that none of those taken has: as it is, or with a number. */
export function freeName(name: string, taken: Iterable<string>): string {
  const there = new Set(taken)
  if (!there.has(name)) return name
  let i = 2
  while (there.has(`${name} ${i}`)) i++
  return `${name} ${i}`
}

/** A house with a further class, as the named one is, after it; and what it is called. */
export function withCopy(h: House, name: string): [House, string] {
  const at = h.classes.findIndex((c) => c.name === name)
  const called = freeName(
    `${name}, other`,
    h.classes.map((c) => c.name),
  )
  const copy = { ...h.classes[at], name: called, limits: { ...h.classes[at].limits } }
  return [{ ...h, classes: [...h.classes.slice(0, at + 1), copy, ...h.classes.slice(at + 1)] }, called]
}
