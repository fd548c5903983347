import { describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import { useEntry, type Writing } from './entry'

const whole: Writing<number> = {
  show: (v) => `${v}`,
  read(text) {
    const v = Number(text)
    if (!Number.isInteger(v)) throw new Error(`“${text}” is not a whole number.`)
    return v
  },
  scrub: (v, steps) => v + steps,
}
function field(first: number | null = 5) {
  const value = ref(first)
  const kept: number[] = []
  const off = ref(false)
  const entry = useEntry(() => value.value, () => whole, (v) => kept.push(v), () => off.value) // prettier-ignore
  const blurred: string[] = []
  const target = { select: () => undefined, blur: () => blurred.push('blur'), setPointerCapture: () => undefined }
  const key = (k: string) => {
    const e = { key: k, target, stopped: false, preventDefault: () => undefined, stopPropagation: () => void (e.stopped = true) }
    entry.press(e as unknown as KeyboardEvent)
    return e
  }
  const at = (x: number) => ({ clientX: x, pointerId: 1, target }) as unknown as PointerEvent
  return { value, kept, off, entry, key, at, blurred }
}

describe('a field', () => {
  it('keeps nothing while one types, and all with Enter', () => {
    const f = field()
    f.entry.type('17')
    expect(f.kept).toEqual([])
    f.key('Enter')
    expect(f.kept).toEqual([17])
    f.key('Enter')
    f.entry.leave()
    expect(f.kept).toEqual([17]) // once
  })
  it('keeps what was typed when it is left, but not what says the same', () => {
    const f = field()
    f.entry.type('5 ')
    f.entry.leave()
    f.entry.type('6')
    f.entry.leave()
    expect(f.kept).toEqual([6])
  })
  it('gives the old value back with Escape, which then goes no further', () => {
    const f = field()
    f.entry.type('17')
    expect(f.key('Escape').stopped).toBe(true)
    expect([f.entry.text.value, f.kept, f.blurred]).toEqual(['5', [], ['blur']])
    expect(f.key('Escape').stopped).toBe(false)
  })
  it('says why a text cannot be read, and keeps it for mending', async () => {
    const f = field()
    f.entry.type('many')
    f.key('Enter')
    expect([f.entry.trouble.value, f.entry.text.value]).toEqual(['“many” is not a whole number.', 'many'])
    f.entry.type('4')
    f.key('Enter')
    expect([f.entry.trouble.value, f.kept]).toEqual(['', [4]])
    f.entry.type('many')
    f.entry.leave() // gone away from, it stays with its sentence
    expect([f.entry.trouble.value, f.entry.text.value]).toEqual(['“many” is not a whole number.', 'many'])
    f.value.value = 9 // of something else
    await nextTick()
    expect([f.entry.trouble.value, f.entry.text.value]).toEqual(['', '9'])
  })
  it('follows the value unless somebody is typing', async () => {
    const f = field()
    f.value.value = 6
    await nextTick()
    expect(f.entry.text.value).toBe('6')
    f.entry.type('60')
    f.value.value = 7
    await nextTick()
    expect(f.entry.text.value).toBe('60')
    f.key('Escape')
    expect(f.entry.text.value).toBe('7')
  })
  it('gives the old value back when it was refused, and waits as long as nobody answers', async () => {
    const value = ref(5)
    let answer: (m: unknown) => void = () => undefined
    const entry = useEntry(() => value.value, () => whole, () => new Promise((done) => (answer = done)), () => false) // prettier-ignore
    entry.type('7')
    entry.leave()
    await nextTick()
    expect(entry.text.value).toBe('7') // on its way
    answer(undefined) // refused
    await new Promise((done) => setTimeout(done))
    expect(entry.text.value).toBe('5')
    entry.type('8')
    entry.leave()
    value.value = 8
    answer({ t: 'done' })
    await new Promise((done) => setTimeout(done))
    expect(entry.text.value).toBe('8')
  })
  it('is empty for several values, and sets them all', () => {
    const f = field(null)
    expect([f.entry.text.value, f.entry.scrubs.value]).toEqual(['', false])
    f.entry.leave()
    expect(f.kept).toEqual([])
    f.entry.type('3')
    f.key('Enter')
    expect(f.kept).toEqual([3])
  })
  it('is scrubbed by its label, and kept once', () => {
    const f = field()
    f.entry.grab(f.at(100))
    f.entry.drag(f.at(112))
    expect([f.entry.text.value, f.kept]).toEqual(['8', []])
    f.entry.drag(f.at(92))
    f.entry.drop()
    expect([f.entry.text.value, f.kept]).toEqual(['3', [3]])
    f.entry.drag(f.at(500)) // let go
    expect(f.entry.text.value).toBe('3')
    f.entry.grab(f.at(0))
    f.entry.drag(f.at(40))
    f.entry.give()
    f.entry.drop()
    expect([f.entry.text.value, f.kept]).toEqual(['5', [3]])
    f.off.value = true
    f.entry.grab(f.at(0))
    f.entry.drag(f.at(40))
    expect(f.entry.text.value).toBe('5')
  })
  it('is picked whole by the first click, not by the next, nor where the hand picked a part', () => {
    const f = field()
    const click = (from: number, to: number) => {
      const target = { selectionStart: from, selectionEnd: to, select: vi.fn() }
      f.entry.click({ target } as unknown as MouseEvent)
      return target.select.mock.calls.length
    }
    f.entry.come()
    expect([click(1, 1), click(1, 1)]).toEqual([1, 0])
    f.entry.leave()
    f.entry.come()
    expect([click(0, 2), click(1, 1)]).toEqual([0, 0])
  })
})
