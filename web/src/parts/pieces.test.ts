import { describe, expect, it } from 'vitest'
import { idOf, pieceOf, refOf, withRefs } from './pieces'

describe('refs of pieces', () => {
  it('gives things of other kinds other numbers, and back', () => {
    const ids = new Set<number>()
    for (const what of ['pad', 'silk', 'pin', 'figure'] as const)
      for (const ref of [1, 2, 999_999]) {
        ids.add(idOf(what, ref))
        expect(pieceOf(idOf(what, ref))).toEqual({ what, ref })
      }
    expect(ids.size).toBe(12)
  })
  it('takes the place of a thing without a ref of its own', () => {
    expect(refOf({ id: 7 }, 2)).toBe(7)
    expect(refOf({}, 2)).toBe(3)
    expect(withRefs([{}, { id: 9 }, {}]).map((t) => t.id)).toEqual([1, 9, 3])
  })
})
