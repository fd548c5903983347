/** A command with its key, as the command field and the key help show it. */
export interface Command {
  id: string
  title: string
  keys?: string
  group: string
  run: () => void
  enabled?: () => boolean
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

/** Whether the key goes to a field that is being typed in. */
export function typing(e: KeyboardEvent): boolean {
  const t = e.target as HTMLElement | null
  return !!t && (t.tagName === 'INPUT' || t.tagName === 'TEXTAREA' || t.tagName === 'SELECT' || t.isContentEditable)
}
