import { readonly, ref } from 'vue'

/**
 * Makes a search whose late answers are dropped: of several asked one after the other only the
 * last one's answer is shown.
 */
export function latest<Q, A>(ask: (q: Q) => Promise<A>, show: (a: A) => void) {
  let asked = 0
  const behind = ref(false)
  let last: Promise<void> = Promise.resolve()
  const search = (q: Q) => {
    const mine = ++asked
    behind.value = true
    return (last = ask(q).then((answer) => {
      if (mine !== asked) return
      behind.value = false
      show(answer)
    }))
  }
  return Object.assign(search, {
    /** Whether what is shown is not the answer to what was asked last. */
    behind: readonly(behind),
    /** When the answer to what was asked last is shown. */
    async shown() {
      for (let seen = -1; seen !== asked;) {
        seen = asked
        await last
      }
    },
  })
}
