<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../../live/project'
import { complain, say } from '../../shell/notices'
import TablePanel from '../tables/TablePanel.vue'
import { useTable } from '../tables/useTable'

/** A table of parts, each like another one but for what its row says, and what it would change. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ close: [] }>()
const { text, columns, answer, trouble } = useTable((text, columns) => props.project.question('partTable', { text, columns }))
const kinds = ['name', 'like', 'value', 'description', 'footprint', 'prefix', 'keywords', 'datasheet', 'maker', 'part number', 'order number'].map((k) => ({ value: k, title: k })) // prettier-ignore
const rows = computed(() => answer.value?.parts ?? [])
const wrong = computed(() => rows.value.flatMap((p) => p.wrong ?? []))
const taken = computed(() => rows.value.filter((p) => !p.wrong && p.state !== 'same'))
const count = (n: number) => (n === 1 ? '1 part' : `${n} parts`)
async function take() {
  const n = taken.value.length
  const done = await props.project
    .edit('takePartTable', { text: text.value, columns: columns.value ?? answer.value!.columns })
    .catch(complain)
  if (done === undefined) return
  say(`${count(n)} of the table ${n === 1 ? 'is' : 'are'} in the project.`)
  emit('close')
}
const words: Record<string, string> = { new: 'new', changed: 'changes', same: 'as it is' }
</script>

<template>
  <TablePanel
    v-model:text="text"
    v-model:columns="columns"
    title="Take in a table of parts"
    label="Table of parts"
    hint="name	like	value	footprint	maker	part number&#10;Resistor 4k7	Resistor 0603	4k7		Quillfeather	QF-R0603-4K70-F&#10;columns apart by tabs or commas"
    :kinds="kinds"
    :read="answer"
    :wrong="wrong"
    :trouble="trouble"
    :verb="taken.length ? `Take ${count(taken.length)}` : 'Take the parts'"
    :able="taken.length > 0"
    @take="take"
    @close="emit('close')"
  >
    <p v-if="!answer" class="quiet hint">What each row would make is listed here before anything is taken.</p>
    <v-table v-else density="compact" class="rows">
      <tbody>
        <tr v-for="(p, i) in rows.slice(0, 200)" :key="i">
          <td>
            {{ p.part.name || '–' }}
            <span v-if="p.wrong" class="quiet small">{{ p.wrong }}</span>
            <span v-for="c in p.changes.slice(0, 3)" :key="c" class="quiet small">{{ c }}</span>
          </td>
          <td class="quiet">{{ p.wrong ? 'not taken' : words[p.state] }}</td>
        </tr>
      </tbody>
    </v-table>
  </TablePanel>
</template>

<style scoped>
.rows {
  max-height: 330px;
  overflow: auto;
}
.small {
  display: block;
  font-size: 11.5px;
}
.hint {
  padding: 40px 20px;
}
</style>
