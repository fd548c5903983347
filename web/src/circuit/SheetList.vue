<script setup lang="ts">
import { mdiChevronDown, mdiChevronRight, mdiPlus } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Project } from '../live/project'
import type { SheetUse } from '../live/wire.gen'
import { openMenu } from '../shell/menu'
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
function menu(e: MouseEvent, p: SheetUse) {
  openMenu({ x: e.clientX, y: e.clientY }, [
    { title: 'Go there', run: () => emit('go', p.sheet, p.path ?? '') },
    { title: 'Add a sheet', run: () => void add() },
    null,
    { title: 'Earlier in the order', keys: 'Alt ArrowUp', run: () => step(p.sheet, -1) },
    { title: 'Later in the order', keys: 'Alt ArrowDown', run: () => step(p.sheet, 1) },
    null,
    { title: 'Remove the sheet', run: () => void remove(p.sheet), enabled: () => rows.value.length > 1 },
  ])
}
</script>

<template>
  <aside class="float sheets" aria-label="Sheets">
    <div class="head">
      <v-btn
        size="small"
        class="fold"
        :prepend-icon="taste.sheetsOpen ? mdiChevronDown : mdiChevronRight"
        :aria-expanded="taste.sheetsOpen"
        @click="taste.sheetsOpen = !taste.sheetsOpen"
        >Sheets <span class="mono quiet n">{{ rows.length }}</span></v-btn
      >
      <v-btn :icon="mdiPlus" size="x-small" aria-label="Add a sheet" title="Add a sheet" @click="add" />
    </div>
    <v-list v-if="taste.sheetsOpen" class="list" aria-label="Sheets in their order">
      <template v-for="r in rows" :key="r.place.sheet + '/' + r.place.path">
        <v-list-item
          class="row"
          :class="{ over: over === r.place.sheet && dragged !== 0 }"
          :active="isHere(r.place)"
          color="primary"
          :style="{ paddingLeft: 8 + r.place.depth * 13 + 'px' }"
          :aria-current="isHere(r.place)"
          draggable="true"
          @click="emit('go', r.place.sheet, r.place.path ?? '')"
          @keydown.alt.up.prevent="step(r.place.sheet, -1)"
          @keydown.alt.down.prevent="step(r.place.sheet, 1)"
          @contextmenu.prevent="menu($event, r.place)"
          @dragstart="dragged = r.place.sheet"
          @dragover.prevent="over = r.place.sheet"
          @drop.prevent="drop(r.place.sheet)"
          @dragend="dragged = over = 0"
        >
          <span class="mono quiet n">{{ r.nth }}</span>
          <span class="name">{{ r.place.depth ? r.place.label.split('/').pop() : r.sheet!.name }}</span>
          <span v-if="r.place.depth && !r.place.label.endsWith(r.sheet!.name)" class="quiet use">{{ r.sheet!.name }}</span>
        </v-list-item>
        <template v-if="isHere(r.place)">
          <v-list-item
            v-for="c in clusters"
            :key="c.id"
            class="row cluster"
            :style="{ paddingLeft: 30 + r.place.depth * 13 + 'px' }"
            @click="emit('cluster', c.id)"
          >
            <i :class="c.tint" /> <span class="name">{{ c.title }}</span>
          </v-list-item>
        </template>
      </template>
    </v-list>
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
  align-items: center;
}
.fold.v-btn {
  padding: 0 8px;
}
.list {
  overflow-y: auto;
  padding: 0;
}
.row.v-list-item {
  min-height: 26px;
  padding-block: 1px;
  padding-inline-end: 6px;
}
.row :deep(.v-list-item__content) {
  display: flex;
  gap: 7px;
  align-items: baseline;
  font-size: 13px;
}
.row.v-list-item--active {
  color: inherit;
  background: rgba(var(--v-theme-primary), 0.18);
}
.row.over {
  box-shadow: inset 0 2px 0 rgb(var(--v-theme-primary));
}
.n {
  font-size: 11px;
  min-width: 15px;
}
.fold .n {
  margin-left: 6px;
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
.cluster :deep(.v-list-item__content) {
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
