import { useTimeoutFn } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { call, Refusal } from '../../live/http'
import type { Answer, Query } from '../../live/wire.gen'

/**
 * Asks the depot. Only the last question's answer is shown, an earlier one is broken off; what was found stays to be seen while the
 * next is on its way or does not come, and says that it is of before.
 */
export function useAsking() {
  const query = ref<Query>({ quantity: 25, inStock: true })
  const answer = shallowRef<Answer | null>(null)
  /** The query that the answer is of. */
  const of = shallowRef<Query | null>(null)
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
    const asked = JSON.parse(JSON.stringify(query.value)) as Query
    try {
      const a = await call<Answer>('POST', '/depot/search', asked, mine.signal)
      if (mine !== going) return
      answer.value = a
      of.value = asked
    } catch (e) {
      if (mine !== going) return
      trouble.value = mine.signal.aborted ? 'It was stopped.' : (e as Refusal).message
    }
    busy.value = slow.value = false
    going = null
  }
  function stop() {
    going?.abort()
  }
  /** What is shown is not what is asked for. */
  const stale = computed(() => !!answer.value && JSON.stringify(of.value) !== JSON.stringify(query.value) && !busy.value)
  return { query, answer, trouble, busy, slow, stale, ask, stop }
}
