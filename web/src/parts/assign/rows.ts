import { inNaturalOrder } from '../../live/natural'
import type { Project } from '../../live/project'

/** A part of the circuit with what it has and what it lacks for the board and for being ordered. */
export interface AssignRow {
  id: number
  path: string
  designator: string
  value: string
  part: string
  footprint: string
  pins: number
  maker: string
  number: string
  /** Of the depot. */
  order: string
  checked: boolean
  fitted: boolean
  lacks: string
}

/** Fields of a part that say which component is ordered. */
export const makerField = 'maker'
export const numberField = 'part number'
export const orderField = 'order number'
export const datasheetField = 'datasheet'

/** All packages of the circuit, in all uses of their sheets. */
export function assignRows(project: Project): AssignRow[] {
  const seen = new Set<string>()
  const pinsOf = new Map<string, number>()
  const rows = project.all('part').flatMap((p) => {
    const l = project.named('libraryPart', p.library)
    if (l && !pinsOf.has(l.name))
      pinsOf.set(l.name, (l.units?.length ? l.units : [l.symbol]).reduce((n, s) => n + (project.named('symbol', s)?.pins.length ?? 0), 0)) // prettier-ignore
    return project.usesOf(p.sheet).flatMap((u) => {
      const designator = p.others?.[u.path ?? ''] ?? p.designator
      if (seen.has(designator)) return [] // another unit of the package
      seen.add(designator)
      const maker = p.fields?.[makerField] ?? ''
      const number = p.fields?.[numberField] ?? ''
      const lacks = [
        ...(p.footprint ? [] : ['footprint']),
        ...(number || p.notFitted ? [] : ['part number']),
        ...(l?.checked ? [] : ['check']),
      ]
      return [
        {
          id: p.id,
          path: u.path ?? '',
          designator,
          value: p.value,
          part: p.library,
          footprint: p.footprint,
          pins: pinsOf.get(p.library) ?? 0,
          maker,
          number,
          order: p.fields?.[orderField] || (l?.order?.[orderField] ?? ''),
          checked: !!l?.checked,
          fitted: !p.notFitted,
          lacks: lacks.join(', '),
        },
      ]
    })
  })
  return inNaturalOrder(rows, (r) => r.designator)
}
