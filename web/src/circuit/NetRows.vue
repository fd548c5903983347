<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { Project } from '../live/project'
import { openMenuOf } from '../shell/menu'
import { complain } from '../shell/notices'
import NameField from '../shell/fields/NameField.vue'
import QuantityField from '../shell/fields/QuantityField.vue'
import TextField from '../shell/fields/TextField.vue'
import { netQuantities } from '../live/quantities'

/** What is said of a net, to be changed in place. */
const props = defineProps<{ project: Project; net: string }>()
const spec = computed(() => (void props.project.docTick.value, props.project.named('net', props.net)))
const pins = computed(() => (void props.project.derivedTick.value, props.project.nets.get(props.net)?.pins.length ?? 0))
const set = (o: object) => props.project.edit('setNets', { nets: [props.net], ...o }).catch(complain)
const rename = (to: string) => props.project.edit('renameNet', { net: props.net, to }).catch(complain)
const classes = computed(
  () => (
    void props.project.docTick.value,
    [...new Set(props.project.all('net').map((s) => s.class ?? ''))].filter(Boolean).sort()
  ),
)
const router = useRouter()
const menu = (e: MouseEvent) =>
  openMenuOf(e, [
    { title: 'Highlight the net', run: () => props.project.light(props.net) },
    {
      title: 'Show in the table of nets',
      run: () => void router.push({ path: `/project/${props.project.id}/circuit`, query: { view: 'nets' } }),
    },
  ])
const quantities = [
  ['current', 'Current'],
  ['voltage', 'Voltage'],
  ['impedance', 'Impedance'],
] as const
</script>

<template>
  <div class="net-rows" @contextmenu="menu">
    <TextField label="Net" :value="net" mono @keep="rename" />
    <NameField label="Class" :value="spec?.class ?? ''" :names="classes" @keep="set({ class: $event })" />
    <QuantityField
      v-for="[f, label] in quantities"
      :key="f"
      :label="label"
      :value="spec?.[f] ?? 0"
      :unit="netQuantities[f].unit"
      :small="netQuantities[f].small"
      optional
      @keep="set({ [f]: $event })"
    />
    <p class="quiet">
      {{ pins }} {{ pins === 1 ? 'pin' : 'pins'
      }}<template v-if="spec?.partner">
        · pair with <span class="mono">{{ project.netName(spec.partner) }}</span></template
      >
      ·
      <v-btn size="small" variant="outlined" @click="project.light(net)">Highlight</v-btn>
    </p>
  </div>
</template>

<style scoped>
.net-rows {
  display: contents;
}
</style>
