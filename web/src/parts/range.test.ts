import { describe, expect, it } from 'vitest'
import { readRange, showRange } from './range'

describe('dimensions as datasheets write them', () => {
  it.each([
    ['1.27', 'mm', 1_270_000, 1_270_000],
    ['5.8 .. 6.2', 'mm', 5_800_000, 6_200_000],
    ['5.8…6.2', 'mm', 5_800_000, 6_200_000],
    ['5.8 – 6.2', 'mm', 5_800_000, 6_200_000],
    ['5.8...6.2', 'mm', 5_800_000, 6_200_000],
    ['6 ± 0.2', 'mm', 5_800_000, 6_200_000],
    ['6 +/- 0.2', 'mm', 5_800_000, 6_200_000],
    ['0.1in ± 5mil', 'mm', 2_413_000, 2_667_000],
    ['50', 'mil', 1_270_000, 1_270_000],
    ['7.62/2 .. 3.9', 'mm', 3_810_000, 3_900_000],
  ] as const)('%s in %s', (text, unit, min, max) => expect(readRange(text, unit)).toEqual({ min, max }))

  it.each(['6.2 .. 5.8', '6 ± -0.2', '.. 4', 'about 4', ''])('refuses “%s” with a sentence', (text) =>
    expect(() => readRange(text, 'mm')).toThrow(/\.$/),
  )

  it('shows what it reads', () => {
    expect(showRange({ min: 1_270_000, max: 1_270_000 }, 'mm')).toBe('1.27')
    expect(showRange({ min: 5_800_000, max: 6_200_000 }, 'mm')).toBe('5.8 .. 6.2')
    expect(readRange(showRange({ min: 123_400, max: 567_800 }, 'mm'), 'mm')).toEqual({ min: 123_400, max: 567_800 })
  })
})
