import { shallowRef } from 'vue'
import type { Command } from './keys'

/** A line of a menu: what it does, its key, and whether it can be done now. */
export interface Entry {
  title: string
  keys?: string
  run: () => void
  enabled?: () => boolean
}

/** The open menu: where it stands in the window, and its lines; null is a line between groups. */
export const menuOpen = shallowRef<{ x: number; y: number; entries: (Entry | null)[] } | null>(null)

/** Opens the menu of what is there; lines that cannot be done now are left out, and lines between nothing too. */
export function openMenu(at: { x: number; y: number }, entries: (Entry | null)[]) {
  const able = entries.filter((e) => e === null || (e.enabled?.() ?? true))
  const list = able.filter((e, i) => e !== null || (i > 0 && able[i - 1] !== null && able.slice(i).some((x) => x !== null)))
  menuOpen.value = list.length ? { x: at.x, y: at.y, entries: list } : null
}

/** Opens the menu of a line of fields; within a field the browser's own stays, for copying and pasting. */
export function openMenuOf(e: MouseEvent, entries: (Entry | null)[]) {
  const on = e.target as HTMLElement
  if (on.closest('input, textarea')) return
  e.preventDefault()
  openMenu(placeOf(e, on), entries)
}

/** Where a menu opens: at the pointer, or, opened by a key or a button, below what it is of. */
export function placeOf(e: MouseEvent, of: HTMLElement) {
  const r = of.getBoundingClientRect()
  const keys = e.type === 'click' || (e.clientX === 0 && e.clientY === 0)
  return keys ? { x: r.left, y: r.bottom } : { x: e.clientX, y: e.clientY }
}

/** The commands with these ids as lines of a menu, in this order; "" is a line between groups. */
export const entriesOf = (commands: Command[], ids: string[]): (Entry | null)[] =>
  ids.flatMap((id) => (id === '' ? [null] : (commands.find((c) => c.id === id) ?? [])))
