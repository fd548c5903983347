import { shallowReactive } from 'vue'
import { keyName, typing } from './keys'
import { say } from './notices'

/** A key as it was pressed. */
type Pressed = Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'shiftKey' | 'altKey' | 'metaKey'>

interface Hold {
  /** What becomes of a key: it is heard all the same, waits, or is nobody's. */
  hears: (e: KeyboardEvent) => 'heard' | 'waits' | 'nobody'
}

/** The most keys that wait. */
const most = 200
/** How long keys wait at most, in milliseconds, unless they wait for an answer of the person's own. */
const patience = 15_000
const holds: Hold[] = []
/** What waits to be pressed again. */
export const heldKeys = shallowReactive<Pressed[]>([])
let pressing = false

/** Begins to hear keys before anything else does. */
export function watchHeldKeys() {
  window.addEventListener('keydown', hear, true)
  window.addEventListener('pointerdown', catchUp, true)
}

/**
 * Keys that are pressed until something is there – the answer to what was typed, the field that is typed into next – wait, and are pressed again
 * in their order when it is: so nothing falls through to the drawing, however quickly one types and however late the program answers. Esc takes
 * back what waits. first: a key that waits, too.
 */
export function holdKeys(until: Promise<unknown>, more: { first?: KeyboardEvent; hears?: Hold['hears']; long?: boolean } = {}) {
  const mine: Hold = { hears: more.hears ?? (() => 'waits') }
  holds.push(mine)
  if (more.first) wait(more.first)
  const late = more.long ? undefined : setTimeout(() => lost(mine), patience)
  const over = () => {
    clearTimeout(late)
    release(mine)
  }
  void until.then(over, over)
}

function release(mine: Hold) {
  const i = holds.indexOf(mine)
  if (i >= 0) holds.splice(i, 1)
  if (!holds.length) void pressAgain()
}
/** What is waited for does not come: what was typed is given up, and said to be. */
function lost(mine: Hold) {
  const word = heldWord()
  heldKeys.splice(0)
  release(mine)
  if (word) say(`The program answers late: “${word}” was not taken.`, 'error')
}

/** What waits, as it was typed. */
export const heldWord = () => heldKeys.map((k) => (k.key.length === 1 ? k.key : ` ${k.key} `)).join('').trim() // prettier-ignore

function wait(e: KeyboardEvent) {
  e.preventDefault()
  e.stopImmediatePropagation()
  const { key, code, ctrlKey, shiftKey, altKey, metaKey } = e
  const pressed = { key, code, ctrlKey, shiftKey, altKey, metaKey }
  if (!e.isTrusted)
    heldKeys.unshift(pressed) // it was pressed again, and waits once more: before all others
  else if (heldKeys.length < most) heldKeys.push(pressed)
}

const bare = /^(Shift|Control|Alt|Meta|AltGraph|CapsLock|Dead|Process|Unidentified)$/

function hear(e: KeyboardEvent) {
  if (!e.isTrusted || bare.test(e.key) || !(holds.length || pressing)) return
  const becomes = holds.at(-1)?.hears(e) ?? 'waits'
  if (becomes === 'heard') return
  if (becomes === 'nobody') {
    e.preventDefault()
    e.stopImmediatePropagation()
    return
  }
  if (keyName(e) === 'Esc' && !pressing) {
    heldKeys.splice(0)
    return
  }
  wait(e)
}

/** A turn of the page, in which it follows a key. */
const turn = () => new Promise((done) => setTimeout(done))

async function pressAgain() {
  if (pressing) return
  pressing = true
  await turn()
  while (heldKeys.length && !holds.length) {
    pressNow(heldKeys.shift()!)
    await turn()
  }
  pressing = false
}

/** A press of the hand comes after the keys before it. */
function catchUp() {
  while (heldKeys.length && !holds.length) pressNow(heldKeys.shift()!)
}

function pressNow(k: Pressed) {
  const at = (document.activeElement ?? document.body) as HTMLElement
  const went = at.dispatchEvent(new KeyboardEvent('keydown', { ...k, bubbles: true, cancelable: true }))
  if (went && (at instanceof HTMLInputElement || at instanceof HTMLTextAreaElement) && typing(at)) write(at, k)
  else if (went && (k.key === 'Enter' || k.key === ' ') && at.matches('button, a[href]')) at.click()
}

/** What a key does in a field. */
function write(field: HTMLInputElement | HTMLTextAreaElement, k: Pressed) {
  if (k.ctrlKey || k.metaKey || k.altKey) return
  const [from, to] = [field.selectionStart ?? field.value.length, field.selectionEnd ?? field.value.length]
  if (k.key === 'Backspace') field.setRangeText('', from === to ? Math.max(0, from - 1) : from, to, 'end')
  else if (k.key.length === 1) field.setRangeText(k.key, from, to, 'end')
  else return
  field.dispatchEvent(new InputEvent('input', { bubbles: true, inputType: 'insertText', data: k.key }))
}
