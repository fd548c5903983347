import { describe, expect, it } from 'vitest'
import { recounted } from './stepping'

describe('a step back', () => {
  it('says what it took back, and where', () => {
    expect(recounted('undo', { act: 'turnItems', what: 'R4', where: 'sheet Power' })).toBe(
      'Taken back: turning: R4, on sheet Power.',
    )
    expect(recounted('redo', { act: 'movePlaced', what: 'R4, C2 and 3 more', where: 'the board' })).toBe(
      'Done again: moving: R4, C2 and 3 more, on the board.',
    )
  })
  it('says the act alone where nothing lies anywhere', () => {
    expect(recounted('undo', { act: 'setRules', what: '' })).toBe('Taken back: the rules.')
  })
})
