<script setup lang="ts">
import { mdiChevronDown, mdiChevronRight, mdiPlus, mdiTrashCanOutline } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Project } from '../live/project'
import type { SheetUse } from '../live/wire.gen'
import { complain } from '../shell/notices'
import { useTaste } from '../shell/taste'

/** The sheets with their uses and clusters: a click leads there, dragging puts them in order. */
const props = defineProps<{ project: Project; sheet: number; path: string }>()
const emit = defineEmits<{ go: [number, string]; cluster: [number] }>()
const taste = useTaste()

const rows = computed(() => {
  void props.project.docTick.value
  const p = props.project
  return p.places.value.map((place, i) => ({ place, nth: i + 1, sheet: p.get('sheet', place.sheet) })).filter((r) => r.sheet)
})
const clusters = computed(() => {
  void props.project.docTick.value
  return [...props.project.standing(props.sheet)]
    .filter((b) => b.kind === 'cluster')
    .map((b) => b.object as { id: number; title: string; tint: string })
})
const isHere = (p: SheetUse) => p.sheet === props.sheet && (p.path ?? '') === props.path
const dragged = ref(0)
const over = ref(0)

async function drop(target: number) {
  const from = dragged.value
  dragged.value = over.value = 0
  if (!from || from === target) return
  const order = props.project
    .all('sheet')
    .sort((a, b) => a.order - b.order)
    .map((s) => s.id)
  const to = order.indexOf(target)
  order.splice(order.indexOf(from), 1)
  order.splice(to, 0, from)
  await props.project.edit('orderSheets', { sheets: order }).catch(complain)
}
function step(id: number, by: number) {
  const order = props.project
    .all('sheet')
    .sort((a, b) => a.order - b.order)
    .map((s) => s.id)
  const i = order.indexOf(id)
  if (i + by < 0 || i + by >= order.length) return
  ;[order[i], order[i + by]] = [order[i + by], order[i]]
  props.project.edit('orderSheets', { sheets: order }).catch(complain)
}
async function add() {
  const before = new Set(props.project.all('sheet').map((s) => s.id))
  if (!(await props.project.edit('addSheet', {}).catch(complain))) return
  const made = props.project.all('sheet').find((s) => !before.has(s.id))
  if (made) emit('go', made.id, '')
}
const remove = (id: number) => props.project.edit('removeSheet', { sheet: id }).catch(complain)
</script>

<template>
  <aside class="float sheets" aria-label="Sheets">
    <div class="head">
      <button
        class="fold"
        :aria-expanded="taste.sheetsOpen"
        data-test="sheets-fold"
        @click="taste.sheetsOpen = !taste.sheetsOpen"
      >
        <v-icon :icon="taste.sheetsOpen ? mdiChevronDown : mdiChevronRight" size="16" /> Sheets
        <span class="mono quiet">{{ rows.length }}</span>
      </button>
      <button class="icon" aria-label="Add a sheet" title="Add a sheet" data-test="add-sheet" @click="add">
        <v-icon :icon="mdiPlus" size="17" />
      </button>
    </div>
    <ul v-if="taste.sheetsOpen" class="list">
      <li
        v-for="r in rows"
        :key="r.place.sheet + '/' + r.place.path"
        :class="{ here: isHere(r.place), over: over === r.place.sheet && dragged !== 0 }"
        draggable="true"
        @dragstart="dragged = r.place.sheet"
        @dragover.prevent="over = r.place.sheet"
        @drop.prevent="drop(r.place.sheet)"
        @dragend="dragged = over = 0"
      >
        <button
          class="row"
          :style="{ paddingLeft: 8 + r.place.depth * 13 + 'px' }"
          :aria-current="isHere(r.place)"
          :data-sheet="r.sheet!.name"
          title="Drag, or Alt ↑ and Alt ↓, to put in order"
          @click="emit('go', r.place.sheet, r.place.path ?? '')"
          @keydown.alt.up.prevent="step(r.place.sheet, -1)"
          @keydown.alt.down.prevent="step(r.place.sheet, 1)"
        >
          <span class="mono quiet n">{{ r.nth }}</span>
          <span class="name">{{ r.place.depth ? r.place.label.split('/').pop() : r.sheet!.name }}</span>
          <span v-if="r.place.depth && !r.place.label.endsWith(r.sheet!.name)" class="quiet use">{{ r.sheet!.name }}</span>
        </button>
        <button
          v-if="isHere(r.place) && rows.length > 1"
          class="icon"
          :aria-label="`Remove the sheet ${r.sheet!.name}`"
          title="Remove this sheet"
          @click="remove(r.place.sheet)"
        >
          <v-icon :icon="mdiTrashCanOutline" size="14" />
        </button>
        <ul v-if="isHere(r.place) && clusters.length" class="clusters" aria-label="Clusters">
          <li v-for="c in clusters" :key="c.id">
            <button
              class="row cluster"
              :style="{ paddingLeft: 30 + r.place.depth * 13 + 'px' }"
              :data-cluster="c.title"
              @click="emit('cluster', c.id)"
            >
              <i :class="c.tint" /> {{ c.title }}
            </button>
          </li>
        </ul>
      </li>
    </ul>
  </aside>
</template>

<style scoped>
.sheets {
  position: absolute;
  left: 12px;
  top: 12px;
  width: 214px;
  max-height: calc(100% - 130px);
  display: flex;
  flex-direction: column;
  padding: 4px;
  z-index: 4;
}
.head {
  display: flex;
  justify-content: space-between;
}
.fold,
.icon {
  border: 0;
  background: none;
  color: inherit;
  cursor: pointer;
  border-radius: 6px;
  padding: 3px 6px;
  font:
    500 13px Barlow,
    sans-serif;
}
.icon:hover,
.fold:hover {
  background: rgba(var(--v-border-color), 0.16);
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
.list {
  overflow-y: auto;
}
.list > li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  border-radius: 6px;
}
.list > li.here {
  background: rgba(var(--v-theme-primary), 0.18);
}
.list > li.over {
  box-shadow: inset 0 2px 0 rgb(var(--v-theme-primary));
}
.row {
  flex: 1;
  min-width: 0;
  display: flex;
  gap: 7px;
  align-items: baseline;
  padding: 3px 6px;
  border: 0;
  background: none;
  color: inherit;
  font:
    13px Barlow,
    sans-serif;
  text-align: left;
  cursor: pointer;
  border-radius: 6px;
}
.row:hover {
  background: rgba(var(--v-border-color), 0.12);
}
.n {
  font-size: 11px;
  min-width: 15px;
}
.name,
.use {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.use {
  font-size: 11.5px;
  flex-shrink: 2;
}
.clusters {
  width: 100%;
}
.cluster {
  width: 100%;
  font-size: 12px;
  align-items: center;
}
.cluster i {
  width: 9px;
  height: 9px;
  border-radius: 3px;
  background: #7c879b;
}
.cluster i.sky {
  background: #5e93bc;
}
.cluster i.moss {
  background: #6f9a45;
}
.cluster i.rose {
  background: #bf6c88;
}
.cluster i.sand {
  background: #a98643;
}
.cluster i.lilac {
  background: #8a74bb;
}
</style>
