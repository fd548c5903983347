import { describe, expect, it } from 'vitest'
import { keyName } from './keys'

const press = (key: string, mods: Partial<KeyboardEvent> = {}) =>
  keyName({ key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...mods } as KeyboardEvent)

describe('how a key press is written', () => {
  it.each([
    ['q', {}, 'Q'],
    ['Z', { ctrlKey: true, shiftKey: true }, 'Ctrl Shift Z'],
    ['z', { metaKey: true }, 'Ctrl Z'],
    [' ', {}, 'Space'],
    ['?', { shiftKey: true }, '?'],
    ['Delete', { shiftKey: true }, 'Shift Del'],
    ['ArrowLeft', { shiftKey: true }, 'Shift ArrowLeft'],
    ['Escape', {}, 'Esc'],
    ['1', {}, '1'],
  ])('%s %o is %s', (key, mods, want) => expect(press(key, mods)).toBe(want))
})
