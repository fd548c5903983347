import { afterEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { surroundings } from '../testing/program'

/** Reads who one is, as a page does that is opened with this in the browser's store. */
async function whoWith(kept: string | null) {
  vi.resetModules()
  const { store } = surroundings()
  if (kept !== null) store.set('gt.person', kept)
  const { person } = await import('./person')
  return { person, store }
}
afterEach(() => vi.unstubAllGlobals())

describe('who one is', () => {
  it('is made once for a browser, and remembered', async () => {
    const first = await whoWith(null)
    expect(first.person.id).toMatch(/^[0-9a-f]{24}$/)
    const again = await whoWith(first.store.get('gt.person')!)
    expect(again.person.id).toBe(first.person.id)
    expect((await whoWith(null)).person.id).not.toBe(first.person.id)
  })
  it('keeps the name that was said', async () => {
    const { person, store } = await whoWith('{"id":"abc","name":"Ada"}')
    expect(person.name).toBe('Ada')
    person.name = 'Bryn'
    await nextTick()
    expect(JSON.parse(store.get('gt.person')!)).toEqual({ id: 'abc', name: 'Bryn' })
  })
  it('is made anew from what cannot be read', async () => {
    for (const bad of ['{', 'null', '{"id":"a b"}', '{"id":"' + 'x'.repeat(41) + '"}', '{"name":"Ada"}'])
      expect((await whoWith(bad)).person.id).toMatch(/^[0-9a-f]{24}$/)
    expect((await whoWith('{"id":"ok","name":"' + 'n'.repeat(90) + '"}')).person.name.length).toBe(40)
  })
})
