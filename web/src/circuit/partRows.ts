import type { Project } from '../live/project'
import type { Cell } from '../live/wire.gen'

/** One package in one use of its sheet, as a row of the table of parts. */
export interface Row {
  id: number
  path: string
  cells: Record<string, string>
}
export interface Column {
  field: string
  name: string
  fixed?: boolean // cannot be changed here
  own?: boolean
}

export const baseColumns: Column[] = [
  { field: 'designator', name: 'Designator' },
  { field: 'value', name: 'Value' },
  { field: 'footprint', name: 'Footprint' },
  { field: 'fitted', name: 'Fitted' },
  { field: 'library', name: 'Library part', fixed: true },
  { field: 'sheet', name: 'Sheet', fixed: true },
]

/** All columns: the usual ones, then fields of one's own that any part has, then new ones. */
export function columnsOf(project: Project, added: string[]): Column[] {
  const own = new Set(added)
  for (const p of project.all('part')) for (const f of Object.keys(p.fields ?? {})) own.add(f)
  return [...baseColumns, ...[...own].sort().map((f) => ({ field: f, name: f, own: true }))]
}

const naturally = new Intl.Collator('en', { numeric: true }).compare

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
  return out.sort((a, b) => naturally(a.cells.designator, b.cells.designator))
}

/** Rows in which every word of the filter stands; "field:word" looks in one field alone. */
export function filtered(rows: Row[], filter: string, columns: Column[]): Row[] {
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean)
  if (!words.length) return rows
  const tests = words.map((w) => {
    const [head, ...rest] = w.split(':')
    const column = rest.length ? columns.find((c) => c.name.toLowerCase().replace(/\s/g, '').startsWith(head)) : undefined
    return column
      ? (r: Row) => (r.cells[column.field] ?? '').toLowerCase().includes(rest.join(':'))
      : (r: Row) => Object.values(r.cells).some((v) => v.toLowerCase().includes(w))
  })
  return rows.filter((r) => tests.every((t) => t(r)))
}

export function sorted(rows: Row[], field: string, down: boolean): Row[] {
  const k = down ? -1 : 1
  return [...rows].sort(
    (a, b) => k * naturally(a.cells[field] ?? '', b.cells[field] ?? '') || naturally(a.cells.designator, b.cells.designator),
  )
}

export interface Range {
  top: number
  bottom: number
  left: number
  right: number
}
export const rangeOf = (a: { r: number; c: number }, b: { r: number; c: number }): Range => ({
  top: Math.min(a.r, b.r),
  bottom: Math.max(a.r, b.r),
  left: Math.min(a.c, b.c),
  right: Math.max(a.c, b.c),
})

/** The cells of a range that can be changed, with new texts. */
export function cellsFor(rows: Row[], columns: Column[], range: Range, text: (r: number, c: number) => string): Cell[] {
  const out: Cell[] = []
  for (let c = range.left; c <= range.right; c++) {
    if (!columns[c] || columns[c].fixed) continue
    for (let r = range.top; r <= range.bottom && r < rows.length; r++) {
      const now = text(r - range.top, c - range.left)
      if ((rows[r].cells[columns[c].field] ?? '') !== now)
        out.push({ id: rows[r].id, field: columns[c].field, text: now, ...(rows[r].path ? { path: rows[r].path } : {}) })
    }
  }
  return out
}

/** A block of a spreadsheet as it stands on the clipboard. */
export const readBlock = (s: string) => s.replace(/\r?\n$/, '').split(/\r?\n/).map((l) => l.split('\t')) // prettier-ignore

export function writeBlock(rows: Row[], columns: Column[], range: Range): string {
  return rows
    .slice(range.top, range.bottom + 1)
    .map((r) =>
      columns
        .slice(range.left, range.right + 1)
        .map((c) => r.cells[c.field] ?? '')
        .join('\t'),
    )
    .join('\n')
}
