<script setup lang="ts">
import { computed } from 'vue'
import type { Flaw } from '../../live/wire.gen'
import LengthField from '../../shell/fields/LengthField.vue'
import TextField from '../../shell/fields/TextField.vue'
import { complain } from '../../shell/notices'
import { saveFile } from '../../shell/saving'
import FlawList from '../FlawList.vue'
import { idOf, pieceOf, withRefs } from '../pieces'
import BodyInSpace from './BodyInSpace.vue'
import Claims from './Claims.vue'
import type { FootprintEditor } from './editor'
import PadDetails from './PadDetails.vue'

const props = defineProps<{ editor: FootprintEditor }>()
const emit = defineEmits<{ generate: []; frame: [] }>()
const f = computed(() => (void props.editor.project.docTick.value, props.editor.f))
const shown = computed(() => props.editor.shown.value)
const pads = computed(() => (void props.editor.project.docTick.value, props.editor.pickedPads()))
const figure = computed(() => {
  void props.editor.project.docTick.value
  const [id] = props.editor.selection
  if (props.editor.selection.size !== 1 || !f.value) return null
  const { what, ref } = pieceOf(id)
  if (what !== 'silk' && what !== 'body') return null
  const g = withRefs(f.value[what]).find((x) => x.id === ref)
  return g ? { what, g } : null
})
const set = (fields: { name?: string; description?: string }) =>
  props.editor.project.edit('setFootprint', { footprint: props.editor.state.footprint, ...fields }).catch(complain)
const print = () =>
  saveFile(
    `/projects/${props.editor.project.id}/footprints.pdf?name=${encodeURIComponent(f.value!.name)}`,
    'footprint.pdf',
  ).catch(complain)
const put = (g: object) => props.editor.edit({ [figure.value!.what]: [{ ...figure.value!.g, ...g }] })
function go(x: Flaw) {
  props.editor.take('select')
  props.editor.selection.clear()
  for (const ref of x.pads ?? []) props.editor.selection.add(idOf('pad', ref))
  emit('frame')
}
const formWords: Record<string, string> = {
  line: 'Line',
  arc: 'Arc',
  circle: 'Circle',
  area: 'Closed line',
  solid: 'Filled area',
}
</script>

<template>
  <template v-if="f">
    <PadDetails v-if="pads.length && pads.length === editor.selection.size" :editor="editor" />
    <template v-else-if="figure">
      <h3>
        {{ formWords[figure.g.form] }} <span class="quiet">{{ figure.what === 'silk' ? 'on the silk' : 'of the outline' }}</span>
      </h3>
      <LengthField
        v-if="figure.what === 'silk'"
        label="Width"
        :value="figure.g.width || editor.project.rule('silkWidth')"
        @keep="put({ width: $event })"
      />
      <LengthField v-if="figure.g.form === 'circle'" label="Radius" :value="figure.g.r ?? 0" @keep="put({ r: $event })" />
      <template v-for="(p, i) in figure.g.pts" :key="i">
        <LengthField
          v-if="figure.g.pts.length < 9"
          :label="`x ${i + 1}`"
          :value="p.x"
          @keep="put({ pts: figure!.g.pts.map((q, k) => (k === i ? { ...q, x: $event } : q)) })"
        />
        <LengthField
          v-if="figure.g.pts.length < 9"
          :label="`y ${i + 1}`"
          :value="p.y"
          @keep="put({ pts: figure!.g.pts.map((q, k) => (k === i ? { ...q, y: $event } : q)) })"
        />
      </template>
    </template>
    <h3 v-else-if="editor.selection.size">{{ editor.selection.size }} things picked</h3>
    <template v-else>
      <h3>Footprint</h3>
      <TextField label="Name" :value="f.name" @keep="set({ name: $event })" />
      <TextField label="Description" :value="f.description ?? ''" @keep="set({ description: $event })" />
      <p class="quiet">
        {{ f.pads.length }} {{ f.pads.length === 1 ? 'pad' : 'pads' }} ·
        <template v-if="f.recipe">
          {{ shown?.generated ? 'generated from a body’s dimensions' : 'generated, and changed by hand since' }}
        </template>
        <template v-else>drawn by hand</template>
        <template v-if="shown?.used.length">
          · used by {{ shown.used.slice(0, 4).join(', ')
          }}{{ shown.used.length > 4 ? ` and ${shown.used.length - 4} more` : '' }}</template
        >
        <template v-else> · not used yet</template>
      </p>
      <div class="acts">
        <v-btn size="small" variant="outlined" @click="emit('generate')">{{ f.recipe ? 'Its dimensions' : 'Generate it' }}</v-btn>
        <v-btn size="small" variant="outlined" @click="print">Print at true size</v-btn>
      </div>
      <BodyInSpace :project="editor.project" :footprint="f" />
    </template>
    <FlawList :flaws="shown?.found ?? []" clean="Nothing is wrong with the footprint by itself." @go="go" />
    <Claims :editor="editor" />
  </template>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 6px;
}
</style>
