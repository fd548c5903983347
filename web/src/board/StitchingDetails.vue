<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import type { Kinds } from '../live/wire.gen'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import LengthField from '../shell/fields/LengthField.vue'
import TextField from '../shell/fields/TextField.vue'
import { complain } from '../shell/notices'
import type { BoardEditor } from './editor'
import { netChoices } from './nets'

/** A stitching: how its vias stand, of what they are made; each change makes them anew where they fit then. */
const props = defineProps<{ project: Project; editor: BoardEditor; stitching: Kinds['stitching'] }>()
const put = (f: Partial<Kinds['stitching']>) => props.project.edit('putStitching', { stitching: { ...props.stitching, ...f } }).catch(complain) // prettier-ignore
const nets = computed(() => netChoices(props.project))
const vias = computed(() => (void props.project.docTick.value, props.project.all('via').filter((v) => v.group === props.stitching.id))) // prettier-ignore
const barrels = computed(() => {
  void props.project.docTick.value
  const list = props.project.board.holes?.barrels ?? []
  return [{ value: 0, title: 'as the rules say' }, ...list.map((b) => ({ value: b.id, title: b.name }))]
})
function setPattern(pattern: string) {
  const apart = props.stitching.apart || 1_000_000
  void put(
    pattern === 'edge'
      ? { pattern, apart, outline: [] }
      : pattern === 'along'
        ? {
            pattern,
            apart,
            outline: [],
            along: props.stitching.along || nets.value.find((n) => n.value !== props.stitching.net)?.value || 0,
          }
        : { pattern: '', apart: 0, along: 0 },
  )
}
const pick = () => props.editor.pickOnly(vias.value.map((v) => v.id))
</script>

<template>
  <h3>Stitching</h3>
  <p class="quiet">
    <span class="mono">{{ vias.length }}</span> {{ vias.length === 1 ? 'via ties' : 'vias tie' }} the copper of
    <span class="mono">{{ project.netName(stitching.net) }}</span> together<template v-if="stitching.out?.length"
      >; {{ stitching.out.length }} {{ stitching.out.length === 1 ? 'place is' : 'places are' }} left free</template
    >.
  </p>
  <TextField label="Name" :value="stitching.name" @keep="put({ name: $event })" />
  <ChoiceField label="Net" :value="stitching.net" :options="nets" @keep="put({ net: $event })" />
  <ChoiceField
    label="Vias stand"
    :value="stitching.pattern ?? ''"
    :options="[
      { value: '', title: 'in a grid' },
      { value: 'edge', title: 'along the board’s edge' },
      { value: 'along', title: 'beside a net’s tracks' },
    ]"
    @keep="setPattern"
  />
  <ChoiceField
    v-if="stitching.pattern === 'along'"
    label="Beside"
    :value="stitching.along ?? 0"
    :options="nets"
    @keep="put({ along: $event })"
  />
  <LengthField label="Pitch" :value="stitching.pitch" :step="100_000" @keep="put({ pitch: $event })" />
  <LengthField
    v-if="stitching.pattern"
    label="Distance"
    :value="stitching.apart ?? 0"
    :step="50_000"
    @keep="put({ apart: $event })"
  />
  <ChoiceField
    v-if="barrels.length > 1"
    label="Holes"
    :value="stitching.barrel ?? 0"
    :options="barrels"
    @keep="put({ barrel: $event })"
  />
  <div class="acts">
    <v-btn size="small" variant="outlined" @click="put({})">Make anew</v-btn>
    <v-btn v-if="stitching.out?.length" size="small" variant="outlined" @click="put({ out: [] })">Fill what was left free</v-btn>
    <v-btn size="small" variant="outlined" @click="pick">Pick its vias</v-btn>
    <v-btn size="small" variant="outlined" @click="project.edit('remove', { ids: [stitching.id] }).catch(complain)"
      >Remove all</v-btn
    >
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}
</style>
