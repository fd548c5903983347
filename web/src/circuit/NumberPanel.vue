<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Renaming } from '../live/wire.gen'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import TextField from '../shell/fields/TextField.vue'
import WholeField from '../shell/fields/WholeField.vue'
import { complain, say } from '../shell/notices'
import type { CircuitEditor } from './editor'

/** Gives designators by position, shown before they are taken. */
const props = defineProps<{ editor: CircuitEditor }>()
const emit = defineEmits<{ close: [] }>()
const way = ref('rows')
const only = ref<'all' | 'sheet'>('all')
const from = ref(1)
const prefix = ref('')
const list = ref<Renaming[]>([])
const trouble = ref('')
const numbering = computed(() => ({
  way: way.value,
  from: from.value,
  ...(only.value === 'sheet' ? { sheets: [props.editor.sheet] } : {}),
  ...(prefix.value.trim() ? { prefixes: prefix.value.split(/[\s,]+/).filter(Boolean) } : {}),
}))
async function look() {
  const m = await props.editor.project
    .question('numbers', { numbering: numbering.value })
    .catch((e: Error) => (trouble.value = e.message))
  if (typeof m === 'string') return
  trouble.value = ''
  list.value = m ?? []
}
watch([numbering, props.editor.project.docTick], look, { immediate: true })
async function take() {
  const n = list.value.length
  const done = await props.editor.project.edit('renumber', numbering.value).catch(complain)
  if (done) {
    say(`${n} designators given anew.`)
    emit('close')
  }
}
</script>

<template>
  <div class="float numbers" role="dialog" aria-label="Number the parts by position" @keydown.esc.stop="emit('close')">
    <h3>Number by position</h3>
    <ChoiceField
      label="Way"
      :value="way"
      :options="[
        { value: 'rows', title: 'row by row' },
        { value: 'columns', title: 'column by column' },
      ]"
      @keep="way = $event"
    />
    <ChoiceField
      label="Where"
      :value="only"
      :options="[
        { value: 'all', title: 'all sheets' },
        { value: 'sheet', title: 'this sheet' },
      ]"
      @keep="only = $event as 'all'"
    />
    <WholeField label="From" :value="from" :least="1" @keep="from = $event" />
    <TextField label="Prefixes" :value="prefix" mono empty="all, or R, C" @keep="prefix = $event" />
    <p v-if="trouble" role="alert">{{ trouble }}</p>
    <div class="list">
      <div v-for="r in list" :key="r.old + r.new" class="mono change">
        <span>{{ r.old }}</span><span>→</span><span>{{ r.new }}</span>
      </div>
      <p v-if="!list.length && !trouble" class="quiet">All parts are numbered so already.</p>
    </div>
    <div class="line">
      <span class="quiet grow"
        ><span class="mono">{{ list.length }}</span> would change</span
      >
      <v-btn size="small" @click="emit('close')">Close</v-btn>
      <v-btn size="small" color="primary" variant="flat" :disabled="!list.length" @click="take">Number them</v-btn>
    </div>
  </div>
</template>

<style scoped>
.numbers {
  display: flex;
  flex-direction: column;
  gap: 6px;
  position: absolute;
  right: 12px;
  top: 54px;
  width: 330px;
  padding: 12px;
  z-index: 8;
}
h3 {
  font-size: 14px;
  margin-bottom: 8px;
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 8px;
  font-size: 12.5px;
}
.list {
  max-height: 300px;
  overflow-y: auto;
  columns: 2;
  margin-bottom: 8px;
}
.change {
  display: grid;
  grid-template-columns: 1fr 20px 1fr;
  font-size: 12px;
}
.grow {
  flex: 1;
}
</style>
