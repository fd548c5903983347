import { describe, expect, it } from 'vitest'
import type { CheckTable } from '../live/wire.gen'
import { clashesOf, pairOf } from './clashes'

const table = (pairs: Record<string, string>) =>
  ({
    kinds: [],
    types: ['input', 'output', 'notConnected'],
    words: { input: 'an input', output: 'an output', notConnected: 'a pin that may not be connected' },
    pairs: {
      'input|input': 'off',
      'input|output': 'off',
      'output|output': 'fault',
      'input|notConnected': 'fault',
      'output|notConnected': 'fault',
      'notConnected|notConnected': 'fault',
      ...pairs,
    },
  }) as unknown as CheckTable

describe('clashes', () => {
  it('says each pair once, and a type that clashes with all in one sentence', () => {
    expect(clashesOf(table({}), 'fault')).toEqual([
      {
        text: 'A pin that may not be connected meets anything',
        pairs: ['input|notConnected', 'output|notConnected', 'notConnected|notConnected'],
      },
      { text: 'An output meets another', pairs: ['output|output'] },
    ])
    expect(clashesOf(table({}), 'warning')).toEqual([])
  })
  it('says them one by one where a type does not clash with all', () => {
    const t = table({ 'input|notConnected': 'warning' })
    expect(clashesOf(t, 'fault').map((c) => c.text)).toEqual([
      'An output meets another',
      'An output meets a pin that may not be connected',
      'A pin that may not be connected meets another',
    ])
    expect(clashesOf(t, 'warning').map((c) => c.text)).toEqual(['An input meets a pin that may not be connected'])
  })
  it('finds a pair from either side', () => {
    expect(pairOf(table({}), 'output', 'input')).toBe('input|output')
    expect(pairOf(table({}), 'input', 'output')).toBe('input|output')
  })
})
