import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { format, parse, type Unit } from './units'

interface Case {
  text: string
  unit: Unit
  nm: number
  bad?: boolean
}
const table = JSON.parse(readFileSync(new URL('../../../testdata/lengths.json', import.meta.url), 'utf8')) as Case[]

describe('lengths as people type them', () => {
  it.each(table.filter((c) => !c.bad))('$text in $unit', ({ text, unit, nm }) => expect(parse(text, unit)).toBe(nm))
  it.each(table.filter((c) => c.bad))('refuses "$text"', ({ text, unit }) =>
    expect(() => parse(text, unit)).toThrow(text.trim() ? /“/ : /number/),
  )
  it('writes what it reads back', () => {
    for (const nm of [0, 1, -1, 2540000, 123456789, -999999]) expect(parse(format(nm), 'mm')).toBe(nm)
  })
})
