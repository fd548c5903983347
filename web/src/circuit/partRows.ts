import { inNaturalOrder, naturally } from '../live/natural'
import type { Project } from '../live/project'
import type { Column } from '../shell/table/columns'

/** One package in one use of its sheet, as a row of the table of parts. */
export interface Row {
  id: number
  path: string
  cells: Record<string, string>
}

const cell = (field: string, name: string, width: number, o: Partial<Column<Row>> = {}): Column<Row> => ({
  field,
  name,
  width,
  text: (r) => r.cells[field] ?? '',
  ...o,
})

/** All columns: the usual ones, then fields of one's own that any part has, then new ones. */
export function columnsOf(project: Project, added: string[]): Column<Row>[] {
  const own = new Set(added)
  for (const p of project.all('part')) for (const f of Object.keys(p.fields ?? {})) own.add(f)
  const footprints = () => [...new Set(project.all('part').map((p) => p.footprint))].filter(Boolean).sort(naturally)
  return [
    cell('designator', 'Designator', 104, { mono: true }),
    cell('value', 'Value', 130, { mono: true, valued: true }),
    cell('footprint', 'Footprint', 150, { options: footprints }),
    cell('fitted', 'Fitted', 66, { tick: true }),
    cell('library', 'Library part', 170, { fixed: true, quiet: true }),
    cell('sheet', 'Sheet', 150, { fixed: true, quiet: true }),
    ...[...own].sort().map((f) => cell(f, f, 130)),
  ]
}

export function rowsOf(project: Project): Row[] {
  const uses = new Map<number, { path: string; label: string }[]>()
  for (const p of project.places.value) uses.set(p.sheet, [...(uses.get(p.sheet) ?? []), { path: p.path ?? '', label: p.label }])
  const out: Row[] = []
  const seen = new Set<string>()
  for (const p of project.all('part'))
    for (const u of uses.get(p.sheet) ?? []) {
      const designator = p.others?.[u.path] ?? p.designator
      if (p.unit) {
        if (seen.has(designator)) continue
        seen.add(designator)
      }
      const cells = { ...p.fields, designator, value: p.value, footprint: p.footprint, fitted: p.notFitted ? 'no' : 'yes', library: p.library, sheet: u.label } // prettier-ignore
      out.push({ id: p.id, path: u.path, cells })
    }
  return inNaturalOrder(out, (r) => r.cells.designator)
}
