/** Currents, voltages and impedances as people write them; in the core they are µA, µV and mΩ. */
export type Field = 'current' | 'voltage' | 'impedance'
const units: Record<Field, { unit: string; small: number }> = {
  current: { unit: 'A', small: 1e6 },
  voltage: { unit: 'V', small: 1e6 },
  impedance: { unit: 'Ω', small: 1e3 },
}
const prefixes: Record<string, number> = { '': 1, m: 1e-3, u: 1e-6, µ: 1e-6, k: 1e3, M: 1e6 }

/** A quantity with its unit: "250 mA", "3.3 V", "90 Ω"; empty when nothing is said. */
export function quantity(field: Field, v: number | undefined): string {
  if (!v) return ''
  const { unit, small } = units[field]
  const x = v / small
  const p = Math.abs(x) >= 1000 ? 'k' : Math.abs(x) >= 1 ? '' : Math.abs(x) >= 1e-3 ? 'm' : 'µ'
  return `${Number((x / prefixes[p]).toPrecision(6))} ${p}${unit}`
}

/** Reads a quantity; nothing said is 0, what cannot be read is null. */
export function readQuantity(field: Field, text: string): number | null {
  const s = text.trim().replace(',', '.')
  if (!s) return 0
  const { unit, small } = units[field]
  const m = s.match(/^([+-]?[0-9]*\.?[0-9]+)\s*([muµkM]?)\s*([A-Za-zΩ]*)$/)
  if (!m) return null
  const ends = unit === 'Ω' ? ['', 'Ω', 'ohm', 'Ohm', 'R'] : ['', unit]
  if (!ends.includes(m[3])) return null
  const v = Math.round(Number(m[1]) * prefixes[m[2]] * small)
  return field !== 'voltage' && v < 0 ? null : v
}

/** Reads a quantity for a net; what cannot be read is an error with its sentence. */
export function quantityOf(field: Field, text: string): number {
  const v = readQuantity(field, text)
  if (v === null) throw new Error(`“${text}” is not a ${field}; write it as ${{ current: '250 mA', voltage: '3.3 V', impedance: '90 Ω' }[field]}.`) // prettier-ignore
  return v
}
