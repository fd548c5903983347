<script setup lang="ts">
import { computed, reactive } from 'vue'
import type { Project } from '../live/project'
import CentredPanel from '../shell/CentredPanel.vue'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import LengthField from '../shell/fields/LengthField.vue'
import OneOf from '../shell/fields/OneOf.vue'
import { complain, say } from '../shell/notices'

/** The first transfer: what the board is to be, before anything is on it. All of it is one act and can be changed later. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ close: []; begun: []; drawing: [] }>()
const b = reactive({
  copper: 2,
  form: 'rectangle',
  width: 100_000_000,
  height: 70_000_000,
  r: 3_000_000,
  track: props.project.rule('trackWidth'),
  sides: 'both',
  parts: true,
})
const parts = computed(() => (void props.project.docTick.value, props.project.all('part')))
const lacking = computed(() => parts.value.filter((p) => !p.footprint).length)
const layers = [1, 2, 4, 6, 8, 10, 12, 16].map((n) => ({
  value: n,
  title: n === 1 ? '1, one side' : n === 2 ? '2, top and bottom' : `${n}, ${n - 2} inside`,
}))
async function begin() {
  const done = await props.project
    .edit('beginBoard', {
      copper: b.copper,
      form: b.form === 'none' ? '' : b.form,
      width: b.width,
      height: b.height,
      r: b.form === 'rectangle' ? b.r : 0,
      track: b.track,
      oneSide: b.sides === 'one',
      parts: b.parts,
    })
    .catch(complain)
  if (done === undefined) return
  say(b.parts ? 'The board is begun; its parts stand beside it.' : 'The board is begun.')
  emit('begun')
}
</script>

<template>
  <CentredPanel label="Begin the board" :width="520" @close="emit('close')">
    <p class="quiet">What is set here can be changed at any time; one undo takes all of it back.</p>
    <ChoiceField label="Copper layers" :value="b.copper" :options="layers" @keep="b.copper = Number($event)" />
    <div class="row">
      <span>Form</span>
      <OneOf
        label="Form"
        :value="b.form"
        :options="[
          { value: 'rectangle', title: 'Rectangle' },
          { value: 'circle', title: 'Circle' },
          { value: 'none', title: 'Drawn later' },
        ]"
        @keep="b.form = String($event)"
      />
    </div>
    <template v-if="b.form === 'rectangle'">
      <LengthField label="Width" :value="b.width" @keep="b.width = $event" />
      <LengthField label="Height" :value="b.height" @keep="b.height = $event" />
      <LengthField label="Corners" :value="b.r" @keep="b.r = $event" />
    </template>
    <LengthField v-else-if="b.form === 'circle'" label="Diameter" :value="b.width" @keep="b.width = $event" />
    <p v-else class="quiet">
      Draw it with the outline’s tool, or
      <v-btn size="x-small" variant="outlined" @click="emit('drawing')">take it from a DXF drawing</v-btn>
    </p>
    <LengthField label="New tracks" :value="b.track" @keep="b.track = $event" />
    <div class="row">
      <span>Parts stand</span>
      <OneOf
        label="Parts stand"
        :value="b.sides"
        :options="[
          { value: 'both', title: 'On both sides' },
          { value: 'one', title: 'On the upper side' },
        ]"
        @keep="b.sides = String($event)"
      />
    </div>
    <div class="row">
      <span>How far</span>
      <OneOf
        label="How far"
        :value="b.parts ? 'parts' : 'board'"
        :options="[
          { value: 'parts', title: 'The board and its parts' },
          { value: 'board', title: 'The board alone' },
        ]"
        @keep="b.parts = $event === 'parts'"
      />
    </div>
    <p v-if="b.parts && parts.length" class="quiet">
      {{ parts.length === 1 ? '1 part arrives' : `${parts.length} parts arrive` }} beside the outline, those of a cluster or a
      sheet together.<template v-if="lacking">
        {{ lacking === 1 ? '1 has' : `${lacking} have` }} no footprint and
        {{ lacking === 1 ? 'stays' : 'stay' }} behind.</template
      >
    </p>
    <template #acts>
      <v-btn variant="text" @click="emit('close')">Not now</v-btn>
      <v-btn color="primary" variant="flat" @click="begin">Begin the board</v-btn>
    </template>
  </CentredPanel>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 96px auto;
  align-items: center;
  justify-content: start;
}
</style>
