<script setup lang="ts">
import { computed, onMounted, reactive, shallowRef } from 'vue'
import { inNaturalOrder } from '../live/natural'
import type { Project } from '../live/project'
import type { ReadyStack } from '../live/wire.gen'
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
  ready: '', // a ready-made stack, as the house and its name say
  planes: {} as Record<number, string>, // the net of each layer that is a plane
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
const made = shallowRef<ReadyStack[]>([])
onMounted(async () => (made.value = (await props.project.question('stack', {}).catch(() => null))?.ready ?? []))
const key = (r: ReadyStack) => `${r.house} ${r.name}`
const stacks = computed(() => [{ value: '', title: 'plain' }, ...made.value.filter((r) => r.copper === b.copper).map((r) => ({ value: key(r), title: `${r.name}, ${r.by}` }))]) // prettier-ignore
function setCopper(n: number) {
  b.copper = n
  b.ready = ''
}
const planed = computed(() => b.parts && b.form !== 'none' && b.copper > 2)
/** Nets that a layer may be a plane of: those of supplies first. */
const nets = computed(() => {
  void props.project.docTick.value
  const supplies = new Set(props.project.all('supply').map((s) => s.name))
  const list = inNaturalOrder(props.project.netList.value, (n) => n.name).map((n) => n.name)
  return [{ value: '', title: 'no plane' }, ...[...list.filter((n) => supplies.has(n)), ...list.filter((n) => !supplies.has(n))].map((n) => ({ value: n, title: `plane of ${n}` }))] // prettier-ignore
})
const planes = () =>
  planed.value
    ? Object.entries(b.planes).flatMap(([at, net]) => (net && Number(at) < b.copper - 1 ? [{ at: Number(at), net }] : []))
    : []
async function begin() {
  const ready = made.value.find((r) => key(r) === b.ready)
  const done = await props.project
    .edit('beginBoard', {
      copper: b.copper,
      ...(ready ? { ready: { house: ready.house, name: ready.name } } : {}),
      planes: planes(),
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
    <ChoiceField label="Copper layers" :value="b.copper" :options="layers" @keep="setCopper(Number($event))" />
    <ChoiceField label="Stack" :value="b.ready" :options="stacks" @keep="b.ready = $event" />
    <template v-if="planed">
      <ChoiceField
        v-for="i in b.copper - 2"
        :key="i"
        :label="`Inner ${i}`"
        :value="b.planes[i] ?? ''"
        :options="nets"
        @keep="b.planes[i] = $event"
      />
    </template>
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
      <LengthField label="Width" :least="1e6" :value="b.width" @keep="b.width = $event" />
      <LengthField label="Height" :least="1e6" :value="b.height" @keep="b.height = $event" />
      <LengthField label="Corners" :least="0" :most="Math.min(b.width, b.height) / 2" :value="b.r" @keep="b.r = $event" />
    </template>
    <LengthField v-else-if="b.form === 'circle'" label="Diameter" :least="1e6" :value="b.width" @keep="b.width = $event" />
    <p v-else class="quiet">
      Draw it with the outline’s tool, or
      <v-btn size="x-small" variant="outlined" @click="emit('drawing')">take it from a DXF drawing</v-btn>
    </p>
    <LengthField label="New tracks" :least="1000" :value="b.track" @keep="b.track = $event" />
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
