import { computed, reactive } from 'vue'
import { NotDone } from '../live/notDone'

export interface Notice {
  id: number
  text: string
  /** What went wrong; what was done, but not as one may think; what was done. */
  tone: 'error' | 'warning' | 'plain'
  /** It says why something was not done: it goes once something is. */
  refusal?: boolean
  action?: { label: string; run: () => void }
  /** The pointer is on it: it stays. */
  held?: boolean
  /** Milliseconds it is still to be seen. */
  left: number
}

/**
 * Short sentences that wait in one place. The newest is seen, for it answers what was done last;
 * errors and what can be acted on wait below it for as long as they have not been seen, what only
 * tells goes when something newer comes.
 */
export const notices = reactive<Notice[]>([])
export const shown = computed(() => notices.at(-1))
const step = 250
const most = 20
let next = 1
let clock: ReturnType<typeof setInterval> | undefined

export function say(text: string, tone: Notice['tone'] = 'plain', action?: Notice['action'], refusal = false) {
  for (let i = notices.length - 1; i >= 0; i--)
    if (notices[i].text === text || (notices[i].tone === 'plain' && !notices[i].action)) notices.splice(i, 1)
  hold(false) // the pointer is on the newer one now, if on any
  if (notices.length >= most) notices.shift()
  notices.push({ id: next++, text, tone, action, refusal, left: tone !== 'plain' || action ? 9000 : 4000 })
  clock ??= setInterval(pass, step)
  return notices.at(-1)!.id
}

/** Only what is seen grows old. */
function pass() {
  const n = shown.value
  if (n?.held) n.left = Math.max(n.left - step, 2000)
  else if (n && (n.left -= step) <= 0) drop(n.id)
  if (notices.length) return
  clearInterval(clock)
  clock = undefined
}

/** While somebody reads it, what is seen stays. */
export function hold(on: boolean) {
  if (shown.value) shown.value.held = on
}

export function drop(id: number) {
  const i = notices.findIndex((n) => n.id === id)
  if (i >= 0) notices.splice(i, 1)
}

/** An act that changes nothing is not an error: it is said as quietly as it is. */
const nothing = /changes? nothing|nothing to (undo|redo)/i

/** Shows an error; one without words was the person's own choice. */
export const complain = (e: unknown) => {
  const text = e instanceof Error ? e.message : String(e)
  if (text) say(text, nothing.test(text) ? 'plain' : 'error', undefined, e instanceof NotDone)
}

/** Something was done: why others were not is of no more use. */
export function refusalsGo() {
  for (const n of notices.filter((n) => n.refusal)) drop(n.id)
}
