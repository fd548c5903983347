import type { Project } from '../live/project'
import type { Item } from '../live/wire.gen'

/** The parts of the project that a query finds, as items with their symbols and footprints. */
export function ownItems(project: Project, query: string): Item[] {
  const words = query.toLowerCase().split(/\s+/).filter((w) => w) // prettier-ignore
  return project.all('libraryPart').flatMap((part) => {
    const units = (part.units ?? []).map((u) => project.named('symbol', u)).filter((s) => !!s)
    const symbol = project.named('symbol', part.symbol) ?? units[0]
    const pins = (units.length ? units : symbol ? [symbol] : []).reduce((n, s) => n + s.pins.length, 0)
    const text = `${part.name} ${part.value ?? ''} ${part.footprint} ${part.prefix} ${part.description} ${part.keywords ?? ''} ${pins} pins`.toLowerCase() // prettier-ignore
    if (!symbol || !words.every((w) => text.includes(w))) return []
    return [{ part, symbol, footprint: project.named('footprint', part.footprint), units: units.length ? units : undefined }] as Item[] // prettier-ignore
  })
}

/** Both lists as one: parts made in the project first; one that it has from a library stands where the library lists it. */
export function merged(own: Item[], listed: Item[]): Item[] {
  const made = own.filter((it) => !it.part!.origin?.library)
  const hidden = new Set(made.map((it) => it.part!.name))
  const taken = new Map(own.map((it) => [it.part!.name, it]))
  return [...made, ...listed.filter((it) => !hidden.has(it.part!.name)).map((it) => taken.get(it.part!.name) ?? it)]
}

/** How most of the project's parts are mounted: in holes, on a surface; nothing, while there are none. */
export function mounting(project: Project): '' | 'through' | 'surface' {
  let [through, surface] = [0, 0]
  for (const part of project.all('part')) {
    const pads = project.named('footprint', part.footprint)?.pads
    if (!pads?.length) continue
    if (pads.some((p) => p.hole)) through++
    else surface++
  }
  return through > surface ? 'through' : surface > through ? 'surface' : ''
}
