import { complain } from '../shell/notices'

/** Waits until what was drawn is kept; what is refused goes back into the hand, with the sentence why: a refusal takes away nothing that took more than a click. */
export const orBack = (kept: Promise<unknown>, back: () => void) =>
  kept.catch((e: unknown) => {
    back()
    complain(e)
  })
