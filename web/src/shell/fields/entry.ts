import { computed, ref, watch } from 'vue'

/** How values of one kind are written and read. */
export interface Writing<V> {
  show(v: V): string
  /** Throws a sentence when the text says no such value. */
  read(text: string): V
  /** The value so many steps further, while its label is dragged; without it the label does not scrub. */
  scrub?(v: V, steps: number): V
}

/**
 * What all fields of entered values do alike: while one types nothing changes; Enter and leaving keep what can be
 * read, Escape gives the old value back, dragging the label scrubs. What cannot be read stays with a sentence.
 * A value of null is several values, or none. What keep promises tells whether it was kept: a promise of nothing was
 * refused, and the old value comes back.
 */
export function useEntry<V>(value: () => V | null, writing: () => Writing<V>, keep: (v: V) => unknown, off: () => boolean) {
  const text = ref('')
  const trouble = ref('')
  const typing = ref(false)
  const shown = computed(() => {
    const v = value()
    return v === null ? '' : writing().show(v)
  })
  /** Somebody is in the field; what they left there unread goes when the value becomes another. */
  let here = false
  watch(shown, (s) => (typing.value && here) || (restore(), (text.value = s)), { immediate: true })

  function restore() {
    typing.value = false
    trouble.value = ''
    text.value = shown.value
  }
  function hand(v: V) {
    const answer = keep(v)
    if (answer instanceof Promise)
      void answer.then((done: unknown) => {
        if (done === undefined && !typing.value) text.value = shown.value
      })
  }
  /** Keeps what was typed; tells whether it could be read. */
  function enter(): boolean {
    if (!typing.value) return true
    if (text.value.trim() === shown.value.trim()) {
      restore()
      return true
    }
    try {
      const v = writing().read(text.value)
      typing.value = false
      trouble.value = ''
      const old = value()
      text.value = writing().show(v)
      if (old === null || writing().show(old) !== text.value) hand(v)
      return true
    } catch (e) {
      trouble.value = (e as Error).message
      return false
    }
  }
  /** What cannot be read stays, with its sentence, until it is mended or Esc gives the old value back. */
  function leave() {
    fresh = here = false
    enter()
  }
  let fresh = false
  function come() {
    fresh = here = true
  }
  /** The first click into the field picks all of it, unless the hand picked a part. */
  function click(e: MouseEvent) {
    const field = e.target as HTMLInputElement
    if (fresh && field.select && field.selectionStart === field.selectionEnd) field.select()
    fresh = false
  }
  function press(e: KeyboardEvent) {
    fresh = false
    if (e.key === 'Enter') {
      e.preventDefault()
      enter()
      if (!trouble.value) (e.target as HTMLInputElement).select?.()
      typing.value = !!trouble.value
    } else if (e.key === 'Escape' && (typing.value || trouble.value)) {
      e.stopPropagation()
      restore()
      ;(e.target as HTMLElement).blur()
    }
  }
  function type(s: string) {
    typing.value = here = true
    text.value = s
  }

  // ---- scrubbing

  let held: { x: number; v: V; now: V } | null = null
  const scrubs = computed(() => !!writing().scrub && value() !== null && !off())
  function grab(e: PointerEvent) {
    const v = value()
    if (!scrubs.value || v === null) return
    held = { x: e.clientX, v, now: v }
    ;(e.target as HTMLElement).setPointerCapture(e.pointerId)
  }
  function drag(e: PointerEvent) {
    if (!held) return
    held.now = writing().scrub!(held.v, Math.round((e.clientX - held.x) / 4))
    text.value = writing().show(held.now)
  }
  function drop() {
    if (!held) return
    const { v, now } = held
    held = null
    if (writing().show(now) !== writing().show(v)) hand(now)
    else text.value = shown.value
  }
  function give() {
    held = null
    restore()
  }
  return { text, trouble, scrubs, type, press, leave, come, click, grab, drag, drop, give }
}
