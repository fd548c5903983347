<script setup lang="ts">
import { mdiEyeOffOutline, mdiEyeOutline, mdiPencilOutline } from '@mdi/js'
import { computed, nextTick, ref, watch } from 'vue'
import type { Project } from '../live/project'
import { copperColour, hatchAngle } from '../shell/tokens'
import { format } from '../live/units'
import { openMenu } from '../shell/menu'
import type { BoardEditor } from './editor'
import { coats, spansOf } from './stack/bands'

/** The board's cross-section: copper layers as bars, dielectrics between, the via's barrel beside. */
const props = defineProps<{ project: Project; editor: BoardEditor }>()
const rows = computed(() => {
  void props.project.docTick.value
  let copper = -1
  return props.project.board.stack
    .filter((l) => !coats.has(l.kind))
    .map((l) => ({ ...l, at: l.kind === 'copper' ? ++copper : -1 }))
})
const n = computed(() => rows.value.filter((r) => r.kind === 'copper').length)
/** With many layers what lies between them is only a line. */
const dense = computed(() => n.value > 6)
/** The barrels that the board's vias use; where nothing is said of holes, one through all layers even when there are no vias yet. */
const barrels = computed(() => {
  void props.project.docTick.value
  const row = (id: number) => rows.value.findIndex((r) => r.kind === 'copper' && r.id === id)
  const [first, last] = [rows.value.findIndex((r) => r.at === 0), rows.value.findIndex((r) => r.at === n.value - 1)]
  const spans = spansOf(props.project.all('via'), row)
  const through = (s: { from: number; to: number }) => s.from === first && s.to === last
  if (n.value > 1 && !props.project.board.holes?.barrels?.length && !spans.some(through))
    spans.unshift({ from: first, to: last, laser: false })
  return spans.map((s) => ({
    key: `${s.from} ${s.to} ${s.laser}`,
    rows: `${s.from + 1} / ${s.to + 2}`,
    laser: s.laser,
    title: through(s)
      ? 'Vias through all layers'
      : `${s.laser ? 'Lasered vias' : 'Vias'} from ${rows.value[s.from].name} to ${rows.value[s.to].name}`,
  }))
})
const box = ref<HTMLElement>()
watch(
  () => props.editor.state.layer,
  () => void nextTick(() => box.value?.querySelector('.bar.on')?.scrollIntoView({ block: 'nearest' })),
)
function eye(layer: number) {
  const h = props.editor.state.hidden
  props.editor.state.hidden = h.includes(layer) ? h.filter((x) => x !== layer) : [...h, layer]
  props.editor.scene.rearrange()
}
function alone(layer: number) {
  const others = rows.value.filter((r) => r.kind === 'copper' && r.id !== layer).map((r) => r.id)
  const isAlone = others.every((o) => props.editor.state.hidden.includes(o))
  props.editor.toLayer(layer)
  props.editor.state.hidden = isAlone ? [] : others
  props.editor.scene.rearrange()
}
function menu(e: MouseEvent, r: { name: string; id: number }) {
  const hidden = props.editor.state.hidden.includes(r.id)
  openMenu({ x: e.clientX, y: e.clientY }, [
    { title: `Work on ${r.name}`, run: () => props.editor.toLayer(r.id) },
    { title: hidden ? 'Show it' : 'Hide it', run: () => eye(r.id) },
    { title: 'Show it alone, or all again', run: () => alone(r.id) },
  ])
}
const tip = (r: { name: string; thickness: number; material: string }) =>
  `${r.name}: ${r.material}, ${format(r.thickness, 'mm', 3)} mm`
</script>

<template>
  <div ref="box" class="float ladder" role="group" aria-label="Layer ladder">
    <div class="stack" :class="{ dense }">
      <template v-for="(r, i) in rows" :key="i">
        <div v-if="r.kind === 'copper'" class="copper" :style="{ gridRow: i + 1 }">
          <v-btn
            class="bar"
            :class="{ on: editor.state.layer === r.id, off: editor.state.hidden.includes(r.id) }"
            :style="{ '--c': copperColour(r.at, n), '--a': hatchAngle(r.at) + 'deg' }"
            :aria-pressed="editor.state.layer === r.id"
            :title="tip(r)"
            @click="$event.altKey ? alone(r.id) : editor.toLayer(r.id)"
            @dblclick="alone(r.id)"
            @contextmenu.prevent="menu($event, r)"
          >
            <i /><span>{{ r.name }}</span>
          </v-btn>
          <v-btn
            class="eye"
            size="x-small"
            :icon="editor.state.hidden.includes(r.id) ? mdiEyeOffOutline : mdiEyeOutline"
            :aria-label="`${editor.state.hidden.includes(r.id) ? 'Show' : 'Hide'} ${r.name}`"
            @click="eye(r.id)"
          />
        </div>
        <div v-else class="between" :title="tip(r)" :style="{ gridRow: i + 1 }">
          <span v-if="!dense" class="quiet">{{ r.material }} {{ format(r.thickness, 'mm', 3) }}</span>
        </div>
      </template>
      <div
        v-for="(b, i) in barrels"
        :key="b.key"
        class="barrel"
        :class="{ laser: b.laser }"
        :title="b.title"
        :style="{ gridRow: b.rows, gridColumn: i + 2 }"
      />
    </div>
    <v-btn class="edit" size="x-small" variant="text" :prepend-icon="mdiPencilOutline" @click="editor.state.stacking = true"
      >Stack</v-btn
    >
    <v-btn
      class="edit"
      size="x-small"
      variant="text"
      :prepend-icon="mdiEyeOutline"
      :aria-expanded="editor.state.viewing"
      @click="editor.state.viewing = !editor.state.viewing"
      >View</v-btn
    >
    <p v-if="editor.state.flipped" class="quiet below">seen from below</p>
  </div>
</template>

<style scoped>
.ladder {
  position: absolute;
  left: 12px;
  top: 12px;
  z-index: 4;
  padding: 8px;
  max-height: calc(100% - 110px);
  overflow-y: auto;
}
.stack {
  display: grid;
  grid-template-columns: 148px;
  grid-auto-columns: 9px;
  column-gap: 2px;
  row-gap: 2px;
}
.copper,
.between {
  grid-column: 1;
}
.dense .bar.v-btn {
  height: 21px;
}
.dense .between {
  height: 3px;
  padding: 0;
}
.copper {
  display: flex;
  align-items: center;
}
.bar.v-btn {
  flex: 1;
  justify-content: flex-start;
  height: 26px;
  padding: 0 6px;
  border: 1px solid transparent;
  font-size: 12.5px;
}
.bar :deep(.v-btn__content) {
  gap: 8px;
}
.bar i {
  width: 36px;
  height: 10px;
  border-radius: 2px;
  background: repeating-linear-gradient(var(--a), var(--c) 0 4px, color-mix(in srgb, var(--c) 72%, #000) 4px 6px);
}
.bar.v-btn.on {
  border-color: var(--c);
  background: color-mix(in srgb, var(--c) 18%, transparent);
}
.bar.off i {
  opacity: 0.25;
}
.between {
  height: 20px;
  margin-left: 7px;
  width: 112px;
  background: rgba(var(--v-border-color), 0.14);
  border-radius: 2px;
  font-size: 11px;
  padding: 1px 8px;
}
.edit.v-btn {
  margin: 4px 0 -2px;
}
.below {
  margin: 2px 6px 0;
  font-size: 11.5px;
}
.barrel {
  width: 7px;
  align-self: stretch;
  margin: 8px 1px;
  border-radius: 3px;
  background: linear-gradient(to right, #d9906f 0 2px, #100c16 2px 5px, #d9906f 5px 7px);
}
.barrel.laser {
  width: 5px;
  margin-inline: 2px;
  background: #d9906f;
}
</style>
