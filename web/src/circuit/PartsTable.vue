<script setup lang="ts">
import { mdiFileDownloadOutline, mdiFileUploadOutline } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Project } from '../live/project'
import type { Preview } from '../live/wire.gen'
import { complain, say } from '../shell/notices'
import FilePick from '../shell/fields/FilePick.vue'
import { type Change, filtered } from '../shell/table/columns'
import DataTable from '../shell/table/DataTable.vue'
import { columnsOf, type Row, rowsOf } from './partRows'
import TablePage from './TablePage.vue'

/** All parts of all sheets, a row each: edit many cells at once, fill down, paste a column. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ go: [number, string] }>()
const filter = ref('')
const added = ref<string[]>([])
const columns = computed(() => (void props.project.docTick.value, columnsOf(props.project, added.value)))
const all = computed(() => (void props.project.docTick.value, rowsOf(props.project)))
const rows = computed(() => filtered(all.value, filter.value, columns.value))
const table = ref<{ count: number; pickedRows: Row[] }>()
const count = computed(() => table.value?.count ?? 0)
async function change(list: Change<Row>[]) {
  const cells = list.map((c) => ({ id: c.row.id, field: c.field, text: c.text, ...(c.row.path ? { path: c.row.path } : {}) }))
  await props.project.edit('setParts', { cells }).catch(complain)
}
const menu = (rows: Row[]) => [{ title: 'Show in the drawing', run: () => emit('go', rows[0].id, rows[0].path) }]
const naming = ref('')
function addField() {
  const f = naming.value.trim()
  if (!f) return
  if (columns.value.some((c) => c.name.toLowerCase() === f.toLowerCase())) say(`There is already a column called ${f}.`, 'error')
  else added.value = [...added.value, f]
  naming.value = ''
}

// ---- tables out and in

const preview = ref<Preview | null>(null)
async function read([f]: File[]) {
  try {
    const r = await fetch(`/api/projects/${props.project.id}/parts.csv`, { method: 'POST', body: f })
    const answer = (await r.json()) as Preview & { error?: string }
    if (!r.ok) throw new Error(answer.error)
    preview.value = answer
  } catch (e) {
    complain(e)
  }
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
  <TablePage v-model:filter="filter" title="Table of parts" label="Filter the parts" hint="100n, footprint:0603, fitted:no …">
    <template #count>
      <span class="mono">{{ rows.length }}</span> of <span class="mono">{{ all.length }}</span> parts ·
      <span class="mono">{{ count }}</span> {{ count === 1 ? 'cell' : 'cells' }} picked
    </template>
    <template #actions>
      <v-text-field
        v-model="naming"
        class="naming"
        placeholder="new field"
        aria-label="Name of a new field"
        @keydown.enter="addField"
      />
      <v-btn
        variant="outlined"
        size="small"
        :prepend-icon="mdiFileDownloadOutline"
        :href="`/api/projects/${project.id}/parts.csv`"
        >CSV out</v-btn
      >
      <FilePick v-slot="{ choose }" label="Table to take in" accept=".csv,.txt,.tsv" @files="read">
        <v-btn variant="outlined" size="small" :prepend-icon="mdiFileUploadOutline" @click="choose">CSV in …</v-btn>
      </FilePick>
    </template>
    <DataTable
      ref="table"
      name="parts"
      label="Table of parts"
      :columns="columns"
      :rows="rows"
      :row-class="(r: Row) => (r.cells.fitted === 'no' ? 'off' : undefined)"
      :menu="menu"
      @change="change"
      @open="(r: Row) => emit('go', r.id, r.path)"
    >
      <template #empty>{{
        all.length ? 'No part has all of these words.' : 'No parts yet. They appear here as soon as they stand on a sheet.'
      }}</template>
    </DataTable>
    <v-dialog :model-value="!!preview" aria-label="What the table would change" @update:model-value="preview = null">
      <v-card v-if="preview" :title="`${preview.changes.length} ${preview.changes.length === 1 ? 'cell' : 'cells'} would change`">
        <v-card-text>
          <p v-for="p in preview.problems" :key="p" class="trouble">{{ p }}</p>
          <v-table v-if="preview.changes.length" fixed-header class="changes">
            <thead>
              <tr>
                <th>Part</th>
                <th>Column</th>
                <th>Is</th>
                <th>Would be</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="c in preview.changes.slice(0, 500)" :key="c.designator + c.field" class="mono">
                <td>{{ c.designator }}</td>
                <td class="quiet">{{ c.field }}</td>
                <td>{{ c.old || '–' }}</td>
                <td>{{ c.text || '–' }}</td>
              </tr>
            </tbody>
          </v-table>
        </v-card-text>
        <v-card-actions>
          <v-btn @click="preview = null">Leave it</v-btn>
          <v-btn color="primary" variant="flat" :disabled="!preview.changes.length" @click="takeIn">Take them</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
  </TablePage>
</template>

<style scoped>
.trouble {
  color: rgb(var(--v-theme-error));
}
.naming {
  width: 120px;
  flex: none;
}
.changes {
  max-height: 320px;
  margin-top: 8px;
}
</style>
