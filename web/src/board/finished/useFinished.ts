import { useTimeoutFn } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { call } from '../../live/http'
import type { Project } from '../../live/project'
import type { Finish } from '../../live/wire.gen'
import { FinishedPicture } from './picture'

/** The finished board from a side, asked for anew a moment after every change while it is wanted. */
export function useFinished(project: Project, wanted: () => boolean, bottom: () => boolean, parts: () => boolean) {
  const picture = shallowRef<FinishedPicture | null>(null)
  const rev = ref(-1)
  const unfilled = ref(false)
  const trouble = ref('')
  const empty = ref(false)
  let asking: AbortController | null = null

  async function ask() {
    asking?.abort()
    if (!wanted()) return
    const mine = (asking = new AbortController())
    try {
      const query = `side=${bottom() ? 'bottom' : 'top'}${parts() ? '' : '&bare=1'}`
      const f = await call<Finish>('GET', `/projects/${project.id}/finished?${query}`, undefined, mine.signal)
      if (mine !== asking) return
      rev.value = f.rev
      unfilled.value = !!f.behind
      empty.value = !!f.empty
      trouble.value = ''
      picture.value = f.view ? new FinishedPicture(f.view) : null
    } catch (e) {
      if (!mine.signal.aborted) trouble.value = (e as Error).message
    }
  }
  const soon = useTimeoutFn(() => void ask(), 60, { immediate: false })
  watch([wanted, bottom, parts], () => void ask(), { immediate: true })
  watch(
    () => [project.docTick.value, project.derivedTick.value],
    () => wanted() && (rev.value !== project.rev.value || unfilled.value) && soon.start(),
  )
  onBeforeUnmount(() => asking?.abort())
  const behind = computed(() => (void project.docTick.value, rev.value >= 0 && rev.value !== project.rev.value))
  return { picture, rev, behind, unfilled, trouble, empty }
}
