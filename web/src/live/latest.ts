/**
 * Makes a search whose late answers are dropped: of several asked one after the other only the
 * last one's answer is shown.
 */
export function latest<Q, A>(ask: (q: Q) => Promise<A>, show: (a: A) => void) {
  let asked = 0
  return async (q: Q) => {
    const mine = ++asked
    const answer = await ask(q)
    if (mine === asked) show(answer)
  }
}
