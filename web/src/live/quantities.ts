import { evaluate, type Scale } from './expression'

/** Units of what is not a length. */
export type QuantityUnit = 'A' | 'V' | 'Ω' | 'F' | 'H' | '°C' | '°'

/** What stands before a unit, with u for µ. */
export const prefixes: Record<string, number> = { p: 1e-12, n: 1e-9, µ: 1e-6, u: 1e-6, m: 1e-3, k: 1e3, M: 1e6, G: 1e9 }
const kinds: Record<QuantityUnit, { noun: string; example: string; names: string[]; plain?: boolean; positive?: boolean }> = {
  A: { noun: 'current', example: '250 mA', names: ['A'], positive: true },
  V: { noun: 'voltage', example: '3.3 V', names: ['V'] },
  Ω: { noun: 'impedance', example: '90 Ω', names: ['Ω', 'ohm', 'Ohm', 'R'], positive: true },
  F: { noun: 'capacitance', example: '100 nF', names: ['F'], positive: true },
  H: { noun: 'inductance', example: '4.7 µH', names: ['H'], positive: true },
  '°C': { noun: 'temperature', example: '85 °C', names: ['°C', 'C'], plain: true },
  '°': { noun: 'angle', example: '45°', names: ['°', 'deg'], plain: true },
}

const scales = Object.fromEntries(
  Object.entries(kinds).map(([unit, k]) => {
    const factors: Record<string, number> = {}
    for (const n of k.names) factors[n] = 1
    if (!k.plain)
      for (const [p, f] of Object.entries(prefixes)) {
        factors[p] = f
        for (const n of k.names) factors[p + n] = f
      }
    const infix = k.plain ? [] : [...Object.keys(prefixes), ...(unit === 'Ω' ? ['R'] : [unit])]
    return [unit, { noun: k.noun, factors, unit, cased: true, infix } satisfies Scale]
  }),
) as Record<QuantityUnit, Scale>

/** A quantity with its unit, by thousands: "250 mA", "3.3 V", "90 Ω". The value is in the unit itself. */
export function showQuantity(v: number, unit: QuantityUnit): string {
  const gap = unit === '°' ? '' : ' '
  const size = Math.abs(v)
  return kinds[unit].plain || size === 0 ? `${trimmed(v, 6)}${gap}${unit}` : byThousands(v, unit, 6)
}
const trimmed = (v: number, digits: number) => String(Number(v.toPrecision(digits)))

/** A value with the prefix that fits its unit, in so many digits at most. */
export function byThousands(v: number, unit: string, digits: number): string {
  const p = ['G', 'M', 'k', '', 'm', 'µ', 'n', 'p'].find((x) => Math.abs(v) >= (prefixes[x] ?? 1) * (1 - 1e-9)) ?? 'p'
  return `${trimmed(v / (prefixes[p] ?? 1), digits)} ${p}${unit}`
}

/** Reads a quantity as people write it, with prefixes and arithmetic. Throws a sentence with an example. */
export function readQuantity(text: string, unit: QuantityUnit): number {
  const k = kinds[unit]
  let v: number
  try {
    v = evaluate(text.replace(/(\d),(\d)/g, '$1.$2'), scales[unit])
  } catch {
    v = NaN
  }
  if (!Number.isFinite(v)) throw new Error(`“${text.trim()}” is not ${/^[aeiou]/.test(k.noun) ? 'an' : 'a'} ${k.noun}; write it as ${k.example}.`) // prettier-ignore
  if (k.positive && v < 0) throw new Error(`A ${k.noun} is not below zero.`)
  return v
}

/** What is kept of a net, and in what: µA, µV and mΩ in whole numbers; 0 is nothing said. */
export const netQuantities = {
  current: { unit: 'A', small: 1e6 },
  voltage: { unit: 'V', small: 1e6 },
  impedance: { unit: 'Ω', small: 1e3 },
} as const
export type NetQuantity = keyof typeof netQuantities

/** A net's quantity in words; empty when nothing is said. */
export function quantity(field: NetQuantity, v: number | undefined): string {
  const { unit, small } = netQuantities[field]
  return v ? showQuantity(v / small, unit) : ''
}

/** Reads a net's quantity; nothing said is 0. Throws a sentence. */
export function quantityOf(field: NetQuantity, text: string): number {
  const { unit, small } = netQuantities[field]
  return text.trim() ? Math.round(readQuantity(text, unit) * small) : 0
}

const atHead = /^\s*(\d+(?:[.,]\d+)?)(?:([pnuµμmkKMGR])(\d+)|\s*([pnuµμmkKMGR]?))(?:Ω|ohm|Ohm|F|H|Hz|V|A|W)?(?=$|[\s/,])/

/** The number that the value of a part begins with, in its unit: 10u, 10µ and 10 uF are one, 4k7 is 4700. Undefined: it is a name. */
export function valueOf(text: string): number | undefined {
  const m = atHead.exec(text)
  if (!m) return undefined
  const letter = m[2] ?? m[4] ?? ''
  if (m[3] && /[.,]/.test(m[1])) return undefined
  const n = Number(m[3] ? `${m[1]}.${m[3]}` : m[1].replace(',', '.'))
  return Number((n * (prefixes[letter === 'K' ? 'k' : letter === 'μ' ? 'µ' : letter] ?? 1)).toPrecision(9))
}
