import { reactive } from 'vue'

export interface Notice {
  id: number
  text: string
  tone: 'error' | 'plain'
  action?: { label: string; run: () => void }
}

/** Short sentences at the foot of the window; errors stay longer. */
export const notices = reactive<Notice[]>([])
let next = 1

export function say(text: string, tone: Notice['tone'] = 'plain', action?: Notice['action']) {
  const same = notices.findIndex((n) => n.text === text)
  if (same >= 0) notices.splice(same, 1)
  const id = next++
  notices.push({ id, text, tone, action })
  if (notices.length > 3) notices.shift()
  setTimeout(() => drop(id), tone === 'error' || action ? 9000 : 4000)
}

export function drop(id: number) {
  const i = notices.findIndex((n) => n.id === id)
  if (i >= 0) notices.splice(i, 1)
}

/** Shows an error; one without words was the person's own choice. */
export const complain = (e: unknown) => {
  const text = e instanceof Error ? e.message : String(e)
  if (text) say(text, 'error')
}
