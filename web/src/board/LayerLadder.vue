<script setup lang="ts">
import { mdiEyeOffOutline, mdiEyeOutline } from '@mdi/js'
import { computed } from 'vue'
import type { Project } from '../live/project'
import { copperColour, hatchAngle } from '../shell/tokens'
import { format } from '../live/units'
import { openMenu } from '../shell/menu'
import type { BoardEditor } from './editor'

/** The board's cross-section: copper layers as bars, dielectrics between, the via's barrel beside. */
const props = defineProps<{ project: Project; editor: BoardEditor }>()
const rows = computed(() => {
  void props.project.docTick.value
  let copper = -1
  return props.project.board.stack.map((l) => ({ ...l, layer: l.copper ? ++copper : -1 }))
})
const n = computed(() => rows.value.filter((r) => r.copper).length)
function eye(layer: number) {
  const h = props.editor.state.hidden
  props.editor.state.hidden = h.includes(layer) ? h.filter((x) => x !== layer) : [...h, layer]
  props.editor.scene.invalidate()
}
function alone(layer: number) {
  const others = rows.value.filter((r) => r.copper && r.layer !== layer).map((r) => r.layer)
  const isAlone = others.every((o) => props.editor.state.hidden.includes(o))
  props.editor.toLayer(layer)
  props.editor.state.hidden = isAlone ? [] : others
  props.editor.scene.invalidate()
}
function menu(e: MouseEvent, r: { name: string; layer: number }) {
  const hidden = props.editor.state.hidden.includes(r.layer)
  openMenu({ x: e.clientX, y: e.clientY }, [
    { title: `Work on ${r.name}`, run: () => props.editor.toLayer(r.layer) },
    { title: hidden ? 'Show it' : 'Hide it', run: () => eye(r.layer) },
    { title: 'Show it alone, or all again', run: () => alone(r.layer) },
  ])
}
const tip = (r: { name: string; thickness: number; material: string }) =>
  `${r.name}: ${r.material}, ${format(r.thickness, 'mm', 3)} mm`
</script>

<template>
  <div class="float ladder" role="group" aria-label="Layer ladder">
    <div class="stack">
      <template v-for="(r, i) in rows" :key="i">
        <div v-if="r.copper" class="copper">
          <v-btn
            class="bar"
            :class="{ on: editor.state.layer === r.layer, off: editor.state.hidden.includes(r.layer) }"
            :style="{ '--c': copperColour(r.layer, n), '--a': hatchAngle(r.layer) + 'deg' }"
            :aria-pressed="editor.state.layer === r.layer"
            :title="tip(r)"
            @click="editor.toLayer(r.layer)"
            @dblclick="alone(r.layer)"
            @contextmenu.prevent="menu($event, r)"
          >
            <i /><span>{{ r.name }}</span>
          </v-btn>
          <v-btn
            class="eye"
            size="x-small"
            :icon="editor.state.hidden.includes(r.layer) ? mdiEyeOffOutline : mdiEyeOutline"
            :aria-label="`${editor.state.hidden.includes(r.layer) ? 'Show' : 'Hide'} ${r.name}`"
            @click="eye(r.layer)"
          />
        </div>
        <div v-else class="between" :title="tip(r)">
          <span class="quiet">{{ r.material }} {{ format(r.thickness, 'mm', 3) }}</span>
        </div>
      </template>
    </div>
    <div class="barrel" title="Via: through all layers" />
  </div>
</template>

<style scoped>
.ladder {
  position: absolute;
  left: 12px;
  top: 12px;
  z-index: 4;
  padding: 8px;
  display: flex;
  gap: 6px;
}
.stack {
  display: flex;
  flex-direction: column;
  gap: 2px;
  width: 148px;
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
.barrel {
  width: 7px;
  align-self: stretch;
  margin: 8px 2px;
  border-radius: 3px;
  background: linear-gradient(to right, #d9906f 0 2px, #100c16 2px 5px, #d9906f 5px 7px);
}
</style>
