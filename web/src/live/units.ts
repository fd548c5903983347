import { evaluate } from './expression'

/** Lengths on this side are nanometres too; they are turned into text only here. */
export const MM = 1_000_000
export const LIMIT = 2_000 * MM
export type Unit = 'mm' | 'in' | 'mil'

const factors: Record<string, number> = {
  nm: 1, um: 1e3, µm: 1e3, μm: 1e3, mm: 1e6, cm: 1e7, m: 1e9, mil: 25400, mils: 25400, th: 25400, in: 25.4e6, inch: 25.4e6, '"': 25.4e6,
} // prettier-ignore

export function format(nm: number, unit: Unit = 'mm', digits = 6): string {
  const s = (nm / factors[unit]).toFixed(digits)
  const t = s.includes('.') ? s.replace(/\.?0+$/, '') : s
  return t === '-0' ? '0' : t
}

/** Reads a length as typed, with units and arithmetic. Throws a sentence. */
export function parse(text: string, unit: Unit): number {
  const nm = evaluate(text, { noun: 'length', factors, unit, squared: 'an area' })
  if (!Number.isFinite(nm) || Math.abs(nm) > LIMIT) throw new Error(`“${text}” is beyond the largest length, 2000 mm.`)
  return Math.round(nm)
}
