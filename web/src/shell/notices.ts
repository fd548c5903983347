import { reactive } from 'vue'

export interface Notice {
  id: number
  text: string
  tone: 'error' | 'plain'
  action?: { label: string; run: () => void }
  /** The pointer is on it: it stays. */
  held?: boolean
}

/** Short sentences that queue in one place, three at a time; errors and what can be acted on stay longer. */
export const notices = reactive<Notice[]>([])
const queue: Notice[] = []
let next = 1

export function say(text: string, tone: Notice['tone'] = 'plain', action?: Notice['action']) {
  const same = notices.findIndex((n) => n.text === text)
  if (same >= 0) notices.splice(same, 1)
  queue.push({ id: next++, text, tone, action })
  show()
}

/** Shows what waits. One that only tells makes room when others wait. */
function show() {
  while (queue.length) {
    if (notices.length >= 3) {
      const old = notices.findIndex((n) => n.tone === 'plain' && !n.action && !n.held)
      if (old < 0) return
      notices.splice(old, 1)
    }
    const n = queue.shift()!
    notices.push(n)
    leave(n.id, n.tone === 'error' || n.action ? 9000 : 4000)
  }
}
function leave(id: number, after: number) {
  setTimeout(() => {
    if (notices.find((n) => n.id === id)?.held) leave(id, 2000)
    else drop(id)
  }, after)
}

export function drop(id: number) {
  const i = notices.findIndex((n) => n.id === id)
  if (i >= 0) notices.splice(i, 1)
  show()
}

/** An act that changes nothing is not an error: it is said as quietly as it is. */
const nothing = /changes? nothing|nothing to (undo|redo)/i

/** Shows an error; one without words was the person's own choice. */
export const complain = (e: unknown) => {
  const text = e instanceof Error ? e.message : String(e)
  if (text) say(text, nothing.test(text) ? 'plain' : 'error')
}
