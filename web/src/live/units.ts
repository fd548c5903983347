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

interface Value {
  num: number
  length: boolean
}

/** Reads a length as typed, with units and arithmetic, as core/units does. Throws a sentence. */
export function parse(text: string, unit: Unit): number {
  let at = 0
  const space = () => {
    while (text[at] === ' ' || text[at] === '\t') at++
  }
  const take = (c: string) => {
    space()
    if (text[at] !== c) return false
    at++
    return true
  }
  const toLength = (v: Value): Value => (v.length ? v : { num: v.num * factors[unit], length: true })
  const number = (): Value => {
    space()
    const m = /^[0-9.]+/.exec(text.slice(at))
    if (!m) throw new Error(`“${text.trim()}” is not a length: a number was expected.`)
    if (m[0].split('.').length > 2 || m[0] === '.') throw new Error(`“${m[0]}” is not a number.`)
    at += m[0].length
    space()
    const rest = text.slice(at).toLowerCase()
    const name = Object.keys(factors)
      .filter((f) => rest.startsWith(f))
      .sort((a, b) => b.length - a.length)[0]
    if (!name) return { num: parseFloat(m[0]), length: false }
    at += name.length
    return { num: parseFloat(m[0]) * factors[name], length: true }
  }
  const factor = (): Value => {
    if (take('-')) {
      const v = factor()
      return { num: -v.num, length: v.length }
    }
    if (take('+')) return factor()
    if (take('(')) {
      const v = sum()
      if (!take(')')) throw new Error(`“${text}” lacks a closing bracket.`)
      return v
    }
    return number()
  }
  const product = (): Value => {
    let a = factor()
    for (;;) {
      if (take('*')) {
        const b = factor()
        if (a.length && b.length) throw new Error(`“${text}” multiplies a length by a length, which is an area.`)
        a = { num: a.num * b.num, length: a.length || b.length }
      } else if (take('/')) {
        const b = factor()
        if (b.num === 0) throw new Error(`“${text}” divides by zero.`)
        if (b.length && !a.length) throw new Error(`“${text}” divides a number by a length.`)
        a = { num: a.num / b.num, length: a.length && !b.length }
      } else return a
    }
  }
  const sum = (): Value => {
    let a = product()
    for (;;) {
      const sign = take('+') ? 1 : take('-') ? -1 : 0
      if (!sign) return a
      let b = product()
      if (a.length || b.length) [a, b] = [toLength(a), toLength(b)]
      a = { num: a.num + sign * b.num, length: a.length }
    }
  }
  const v = sum()
  space()
  if (at < text.length) throw new Error(`“${text}” is not a length: “${text.slice(at)}” was not expected.`)
  const nm = toLength(v).num
  if (!Number.isFinite(nm) || Math.abs(nm) > LIMIT) throw new Error(`“${text}” is beyond the largest length, 2000 mm.`)
  return Math.round(nm)
}
