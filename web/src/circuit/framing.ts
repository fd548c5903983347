import type { Ref } from 'vue'
import type CanvasView from '../canvas/CanvasView.vue'
import type { Box } from '../canvas/viewport'
import type { useTaste } from '../shell/taste'
import type { CircuitEditor } from './editor'

/** What of a sheet is brought into view. */
export function useFraming(
  ed: CircuitEditor,
  taste: ReturnType<typeof useTaste>,
  canvas: Ref<InstanceType<typeof CanvasView> | undefined>,
  drawing: () => boolean,
) {
  /** Room for the list of sheets, where it is long. */
  const list = () => (taste.sheetsOpen && drawing() && ed.project.all('sheet').length > 3 ? 222 : 0)
  /** What was framed last, and how the paper stood then: pressing the key again frames the other. */
  let framed = { what: '', cx: 0, cy: 0, scale: 0 }
  const standing = () => ({
    cx: canvas.value?.view.cx ?? 0,
    cy: canvas.value?.view.cy ?? 0,
    scale: canvas.value?.view.scale ?? 0,
  })
  /** Whether the paper stands as it was framed, to two pixels: it is laid on whole ones. */
  function stands() {
    const { cx, cy, scale } = standing()
    return scale === framed.scale && Math.hypot(cx - framed.cx, cy - framed.cy) * scale < 2
  }
  /** Frames what is drawn, over the whole width; pressed again, the whole sheet. */
  function all() {
    const content = ed.content()
    const what = content && !(framed.what === 'content' && stands()) ? 'content' : 'sheet'
    const b = what === 'content' ? content : ed.scene.boxOf(ed.sheet)
    if (b) canvas.value?.show(b, what === 'content' ? 40 : 8, 0, 6e-6)
    framed = { what, ...standing() }
  }
  /** What a sheet opens on: the whole of it, or what is drawn when that is only a small part. */
  function opening() {
    const b = ed.content()
    const sheet = ed.scene.boxOf(ed.sheet)
    const small =
      b && sheet && b.maxX - b.minX < 0.6 * (sheet.maxX - sheet.minX) && b.maxY - b.minY < 0.6 * (sheet.maxY - sheet.minY)
    if (b && small) canvas.value?.show(b, 50, list(), 5e-6)
    else if (sheet) canvas.value?.show(sheet, 10, list())
  }
  function selection() {
    const b = ed.boxOf(ed.selection)
    if (b) canvas.value?.show(b, 140, 0, 8e-6)
  }
  function around(b: Box) {
    canvas.value?.show({ minX: b.minX - 25e6, minY: b.minY - 20e6, maxX: b.maxX + 25e6, maxY: b.maxY + 20e6 }, 40, 0, 8e-6)
  }
  return { all, opening, selection, around }
}
