import { nextTick, type Ref, watch } from 'vue'

/** Scrolls to what a button opened, where it opened below what is in view. */
export const useIntoView = (opened: () => boolean, what: Ref<HTMLElement | undefined>) =>
  watch(opened, (is) => is && void nextTick(() => what.value?.scrollIntoView({ block: 'nearest' })))
