import { describe, expect, it } from 'vitest'
import { quantity, readQuantity } from './quantities'

describe('currents, voltages and impedances', () => {
  it('are read as people write them', () => {
    expect(readQuantity('current', '250 mA')).toBe(250_000)
    expect(readQuantity('current', '1,5A')).toBe(1_500_000)
    expect(readQuantity('current', '20u')).toBe(20)
    expect(readQuantity('voltage', '-12 V')).toBe(-12_000_000)
    expect(readQuantity('voltage', '1.2kV')).toBe(1_200_000_000)
    expect(readQuantity('impedance', '90')).toBe(90_000)
    expect(readQuantity('impedance', '90 ohm')).toBe(90_000)
    expect(readQuantity('impedance', '')).toBe(0)
  })
  it('are refused when they are something else', () => {
    for (const s of ['many', '5 V', '1 2 mA', '--3']) expect(readQuantity('current', s)).toBeNull()
    expect(readQuantity('current', '-1 A')).toBeNull()
    expect(readQuantity('impedance', '-90')).toBeNull()
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
      expect(quantity(f, readQuantity(f, s)!)).toBe(s)
    expect(quantity('current', 0)).toBe('')
  })
})
