<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { offscreenPen } from '../../circuit/preview'
import { marksBox, play } from '../../circuit/marks'
import type { Project } from '../../live/project'
import type { Listed, PinsRead } from '../../live/wire.gen'
import FilePick from '../../shell/fields/FilePick.vue'
import OneOf from '../../shell/fields/OneOf.vue'
import { useTaste } from '../../shell/taste'
import { circuitColours } from '../../shell/tokens'
import { typeWords } from './pinTypes'

/** A table of pins from a datasheet or a file: how it was understood is shown before it is taken. */
const props = defineProps<{ project: Project; verb: string }>()
const emit = defineEmits<{ take: [Listed[], string]; close: [] }>()
const taste = useTaste()
const text = ref('')
const columns = ref<string[] | null>(null)
const layout = ref('type')
const read = ref<PinsRead | null>(null)
const trouble = ref('')
const picture = ref<HTMLCanvasElement>()
const file = ref<{ choose: () => void }>()
let turn = 0
const kinds = [
  { value: 'number', title: 'number' },
  { value: 'name', title: 'name' },
  { value: 'type', title: 'type' },
  { value: 'side', title: 'side' },
  { value: 'skip', title: 'not taken' },
]
const layouts = [
  { value: 'type', title: 'By type' },
  { value: 'order', title: 'In order' },
  { value: 'around', title: 'As on the package' },
]
async function look() {
  const n = ++turn
  if (!text.value.trim()) {
    read.value = null
    trouble.value = ''
    return
  }
  try {
    const r = await props.project.question('pinList', { text: text.value, layout: layout.value, ...(columns.value ? { columns: columns.value } : {}) }) // prettier-ignore
    if (n !== turn) return
    read.value = r
    trouble.value = ''
    await nextTick()
    if (picture.value && r.marks.length) play(offscreenPen(picture.value, marksBox(r.marks)), r.marks, { colours: circuitColours[taste.circuitShade], pictures: null }) // prettier-ignore
  } catch (e) {
    if (n !== turn) return
    read.value = null
    trouble.value = (e as Error).message
  }
}
watch(text, () => ((columns.value = null), look()))
watch([columns, layout], look)
const pins = computed(() => read.value?.list?.pins ?? [])
const wrong = computed(() => pins.value.filter((p) => p.wrong))
function setColumn(i: number, kind: string) {
  const next = [...(columns.value ?? read.value!.list!.columns)]
  if (kind !== 'skip') next.forEach((k, j) => k === kind && j !== i && (next[j] = 'skip'))
  next[i] = kind
  columns.value = next
}
</script>

<template>
  <div class="float panel" role="dialog" aria-label="Paste a pin list" @keydown.esc.stop="emit('close')">
    <h3>Paste a pin list</h3>
    <div class="cols">
      <div class="left">
        <v-textarea
          v-model="text"
          class="mono"
          rows="5"
          no-resize
          autofocus
          aria-label="Table of pins"
          placeholder="1	VDD	P&#10;2	SCL	I&#10;3	SDA	I/O&#10;columns apart by tabs, commas or spaces"
          hide-details
        />
        <v-btn size="small" variant="text" @click="file?.choose()">or choose a CSV file</v-btn>
        <FilePick
          ref="file"
          label="File with a table of pins"
          accept=".csv,.txt,.tsv"
          @files="([f]) => f.text().then((s) => (text = s))"
        />
        <p v-if="trouble" class="error" role="alert">{{ trouble }}</p>
        <template v-if="read?.list">
          <div class="table">
            <v-table density="compact">
              <thead>
                <tr>
                  <th v-for="(c, i) in read.list.columns" :key="i">
                    <v-select
                      :model-value="c"
                      :items="kinds"
                      density="compact"
                      hide-details
                      :aria-label="`Column ${i + 1} holds`"
                      @update:model-value="setColumn(i, $event)"
                    />
                    <span v-if="read.list.head[i]" class="quiet">{{ read.list.head[i] }}</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="(row, r) in read.list.cells.slice(0, 60)" :key="r">
                  <td v-for="(cell, i) in row" :key="i" class="mono" :class="{ off: read.list.columns[i] === 'skip' }">
                    {{ cell }}
                  </td>
                </tr>
              </tbody>
            </v-table>
            <p v-if="read.list.cells.length > 60" class="quiet">… and {{ read.list.cells.length - 60 }} rows more</p>
          </div>
          <p v-for="n in read.list.notes.slice(0, 4)" :key="n" class="quiet">{{ n }}</p>
          <p v-for="p in wrong.slice(0, 4)" :key="p.wrong" class="error" role="alert">{{ p.wrong }}</p>
        </template>
      </div>
      <div class="right">
        <OneOf label="How the pins are laid out" :value="layout" :options="layouts" @keep="layout = String($event)" />
        <canvas
          v-show="read?.marks.length"
          ref="picture"
          width="300"
          height="300"
          :class="taste.circuitShade"
          role="img"
          aria-label="The symbol"
        />
        <p v-if="!read" class="quiet hint">The symbol is shown here before anything is taken.</p>
        <p v-else class="quiet">
          <span class="mono">{{ pins.length }}</span> pins:
          <template v-for="(n, t, i) in counts(pins)" :key="t">{{ i ? ', ' : '' }}{{ n }} {{ typeWords[t] }}</template>
        </p>
      </div>
    </div>
    <div class="acts">
      <v-btn color="primary" variant="flat" :disabled="!pins.length || wrong.length > 0" @click="emit('take', pins, layout)">{{
        verb
      }}</v-btn>
      <v-btn variant="text" @click="emit('close')">Close</v-btn>
    </div>
  </div>
</template>

<script lang="ts">
/** How many pins there are of each type. */
function counts(pins: { type: string }[]): Record<string, number> {
  const out: Record<string, number> = {}
  for (const p of pins) out[p.type] = (out[p.type] ?? 0) + 1
  return out
}
</script>

<style scoped>
.panel {
  position: absolute;
  left: 50%;
  top: 46%;
  transform: translate(-50%, -50%);
  width: min(840px, 94%);
  max-height: 90%;
  overflow-y: auto;
  padding: 14px 16px;
  z-index: 20;
}
.cols {
  display: grid;
  grid-template-columns: 1fr 310px;
  gap: 14px;
  margin-top: 8px;
}
.file {
  display: block;
  font-size: 12px;
  margin: 4px 0;
}
.table {
  max-height: 250px;
  overflow: auto;
  margin-top: 6px;
}
table {
  border-collapse: collapse;
  font-size: 12px;
}
th {
  text-align: left;
  font-weight: 500;
  padding: 2px 6px 2px 0;
  min-width: 104px;
}
td {
  padding: 1px 8px 1px 2px;
  border-top: 1px solid rgba(var(--v-border-color), 0.18);
}
td.off {
  opacity: 0.5;
}
canvas {
  display: block;
  width: 300px;
  height: 300px;
  border-radius: 8px;
  margin: 8px 0;
  background: #eef1f5;
}
canvas.dark {
  background: #1c1825;
}
.error {
  color: rgb(var(--v-theme-error));
}
.hint {
  padding: 40px 20px;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 10px;
}
</style>
