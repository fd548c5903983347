<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import { complain } from '../shell/notices'
import TextRow from '../shell/TextRow.vue'
import { type NetQuantity, quantity, quantityOf } from '../live/quantities'

/** What is said of a net, to be changed in place. */
const props = defineProps<{ project: Project; net: string }>()
const spec = computed(() => (void props.project.docTick.value, props.project.all('netSpec').find((s) => s.net === props.net)))
const pins = computed(() => (void props.project.derivedTick.value, props.project.nets.get(props.net)?.pins.length ?? 0))
const set = (o: object) => props.project.edit('setNets', { nets: [props.net], ...o }).catch(complain)
function number(field: NetQuantity, text: string) {
  try {
    void set({ [field]: quantityOf(field, text) })
  } catch (e) {
    complain(e)
  }
}
async function rename(to: string) {
  await props.project.edit('renameNet', { net: props.net, to }).catch(complain)
}
</script>

<template>
  <TextRow label="Net" :value="net" mono name="net-name" @keep="rename" />
  <TextRow label="Class" :value="spec?.class ?? ''" name="net-class" @keep="set({ class: $event })" />
  <TextRow
    label="Current"
    :value="quantity('current', spec?.current)"
    mono
    name="net-current"
    @keep="number('current', $event)"
  />
  <TextRow label="Voltage" :value="quantity('voltage', spec?.voltage)" mono @keep="number('voltage', $event)" />
  <TextRow label="Impedance" :value="quantity('impedance', spec?.impedance)" mono @keep="number('impedance', $event)" />
  <p class="quiet">
    {{ pins }} {{ pins === 1 ? 'pin' : 'pins'
    }}<template v-if="spec?.partner">
      · pair with <span class="mono">{{ spec.partner }}</span></template
    >
    ·
    <button class="plain" @click="project.light(net)">Highlight</button>
  </p>
</template>
