import { useTimeoutFn } from '@vueuse/core'
import { ref, shallowRef } from 'vue'
import { Refusal } from '../../live/http'

/**
 * Asks the depot. Only the last question's answer is shown, an earlier one is broken off; what was heard stays to be seen while the next
 * answer is on its way or does not come.
 */
export function useAsking<A>(call: (signal: AbortSignal) => Promise<A>) {
  const answer = shallowRef<A | null>(null)
  const trouble = ref('')
  const busy = ref(false)
  /** It takes so long that it is said. */
  const slow = ref(false)
  const late = useTimeoutFn(() => (slow.value = busy.value), 300, { immediate: false })
  let going: AbortController | null = null

  async function ask() {
    going?.abort()
    const mine = (going = new AbortController())
    busy.value = true
    trouble.value = ''
    late.start()
    try {
      const a = await call(mine.signal)
      if (mine !== going) return
      answer.value = a
    } catch (e) {
      if (mine !== going) return
      trouble.value = mine.signal.aborted ? 'It was stopped.' : (e as Refusal).message
    }
    busy.value = slow.value = false
    going = null
  }
  const stop = () => going?.abort()
  return { answer, trouble, busy, slow, ask, stop }
}
