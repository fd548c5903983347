/** A command with its key, as the command field and the key help show it. */
export interface Command {
  id: string
  title: string
  keys?: string
  group: string
  run: () => void
  enabled?: () => boolean
  /** Whether there is such a thing here at all; without it its key is not listed. */
  there?: () => boolean
}

/** How a key press is written: "Ctrl Shift Z", "Q", "Space", "ArrowLeft". */
export function keyName(e: KeyboardEvent): string {
  let k = e.key
  if (k === ' ') k = 'Space'
  else if (k === 'Delete' || k === 'Backspace') k = k === 'Delete' ? 'Del' : 'Backspace'
  else if (k === 'Escape') k = 'Esc'
  else if (k.length === 1) k = k.toUpperCase()
  const mods = [
    e.ctrlKey || e.metaKey ? 'Ctrl' : '',
    e.altKey ? 'Alt' : '',
    e.shiftKey && (k.length > 1 || /[A-Z]/.test(k)) ? 'Shift' : '',
  ]
  return [...mods, k].filter(Boolean).join(' ')
}

// Whose a key is: what is typed into is heard by its field alone; what is steered (a slider) has the keys that steer, however it was reached; what is
// pressed (a button, a check box) has those that press and lead on, once it was reached by keys; all others are the stage's.

const pressed = /^(checkbox|radio|button|submit|reset|file|color|image)$/
/** Whether a key goes to a field that is being typed in, or whether an element is one. */
export function typing(e: KeyboardEvent | Element | null): boolean {
  const t = (e instanceof Event ? e.target : e) as HTMLElement | null
  if (!t) return false
  if (t.tagName === 'INPUT') return (t as HTMLInputElement).type !== 'range' && !pressed.test((t as HTMLInputElement).type)
  return t.tagName === 'TEXTAREA' || t.tagName === 'SELECT' || t.isContentEditable
}

const moving = /^(Tab|Enter|Space|Home|End|PageUp|PageDown|Arrow(Left|Right|Up|Down))$/
const steered = '[role=slider], [role=spinbutton], input[type=range]'
const pressable =
  'button, a[href], input[type=checkbox], input[type=radio], [role=option], [role=listitem], [role=radio], [role=tab], [role=checkbox], [role=switch]'
/** Whether a key is one that the control understands that has the focus. */
export function ofControl(e: KeyboardEvent): boolean {
  const t = e.target as HTMLElement | null
  if (!t?.matches || !moving.test(keyName(e).replace('Shift ', ''))) return false
  return t.matches(steered) || (t.matches(pressable) && t.matches(':focus-visible'))
}

let typed = 0
/** Notes when a letter was typed into a field; Enter and Esc end the typing. */
export function watchTyping() {
  window.addEventListener(
    'keydown',
    (e) => {
      if (!typing(e)) return
      typed = e.key === 'Enter' || e.key === 'Escape' || e.key === 'Tab' ? 0 : e.timeStamp
    },
    true,
  )
}

/**
 * Whether a key belongs to a word that was being typed when its field went away: a letter that
 * follows the last one as quickly as one types. It is nobody's command.
 */
export const justLeft = (e: KeyboardEvent) =>
  !typing(e) &&
  typed > 0 &&
  e.key.length === 1 &&
  !e.ctrlKey &&
  !e.metaKey &&
  !e.altKey &&
  e.timeStamp - typed < 350 &&
  ((typed = e.timeStamp), true)

const arrows: Record<string, string> = { ArrowLeft: '←', ArrowRight: '→', ArrowUp: '↑', ArrowDown: '↓' }
/** Keys as they are shown. */
export const keyText = (keys: string) => keys.replace(/Arrow(Left|Right|Up|Down)/g, (a) => arrows[a])
