<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Project } from '../../live/project'
import type { Kinds } from '../../live/wire.gen'
import OneOf from '../../shell/fields/OneOf.vue'
import { complain } from '../../shell/notices'
import type { BoardEditor } from '../editor'
import { flipView, seeNetAlone, seeOthers, showSurface, takeSet } from './seeing'
import { hues } from './tints'

/** How the layers of the board are seen: the others beside the one in work, what lies on the faces, from which side; kept under names. And the colours of nets. */
const props = defineProps<{ project: Project; editor: BoardEditor }>()
const emit = defineEmits<{ close: [] }>()
const state = props.editor.state
const sets = computed(() => (void props.project.docTick.value, [...props.project.all('layerSet')].sort((a, b) => a.name.localeCompare(b.name)))) // prettier-ignore
const tints = computed(() => (void props.project.docTick.value, [...props.project.all('tint')].sort((a, b) => a.name.localeCompare(b.name)))) // prettier-ignore
const name = ref('')
const surfaces = [
  { value: '', title: 'Silk' },
  { value: 'mask', title: 'Mask' },
  { value: 'paste', title: 'Paste' },
]
const show = (s: string, on: boolean) => showSurface(props.editor, s, on)
function keep() {
  const layers = props.editor.copper.map((l) => l.id).filter((l) => !state.hidden.includes(l))
  const { others, layer, flipped, unseen } = state
  props.project
    .edit('keepLayerSet', { set: { id: 0, name: name.value, layers, work: layer, others, hidden: [...unseen], flipped } })
    .then(() => (name.value = ''), complain)
}
const drop = (s: Kinds['layerSet']) => props.project.edit('dropLayerSet', { id: s.id }).catch(complain)

// ---- colours of nets

const net = computed(() => props.project.lit.value)
const picks = computed(() => {
  void props.project.docTick.value
  const nets = props.project.all('net')
  const classes = [...new Set(nets.map((n) => n.class ?? '').filter(Boolean))].sort()
  return [
    ...classes.map((c) => ({ value: 'class ' + c, title: `All nets of the class ${c}` })),
    ...nets.map((n) => ({ value: 'net ' + n.name, title: n.name })).sort((a, b) => a.title.localeCompare(b.title)),
  ]
})
const whose = ref<string | null>(null)
const of = computed(() => whose.value ?? (net.value ? 'net ' + net.value : null))
const tint = (colour: string, key = of.value) => {
  if (!key) return
  const isClass = key.startsWith('class ')
  void props.project.edit('setTint', { class: isClass, name: key.slice(key.indexOf(' ') + 1), colour }).catch(complain)
}
</script>

<template>
  <section class="float view" role="dialog" aria-label="How the board is seen">
    <div class="row">
      <h3>View</h3>
      <span class="grow" />
      <v-btn :icon="mdiClose" size="x-small" aria-label="Close the view" @click="emit('close')" />
    </div>
    <div class="field">
      <span>Other layers</span>
      <OneOf
        label="How other layers are seen"
        :value="state.others"
        :options="[
          { value: '', title: 'Dimmed' },
          { value: 'next', title: 'Next ones' },
          { value: 'plain', title: 'Plain' },
        ]"
        @keep="seeOthers(editor, $event)"
      />
    </div>
    <div class="field">
      <span>Seen from</span>
      <OneOf
        label="From which side it is seen"
        :value="state.flipped"
        :options="[
          { value: false, title: 'Above' },
          { value: true, title: 'Below' },
        ]"
        @keep="$event !== state.flipped && flipView(editor)"
      />
    </div>
    <div class="row">
      <v-checkbox
        v-for="s in surfaces"
        :key="s.value"
        :model-value="!state.unseen.includes(s.value)"
        :label="s.title"
        density="compact"
        hide-details
        @update:model-value="show(s.value, !!$event)"
      />
    </div>
    <v-checkbox
      :model-value="state.netAlone"
      label="The highlighted net alone, on all layers"
      density="compact"
      hide-details
      @update:model-value="seeNetAlone(editor, !!$event)"
    />
    <h4>Layer sets</h4>
    <p v-if="!sets.length" class="quiet">None is kept yet. What is seen now can be kept under a name.</p>
    <div v-for="s in sets" :key="s.id" class="row">
      <v-btn size="small" variant="text" class="name" @click="takeSet(editor, s)">{{ s.name }}</v-btn>
      <span class="grow" />
      <v-btn :icon="mdiClose" size="x-small" :aria-label="`Drop the layer set ${s.name}`" @click="drop(s)" />
    </div>
    <form class="row" @submit.prevent="keep">
      <v-text-field
        v-model="name"
        placeholder="Keep what is seen as …"
        aria-label="Keep as"
        density="compact"
        variant="outlined"
        hide-details
      />
      <v-btn size="small" variant="outlined" type="submit" :disabled="!name.trim()">Keep</v-btn>
    </form>
    <h4>Colours of nets</h4>
    <div v-for="t in tints" :key="t.id" class="row">
      <i class="swatch" :style="{ background: t.colour }" />
      <span :class="{ mono: !t.class }">{{ t.class ? `class ${t.name}` : t.name }}</span>
      <span class="grow" />
      <v-btn
        :icon="mdiClose"
        size="x-small"
        :aria-label="`Take the colour of ${t.name} away`"
        @click="tint('', (t.class ? 'class ' : 'net ') + t.name)"
      />
    </div>
    <v-autocomplete
      :model-value="of"
      :items="picks"
      placeholder="Net or class …"
      aria-label="Net or class"
      density="compact"
      variant="outlined"
      hide-details
      @update:model-value="whose = $event"
    />
    <div class="row hues" role="group" aria-label="Colours">
      <v-btn
        v-for="h in hues"
        :key="h"
        class="hue"
        :disabled="!of"
        :style="{ background: h }"
        :aria-label="`Draw it in ${h}`"
        :title="h"
        @click="tint(h)"
      />
    </div>
  </section>
</template>

<style scoped>
.view {
  position: absolute;
  left: 200px;
  top: 12px;
  width: 300px;
  max-height: calc(100% - 110px);
  overflow-y: auto;
  padding: 10px 14px 14px;
  z-index: 6;
  display: flex;
  flex-direction: column;
  gap: 7px;
}
.row,
.field {
  display: flex;
  align-items: center;
  gap: 8px;
}
.field > span:first-child {
  width: 88px;
}
.grow {
  flex: 1;
}
h3 {
  font-size: 15px;
  font-weight: 600;
}
h4 {
  margin: 4px 0 -2px;
  font-size: 13px;
  font-weight: 600;
}
.view p {
  margin: 0;
}
.name {
  justify-content: flex-start;
}
.swatch {
  width: 14px;
  height: 14px;
  border-radius: 3px;
}
.hues .v-btn.hue {
  min-width: 26px;
  width: 26px;
  height: 22px;
  padding: 0;
  border-radius: 4px;
}
</style>
