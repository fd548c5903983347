<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { Project } from '../live/project'
import type { Preview } from '../live/wire.gen'
import { complain, say } from '../shell/notices'
import TablePage from './TablePage.vue'
import { cellsFor, columnsOf, filtered, rangeOf, readBlock, rowsOf, sorted, writeBlock } from './partRows'

/** All parts of all sheets, a row each: edit many cells at once, fill down, paste a column. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ go: [number, string] }>()
const filter = ref('')
const order = ref({ field: 'designator', down: false })
const added = ref<string[]>([])
const columns = computed(() => (void props.project.docTick.value, columnsOf(props.project, added.value)))
const all = computed(() => (void props.project.docTick.value, rowsOf(props.project)))
const rows = computed(() => sorted(filtered(all.value, filter.value, columns.value), order.value.field, order.value.down))

// ---- what is seen of it: the rows in the window

const rowHeight = 26
const body = ref<HTMLDivElement>()
const scroll = ref(0)
const first = computed(() => Math.max(0, Math.floor(scroll.value / rowHeight) - 8))
const seen = computed(() => rows.value.slice(first.value, first.value + 60))

// ---- what is picked

const from = ref({ r: 0, c: 1 })
const to = ref({ r: 0, c: 1 })
const range = computed(() => rangeOf(from.value, to.value))
const isPicked = (r: number, c: number) =>
  r >= range.value.top && r <= range.value.bottom && c >= range.value.left && c <= range.value.right
const count = computed(() => (range.value.bottom - range.value.top + 1) * (range.value.right - range.value.left + 1))
let dragging = false
function down(r: number, c: number, e: MouseEvent) {
  if (editing.value) void keep()
  to.value = { r, c }
  if (!e.shiftKey) from.value = { r, c }
  dragging = true
  grid.value?.focus({ preventScroll: true })
}
const over = (r: number, c: number) => dragging && (to.value = { r, c })
watch(rows, (list) => {
  const last = Math.max(0, list.length - 1)
  if (to.value.r > last || from.value.r > last) from.value = to.value = { r: Math.min(to.value.r, last), c: to.value.c }
})
/** Picks everything in the column that is as the cell under the hand. */
function pickAlike() {
  const column = columns.value[to.value.c]
  const row = rows.value[to.value.r]
  if (!row) return
  const value = row.cells[column.field] ?? ''
  order.value = { field: column.field, down: false }
  void nextTick(() => {
    const alike = rows.value.map((r) => (r.cells[column.field] ?? '') === value)
    const c = to.value.c
    from.value = { r: alike.indexOf(true), c }
    to.value = { r: alike.lastIndexOf(true), c }
    show(from.value.r)
  })
}
function show(r: number) {
  const b = body.value
  if (!b) return
  if (r * rowHeight < b.scrollTop) b.scrollTop = r * rowHeight
  else if ((r + 2) * rowHeight > b.scrollTop + b.clientHeight) b.scrollTop = (r + 2) * rowHeight - b.clientHeight
}

// ---- editing

const grid = ref<HTMLDivElement>()
const editing = ref(false)
const text = ref('')
function edit(start?: string) {
  const c = columns.value[to.value.c]
  const row = rows.value[to.value.r]
  if (!row || c.fixed) return
  text.value = start ?? row.cells[c.field] ?? ''
  editing.value = true
  void nextTick(() => {
    const i = grid.value?.querySelector<HTMLInputElement>('.cell input')
    i?.focus()
    if (start === undefined) i?.select()
  })
}
async function change(cells: ReturnType<typeof cellsFor>) {
  if (!cells.length) return
  await props.project.edit('setParts', { cells }).catch(complain)
}
async function keep() {
  if (!editing.value) return
  editing.value = false
  const now = text.value
  grid.value?.focus({ preventScroll: true })
  await change(cellsFor(rows.value, columns.value, range.value, () => now))
}
const fillDown = () => {
  const { top, left } = range.value
  return change(
    cellsFor(rows.value, columns.value, range.value, (_r, c) => rows.value[top].cells[columns.value[left + c].field] ?? ''),
  )
}
function paste(e: ClipboardEvent) {
  if (editing.value) return
  e.preventDefault()
  const block = readBlock(e.clipboardData?.getData('text/plain') ?? '')
  const { top, left, bottom, right } = range.value
  if (block.length === 1 && block[0].length === 1) {
    void change(cellsFor(rows.value, columns.value, range.value, () => block[0][0]))
    return
  }
  const wide = { top, left, bottom: Math.max(bottom, top + block.length - 1), right: Math.max(right, left + block[0].length - 1) }
  wide.bottom = Math.min(top + block.length - 1, rows.value.length - 1)
  wide.right = Math.min(left + block[0].length - 1, columns.value.length - 1)
  void change(cellsFor(rows.value, columns.value, wide, (r, c) => (block[r]?.[c] ?? '').trim()))
}
function copy(e: ClipboardEvent) {
  if (editing.value) return
  e.preventDefault()
  e.clipboardData?.setData('text/plain', writeBlock(rows.value, columns.value, range.value))
}
function press(e: KeyboardEvent) {
  if (editing.value) {
    if (e.key === 'Enter') void keep().then(() => step(1, 0, false))
    else if (e.key === 'Tab') void keep().then(() => step(0, 1, false))
    else if (e.key === 'Escape') {
      editing.value = false
      grid.value?.focus()
    } else return
    e.preventDefault()
    e.stopPropagation()
    return
  }
  const moves: Record<string, [number, number]> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1], PageDown: [20, 0], PageUp: [-20, 0] } // prettier-ignore
  if (moves[e.key]) step(...moves[e.key], e.shiftKey)
  else if (e.key === 'Enter' || e.key === 'F2') edit()
  else if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'd') void fillDown()
  else if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'a') {
    from.value = { r: 0, c: to.value.c }
    to.value = { r: rows.value.length - 1, c: to.value.c }
  } else if (e.key === 'Delete') void change(cellsFor(rows.value, columns.value, range.value, () => ''))
  else if (e.key.length === 1 && !e.ctrlKey && !e.metaKey && !e.altKey && e.key !== '/' && e.key !== '?') edit(e.key)
  else return
  e.preventDefault()
  e.stopPropagation()
}
function step(dr: number, dc: number, extend: boolean) {
  to.value = {
    r: Math.max(0, Math.min(rows.value.length - 1, to.value.r + dr)),
    c: Math.max(0, Math.min(columns.value.length - 1, to.value.c + dc)),
  }
  if (!extend) from.value = to.value
  show(to.value.r)
}
const naming = ref('')
function addField() {
  const f = naming.value.trim()
  if (!f) return
  if (columns.value.some((c) => c.name.toLowerCase() === f.toLowerCase())) say(`There is already a column called ${f}.`, 'error')
  else added.value = [...added.value, f]
  naming.value = ''
}

// ---- tables out and in

const file = ref<HTMLInputElement>()
const preview = ref<Preview | null>(null)
async function read(f: File | undefined) {
  if (!f) return
  try {
    const r = await fetch(`/api/projects/${props.project.id}/parts.csv`, { method: 'POST', body: f })
    const answer = (await r.json()) as Preview & { error?: string }
    if (!r.ok) throw new Error(answer.error)
    preview.value = answer
  } catch (e) {
    complain(e)
  }
  if (file.value) file.value.value = ''
}
async function takeIn() {
  const cells = (preview.value?.changes ?? []).map(({ id, path, field, text }) => ({
    id,
    field,
    text,
    ...(path ? { path } : {}),
  }))
  const done = cells.length ? await props.project.edit('setParts', { cells }).catch(complain) : true
  if (done) preview.value = null
}
</script>

<template>
  <TablePage
    v-model:filter="filter"
    title="Table of parts"
    label="Filter the parts"
    hint="Filter: 100n, footprint:0603, fitted:no …"
    name="table-filter"
    @mouseup="dragging = false"
  >
    <template #count>
      <span class="mono">{{ rows.length }}</span> of <span class="mono">{{ all.length }}</span> parts ·
      <span class="mono">{{ count }}</span> {{ count === 1 ? 'cell' : 'cells' }} picked
    </template>
    <template #actions>
      <button class="plain" title="Everything in this column that is as the picked cell" data-test="alike" @click="pickAlike">
        Pick alike
      </button>
      <button class="plain" title="Ctrl D" data-test="fill-down" @click="fillDown">Fill down</button>
      <button class="plain" @click="rows[to.r] && emit('go', rows[to.r].id, rows[to.r].path)">Show in the drawing</button>
      <input
        v-model="naming"
        class="field"
        placeholder="new field"
        aria-label="Name of a new field"
        data-test="new-field"
        @keydown.enter="addField"
      />
      <a class="plain" :href="`/api/projects/${project.id}/parts.csv`" data-test="csv-out">CSV out</a>
      <button class="plain" @click="file?.click()">CSV in …</button>
      <input ref="file" type="file" hidden accept=".csv,.txt,.tsv" data-test="csv-in" @change="read(file?.files?.[0])" />
    </template>
    <div
      ref="grid"
      class="grid"
      tabindex="0"
      role="grid"
      :aria-rowcount="rows.length"
      aria-label="Table of parts"
      @keydown="press"
      @paste="paste"
      @copy="copy"
    >
      <div ref="body" class="scroll" @scroll="scroll = body!.scrollTop">
        <div class="heads" role="row" :style="{ gridTemplateColumns: `repeat(${columns.length}, minmax(110px, 1fr))` }">
          <button
            v-for="c in columns"
            :key="c.field"
            role="columnheader"
            :aria-sort="order.field === c.field ? (order.down ? 'descending' : 'ascending') : 'none'"
            :data-column="c.field"
            @click="order = { field: c.field, down: order.field === c.field && !order.down }"
          >
            {{ c.name }} <span v-if="order.field === c.field" class="quiet">{{ order.down ? '↓' : '↑' }}</span>
          </button>
        </div>
        <div :style="{ height: rows.length * rowHeight + 'px', position: 'relative' }">
          <div
            v-for="(r, i) in seen"
            :key="r.id + r.path"
            class="row"
            role="row"
            :aria-rowindex="first + i + 1"
            :class="{ off: r.cells.fitted === 'no' }"
            :style="{ top: (first + i) * rowHeight + 'px', gridTemplateColumns: `repeat(${columns.length}, minmax(110px, 1fr))` }"
          >
            <div
              v-for="(c, k) in columns"
              :key="c.field"
              class="cell"
              role="gridcell"
              :class="{ mono: ['designator', 'value'].includes(c.field), picked: isPicked(first + i, k), fixed: c.fixed }"
              :data-cell="`${r.cells.designator} ${c.field}`"
              :aria-selected="isPicked(first + i, k)"
              @mousedown="down(first + i, k, $event)"
              @mouseover="over(first + i, k)"
              @dblclick="edit()"
            >
              <input v-if="editing && first + i === to.r && k === to.c" v-model="text" :aria-label="c.name" @blur="keep" />
              <template v-else>{{ r.cells[c.field] ?? '' }}</template>
            </div>
          </div>
        </div>
        <p v-if="!all.length" class="quiet none">No parts yet. They appear here as soon as they stand on a sheet.</p>
        <p v-else-if="!rows.length" class="quiet none">No part has all of these words.</p>
      </div>
    </div>
    <div v-if="preview" class="float answer" role="dialog" aria-label="What the table would change">
      <h3>{{ preview.changes.length }} {{ preview.changes.length === 1 ? 'cell' : 'cells' }} would change</h3>
      <p v-for="p in preview.problems" :key="p" class="problem">{{ p }}</p>
      <div class="changes">
        <div v-for="c in preview.changes.slice(0, 500)" :key="c.designator + c.field" class="change mono">
          <span>{{ c.designator }}</span><span class="quiet">{{ c.field }}</span
          ><span>{{ c.old || '–' }}</span
          ><span>→</span><span>{{ c.text || '–' }}</span>
        </div>
      </div>
      <div class="bar">
        <span class="grow" />
        <v-btn size="small" @click="preview = null">Leave it</v-btn>
        <v-btn
          size="small"
          color="primary"
          variant="flat"
          :disabled="!preview.changes.length"
          data-test="take-table"
          @click="takeIn"
          >Take them</v-btn
        >
      </div>
    </div>
  </TablePage>
</template>

<style scoped>
.field {
  padding: 4px 9px;
  border-radius: 7px;
  border: 1px solid rgba(var(--v-border-color), 0.5);
  color: inherit;
  background: transparent;
  width: 90px;
}
a.plain {
  text-decoration: none;
}
.grid {
  flex: 1;
  min-height: 0;
  border: 1px solid rgba(var(--v-border-color), 0.3);
  border-radius: 8px;
  outline: none;
  background: rgb(var(--v-theme-surface));
}
.grid:focus-visible {
  border-color: rgb(var(--v-theme-primary));
}
.scroll {
  height: 100%;
  overflow: auto;
}
.heads,
.row {
  display: grid;
  min-width: 860px;
}
.heads {
  position: sticky;
  top: 0;
  z-index: 2;
  background: rgb(var(--v-theme-surface));
  border-bottom: 1px solid rgba(var(--v-border-color), 0.4);
}
.heads button {
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
  padding: 5px 9px;
  font:
    600 12.5px Barlow,
    sans-serif;
  cursor: pointer;
}
.row {
  position: absolute;
  left: 0;
  right: 0;
  height: 26px;
}
.cell {
  padding: 4px 9px;
  font-size: 12.5px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  border-bottom: 1px solid rgba(var(--v-border-color), 0.14);
  border-right: 1px solid rgba(var(--v-border-color), 0.1);
  user-select: none;
  cursor: cell;
}
.cell.fixed {
  opacity: 0.82;
}
.cell.picked {
  background: rgba(var(--v-theme-info), 0.2);
  box-shadow: inset 0 0 0 1px rgba(var(--v-theme-info), 0.5);
}
.row.off .cell {
  font-style: italic;
}
.cell input {
  width: 100%;
  border: 0;
  outline: none;
  background: rgb(var(--v-theme-background));
  color: inherit;
  font: inherit;
}
.answer {
  width: 520px;
}
.problem {
  color: rgb(var(--v-theme-error));
  font-size: 12.5px;
}
.changes {
  max-height: 320px;
  overflow-y: auto;
  margin: 8px 0;
}
.change {
  display: grid;
  grid-template-columns: 70px 110px 1fr 20px 1fr;
  gap: 8px;
  font-size: 12px;
  padding: 1px 0;
}
</style>
