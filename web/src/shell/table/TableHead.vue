<script setup lang="ts" generic="T">
import { openMenu } from '../menu'
import type { Column } from './columns'

/** The heads of a table: a click sorts, dragging moves a column, its right edge widens it; the same by keys and menu. */
const props = defineProps<{ columns: Column<T>[]; sizes: { flex: string }[]; width: (c: Column<T>) => number }>()
const widths = defineModel<Record<string, number>>('widths', { required: true })
const order = defineModel<string[]>('order', { required: true })
const sort = defineModel<{ field: string; down: boolean } | null>('sort', { required: true })

const by = (c: Column<T>, down: boolean) => (sort.value = { field: c.field, down })
/** Up, then down, then as it was. */
function turn(c: Column<T>) {
  if (sort.value?.field !== c.field) by(c, false)
  else if (!sort.value.down) by(c, true)
  else sort.value = null
}
const widen = (c: Column<T>, to: number) => (widths.value = { ...widths.value, [c.field]: Math.max(44, Math.round(to)) })
function move(c: Column<T>, to: number) {
  const fields = props.columns.map((x) => x.field)
  fields.splice(fields.indexOf(c.field), 1)
  fields.splice(Math.max(0, Math.min(fields.length, to)), 0, c.field)
  order.value = fields
}
const at = (c: Column<T>) => props.columns.indexOf(c)

let held: { c: Column<T>; x: number; edge: number | null; moved: boolean } | null = null
function down(e: PointerEvent, c: Column<T>) {
  if (e.button !== 0) return
  const edge = (e.target as HTMLElement).classList.contains('edge') ? props.width(c) : null
  held = { c, x: e.clientX, edge, moved: false }
  ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
}
function drag(e: PointerEvent) {
  if (!held) return
  const dx = e.clientX - held.x
  if (held.edge !== null) {
    widen(held.c, held.edge + dx)
    held.moved = true
    return
  }
  if (Math.abs(dx) < 12 && !held.moved) return
  held.moved = true
  const heads = [...(e.currentTarget as HTMLElement).parentElement!.children]
  const over = heads.findIndex((h) => e.clientX < h.getBoundingClientRect().right)
  if (over >= 0 && over !== at(held.c)) move(held.c, over)
}
function up() {
  if (held && !held.moved) turn(held.c)
  held = null
}
function press(e: KeyboardEvent, c: Column<T>) {
  const side = e.key === 'ArrowLeft' ? -1 : e.key === 'ArrowRight' ? 1 : 0
  if (e.key === 'Enter' || e.key === ' ') turn(c)
  else if (side && e.altKey) move(c, at(c) + side)
  else if (side && e.shiftKey) widen(c, props.width(c) + side * 16)
  else if (side) ((e.currentTarget as HTMLElement).parentElement!.children[at(c) + side] as HTMLElement | undefined)?.focus()
  else return
  e.preventDefault()
  e.stopPropagation()
}
function menu(e: MouseEvent, c: Column<T>) {
  openMenu({ x: e.clientX, y: e.clientY }, [
    { title: 'Sort, least first', run: () => by(c, false) },
    { title: 'Sort, greatest first', run: () => by(c, true) },
    { title: 'Do not sort', run: () => (sort.value = null) },
    null,
    { title: 'Move to the left', keys: 'Alt ArrowLeft', run: () => move(c, at(c) - 1) },
    { title: 'Move to the right', keys: 'Alt ArrowRight', run: () => move(c, at(c) + 1) },
    { title: 'Wider', keys: 'Shift ArrowRight', run: () => widen(c, props.width(c) + 40) },
    { title: 'Narrower', keys: 'Shift ArrowLeft', run: () => widen(c, props.width(c) - 40) },
    null,
    { title: 'All columns as at first', run: () => ((widths.value = {}), (order.value = [])) },
  ])
}
const state = (c: Column<T>) => (sort.value?.field !== c.field ? 'none' : sort.value.down ? 'descending' : 'ascending')
</script>

<template>
  <div class="heads" role="row" aria-rowindex="1">
    <div
      v-for="(c, i) in columns"
      :key="c.field"
      class="head"
      role="columnheader"
      :tabindex="i ? -1 : 0"
      :class="{ right: c.right }"
      :style="sizes[i]"
      :aria-sort="state(c)"
      :title="`${c.name}: click sorts, drag moves`"
      @pointerdown="down($event, c)"
      @pointermove="drag"
      @pointerup="up"
      @keydown="press($event, c)"
      @contextmenu.prevent.stop="menu($event, c)"
    >
      {{ c.name }}<span v-if="sort?.field === c.field" class="quiet"> {{ sort.down ? '↓' : '↑' }}</span>
      <span class="edge" />
    </div>
  </div>
</template>

<style scoped>
.heads {
  position: sticky;
  top: 0;
  z-index: 2;
  display: flex;
  width: max-content;
  min-width: 100%;
  background: rgb(var(--v-theme-surface));
  border-bottom: 1px solid rgba(var(--v-border-color), 0.4);
}
.head {
  position: relative;
  padding: 5px 9px;
  font-size: 12.5px;
  font-weight: 600;
  line-height: 18px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  user-select: none;
  touch-action: none;
  cursor: pointer;
}
.head.right {
  text-align: right;
}
.head:focus-visible {
  outline-offset: -2px;
}
.edge {
  position: absolute;
  right: 0;
  top: 0;
  bottom: 0;
  width: 7px;
  cursor: col-resize;
  border-right: 1px solid rgba(var(--v-border-color), 0.3);
}
.edge:hover {
  border-right: 3px solid rgb(var(--v-theme-info));
}
</style>
