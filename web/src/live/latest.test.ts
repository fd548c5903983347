import { describe, expect, it } from 'vitest'
import { settle } from '../testing/program'
import { latest } from './latest'

describe('a search as somebody types', () => {
  it('shows only the answer to what was asked last', async () => {
    const answers: ((s: string) => void)[] = []
    const shown: string[] = []
    const search = latest(
      () => new Promise<string>((done) => answers.push(done)),
      (s) => shown.push(s),
    )
    void search('r')
    void search('re')
    answers[1]('for re')
    await settle()
    answers[0]('for r, late')
    await settle()
    expect(shown).toEqual(['for re'])
    void search('res')
    answers[2]('for res')
    await settle()
    expect(shown).toEqual(['for re', 'for res'])
  })
  it('tells whether what is shown is the answer to what was asked last, and waits for it', async () => {
    const answers: ((s: string) => void)[] = []
    const shown: string[] = []
    const search = latest(
      () => new Promise<string>((done) => answers.push(done)),
      (s) => shown.push(s),
    )
    expect(search.behind.value).toBe(false)
    void search('r')
    let there = false
    void search.shown().then(() => (there = true))
    void search('re') // typed on while it is waited for
    answers[0]('for r')
    await settle()
    expect([search.behind.value, there, shown]).toEqual([true, false, []])
    answers[1]('for re')
    await settle()
    expect([search.behind.value, there, shown]).toEqual([false, true, ['for re']])
  })
})
