<script setup lang="ts">
import { ref } from 'vue'
import CentredPanel from '../../shell/CentredPanel.vue'
import FilePick from '../../shell/fields/FilePick.vue'
import type { ReadTable } from './useTable'

/** A table from a datasheet or a file: how it was understood is shown before it is taken. Beside it, what would be made of it. */
const props = defineProps<{
  title: string
  label: string // of the field
  hint: string // in it
  kinds: { value: string; title: string }[] // what a column can hold
  read: ReadTable | null
  wrong: string[]
  trouble: string
  verb: string
  able: boolean
}>()
const emit = defineEmits<{ take: []; close: [] }>()
const text = defineModel<string>('text', { required: true })
const columns = defineModel<string[] | null>('columns', { required: true })
const file = ref<{ choose: () => void }>()
const most = 60
const options = [...props.kinds, { value: 'skip', title: 'not taken' }]
/** Each column holds something else: what another one held so far is not taken any more. */
function setColumn(i: number, kind: string) {
  const next = [...(columns.value ?? props.read!.columns)]
  if (kind !== 'skip') next.forEach((k, j) => k === kind && j !== i && (next[j] = 'skip'))
  next[i] = kind
  columns.value = next
}
</script>

<template>
  <CentredPanel :label="title" :width="860" @close="emit('close')">
    <div class="cols">
      <div class="left">
        <v-textarea
          v-model="text"
          class="mono"
          rows="5"
          no-resize
          autofocus
          :aria-label="label"
          :placeholder="hint"
          hide-details
        />
        <v-btn size="small" variant="text" @click="file?.choose()">or choose a CSV file</v-btn>
        <FilePick
          ref="file"
          :label="`File with a ${label.toLowerCase()}`"
          accept=".csv,.txt,.tsv"
          @files="([f]) => f.text().then((s) => (text = s))"
        />
        <p v-if="trouble" class="error" role="alert">{{ trouble }}</p>
        <template v-if="read">
          <div class="table">
            <v-table density="compact">
              <thead>
                <tr>
                  <th v-for="(c, i) in read.columns" :key="i">
                    <v-select
                      :model-value="c"
                      :items="options"
                      density="compact"
                      hide-details
                      :aria-label="`Column ${i + 1} holds`"
                      @update:model-value="setColumn(i, $event)"
                    />
                    <span v-if="read.head[i]" class="quiet">{{ read.head[i] }}</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="(row, r) in read.cells.slice(0, most)" :key="r">
                  <td v-for="(cell, i) in row" :key="i" class="mono" :class="{ off: read.columns[i] === 'skip' }">{{ cell }}</td>
                </tr>
              </tbody>
            </v-table>
            <p v-if="read.cells.length > most" class="quiet">… and {{ read.cells.length - most }} rows more</p>
          </div>
          <p v-for="n in read.notes.slice(0, 4)" :key="n" class="quiet">{{ n }}</p>
          <p v-for="w in wrong.slice(0, 4)" :key="w" class="error" role="alert">{{ w }}</p>
          <p v-if="wrong.length > 4" class="error">… and {{ wrong.length - 4 }} rows more that cannot be taken</p>
        </template>
      </div>
      <div class="right"><slot /></div>
    </div>
    <template #acts>
      <v-btn color="primary" variant="flat" :disabled="!able || wrong.length > 0" @click="emit('take')">{{ verb }}</v-btn>
      <v-btn variant="text" @click="emit('close')">Close</v-btn>
    </template>
  </CentredPanel>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 310px;
  gap: 14px;
}
.table {
  max-height: 250px;
  overflow: auto;
  margin-top: 6px;
}
th {
  min-width: 104px;
}
td.off {
  opacity: 0.5;
}
.error {
  color: rgb(var(--v-theme-error));
}
</style>
