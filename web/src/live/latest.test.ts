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
})
