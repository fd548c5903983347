import { computed, onUnmounted, type Ref, watch } from 'vue'
import type CanvasView from '../../canvas/CanvasView.vue'
import type { Pen } from '../../canvas/pen'
import type { Sheet } from '../../canvas/plates'
import type { Box } from '../../canvas/viewport'
import type { Project } from '../../live/project'
import type { Command } from '../../shell/keys'
import type { BoardEditor } from '../editor'
import { useFinished } from '../finished/useFinished'
import { flipView, seeNetAlone, showBoard } from './seeing'
import { drawTints, tintsOf } from './tints'

/** How the board is seen, for its page: the finished board, colours of nets, from below; with the keys for it. */
export function useSight(project: Project, ed: BoardEditor, canvas: Ref<InstanceType<typeof CanvasView> | undefined>) {
  const { state } = ed
  const finished = useFinished(
    project,
    () => state.sight === 'finished',
    () => ed.below,
    () => state.finishedParts,
  )
  watch(finished.picture, () => canvas.value?.refresh('finished'))
  watch([() => ed.finished, () => state.flipped], () => (ed.scene.rearrange(), canvas.value?.redraw()))
  watch(
    () => state.flipped,
    () => {
      const view = canvas.value?.view
      const b = ed.content()
      if (view) view.cx = b.minX + b.maxX - view.cx // what was in the middle of the screen stays there
    },
    { flush: 'sync' },
  )
  const tints = computed(() => (void project.docTick.value, tintsOf(project)))
  const renew = (...names: string[]) => names.forEach((n) => canvas.value?.refresh(n))
  watch(tints, (now, was) => (now.size || was.size) && renew('tints', 'tints below'))
  const again = () => {
    if (tints.value.size) renew('tints', 'tints below')
    if (project.lit.value) renew('net')
  }
  watch(() => [state.netAlone, state.layer, state.others, state.hidden.join(), state.flipped], again)
  onUnmounted(project.onDerived((d) => d.filled?.length && again()))
  const sheets: Sheet[] = [
    {
      name: 'finished',
      order: 0.5,
      empty: () => !ed.finished || !finished.picture.value,
      paint: (pen: Pen, box: Box) => finished.picture.value!.paint(pen, box),
    },
    ...[false, true].map((work) => ({
      name: work ? 'tints' : 'tints below',
      order: work ? 70.2 : 69.7,
      empty: () => !tints.value.size,
      paint: (pen: Pen, box: Box) => drawTints(ed, pen, box, tints.value, work),
    })),
  ]
  /** The other sight, or the board in work again. */
  const turn = (to: 'finished' | 'space') => showBoard(ed, state.sight === to ? 'work' : to)
  const group = 'See'
  const commands: Command[] = [
    { id: 'finished', title: 'The board as it will be, or in work', keys: 'V', group, run: () => turn('finished') },
    { id: 'space', title: 'The board in space, or in work', keys: 'U', group, run: () => turn('space') },
    { id: 'beside', title: 'What is seen otherwise stands beside the board in work', keys: 'Shift U', group, run: () => (state.beside = !state.beside) }, // prettier-ignore
    { id: 'view', title: 'How layers and nets are seen', keys: 'Shift W', group, run: () => (state.viewing = !state.viewing) },
    { id: 'netAlone', title: 'The highlighted net alone, on all layers', keys: 'Shift H', group, run: () => seeNetAlone(ed, !state.netAlone) }, // prettier-ignore
    { id: 'flip', title: 'See the board from below, or from above', keys: 'Shift M', group, run: () => flipView(ed) },
  ]
  return {
    finished,
    sheets,
    commands,
    besideIt: computed(() => state.beside && state.sight !== 'work'),
    spaceAlone: computed(() => state.sight === 'space' && !state.beside),
    /** What is to be said of the finished board. */
    says: computed(() => {
      if (finished.trouble.value) return finished.trouble.value
      if (finished.empty.value) return 'The board has no outline yet.'
      return finished.unfilled.value ? 'copper areas are being filled' : ''
    }),
  }
}
