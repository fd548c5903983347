<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Project } from '../live/project'
import { format } from '../live/units'
import type { Kinds, PourSeen } from '../live/wire.gen'
import AngleField from '../shell/fields/AngleField.vue'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import LengthField from '../shell/fields/LengthField.vue'
import TextField from '../shell/fields/TextField.vue'
import WholeField from '../shell/fields/WholeField.vue'
import { complain } from '../shell/notices'
import type { BoardEditor } from './editor'
import { netChoices } from './nets'
import LayerTicks from './LayerTicks.vue'
import { joinWays } from './pours'

/** A copper area: its net, its layers, how it fills and joins pads, and what came of it. */
const props = defineProps<{ project: Project; editor: BoardEditor; pour: Kinds['pour'] }>()
const put = (f: Partial<Kinds['pour']>) => props.project.edit('putPour', { pour: { ...props.pour, ...f } }).catch(complain)
const spokes = (f: Partial<NonNullable<Kinds['pour']['spokes']>>) => put({ spokes: { ...props.pour.spokes, ...f } })
const nets = computed(() => netChoices(props.project))
/** Ties the areas of the net together by vias where this one lies; what came of it is picked. */
async function stitch() {
  const before = new Set(props.project.all('stitching').map((s) => s.id))
  const { net, outline } = props.pour
  const done = await props.project.edit('putStitching', { stitching: { id: 0, name: '', net, pitch: 5_000_000, ...(outline?.length ? { outline } : {}) } }).catch(complain) // prettier-ignore
  const made = done && props.project.all('stitching').find((s) => !before.has(s.id))
  if (!made) return
  props.editor.pickOnly([made.id])
}
const behind = computed(() => 'fills' in props.project.behind.value)
const seen = ref<PourSeen[]>([])
async function look() {
  const said = await props.project.question('pourLook', { id: props.pour.id }).catch(() => null)
  if (said) seen.value = said
}
watch(() => [props.pour.id, props.project.derivedTick.value].join(), () => void look(), { immediate: true }) // prettier-ignore
const nameOf = (id: number) => props.editor.copper.find((l) => l.id === id)?.name ?? ''
const count = (n: number, one: string, many: string) => (n === 1 ? `1 ${one}` : `${n} ${many}`)
function says(s: PourSeen) {
  if (!s.pieces) return s.gone ? 'nothing of the net reaches it' : 'it has no room'
  const parts = [`${s.size.toFixed(1)} mm²`, count(s.pieces, 'piece', 'pieces'), `joins ${s.joined}`]
  if (s.gone) parts.push(`${count(s.gone, 'island', 'islands')} left out`)
  return parts.join(', ')
}
</script>

<template>
  <h3>Copper area</h3>
  <p v-if="behind" class="behind" role="status">Being filled anew: what is drawn is of before.</p>
  <p v-for="s in seen" :key="s.layer" class="quiet">
    {{ nameOf(s.layer) }}: <span class="mono">{{ says(s) }}</span>
  </p>
  <TextField label="Name" :value="pour.name" @keep="put({ name: $event })" />
  <ChoiceField label="Net" :value="pour.net" :options="nets" @keep="put({ net: $event })" />
  <LayerTicks :editor="editor" :layers="pour.layers" @keep="put({ layers: $event })" />
  <h4>Fills</h4>
  <LengthField
    label="Least width"
    :value="pour.leastWidth || null"
    :empty="seen.length ? `${format(seen[0].least, 'mm', 3)} by the rules` : 'by the rules'"
    @keep="put({ leastWidth: $event })"
  />
  <LengthField label="Clearance" :value="pour.clearance || null" empty="by the rules" @keep="put({ clearance: $event })" />
  <WholeField label="Priority" :value="pour.priority ?? 0" :least="-1000" :most="1000" @keep="put({ priority: $event })" />
  <ChoiceField
    label="Islands"
    :value="pour.islands ?? ''"
    :options="[
      { value: '', title: 'left out' },
      { value: 'stay', title: 'stay' },
    ]"
    @keep="put({ islands: $event })"
  />
  <WholeField
    v-if="pour.islands === 'stay'"
    label="From mm²"
    :value="Math.round((pour.smallest ?? 0) / 1000)"
    :most="1000000"
    @keep="put({ smallest: $event * 1000 })"
  />
  <h4>Pads are joined</h4>
  <ChoiceField label="How" :value="pour.join ?? ''" :options="joinWays" @keep="put({ join: $event })" />
  <template v-if="pour.join !== 'solid' && pour.join !== 'none'">
    <WholeField label="Spokes" :value="pour.spokes?.number || 4" :least="1" :most="8" @keep="spokes({ number: $event })" />
    <LengthField label="Their width" :value="pour.spokes?.width || null" empty="by the rules" @keep="spokes({ width: $event })" />
    <LengthField label="Their gap" :value="pour.spokes?.gap || null" empty="by the rules" @keep="spokes({ gap: $event })" />
    <AngleField label="Turned by" :value="pour.spokes?.angle ?? 0" @keep="spokes({ angle: $event })" />
  </template>
  <div class="acts">
    <v-btn size="small" variant="outlined" @click="stitch">Stitch with vias</v-btn>
    <v-btn size="small" variant="outlined" @click="editor.state.touching = !editor.state.touching">What touches it</v-btn>
  </div>
  <p class="quiet">
    {{
      pour.outline?.length
        ? 'Drag its corners to shape it, a side’s middle to make another, with Shift to bend the side.'
        : 'It fills the whole board, up to its edge.'
    }}
  </p>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}
.behind {
  color: rgb(var(--v-theme-error));
}
</style>
