<script setup lang="ts" generic="T">
import { mdiCheck } from '@mdi/js'
import { useVirtualizer } from '@tanstack/vue-virtual'
import { useElementSize, useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, useId, watch } from 'vue'
import { type Entry, openMenu } from '../menu'
import { complain } from '../notices'
import { kept } from '../taste'
import CellEditor from './CellEditor.vue'
import {
  type Change,
  changesIn,
  type Column,
  ordered,
  pasted,
  rangeOf,
  readBlock,
  sorted,
  type Spot,
  writeBlock,
} from './columns'
import TableHead from './TableHead.vue'

/**
 * The table of everything that is many: only the rows in sight are in the page. Cells are picked in ranges with mouse and
 * keys, changed in place, filled down, copied to and pasted from a spreadsheet; columns are sorted, moved and widened.
 */
const props = defineProps<{
  name: string // what was chosen for it is remembered under this
  label: string
  columns: Column<T>[]
  rows: T[]
  rowClass?: (row: T) => string | undefined
  menu?: (rows: T[]) => (Entry | null)[]
  /** The rows are in their order already; whoever gives them sorts them by what is chosen. */
  asGiven?: boolean
}>()
/** now: the row the hand is on, as it goes from row to row. */
const emit = defineEmits<{ change: [Change<T>[]]; open: [T]; now: [T] }>()
const rowHeight = 27
const overscan = 4
const id = useId()

// ---- columns and rows as they are shown

const widths = kept<Record<string, number>>(`table.${props.name}.widths`, {})
const order = kept<string[]>(`table.${props.name}.order`, [])
const sort = defineModel<{ field: string; down: boolean } | null>('sort', { default: null })
const columns = computed(() => ordered(props.columns, order.value))
const width = (c: Column<T>) => widths.value[c.field] ?? c.width
const lefts = computed(() => columns.value.reduce<number[]>((sum, c) => [...sum, sum[sum.length - 1] + width(c)], [0]))
const sizes = computed(() => columns.value.map((c, i) => ({ flex: `${i === columns.value.length - 1 ? 1 : 0} 0 ${width(c)}px` })))
const shown = computed(() =>
  props.asGiven
    ? props.rows
    : sorted(
        props.rows,
        columns.value.find((c) => c.field === sort.value?.field),
        !!sort.value?.down,
      ),
)

const body = ref<HTMLDivElement>()
const grid = ref<HTMLDivElement>()
/** As many rows as are ever in sight, with a few more: always the same number, so that none is made while scrolling. */
const { height } = useElementSize(body)
const slots = computed(() => Math.ceil(height.value / rowHeight) + 2 * overscan + 2)
const inSight =
  (slots: number) =>
  ({ startIndex, count }: { startIndex: number; count: number }) => {
    const n = Math.min(count, slots)
    const first = Math.max(0, Math.min(startIndex - overscan, count - n))
    return Array.from({ length: n }, (_, i) => first + i)
  }
const virtual = useVirtualizer<HTMLDivElement, HTMLDivElement>(
  computed(() => ({
    count: shown.value.length,
    getScrollElement: () => body.value ?? null,
    estimateSize: () => rowHeight,
    rangeExtractor: inSight(slots.value),
    paddingStart: 0,
    scrollPaddingStart: rowHeight + 2, // the head
    scrollPaddingEnd: 14,
  })),
)
/** The rows in sight. Each keeps its element while it is seen; one that comes takes that of one that went. */
const seen = computed(() =>
  virtual.value
    .getVirtualItems()
    .map((v) => ({ r: v.index, top: v.start, row: shown.value[v.index], slot: v.index % slots.value }))
    .filter((v) => v.row)
    .sort((a, b) => a.slot - b.slot),
)

// ---- what is picked

const from = ref<Spot>({ r: 0, c: 0 })
const to = ref<Spot>({ r: 0, c: 0 })
const range = computed(() => rangeOf(from.value, to.value))
const count = computed(() => (range.value.bottom - range.value.top + 1) * (range.value.right - range.value.left + 1))
const pickedRows = computed(() => shown.value.slice(range.value.top, range.value.bottom + 1))
const current = computed<T | undefined>(() => shown.value[to.value.r])
const isPicked = (r: number, c: number) =>
  r >= range.value.top && r <= range.value.bottom && c >= range.value.left && c <= range.value.right
/** What is picked of a row, told so that only rows of which that changed are drawn anew. */
const pickedIn = (r: number) => (isPicked(r, range.value.left) ? `${range.value.left}-${range.value.right}` : '')
const looks = computed(
  () =>
    new Map(
      columns.value.map((c) => [c, ['cell', c.mono && 'mono', c.right && 'right', c.quiet && 'quiet'].filter(Boolean).join(' ')]),
    ),
)
const cellClass = (c: Column<T>, r: number, k: number) =>
  looks.value.get(c)! + (isPicked(r, k) ? ' picked' : '') + (r === to.value.r && k === to.value.c ? ' now' : '')
watch(shown, (list) => {
  const last = Math.max(0, list.length - 1)
  if (to.value.r > last || from.value.r > last) from.value = to.value = { r: Math.min(to.value.r, last), c: to.value.c }
})
const spotOf = (e: Event): Spot | null => {
  const cell = (e.target as HTMLElement).closest<HTMLElement>('[data-c]')
  return cell ? { r: Number(cell.parentElement!.dataset.r), c: Number(cell.dataset.c) } : null
}
let dragging = false
useEventListener(window, 'pointerup', () => (dragging = false))
let fresh = false // whether a row was picked by hand yet
function down(e: PointerEvent) {
  const at = spotOf(e)
  if (!at) return
  if (editing.value) keep()
  if (e.button === 2 && isPicked(at.r, at.c)) return
  const other = at.r !== to.value.r || !fresh
  fresh = true
  to.value = at
  if (!e.shiftKey) from.value = at
  if (other && !columns.value[at.c].tick && current.value) emit('now', current.value)
  dragging = e.button === 0
  void nextTick(() => grid.value?.focus({ preventScroll: true }))
}
function over(e: PointerEvent) {
  const cell = (e.target as HTMLElement).closest<HTMLElement>('[data-c]') // what does not fit is said to the hand that rests on it
  if (cell) cell.title = cell.scrollWidth > cell.clientWidth ? cell.innerText : ''
  const at = dragging ? spotOf(e) : null
  if (at) to.value = at
}
/** Picks everything in the column that is as the cell under the hand. */
function pickAlike() {
  const column = columns.value[to.value.c]
  const row = current.value
  if (!row || !column) return
  const value = column.text(row)
  sort.value = { field: column.field, down: false }
  void nextTick(() => {
    const alike = shown.value.map((r) => column.text(r) === value)
    const c = to.value.c
    from.value = { r: alike.indexOf(true), c }
    to.value = { r: alike.lastIndexOf(true), c }
    virtual.value.scrollToIndex(from.value.r)
  })
}
function step(dr: number, dc: number, extend: boolean) {
  to.value = {
    r: Math.max(0, Math.min(shown.value.length - 1, to.value.r + dr)),
    c: Math.max(0, Math.min(columns.value.length - 1, to.value.c + dc)),
  }
  if (!extend) from.value = to.value
  if (dr && current.value) emit('now', current.value)
  virtual.value.scrollToIndex(to.value.r)
  const b = body.value // across, as little as is needed
  if (!b) return
  const [left, right] = [lefts.value[to.value.c], lefts.value[to.value.c + 1]]
  if (left < b.scrollLeft) b.scrollLeft = left
  else if (right > b.scrollLeft + b.clientWidth) b.scrollLeft = right - b.clientWidth
}

// ---- changing

const editing = ref(false)
const text = ref('')
const wrong = ref('')
function edit(start?: string) {
  const c = columns.value[to.value.c]
  if (!current.value || !c || c.fixed) return
  if (c.tick) {
    if (c.text(current.value) === '–') return
    change(() => (c.text(current.value!) === 'yes' ? 'no' : 'yes'))
    return
  }
  text.value = start ?? c.text(current.value)
  wrong.value = ''
  editing.value = true
}
const change = (words: (r: number, c: number) => string) => tell(changesIn(shown.value, columns.value, range.value, words))
function tell(list: Change<T>[]) {
  if (list.length) emit('change', list)
}
/** Keeps what was typed; what cannot be taken stays in its cell with a sentence. */
function keep(): boolean {
  if (!editing.value) return true
  const now = text.value ?? ''
  wrong.value = columns.value[to.value.c]?.check?.(now) ?? ''
  if (wrong.value) return false
  editing.value = false
  grid.value?.focus({ preventScroll: true })
  change(() => now)
  return true
}
function giveBack() {
  editing.value = false
  grid.value?.focus({ preventScroll: true })
}
const fillDown = () => {
  const { top, left } = range.value
  change((_r, c) => columns.value[left + c].text(shown.value[top]))
}
function paste(e: ClipboardEvent) {
  if (editing.value) return
  e.preventDefault()
  tell(pasted(shown.value, columns.value, range.value, readBlock(e.clipboardData?.getData('text/plain') ?? '')))
}
const copied = () => writeBlock(shown.value, columns.value, range.value)
function copy(e: ClipboardEvent) {
  if (editing.value) return
  e.preventDefault()
  e.clipboardData?.setData('text/plain', copied())
}
const moves: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageDown: [20, 0],
  PageUp: [-20, 0],
  Home: [0, -999],
  End: [0, 999],
}
function press(e: KeyboardEvent) {
  if (editing.value || e.target !== grid.value) return
  const ctrl = e.ctrlKey || e.metaKey
  const far = ctrl && (e.key === 'Home' || e.key === 'End' || e.key === 'ArrowUp' || e.key === 'ArrowDown')
  if (far) step(e.key === 'Home' || e.key === 'ArrowUp' ? -1e9 : 1e9, 0, e.shiftKey)
  else if (moves[e.key]) step(...moves[e.key], e.shiftKey)
  else if (e.key === 'Enter' && columns.value[to.value.c]?.fixed) open()
  else if (e.key === 'Enter' || e.key === 'F2') edit()
  else if (e.key === ' ' && columns.value[to.value.c]?.tick) edit()
  else if (ctrl && e.key.toLowerCase() === 'd') fillDown()
  else if (ctrl && e.key.toLowerCase() === 'a') {
    from.value = { r: 0, c: to.value.c }
    to.value = { r: shown.value.length - 1, c: to.value.c }
  } else if (e.key === 'Delete') change((_r, c) => (columns.value[range.value.left + c].tick ? 'no' : ''))
  else if (e.key.length === 1 && !ctrl && !e.altKey && e.key !== '/' && e.key !== '?' && !columns.value[to.value.c]?.tick)
    edit(e.key) // prettier-ignore
  else return
  e.preventDefault()
  e.stopPropagation()
}
const open = () => current.value && emit('open', current.value)
function double(e: MouseEvent) {
  const at = spotOf(e)
  if (!at) return
  if (columns.value[at.c]?.fixed) open()
  else if (!columns.value[at.c]?.tick) edit()
}
function click(e: MouseEvent) {
  if ((e.target as HTMLElement).closest('.tick')) edit()
}

// ---- what can be done to what is there

function showMenu(e: MouseEvent) {
  const here = spotOf(e)
  const cell = document.getElementById(id)?.getBoundingClientRect()
  const column = columns.value[to.value.c]
  if (!current.value || !column) return
  openMenu(here ? { x: e.clientX, y: e.clientY } : { x: (cell?.left ?? 0) + 20, y: cell?.bottom ?? 0 }, [
    ...(props.menu?.(pickedRows.value) ?? []),
    null,
    ...(column.fixed
      ? []
      : [
          { title: 'Change', keys: 'Enter', run: () => edit() },
          { title: 'Fill down', keys: 'Ctrl D', run: fillDown },
        ]),
    { title: `Pick alike in ${column.name}`, run: pickAlike },
    { title: 'Copy', keys: 'Ctrl C', run: () => navigator.clipboard.writeText(copied()).catch(complain) },
  ])
}
defineExpose({ count, current, pickedRows })
</script>

<template>
  <div
    ref="grid"
    class="data-table"
    tabindex="0"
    role="grid"
    aria-multiselectable="true"
    :aria-rowcount="shown.length + 1"
    :aria-colcount="columns.length"
    :aria-label="label"
    :aria-activedescendant="shown.length ? id : undefined"
    @keydown="press"
    @paste="paste"
    @copy="copy"
    @contextmenu.prevent="showMenu"
  >
    <div ref="body" class="scroll" role="presentation">
      <TableHead
        v-model:widths="widths"
        v-model:order="order"
        v-model:sort="sort"
        :columns="columns"
        :sizes="sizes"
        :width="width"
      />
      <div
        class="rows"
        role="rowgroup"
        :style="{ height: virtual.getTotalSize() + 'px', minWidth: lefts[lefts.length - 1] + 'px' }"
        @pointerdown="down"
        @pointerover="over"
        @click="click"
        @dblclick="double"
      >
        <div
          v-for="v in seen"
          :key="v.slot"
          v-memo="[v.row, v.r, sizes, pickedIn(v.r), v.r === to.r ? to.c : -1, rowClass?.(v.row)]"
          class="row"
          role="row"
          :data-r="v.r"
          :class="rowClass?.(v.row)"
          :aria-rowindex="v.r + 2"
          :style="{ transform: `translateY(${v.top}px)` }"
        >
          <div
            v-for="(c, k) in columns"
            :id="v.r === to.r && k === to.c ? id : undefined"
            :key="c.field"
            role="gridcell"
            :class="cellClass(c, v.r, k)"
            :style="sizes[k]"
            :data-c="k"
            :aria-selected="isPicked(v.r, k)"
            :aria-readonly="c.fixed || undefined"
          >
            <template v-if="c.tick">
              <span v-if="c.text(v.row) === '–'" class="quiet">–</span>
              <span v-else class="tick" role="img" :class="{ on: c.text(v.row) === 'yes' }" :aria-label="c.text(v.row)">
                <svg v-if="c.text(v.row) === 'yes'" viewBox="0 0 24 24" aria-hidden="true"><path :d="mdiCheck" /></svg>
              </span>
            </template>
            <template v-else-if="c.icon?.(v.row)">
              <svg viewBox="0 0 24 24" role="img" :class="c.icon(v.row)!.tone" :aria-label="c.icon(v.row)!.name">
                <path :d="c.icon(v.row)!.path" /></svg
              >{{ c.text(v.row) }}
            </template>
            <template v-else>{{ c.text(v.row) }}</template>
          </div>
        </div>
        <CellEditor
          v-if="editing && columns[to.c]"
          v-model="text"
          :label="columns[to.c].name"
          :options="columns[to.c].options?.()"
          :mono="columns[to.c].mono"
          :wrong="wrong"
          :place="{ left: lefts[to.c], top: to.r * rowHeight, width: Math.max(90, width(columns[to.c])), height: rowHeight }"
          @keep="(next) => keep() && step(next === 'down' ? 1 : 0, next === 'right' ? 1 : 0, false)"
          @leave="keep"
          @back="giveBack"
        />
      </div>
      <p v-if="!shown.length" class="quiet none"><slot name="empty" /></p>
    </div>
  </div>
</template>

<style scoped>
.data-table {
  flex: 1;
  min-height: 0;
  position: relative;
  border: 1px solid rgba(var(--v-border-color), 0.3);
  border-radius: 8px;
  overflow: hidden;
  background: rgb(var(--v-theme-surface));
}
.data-table:focus-visible {
  outline: none;
  border-color: rgb(var(--v-theme-info));
}
.scroll {
  position: absolute;
  inset: 0;
  overflow: auto;
}
.rows {
  position: relative;
}
.row {
  position: absolute;
  inset: 0 0 auto 0;
  height: 27px;
  display: flex;
  contain: strict;
  border-bottom: 1px solid rgba(var(--v-border-color), 0.14);
}
.cell {
  padding: 4px 9px;
  font-size: 12.5px;
  line-height: 18px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  user-select: none;
  cursor: cell;
}
.cell.mono {
  font-size: 12px;
}
.cell.right {
  text-align: right;
}
.cell[aria-readonly] {
  cursor: default;
}
.cell.picked {
  background: rgba(var(--v-theme-info), 0.2);
}
.data-table:focus .cell.now {
  box-shadow: inset 0 0 0 2px rgb(var(--v-theme-info));
}
.cell svg {
  width: 16px;
  height: 16px;
  margin: 1px 7px -3px 0;
  fill: currentColor;
}
.error {
  color: rgb(var(--v-theme-error));
}
.primary {
  color: rgb(var(--v-theme-primary));
}
.info {
  color: rgb(var(--v-theme-info));
}
.secondary {
  color: rgb(var(--v-theme-secondary));
}
.tick {
  display: inline-block;
  width: 15px;
  height: 15px;
  margin-top: 2px;
  border: 1px solid rgba(var(--v-border-color), 0.8);
  border-radius: 3px;
  cursor: pointer;
}
.tick.on {
  background: rgb(var(--v-theme-primary));
  border-color: transparent;
  color: rgb(var(--v-theme-on-primary));
}
.tick svg {
  width: 13px;
  height: 13px;
  margin: 0;
  display: block;
}
.row.off .cell {
  font-style: italic;
}
.row.off .cell:not(.quiet) {
  opacity: 0.85;
}
.none {
  position: absolute;
  padding: 15px;
  font-size: 13px;
}
</style>
