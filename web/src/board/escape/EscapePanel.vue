<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed, onUnmounted, reactive, watch } from 'vue'
import type { Project } from '../../live/project'
import type { PadStuck } from '../../live/wire.gen'
import LengthField from '../../shell/fields/LengthField.vue'
import { complain, say } from '../../shell/notices'
import type { BoardEditor } from '../editor'
import LayerTicks from '../LayerTicks.vue'

/** How the pads of the picked parts would be led out: seen on the board before it is laid. */
const props = defineProps<{ project: Project; editor: BoardEditor }>()
const emit = defineEmits<{ place: [stuck: PadStuck] }>()
const { editor } = props
/** Tracks lead out on layers that no plane takes. */
const planes = new Set(props.project.all('pour').flatMap((p) => (p.outline?.length ? [] : p.layers)))
const free = editor.copper.map((l) => l.id).filter((l) => !planes.has(l))
const ask = reactive({
  layers: free.length ? free : editor.copper.map((l) => l.id),
  beyond: 500_000,
  holes: false,
  areas: false,
  parts: [] as number[],
})
const parts = () => editor.picked('placed').map((p) => p.id)
const names = computed(() => ask.parts.map((id) => props.project.get('placed', id)?.designator ?? '').join(', '))
let asked = 0
async function look() {
  const picked = parts()
  if (picked.length) ask.parts = picked
  if (!ask.parts.length) return
  const mine = ++asked
  const seen = await props.project.question('escape', { ...ask }).catch(complain)
  if (mine !== asked) return
  editor.escape.value = seen ?? null
  editor.redraw()
}
watch(() => [ask.layers.join(), ask.beyond, ask.holes, ask.areas, [...editor.selection].join(), props.project.docTick.value].join('|'), () => void look(), { immediate: true }) // prettier-ignore
onUnmounted(() => {
  editor.escape.value = null
  editor.redraw()
})
const seen = computed(() => editor.escape.value)
const close = () => (editor.state.escaping = false)
const pads = (n: number) => (n === 1 ? '1 pad' : `${n} pads`)
async function lay() {
  const { led, stuck } = seen.value!
  if (!(await props.project.edit('escape', { ...ask }).catch(complain))) return
  if (stuck.length) say(`${pads(led)} led out, ${stuck.length} not.`, 'warning')
  else say(`${pads(led)} led out.`)
  if (!stuck.length) close()
}
</script>

<template>
  <div class="float escape" role="group" aria-label="Lead pads out">
    <header>
      <h4>
        Lead pads out <span class="mono">{{ names }}</span>
      </h4>
      <v-btn :icon="mdiClose" size="x-small" variant="text" aria-label="Do not lead pads out" @click="close" />
    </header>
    <p v-if="!ask.parts.length" class="quiet">Pick the parts whose pads are to be led out.</p>
    <template v-else>
      <LayerTicks :editor="editor" :layers="ask.layers" @keep="ask.layers = $event" />
      <LengthField label="Beyond the part" :value="ask.beyond" :step="100_000" @keep="ask.beyond = $event" />
      <v-checkbox v-model="ask.holes" label="a hop beside each pad is enough" hide-details density="compact" />
      <v-checkbox v-model="ask.areas" label="only nets with a copper area" hide-details density="compact" />
      <template v-if="seen">
        <dl>
          <dt>Led out</dt>
          <dd class="mono">{{ seen.led }}</dd>
          <dt>By holes</dt>
          <dd class="mono">{{ seen.vias.length }}</dd>
          <dt>Joined already</dt>
          <dd class="mono">{{ seen.already }}</dd>
          <dt>Not led out</dt>
          <dd class="mono" :class="{ stuck: seen.stuck.length }">{{ seen.stuck.length }}</dd>
        </dl>
        <ul v-if="seen.stuck.length" aria-label="Pads that are not led out" tabindex="0">
          <li v-for="s in seen.stuck" :key="s.name">
            <v-btn variant="text" size="small" :title="s.why" @click="emit('place', s)">
              <span class="mono">{{ s.name.replace('pad ', '') }}</span>
              <span class="quiet">{{ s.why }}</span>
            </v-btn>
          </li>
        </ul>
      </template>
      <v-btn color="primary" variant="flat" size="small" :disabled="!seen?.led" @click="lay">Lay them</v-btn>
    </template>
  </div>
</template>

<style scoped>
.escape {
  position: absolute;
  right: 12px;
  top: 56px;
  width: 270px;
  max-height: calc(100% - 170px);
  overflow: auto;
  z-index: 4;
  padding: 8px 12px 12px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
h4 {
  margin: 0;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 8px;
  margin: 6px 0;
}
dd {
  margin: 0;
  text-align: right;
}
.stuck {
  color: rgb(var(--v-theme-error));
}
ul {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
  max-height: 150px;
  overflow: auto;
}
li .v-btn {
  width: 100%;
  justify-content: flex-start;
}
li :deep(.v-btn__content) {
  width: 100%;
  justify-content: flex-start;
  gap: 8px;
}
li .quiet {
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
