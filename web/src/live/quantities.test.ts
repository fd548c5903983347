import { describe, expect, it } from 'vitest'
import { quantity, quantityOf, type QuantityUnit, readQuantity, showQuantity } from './quantities'

describe('quantities as people write them', () => {
  it.each<[string, QuantityUnit, number]>([
    ['250 mA', 'A', 0.25],
    ['1,5A', 'A', 1.5],
    ['20u', 'A', 20e-6],
    ['-12 V', 'V', -12],
    ['1.2kV', 'V', 1200],
    ['90', 'Ω', 90],
    ['90 ohm', 'Ω', 90],
    ['4k7', 'Ω', 4700],
    ['4R7', 'Ω', 4.7],
    ['2M2', 'Ω', 2.2e6],
    ['3m', 'Ω', 3e-3],
    ['100 nF', 'F', 100e-9],
    ['2n2', 'F', 2.2e-9],
    ['4.7 µH', 'H', 4.7e-6],
    ['-40 °C', '°C', -40],
    ['85', '°C', 85],
    ['45°', '°', 45],
    ['90 / 4', '°', 22.5],
    ['2 * (1 kΩ + 500)', 'Ω', 3000],
    ['12 V / 3', 'V', 4],
    ['3.3 V − 0.3', 'V', 3],
  ])('%s in %s', (text, unit, v) => expect(readQuantity(text, unit)).toBeCloseTo(v, 12))
  it('are refused in a sentence with an example when they are something else', () => {
    for (const s of ['many', '5 V', '1 2 mA', '4k7k', '', '2A*2A', '1/0'])
      expect(() => readQuantity(s, 'A'), s).toThrow(/is not a current; write it as 250 mA\./)
    expect(() => readQuantity('1 k', '°')).toThrow(/is not an angle/)
    expect(() => readQuantity('-1 A', 'A')).toThrow('A current is not below zero.')
  })
  it('are shown by thousands', () => {
    const shown: [number, QuantityUnit, string][] = [[0.25, 'A', '250 mA'], [2e-6, 'A', '2 µA'], [3.3, 'V', '3.3 V'], [-12, 'V', '-12 V'], [1500, 'Ω', '1.5 kΩ'], [1e-7, 'F', '100 nF'], [999.9996, 'Ω', '1000 Ω'], [0, 'V', '0 V'], [22.5, '°', '22.5°'], [-40, '°C', '-40 °C'], [1e-13, 'F', '0.1 pF']] // prettier-ignore
    for (const [v, unit, s] of shown) expect(showQuantity(v, unit)).toBe(s)
  })
})

describe('quantities of nets', () => {
  it('are kept in whole small units, and nothing said is nothing', () => {
    expect(quantityOf('current', '250 mA')).toBe(250_000)
    expect(quantityOf('voltage', '-12 V')).toBe(-12_000_000)
    expect(quantityOf('impedance', '90')).toBe(90_000)
    expect(quantityOf('impedance', ' ')).toBe(0)
    expect(quantity('current', 0)).toBe('')
    expect(quantity('impedance', undefined)).toBe('')
  })
  it('come back as they were said', () => {
    for (const [f, s] of [
      ['current', '250 mA'],
      ['current', '2 µA'],
      ['voltage', '3.3 V'],
      ['voltage', '-12 V'],
      ['impedance', '90 Ω'],
      ['impedance', '1.5 kΩ'],
    ] as const)
      // prettier-ignore
      expect(quantity(f, quantityOf(f, s))).toBe(s)
  })
})
