import { describe, expect, it } from 'vitest'
import { settle } from '../testing/program'
import { Previewer } from './previewer'
import type { Project } from './project'

/** A project whose answers come when the test says. */
function slow() {
  const asked: { t: string; answer: (m: unknown) => void; fail: () => void }[] = []
  const question = (t: string) =>
    new Promise((done, fail) => asked.push({ t, answer: done as never, fail: () => fail(new Error('lost')) }))
  return { asked, previews: new Previewer({ question } as unknown as Project) }
}

describe('previews for the hand', () => {
  it('are asked one at a time, and only the last wish waits', async () => {
    const { asked, previews } = slow()
    const seen: string[] = []
    for (const t of ['a', 'b', 'c', 'd']) previews.ask(t as 'find', {} as never, () => seen.push(t))
    expect(asked.map((a) => a.t)).toEqual(['a'])
    asked[0].answer({})
    await settle()
    expect(asked.map((a) => a.t)).toEqual(['a', 'd'])
    asked[1].answer({})
    await settle()
    expect(seen).toEqual(['a', 'd'])
    expect(asked.length).toBe(2)
  })
  it('go on after one that failed', async () => {
    const { asked, previews } = slow()
    const seen: string[] = []
    previews.ask('a' as 'find', {} as never, () => seen.push('a'))
    previews.ask('b' as 'find', {} as never, () => seen.push('b'))
    asked[0].fail()
    await settle()
    asked[1].answer({})
    await settle()
    expect(seen).toEqual(['b'])
  })
  it('are forgotten when the hand let go', async () => {
    const { asked, previews } = slow()
    const seen: string[] = []
    previews.ask('a' as 'find', {} as never, () => seen.push('a'))
    previews.ask('b' as 'find', {} as never, () => seen.push('b'))
    previews.stop()
    asked[0].answer({})
    await settle()
    expect(seen).toEqual([])
    expect(asked.length).toBe(1)
    previews.ask('c' as 'find', {} as never, () => seen.push('c'))
    asked[1].answer({})
    await settle()
    expect(seen).toEqual(['c'])
  })
})
