<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import { format } from '../live/units'
import type { Project } from '../live/project'
import type { Barrel, DesignWay, HopMade, Kinds } from '../live/wire.gen'
import AngleField from '../shell/fields/AngleField.vue'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import LengthField from '../shell/fields/LengthField.vue'
import { complain } from '../shell/notices'
import { useTaste } from '../shell/taste'
import JoinField from './JoinField.vue'
import WayPicture from './stack/WayPicture.vue'

/** A via: its section, what it goes through, and the hop it is of, which can be made another way. */
const props = defineProps<{ project: Project; via: Kinds['via'] }>()
const emit = defineEmits<{ pick: [id: number] }>()
const stitching = computed(() => (void props.project.docTick.value, props.via.group ? props.project.get('stitching', props.via.group) : undefined)) // prettier-ignore
const taste = useTaste()
const board = computed(() => (void props.project.docTick.value, props.project.board))
const copper = computed(() => board.value.stack.filter((l) => l.kind === 'copper'))
const say = (nm: number) => `${format(nm, taste.unit, 3)} ${taste.unit}`
/** What a via goes through, how it is made and how it is covered. */
const span = computed(() => {
  const v = props.via
  const at = (id: number) => copper.value.findIndex((l) => l.id === id)
  const [from, to] = [at(v.from), at(v.to)]
  const last = copper.value.length - 1
  const kind = from === 0 && to === last ? 'Through' : from === 0 || to === last ? 'Blind' : 'Buried'
  const made = v.kind === 'laser' ? ', lasered' : ''
  const cover = { open: 'free of mask', filled: 'filled and covered' }[v.cover ?? ''] ?? 'covered by the mask'
  return `${kind}${made}: ${copper.value[from]?.name} to ${copper.value[to]?.name}; ${cover}`
})
const made = shallowRef<HopMade | null>(null)
async function look() {
  made.value = await props.project.question('hopOf', { id: props.via.id }).catch(() => null)
}
watch(() => [props.via.id, props.project.docTick.value].join(), () => void look(), { immediate: true }) // prettier-ignore
const vias = computed(() => {
  void props.project.docTick.value
  const all = (made.value?.vias ?? [props.via.id]).map((id) => props.project.get('via', id)).filter((v) => !!v)
  return all.length ? all : [props.via]
})
/** The vias of the hop as a way, each a barrel of its own. */
const way = computed<DesignWay>(() => ({
  from: made.value?.from ?? props.via.from,
  to: made.value?.to ?? props.via.to,
  steps: vias.value.map((v, i) => ({
    barrel: v.id,
    stepped: i > 0 && (v.at.x !== vias.value[i - 1].at.x || v.at.y !== vias.value[i - 1].at.y),
  })),
}))
const barrels = computed<Barrel[]>(() => vias.value.map((v) => ({ id: v.id, name: '', kind: v.kind, from: v.from, to: v.to })))
const ways = computed(() => (made.value?.ways ?? []).map((w, i) => ({ value: i + 1, title: w })))
const set = (f: { way?: number; turned?: number; apart?: number }) => {
  const { turned, apart } = made.value!
  const keep = made.value!.apart && !f.way ? { turned, apart } : {}
  return props.project.edit('setHop', { id: props.via.id, ...keep, ...f }).catch(complain)
}
</script>

<template>
  <h3>{{ vias.length > 1 ? `Hop of ${vias.length} holes` : 'Via' }}</h3>
  <WayPicture class="section" :way="way" :layers="board.stack" :barrels="barrels" />
  <p>
    Net <span class="mono">{{ project.netName(via.net) || 'none' }}</span>, hole <span class="mono">{{ say(via.hole) }}</span> in
    <span class="mono">{{ say(via.diameter) }}</span>
  </p>
  <p class="quiet">{{ span }}</p>
  <template v-if="made && ways.length > 1">
    <ChoiceField label="Way" :value="made.way || null" :options="ways" @keep="set({ way: $event })" />
    <template v-if="made.apart">
      <AngleField label="Turned to" :value="made.turned" @keep="set({ turned: $event })" />
      <LengthField label="Apart" :value="made.apart" :step="50_000" @keep="set({ apart: $event })" />
    </template>
    <p class="quiet">
      {{ made.own ? 'Chosen for this place: it stays when the order of ways changes.' : 'It follows the order of ways.' }}
    </p>
  </template>
  <v-btn v-if="stitching" size="small" variant="outlined" @click="emit('pick', stitching.id)"
    >Of the stitching {{ stitching.name }}</v-btn
  >
  <JoinField :project="project" :ids="[via.id]" />
</template>

<style scoped>
.section {
  display: block;
  width: 200px;
  height: auto;
  margin: 4px 0 8px;
}
</style>
