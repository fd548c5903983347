import { evaluate } from '../../live/expression'
import { byThousands, prefixes } from '../../live/quantities'

const plain = ['', '%', '°C', 'ppm']

/** A value of the depot's with its unit: 4.7 kΩ. As core/ordering writes it. */
export function showValue(v: number, unit: string): string {
  return v === 0 || plain.includes(unit) ? `${Number(v.toPrecision(5))} ${unit}`.trim() : byThousands(v, unit, 4)
}

/** Lengths are kept in metres here; a number alone is millimetres, as everywhere. */
const lengths = { noun: 'length', factors: { m: 1, mm: 1e-3, µm: 1e-6, um: 1e-6, in: 0.0254, mil: 2.54e-5 }, unit: 'mm' }

/** Reads one as people write it, with prefixes, infixes and arithmetic: 4k7, 100 n, 2*12 V. Throws a sentence. */
export function readValue(text: string, unit: string): number {
  if (unit === 'm') return evaluate(text.replace(/(\d),(\d)/g, '$1.$2'), lengths)
  const factors: Record<string, number> = { [unit]: 1 }
  if (!plain.includes(unit)) {
    for (const [letter, by] of Object.entries(prefixes)) factors[letter] = factors[letter + unit] = by
    if (unit === 'Ω') factors.R = factors.ohm = 1
  }
  const v = evaluate(text.replace(/(\d),(\d)/g, '$1.$2'), { noun: 'value', factors, unit, cased: true, infix: plain.includes(unit) ? [] : [...Object.keys(prefixes), 'R'] }) // prettier-ignore
  if (!Number.isFinite(v)) throw new Error(`“${text.trim()}” is not a value in ${unit || 'plain numbers'}.`)
  return v
}
