import type { LayerSet } from '../../live/wire.gen'
import type { BoardEditor } from '../editor'

/** How the board and its layers are seen: what a person chooses of it. */

/** Shows the board otherwise, or as it is worked on again. */
export function showBoard(ed: BoardEditor, how: BoardEditor['state']['sight']) {
  ed.state.sight = how
  ed.scene.rearrange()
}
export function seeOthers(ed: BoardEditor, how: string) {
  ed.state.others = how
  ed.scene.rearrange()
}
export function seeNetAlone(ed: BoardEditor, on: boolean) {
  ed.state.netAlone = on
  ed.scene.rearrange()
}
export function showSurface(ed: BoardEditor, s: string, on: boolean) {
  const { unseen } = ed.state
  ed.state.unseen = on ? unseen.filter((u) => u !== s) : [...unseen, s]
  ed.scene.rearrange()
}
export function flipView(ed: BoardEditor) {
  ed.state.flipped = !ed.state.flipped
  ed.scene.rearrange()
}
/** Sees the layers as a set says; layers that are no more are passed over. */
export function takeSet(ed: BoardEditor, s: LayerSet) {
  const { state } = ed
  state.hidden = ed.copper.map((l) => l.id).filter((l) => !s.layers.includes(l))
  if (s.work && ed.position(s.work) >= 0) state.layer = s.work
  state.others = s.others ?? ''
  state.unseen = [...(s.hidden ?? [])]
  state.flipped = !!s.flipped
  ed.scene.rearrange()
}
