import { inNaturalOrder } from '../../live/natural'
import { valueOf } from '../../live/quantities'

/** A column of a table: what it shows of a row, and what may be typed into it. */
export interface Column<T> {
  field: string
  name: string
  width: number
  text: (row: T) => string
  /** What is compared when the table is sorted, where it is not the text. */
  rank?: (row: T) => number
  /** Values of parts: 10u, 10µ and 10 uF are one, and stand in the order of their size. */
  valued?: boolean
  /** Cells that cannot be changed here. */
  fixed?: boolean
  /** Figures and designators, in their own type; figures stand at the right. */
  mono?: boolean
  right?: boolean
  quiet?: boolean
  /** A sign before the text: a path of an icon, its colour and its name for readers. */
  icon?: (row: T) => { path: string; tone: string; name: string } | undefined
  /** A cell that is either ticked or not; its text is "yes" or "no". */
  tick?: boolean
  /** Texts that are offered while one types. */
  options?: () => string[]
  /** Why a text cannot be taken, as a sentence. */
  check?: (text: string) => string | undefined
}

/** What a person typed into a cell. */
export interface Change<T> {
  row: T
  field: string
  text: string
}

export interface Range {
  top: number
  bottom: number
  left: number
  right: number
}
export interface Spot {
  r: number
  c: number
}

export const rangeOf = (a: Spot, b: Spot): Range => ({
  top: Math.min(a.r, b.r),
  bottom: Math.max(a.r, b.r),
  left: Math.min(a.c, b.c),
  right: Math.max(a.c, b.c),
})

/** The cells of a range that can be changed and would be, with new texts. */
export function changesIn<T>(rows: T[], columns: Column<T>[], range: Range, text: (r: number, c: number) => string): Change<T>[] {
  const out: Change<T>[] = []
  for (let c = range.left; c <= range.right; c++) {
    const column = columns[c]
    if (!column || column.fixed) continue
    for (let r = range.top; r <= range.bottom && r < rows.length; r++) {
      const now = text(r - range.top, c - range.left)
      if (column.text(rows[r]) !== now) out.push({ row: rows[r], field: column.field, text: now })
    }
  }
  return out
}

/** A block of a spreadsheet as it stands on the clipboard. */
export const readBlock = (s: string) => s.replace(/\r?\n$/, '').split(/\r?\n/).map((l) => l.split('\t')) // prettier-ignore

export const writeBlock = <T>(rows: T[], columns: Column<T>[], range: Range): string =>
  rows
    .slice(range.top, range.bottom + 1)
    .map((r) =>
      columns
        .slice(range.left, range.right + 1)
        .map((c) => c.text(r))
        .join('\t'),
    ) // prettier-ignore
    .join('\n')

/** What a block on the clipboard changes: one cell fills the range, more begin at its upper left. */
export function pasted<T>(rows: T[], columns: Column<T>[], range: Range, block: string[][]): Change<T>[] {
  if (block.length === 1 && block[0].length === 1) return changesIn(rows, columns, range, () => block[0][0])
  const to = {
    ...range,
    bottom: Math.min(range.top + block.length, rows.length) - 1,
    right: Math.min(range.left + block[0].length, columns.length) - 1,
  }
  return changesIn(rows, columns, to, (r, c) => (block[r]?.[c] ?? '').trim())
}

/** Rows in which every word of the filter stands; "column:word" looks in one column alone. */
export function filtered<T>(rows: T[], filter: string, columns: Column<T>[]): T[] {
  const words = filter
    .replace(/(\d)\s+([pnuµμmkMG]?(?:F|H|Ω|ohm|Hz))(?=\s|$)/g, '$1$2') // a value and its unit are one word
    .split(/\s+/)
    .filter(Boolean)
  if (!words.length) return rows
  const within = (typed: string) => {
    const w = typed.toLowerCase()
    const v = /\D/.test(typed) ? valueOf(typed) : undefined // a number alone is a piece of anything
    return (c: Column<T>, r: T) => {
      const text = c.text(r)
      return text.toLowerCase().includes(w) || (v !== undefined && !!c.valued && valueOf(text) === v)
    }
  }
  const tests = words.map((w) => {
    const [head, ...rest] = w.split(':')
    const column = rest.length
      ? columns.find((c) => c.name.toLowerCase().replace(/\s/g, '').startsWith(head.toLowerCase()))
      : undefined
    const fits = within(column ? rest.join(':') : w)
    return column ? (r: T) => fits(column, r) : (r: T) => columns.some((c) => fits(c, r))
  })
  return rows.filter((r) => tests.every((t) => t(r)))
}

/** Rows by one column, figures within texts as figures; equal ones keep their order. */
export function sorted<T>(rows: T[], column: Column<T> | undefined, down: boolean): T[] {
  if (!column) return rows
  const k = down ? -1 : 1
  const { rank, text } = column
  if (column.valued) {
    const sizes = new Map(rows.map((r) => [r, valueOf(text(r))]))
    const [named, sized] = [rows.filter((r) => sizes.get(r) === undefined), rows.filter((r) => sizes.get(r) !== undefined)]
    sized.sort((a, b) => k * (sizes.get(a)! - sizes.get(b)!))
    return down ? [...inNaturalOrder(named, text, down), ...sized] : [...sized, ...inNaturalOrder(named, text)]
  }
  if (rank) return [...rows].sort((a, b) => k * (rank(a) - rank(b)))
  return inNaturalOrder(rows, text, down)
}

/** Columns in the order somebody gave them; new ones stand where they were made. */
export function ordered<T>(columns: Column<T>[], order: string[]): Column<T>[] {
  const at = new Map(order.map((f, i) => [f, i]))
  const known = columns.filter((c) => at.has(c.field)).sort((a, b) => at.get(a.field)! - at.get(b.field)!)
  let k = 0
  return columns.map((c) => (at.has(c.field) ? known[k++] : c))
}
