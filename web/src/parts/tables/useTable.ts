import { ref, shallowRef, watch, type WatchSource } from 'vue'

/** A pasted table as the core understood it. */
export interface ReadTable {
  columns: string[]
  head: string[]
  cells: string[][]
  notes: string[]
}

/**
 * A table that is typed, pasted or read from a file, and how the core understands it: asked anew whenever the text, what the columns hold, or
 * anything else that matters changes. Only the last answer counts.
 */
export function useTable<A>(ask: (text: string, columns?: string[]) => Promise<A>, also: WatchSource[] = []) {
  const text = ref('')
  const columns = ref<string[] | null>(null)
  const answer = shallowRef<A | null>(null)
  const trouble = ref('')
  let turn = 0
  async function look() {
    const mine = ++turn
    if (!text.value.trim()) {
      answer.value = null
      trouble.value = ''
      return
    }
    try {
      const a = await ask(text.value, columns.value ?? undefined)
      if (mine !== turn) return
      answer.value = a
      trouble.value = ''
    } catch (e) {
      if (mine !== turn) return
      answer.value = null
      trouble.value = (e as Error).message
    }
  }
  watch(text, () => ((columns.value = null), look()))
  watch([columns, ...also], look)
  return { text, columns, answer, trouble }
}
