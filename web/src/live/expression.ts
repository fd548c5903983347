/** What is measured in one kind of unit, and how its numbers are written. */
export interface Scale {
  /** "length", "current": what the sentence calls it. */
  noun: string
  /** What one of each unit is, in the unit the value is kept in. */
  factors: Record<string, number>
  /** The unit of a number without one. */
  unit: string
  /** Whether capitals count in units, as m and M do. */
  cased?: boolean
  /** What the product of two of them is, where it is anything. */
  squared?: string
  /** Units that may stand in the place of the decimal point: 4k7 (IEC 60062). */
  infix?: string[]
}

interface Value {
  num: number
  /** It bears a unit. */
  dim: boolean
}

/**
 * Reads a number with units and arithmetic (+ − × ÷ and brackets), as core/units does. A number without a unit
 * is of the scale's unit where it stands beside one that has a unit, or alone. Throws a sentence.
 */
export function evaluate(text: string, scale: Scale): number {
  let at = 0
  const whole = `“${text.trim()}”`
  const space = () => {
    while (text[at] === ' ' || text[at] === '\t') at++
  }
  const take = (...signs: string[]) => {
    space()
    if (!signs.includes(text[at])) return false
    at++
    return true
  }
  const withUnit = (v: Value): Value => (v.dim ? v : { num: v.num * scale.factors[scale.unit], dim: true })
  const names = Object.keys(scale.factors).sort((a, b) => b.length - a.length)
  const number = (): Value => {
    space()
    const m = /^[0-9.]+/.exec(text.slice(at))
    if (!m) throw new Error(`${whole} is not ${article(scale.noun)}: a number was expected.`)
    if (m[0].split('.').length > 2 || m[0] === '.') throw new Error(`“${m[0]}” is not a number.`)
    at += m[0].length
    space()
    const rest = scale.cased ? text.slice(at) : text.slice(at).toLowerCase()
    const name = names.find((f) => rest.startsWith(f))
    if (!name) return { num: parseFloat(m[0]), dim: false }
    at += name.length
    const tail = scale.infix?.includes(name) && !m[0].includes('.') && /^[0-9]+/.exec(text.slice(at))
    if (tail) {
      at += tail[0].length
      return { num: parseFloat(`${m[0]}.${tail[0]}`) * scale.factors[name], dim: true }
    }
    return { num: parseFloat(m[0]) * scale.factors[name], dim: true }
  }
  const factor = (): Value => {
    if (take('-', '−')) {
      const v = factor()
      return { num: -v.num, dim: v.dim }
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
      if (take('*', '×')) {
        const b = factor()
        if (a.dim && b.dim) throw new Error(`“${text}” multiplies ${article(scale.noun)} by ${article(scale.noun)}${scale.squared ? `, which is ${scale.squared}` : ''}.`) // prettier-ignore
        a = { num: a.num * b.num, dim: a.dim || b.dim }
      } else if (take('/', '÷')) {
        const b = factor()
        if (b.num === 0) throw new Error(`“${text}” divides by zero.`)
        if (b.dim && !a.dim) throw new Error(`“${text}” divides a number by ${article(scale.noun)}.`)
        a = { num: a.num / b.num, dim: a.dim && !b.dim }
      } else return a
    }
  }
  const sum = (): Value => {
    let a = product()
    for (;;) {
      const sign = take('+') ? 1 : take('-', '−') ? -1 : 0
      if (!sign) return a
      let b = product()
      if (a.dim || b.dim) [a, b] = [withUnit(a), withUnit(b)]
      a = { num: a.num + sign * b.num, dim: a.dim }
    }
  }
  const v = sum()
  space()
  if (at < text.length) throw new Error(`“${text}” is not ${article(scale.noun)}: “${text.slice(at)}” was not expected.`)
  return withUnit(v).num
}

const article = (noun: string) => `${/^[aeiou]/.test(noun) ? 'an' : 'a'} ${noun}`
