import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Line, noHistory, nothingDerived, handOver, settle, surroundings } from '../testing/program'
import type { Boxed, CircuitNet, Finding } from './wire.gen'

const part = (id: number, sheet: number, x = 0, more: object = {}) =>
  ({ kind: 'part', object: { id, sheet, designator: `R${id}`, value: '', library: 'R', at: { x, y: 0 }, turn: 0, ...more } }) as unknown as Boxed // prettier-ignore
const net = (name: string, pins: string[], items: number[]): CircuitNet => ({
  name,
  named: true,
  pins: pins.map((p) => ({ part: Number(p.split('.')[0]), pin: p.split('.')[1] })) as CircuitNet['pins'],
  uses: [{ sheet: 2, items }],
})
const finding = (key: string, severity: string, more: Partial<Finding> = {}) => ({ key, severity, ...more }) as Finding
const edited = { ids: [11], step: { x: 1, y: 0 } }

let project: import('./project').Project
let another: (stage: string) => import('./project').Project
let listens: Map<string, (e: unknown) => void>

beforeEach(async () => {
  vi.useFakeTimers()
  ;({ listens } = surroundings())
  const { Project } = await import('./project')
  project = new Project(7)
  another = (stage) => new Project(7, false, stage)
})
afterEach(() => {
  project.close()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const open = (objects: Boxed[] = [part(11, 2), part(12, 2, 50), part(13, 3)]) => handOver(Line.last, objects)
const edit = () => project.edit('moveItems', edited as never)

describe('the handing over', () => {
  const track = (id: number) => ({ kind: 'track', object: { id, layer: 1, a: { x: 0, y: 0 }, b: { x: 5, y: 0 }, width: 1 } }) as unknown as Boxed // prettier-ignore
  const first = (objects: Boxed[]) => Line.last.tell({ t: 'open', name: 'Weir Gauge', rev: 1, objects })
  const last = () => Line.last.tell({ t: 'ready', people: [], run: 'R', seq: 3, derived: nothingDerived, history: noHistory })
  it('shows the stage in view before all is there', async () => {
    const p = another('board')
    expect(Line.last.url).toContain('&stage=board')
    expect([p.has('board'), p.has('circuit')]).toEqual([false, false])
    first([track(11)])
    expect([p.state.value, p.has('board'), p.has('circuit'), p.whole.value]).toEqual(['coming', true, false, false])
    expect(p.all('track').map((t) => t.id)).toEqual([11])
    const told: boolean[] = []
    p.onChange((_, whole) => told.push(whole))
    Line.last.tell({ t: 'more', objects: [part(12, 2)] })
    expect(p.get('part', 12)).toBeDefined()
    expect(told).toEqual([])
    last()
    expect([p.state.value, p.has('circuit'), p.whole.value, p.handed]).toEqual(['open', true, true, 1])
    expect(told).toEqual([true])
    p.close()
  })
  it('lets edits wait until all is there, and asks questions at once', async () => {
    const p = another('board')
    first([track(11)])
    void p.edit('remove', { ids: [11] }).catch(() => undefined)
    expect(p.pending.value).toBe(1)
    expect(Line.last.sent).toEqual([])
    void p.question('find', { text: 'R1', place: '' } as never).catch(() => undefined)
    expect(Line.last.sent.map((s) => s.t)).toEqual(['ask'])
    last()
    expect(Line.last.sent.map((s) => s.t)).toEqual(['ask', 'edit'])
    p.close()
  })
  it('leaves what is shown alone until all of a new one is there', () => {
    const p = another('board')
    first([track(11), part(12, 2)])
    last()
    first([track(21)])
    expect([p.state.value, p.all('track').map((t) => t.id), p.all('part').length]).toEqual(['open', [11], 1])
    Line.last.tell({ t: 'more', objects: [part(22, 2)] })
    last()
    expect([p.all('track').map((t) => t.id), p.all('part').map((t) => t.id), p.handed]).toEqual([[21], [22], 2])
    p.close()
  })
  it('says when the stage in view is shown, while more is to come', () => {
    const p = another('board')
    first([track(11)])
    expect(p.seen.value).toBe(false)
    p.shown()
    expect([p.seen.value, p.whole.value]).toEqual([true, false])
    expect(Line.last.sent).toEqual([{ t: 'shown', ref: '' }])
    last()
    p.shown()
    expect(Line.last.sent.length).toBe(1)
    p.close()
  })
  it('brings what was handed off, and whether one only looks', () => {
    const p = another('circuit')
    expect([p.looks.value, p.handoff.value]).toEqual([false, null])
    const handoff = { fingerprint: 'f', revision: 3 } as never
    Line.last.tell({ t: 'open', name: 'Weir Gauge', rev: 1, objects: [], looks: true })
    Line.last.tell({ t: 'ready', people: [], run: 'R', seq: 3, derived: nothingDerived, history: noHistory, handoff })
    expect([p.looks.value, p.handoff.value]).toEqual([true, handoff])
    first([])
    last()
    expect([p.looks.value, p.handoff.value]).toEqual([false, null])
    p.close()
  })
  it('knows a rule for everything from one between two things', () => {
    const p = another('board')
    const rule = (id: number, fixed: number, more: object = {}) => ({ kind: 'rule', object: { id, kind: 'clearance', order: id, value: { fixed }, ...more } }) as unknown as Boxed // prettier-ignore
    first([rule(31, 5), rule(32, 7, { a: { net: 4 }, b: { net: 5 } }), rule(33, 9, { a: { net: 4 } })])
    expect(p.rule('clearance')).toBe(5)
    p.close()
  })
  it('fills in what a sheet has none of', () => {
    const p = another('circuit')
    Line.last.tell({ t: 'open', name: 'Weir Gauge', rev: 1, objects: [] })
    Line.last.tell({ t: 'ready', people: [], run: 'R', seq: 3, derived: { ...nothingDerived, sheets: [{ sheet: 2 }] } as never, history: noHistory }) // prettier-ignore
    expect(p.views.get(2)).toEqual({ sheet: 2, junctions: [], bundleJunctions: [], loose: [], bundles: [], unmatched: [] })
    p.close()
  })
  it('takes what is not in view as not there', () => {
    const p = another('circuit')
    first([part(12, 2)])
    expect([p.has('circuit'), p.has('board')]).toEqual([false, false])
    p.close()
  })
})

describe('the mirror of a project', () => {
  it('asks for its project by who one is', () => {
    expect(Line.last.url).toMatch(/^ws:\/\/here\.test\/api\/projects\/7\/live\?who=[0-9a-f]{24}&name=&stage=$/)
    expect(project.state.value).toBe('opening')
  })
  it('holds what it was opened with, by kind, number, name and sheet', () => {
    open([part(11, 2), part(13, 3), { kind: 'symbol', object: { id: 4, name: 'resistor' } } as unknown as Boxed])
    expect(project.state.value).toBe('open')
    expect(project.name.value).toBe('Weir Gauge')
    expect(project.all('part').map((p) => p.id)).toEqual([11, 13])
    expect(project.get('part', 13)!.sheet).toBe(3)
    expect(project.get('wire', 13)).toBeUndefined()
    expect(project.find(4)!.kind).toBe('symbol')
    expect(project.named('symbol', 'resistor')!.id).toBe(4)
    expect([...project.standing(2)].map((b) => b.object.id)).toEqual([11])
    expect([...project.standing(9)]).toEqual([])
  })
  it('follows changes, and tells those who draw', () => {
    open()
    const heard: unknown[] = []
    const leave = project.onChange((changed, whole) => heard.push([changed.map((c) => c.id), whole]))
    Line.last.tell({ t: 'changes', rev: 2, changes: [
      { kind: 'part', id: 11, after: part(11, 3).object! } as never,
      { kind: 'part', id: 12 } as never,
    ] }) // prettier-ignore
    expect(project.rev.value).toBe(2)
    expect(project.find(12)).toBeUndefined()
    expect([...project.standing(2)]).toEqual([]) // 11 went to another sheet
    expect([...project.standing(3)].map((b) => b.object.id).sort()).toEqual([11, 13])
    expect(heard).toEqual([[[11, 12], false]])
    leave()
    Line.last.tell({ t: 'changes', rev: 3, changes: [] })
    expect(heard.length).toBe(1)
  })
  it('names parts by the use of their sheet and the letter of their unit', () => {
    open([part(11, 2, 0, { others: { '5/': 'R99' }, unit: 2 })])
    const p = project.get('part', 11)!
    expect(project.called(p, '')).toBe('R11B')
    expect(project.called(p, '5/')).toBe('R99B')
  })
  it('gives every use of a sheet its parts, and a cluster those inside it', () => {
    open()
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, places: [
      { path: '', sheet: 2, label: 'A', depth: 0 }, { path: '8/', sheet: 3, label: 'B', depth: 1 }, { path: '9/', sheet: 3, label: 'C', depth: 1 },
    ] } }) // prettier-ignore
    expect(project.partsOn(3)).toEqual([{ part: 13, path: '8/' }, { part: 13, path: '9/' }]) // prettier-ignore
    expect(project.partsOn(2)).toEqual([{ part: 11 }, { part: 12 }])
    expect(project.partsWithin({ sheet: 2, a: { x: 60, y: 5 }, b: { x: 10, y: -5 } } as never)).toEqual([{ part: 12 }])
  })
})

describe('nets in the mirror', () => {
  beforeEach(() => {
    open()
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, nets: [net('GND', ['11.1'], [21]), net('VIN', ['12.1', '12.2'], [22, 23])] } }) // prettier-ignore
  })
  it('are found by wire and by pin', () => {
    expect(project.netOf(22, '')).toBe('VIN')
    expect(project.netAtPin(11, '1', '')).toBe('GND')
    expect(project.netOf(22, '8/')).toBeUndefined()
    expect(project.netList.value.map((n) => n.name)).toEqual(['GND', 'VIN'])
  })
  it('forget what they no longer join', () => {
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, lostNets: ['GND'], nets: [net('VIN', ['12.1'], [22])] } })
    expect(project.netOf(21, '')).toBeUndefined()
    expect(project.netAtPin(11, '1', '')).toBeUndefined()
    expect(project.netOf(23, '')).toBeUndefined()
    expect(project.netAtPin(12, '2', '')).toBeUndefined()
    expect(project.netOf(22, '')).toBe('VIN')
  })
  it('keep what went over to another one in the same message', () => {
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, lostNets: ['VIN'], nets: [net('GND', ['11.1', '12.1'], [21, 22])] } }) // prettier-ignore
    expect(project.netOf(22, '')).toBe('GND')
    expect(project.netAtPin(12, '1', '')).toBe('GND')
  })
  it('take other wires without being told whole', () => {
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, redrawn: [{ net: 'VIN', uses: [{ sheet: 2, items: [23, 24] }] }] } }) // prettier-ignore
    expect([22, 23, 24].map((i) => project.netOf(i, ''))).toEqual([undefined, 'VIN', 'VIN'])
    expect(project.netAtPin(12, '2', '')).toBe('VIN') // its pins stay
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, redrawn: [{ net: 'VIN', uses: [{ sheet: 2, items: [] }] }] } })
    expect(project.nets.get('VIN')!.uses).toEqual([])
    expect(project.netOf(23, '')).toBeUndefined()
  })
  it('leave the list of links when they have none', () => {
    const link = { a: { x: 0, y: 0 }, b: { x: 1, y: 1 }, fromName: '', toName: '' }
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, links: { 40: { come: [link] } } } })
    expect(project.links.get(40)!.length).toBe(1)
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, links: { 40: {} } } })
    expect(project.links.has(40)).toBe(false)
  })
  it('follow what changed of the links of a net', () => {
    const link = (x: number) => ({ a: { x, y: 0 }, b: { x: x + 1, y: 1 }, fromName: '', toName: '' })
    const now = () => project.links.get(40)!.map((l) => l.a.x)
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, links: { 40: { come: [1, 2, 3, 4, 5, 6].map(link) } } } })
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, links: { 40: { gone: [0, 3], come: [link(9), link(8)], at: [1, 5] } } } }) // prettier-ignore
    expect(now()).toEqual([2, 9, 3, 5, 6, 8])
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, links: { 40: { gone: [5] } } } })
    expect(now()).toEqual([2, 9, 3, 5, 6])
  })
  it('are all gone when the project is opened anew', () => {
    open()
    expect(project.netOf(22, '')).toBeUndefined()
    expect(project.netList.value).toEqual([])
  })
})

describe('findings in the mirror', () => {
  it('stand in order of weight, then of their names with numbers read as such', () => {
    open()
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, findings: [
      finding('a10', 'warning'), finding('z', 'todo'), finding('a9', 'warning'), finding('k', 'fault'), finding('x', 'fault', { excused: 'so wanted' }),
    ] } }) // prettier-ignore
    expect(project.findingList.value.map((f) => f.key)).toEqual(['k', 'x', 'z', 'a9', 'a10'])
    expect(project.openFindings.value.map((f) => f.key)).toEqual(['k', 'z', 'a9', 'a10'])
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, mended: ['k', 'a9'] } })
    expect(project.findingList.value.map((f) => f.key)).toEqual(['x', 'z', 'a10'])
  })
  it('know how long work is getting on, until it ends', () => {
    open()
    const job = { id: '1', kind: 'files', rev: 1, share: 0.5 }
    Line.last.tell({ t: 'job', job })
    Line.last.tell({ t: 'job', job: { ...job, id: '2', kind: 'check' } })
    expect(project.shareOf('files')).toBe(0.5)
    Line.last.tell({ t: 'job', job: { ...job, share: 0.8 } })
    expect(project.shareOf('files')).toBe(0.8)
    void project.stop('1')
    expect(Line.last.lastOf('giveUp').job).toBe('1')
    Line.last.tell({ t: 'job', job: { ...job, ended: true, why: 'There is no outline.' } })
    expect(project.shareOf('files')).toBeNull()
    expect(project.jobs.value.map((j) => j.id)).toEqual(['2'])
    expect(project.lastRefusal.value).toBe('There is no outline.')
  })
  it('know whether the files are of this design', () => {
    open()
    expect(project.handoffCurrent.value).toBe(false)
    Line.last.tell({ t: 'handoff', handoff: { fingerprint: 'f' } as never })
    expect(project.handoffCurrent.value).toBe(true)
    Line.last.tell({ t: 'derived', derived: { ...nothingDerived, stages: { ...nothingDerived.stages, fingerprint: 'g' } } })
    expect(project.handoffCurrent.value).toBe(false)
  })
})

describe('an edit on its way', () => {
  it('is not kept before the program says so', async () => {
    open()
    let kept = false
    void edit().then(() => (kept = true))
    expect(Line.last.lastOf('edit')).toMatchObject({ cmd: { kind: 'moveItems', v: 1, ids: [11] }, rev: 1 })
    expect(project.pending.value).toBe(1)
    await settle()
    expect(kept).toBe(false)
    Line.last.answer('edit', { t: 'done' })
    await settle()
    expect(kept).toBe(true)
    expect(project.pending.value).toBe(0)
  })
  it('holds the window open', () => {
    open()
    const e = { held: false, preventDefault: () => void (e.held = true) }
    listens.get('beforeunload')!(e)
    expect(e.held).toBe(false)
    void edit().catch(() => undefined)
    listens.get('beforeunload')!(e)
    expect(e.held).toBe(true)
  })
  it('is said to be without an answer after two seconds', () => {
    open()
    void edit().catch(() => undefined)
    vi.advanceTimersByTime(1900)
    expect(project.silent.value).toBe(false)
    vi.advanceTimersByTime(500)
    expect(project.silent.value).toBe(true)
    Line.last.answer('edit', { t: 'done' })
    expect(project.silent.value).toBe(false)
  })
  it('that is refused gives the sentence', async () => {
    open()
    const why = edit().catch((e: Error) => e.message)
    Line.last.answer('edit', { t: 'refused', why: 'R11 is locked.' })
    expect(await why).toBe('R11 is locked.')
    expect(project.lastRefusal.value).toBe('R11 is locked.')
    expect(project.pending.value).toBe(0)
  })
  it('that replaced what somebody else had just typed says so', async () => {
    open()
    const done = edit()
    Line.last.answer('edit', { t: 'done', over: 'Bryn had typed 10k.' })
    await done
    expect(project.told.value).toEqual({ text: 'Bryn had typed 10k.', bad: true })
  })
  it('that is too large is refused here, with its size', async () => {
    open()
    const why = project.edit('moveItems', { text: 'x'.repeat(31_000_000) } as never).catch((e: Error) => e.message)
    expect(await why).toBe('This is too large to be sent at once: 31 MB; 30 MB is the most.')
    expect(Line.last.sent).toEqual([])
  })
})

describe('what an act would join', () => {
  const outcome = { joined: [{ into: 'GND', nets: ['VIN'] }], parted: [], onto: [] }
  const asks = () => Line.last.answer('edit', { t: 'asks', why: 'This would join GND and VIN.', outcome: outcome as never })
  it('is asked about, and done when agreed to, exactly that', async () => {
    open()
    let kept = false
    void edit().then(() => (kept = true))
    asks()
    await settle()
    expect(project.asking.value!.text).toBe('This would join GND and VIN.')
    expect(kept).toBe(false)
    project.asking.value!.go()
    expect(project.asking.value).toBeNull()
    expect(Line.last.lastOf('edit').agreed).toEqual(outcome)
    Line.last.answer('edit', { t: 'done' })
    await settle()
    expect(kept).toBe(true)
  })
  it('can be left alone, without a word of trouble', async () => {
    open()
    const left = edit().catch((e: Error) => e)
    asks()
    await settle()
    project.asking.value!.leave()
    expect(((await left) as Error).message).toBe('')
    expect(project.asking.value).toBeNull()
    expect(Line.last.sent.filter((s) => s.t === 'edit').length).toBe(1)
  })
  it('is one question at a time: a second act leaves the first alone', async () => {
    open()
    const first = edit().catch((e: Error) => e.message)
    asks()
    await settle()
    void edit().catch(() => undefined)
    asks()
    expect(await first).toBe('')
    expect(project.asking.value).not.toBeNull()
  })
})

describe('a connection that breaks', () => {
  it('fails questions at once and keeps edits, which go out again under the same number', async () => {
    open()
    const question = project.question('drag', {} as never).catch((e: Error) => e.message)
    let kept = false
    void edit().then(() => (kept = true))
    const before = Line.last.lastOf('edit')
    vi.stubGlobal('fetch', () => Promise.resolve({ json: () => Promise.resolve([{ id: 7 }]) }))
    Line.last.onclose()
    expect(await question).toBe('The connection was lost.')
    expect(project.state.value).toBe('lost')
    expect(project.pending.value).toBe(1)
    void project.edit('moveItems', { ids: [12] } as never).catch(() => undefined) // typed while there is none
    expect(project.pending.value).toBe(2)
    await vi.advanceTimersByTimeAsync(400)
    expect(Line.all.length).toBe(2)
    expect(Line.last.sent).toEqual([])
    open()
    expect(Line.last.sent.map((s) => (s.cmd as { ids: number[] }).ids)).toEqual([[11], [12]])
    expect(Line.last.sent[0]).toEqual(before)
    Line.last.tell({ t: 'done', ref: before.ref })
    await settle()
    expect(kept).toBe(true)
    expect(project.pending.value).toBe(1)
  })
  it('is told only what it missed, when it can be', async () => {
    handOver(Line.last, [part(11, 2), part(12, 2, 50)], {}, { run: 'R', seq: 4 })
    Line.last.tell({ t: 'changes', seq: 5, rev: 2, act: 'remove', changes: [{ kind: 'part', id: 11 }] })
    vi.stubGlobal('fetch', () => Promise.resolve({ json: () => Promise.resolve([{ id: 7 }]) }))
    Line.last.onclose()
    void edit().catch(() => undefined)
    await vi.advanceTimersByTimeAsync(400)
    expect(Line.last.url).toContain('&run=R&seq=5')
    Line.last.tell({ t: 'again', history: noHistory as never, people: [{ who: 'a', name: 'Ada', you: true, tabs: 1 }], jobs: [] })
    expect(project.state.value).toBe('open')
    expect(Line.last.sent.map((s) => s.t)).toEqual(['edit'])
    expect(project.get('part', 12)).toBeTruthy()
    expect(project.get('part', 11)).toBeUndefined()
    Line.last.tell({ t: 'changes', seq: 6, rev: 3, act: 'placePart', changes: [part(14, 2) as never].map((b: Boxed) => ({ kind: b.kind, id: 14, after: b.object! })) }) // prettier-ignore
    expect(project.get('part', 14)).toBeTruthy()
    Line.last.onclose()
    await vi.advanceTimersByTimeAsync(400)
    expect(Line.last.url).toContain('&seq=6')
  })
  it('does not take questions meanwhile', async () => {
    open()
    Line.last.onclose()
    const why = await project.question('find', {} as never).catch((e: Error) => e.message)
    expect(why).toBe('There is no connection to the program just now, so nothing was changed.')
  })
  it('tries again while the program is away, ever more slowly', async () => {
    open()
    vi.stubGlobal('fetch', () => Promise.reject(new Error('away')))
    const at: number[] = []
    const began = Date.now()
    for (let i = 0; i < 6; i++) {
      const before = Line.all.length
      Line.last.onclose()
      while (Line.all.length === before) await vi.advanceTimersByTimeAsync(50)
      at.push(Date.now() - began)
    }
    const gaps = at.map((t, i) => t - (at[i - 1] ?? 0))
    expect(gaps[0]).toBeLessThanOrEqual(350)
    for (let i = 1; i < 4; i++) expect(gaps[i]).toBeGreaterThan(gaps[i - 1])
    expect(Math.max(...gaps)).toBeLessThanOrEqual(3050)
  })
  it('sees that the project is gone', async () => {
    open()
    vi.stubGlobal('fetch', () => Promise.resolve({ json: () => Promise.resolve([{ id: 8 }]) }))
    Line.last.onclose()
    await vi.advanceTimersByTimeAsync(400)
    expect(project.state.value).toBe('gone')
    expect(Line.all.length).toBe(1)
    const why = await edit().catch((e: Error) => e.message)
    expect(why).toContain('nothing was changed')
  })
  it('is not sought again once the project is closed or cannot be opened', async () => {
    Line.last.tell({ t: 'broken', why: 'Its journal cannot be read.' })
    expect(project.state.value).toBe('broken')
    expect(project.trouble.value).toBe('Its journal cannot be read.')
    Line.last.onclose()
    await vi.advanceTimersByTimeAsync(5000)
    expect(Line.all.length).toBe(1)
    project.close()
    expect(listens.has('beforeunload')).toBe(false)
  })
})

describe('others in the project', () => {
  it('are seen with what they picked, until somebody leaves', () => {
    open()
    const ada = { who: 'a', name: 'Ada', you: true, tabs: 1 }
    Line.last.tell({ t: 'people', people: [ada, { who: 'b', name: '', tabs: 1 }, { who: 'c', name: 'Cyn', tabs: 2 }] })
    Line.last.tell({ t: 'shared', who: 'b', shared: { parts: [{ part: 11 }], net: 'GND' } })
    Line.last.tell({ t: 'shared', who: 'c', shared: { parts: [], net: 'VIN' } })
    expect(project.othersPicked.value).toEqual([{ name: '', parts: [{ part: 11 }], net: 'GND' }, { name: 'Cyn', parts: [], net: 'VIN' }]) // prettier-ignore
    Line.last.tell({ t: 'people', people: [ada, { who: 'b', name: 'Bryn', tabs: 1 }] })
    expect(project.othersPicked.value).toEqual([{ name: 'Bryn', parts: [{ part: 11 }], net: 'GND' }])
    Line.last.tell({ t: 'people', people: [ada] })
    expect(project.othersPicked.value).toEqual([])
  })
  it("see what one picks here; one's own other windows pick along", () => {
    open()
    project.pick([{ part: 12 }])
    expect(Line.last.lastOf('share').shared).toEqual({ parts: [{ part: 12 }], net: '' })
    project.light('GND')
    expect(Line.last.lastOf('share').shared).toEqual({ parts: [{ part: 12 }], net: 'GND' })
    const before = Line.last.sent.length
    project.light('GND')
    expect(Line.last.sent.length).toBe(before)
    Line.last.tell({ t: 'shared', shared: { parts: [], net: 'VIN' } })
    expect([project.picked.value, project.lit.value]).toEqual([[], 'VIN'])
    expect(Line.last.sent.length).toBe(before) // nothing is told back
  })
  it('know one by the name one says, cut to a sane length', async () => {
    open()
    void project.introduce('  ' + 'Ada '.repeat(20)).catch(() => undefined)
    const said = Line.last.lastOf('person').text as string
    expect(said.startsWith('Ada Ada')).toBe(true)
    expect(said.length).toBeLessThanOrEqual(40)
    void project.introduce('').catch(() => undefined)
  })
})
