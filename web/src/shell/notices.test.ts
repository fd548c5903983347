import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { complain, drop, notices, say } from './notices'

describe('notices', () => {
  beforeEach(() => vi.useFakeTimers())
  afterEach(() => {
    vi.advanceTimersByTime(60_000)
    vi.useRealTimers()
  })
  const texts = () => notices.map((n) => n.text)

  it('go by themselves, errors and what can be acted on later', () => {
    say('kept')
    complain(new Error('It cannot be.'))
    say('deleted', 'plain', { label: 'Bring back', run: () => undefined })
    vi.advanceTimersByTime(4001)
    expect(texts()).toEqual(['It cannot be.', 'deleted'])
    vi.advanceTimersByTime(5000)
    expect(texts()).toEqual([])
  })
  it('queue: errors wait for room, what only tells makes it', () => {
    for (const s of ['a', 'b', 'c']) complain(new Error(s))
    complain(new Error('d'))
    expect(texts()).toEqual(['a', 'b', 'c'])
    drop(notices[0].id)
    expect(texts()).toEqual(['b', 'c', 'd'])
    drop(notices[0].id)
    say('told')
    complain(new Error('e'))
    expect(texts()).toEqual(['c', 'd', 'e'])
  })
  it('say a thing once, and stay while the pointer is on them', () => {
    say('same')
    say('same')
    expect(texts()).toEqual(['same'])
    notices[0].held = true
    vi.advanceTimersByTime(5000)
    expect(texts()).toEqual(['same'])
    notices[0].held = false
    vi.advanceTimersByTime(2001)
    expect(texts()).toEqual([])
  })
  it('do not call it an error when nothing changes', () => {
    complain(new Error('This would change nothing.'))
    complain(new Error(''))
    expect(notices.map((n) => n.tone)).toEqual(['plain'])
  })
})
