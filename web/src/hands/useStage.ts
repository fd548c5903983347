import { computed, nextTick, ref, type Ref, useTemplateRef, watch } from 'vue'
import type CanvasView from '../canvas/CanvasView.vue'
import type { Hand } from '../canvas/CanvasView.vue'
import { pickForMenu, usePanKey } from '../canvas/page'
import type { Point } from '../live/wire.gen'
import { type Entry, entriesOf, openMenu } from '../shell/menu'
import type { Command } from '../shell/keys'
import type { Stage } from './stage'

/** What the page of a stage needs to lead its hand: handlers for the canvas, the tools as commands, their options and hint. */
export function useStage(
  ed: Stage,
  canvas: Ref<InstanceType<typeof CanvasView> | undefined>,
  more: {
    /** The group that the tools' commands stand in. */
    group: string
    commands: () => Command[]
    /** What the menu offers on what is picked, or on nothing. */
    menu: () => (Entry | null)[]
  },
) {
  const at = ref<Point | null>(null)
  const lastClick = ref<Point | null>(null)
  /** The page names its OptionStrip so. */
  const strip = useTemplateRef<{ select: () => void }>('strip')
  ed.redraw = () => canvas.value?.redraw()
  ed.show = (p) => canvas.value?.reveal(p)
  const tolerance = () => 7 / (canvas.value?.view.scale ?? 1e-5)
  const keysOf = (h: Hand) => ({ shiftKey: h.event.shiftKey, altKey: h.event.altKey })

  watch(() => ({ ...ed.state }), () => ed.redraw()) // prettier-ignore
  watch(() => [ed.project.lit.value, ed.project.othersPicked.value], () => ed.redraw()) // prettier-ignore
  watch(() => [...ed.selection], () => (ed.redraw(), ed.share())) // prettier-ignore
  watch(ed.project.picked, () => ed.follow())
  usePanKey((on) => canvas.value?.hold(on))

  const take = (tool: string) => {
    ed.take(tool)
    if (!ed.tool.strip?.().some((f) => f.as === 'name' && f.main)) canvas.value?.focus()
    else selectName()
  }
  /** Selects the name that is to be placed next, so that typing gives another one. */
  const selectName = () => void nextTick(() => strip.value?.select())
  /** The tools as commands, and what each of them brings. */
  const toolCommands: Command[] = ed.tools
    .filter((t) => t.keys)
    .map((t, i) => ({ id: t.id, title: i ? `${t.name} tool` : t.name, keys: t.keys, group: more.group, run: () => take(t.id) }))
  const ofTools: Command[] = ed.tools.flatMap((t) => t.commands?.() ?? [])

  return {
    at,
    lastClick,
    tolerance,
    take,
    selectName,
    commands: [...toolCommands, ...ofTools],
    /** Keys that come before all commands. */
    early(name: string): boolean {
      if (name === 'Esc') return ed.back()
      if (name === 'Enter' && ed.pressAt(tolerance())) return true
      if (ed.key(name)) return true
      if (name === 'Space' && !ofTools.some((c) => c.keys === name && c.enabled?.())) canvas.value?.hold(true)
      return false
    },
    fields: computed(() => ed.tool.strip?.() ?? []),
    hint: computed(() => ed.state.warning || ed.tool.hint()),
    /** What the canvas tells. */
    on: {
      move(h: Hand) {
        ed.move(h.at, tolerance(), keysOf(h))
        at.value = ed.at
      },
      down(h: Hand) {
        ed.down(h.at, tolerance(), keysOf(h))
        lastClick.value = { ...ed.at }
      },
      up: (h: Hand) => ed.up(h.at, tolerance(), keysOf(h)),
      double: (h: Hand) => ed.double(h.at, tolerance()),
      /** What can be done to what the right button is pressed on; while a tool is in the hand, with the tool. */
      menu(h: Hand) {
        const at = { x: h.event.clientX, y: h.event.clientY }
        if (!ed.picks) {
          openMenu(at, [
            ...entriesOf(more.commands(), ed.tool.menu ?? []),
            { title: 'A step back', keys: 'Esc', run: () => void ed.back() },
            { title: 'Put the tool away', keys: 'S', run: () => take(ed.tools[0].id) },
          ])
          return
        }
        pickForMenu(ed, h, tolerance())
        openMenu(at, more.menu())
      },
    },
  }
}
