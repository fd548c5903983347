import { afterEach, describe, expect, it, vi } from 'vitest'
import { call, Refusal } from './http'

const answer = (status: number, body: unknown) =>
  vi.fn(() => Promise.resolve({ ok: status < 400, status, json: () => (body instanceof Error ? Promise.reject(body) : Promise.resolve(body)) })) // prettier-ignore
afterEach(() => vi.unstubAllGlobals())
const refused = (p: Promise<unknown>) =>
  p.then(
    () => expect.fail('it was taken'),
    (e: unknown) => e as Refusal,
  )

describe('asking the program', () => {
  it('sends what it is given under /api and reads the answer', async () => {
    const fetch = answer(200, [1, 2])
    vi.stubGlobal('fetch', fetch)
    expect(await call('POST', '/projects', { name: 'A' })).toEqual([1, 2])
    expect(fetch).toHaveBeenCalledWith('/api/projects', { method: 'POST', body: '{"name":"A"}' })
    const file = new Blob(['x'])
    await call('POST', '/import', file)
    expect(fetch).toHaveBeenLastCalledWith('/api/import', { method: 'POST', body: file })
  })
  it('reads nothing where there is nothing', async () => {
    vi.stubGlobal('fetch', answer(204, new Error('no body')))
    expect(await call('DELETE', '/projects/3')).toBeUndefined()
  })
  it('gives a refusal its sentence, also one that is not ours', async () => {
    vi.stubGlobal('fetch', answer(422, { error: 'The name is taken.', findings: 3 }))
    const r = await refused(call('GET', '/x'))
    expect([r.message, r.status, r.findings]).toEqual(['The name is taken.', 422, 3])
    vi.stubGlobal('fetch', answer(502, new Error('html')))
    expect((await refused(call('GET', '/x'))).message).toBe('The program answered with 502.')
  })
  it('tells no answer from having been stopped', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new Error('aborted')))
    expect((await refused(call('GET', '/x'))).message).toBe('The program does not answer. Is it still running?')
    const stop = new AbortController()
    stop.abort()
    expect((await refused(call('GET', '/x', undefined, stop.signal))).message).toBe('It was stopped; nothing was kept.')
  })
})
