import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { NotDone } from '../live/notDone'
import { complain, drop, hold, notices, refusalsGo, say, shown } from './notices'

describe('notices', () => {
  beforeEach(() => vi.useFakeTimers())
  afterEach(() => {
    vi.advanceTimersByTime(600_000)
    vi.useRealTimers()
  })
  const seen = () => shown.value?.text
  const fail = (text: string) => complain(new Error(text))

  it('go by themselves, errors and what can be acted on later', () => {
    say('kept')
    vi.advanceTimersByTime(3900)
    expect(seen()).toBe('kept')
    vi.advanceTimersByTime(300)
    expect(seen()).toBeUndefined()
    fail('It cannot be.')
    vi.advanceTimersByTime(8900)
    expect(seen()).toBe('It cannot be.')
    vi.advanceTimersByTime(300)
    expect(seen()).toBeUndefined()
  })
  it('that say why something was refused go once something is done, and others stay', () => {
    fail('The file cannot be read.')
    complain(new NotDone('R11 is locked.'))
    expect(seen()).toBe('R11 is locked.')
    refusalsGo()
    expect(seen()).toBe('The file cannot be read.')
  })
  it('that warn stay as long as errors do', () => {
    say('1 track found no way to follow and went: GND.', 'warning')
    vi.advanceTimersByTime(8000)
    expect(seen()).toContain('GND')
    vi.advanceTimersByTime(1300)
    expect(seen()).toBeUndefined()
  })
  it('show the newest; errors and offers wait below it and do not grow old there', () => {
    fail('a')
    say('b', 'plain', { label: 'Bring back', run: () => undefined })
    fail('c')
    expect(seen()).toBe('c')
    vi.advanceTimersByTime(9100)
    expect(seen()).toBe('b')
    vi.advanceTimersByTime(8000)
    expect(seen()).toBe('b')
    drop(shown.value!.id)
    expect(seen()).toBe('a')
    vi.advanceTimersByTime(8000)
    expect(seen()).toBe('a')
  })
  it('forget what only tells when something newer is said', () => {
    fail('a')
    say('told')
    fail('b')
    expect(notices.map((n) => n.text)).toEqual(['a', 'b'])
  })
  it('are twenty at most, the oldest go', () => {
    for (let i = 0; i < 30; i++) fail(`error ${i}`)
    expect(notices.map((n) => n.text)).toEqual(Array.from({ length: 20 }, (_, i) => `error ${i + 10}`))
  })
  it('say a thing once, and stay while the pointer is on them', () => {
    say('same')
    say('same')
    expect(notices.length).toBe(1)
    hold(true)
    vi.advanceTimersByTime(20_000)
    expect(seen()).toBe('same')
    hold(false)
    vi.advanceTimersByTime(2300)
    expect(seen()).toBeUndefined()
  })
  it('are held no longer once something newer lies over them', () => {
    fail('a')
    hold(true)
    fail('b')
    drop(shown.value!.id)
    vi.advanceTimersByTime(9300)
    expect(seen()).toBeUndefined()
  })
  it('do not call it an error when nothing changes', () => {
    fail('This would change nothing.')
    complain(new Error(''))
    expect(notices.map((n) => n.tone)).toEqual(['plain'])
  })
})
