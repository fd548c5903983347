<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'
import { call } from '../../live/http'
import type { Answer, OrderingPart, OrderingRow, Query } from '../../live/wire.gen'
import { format } from '../../live/units'
import CentredPanel from '../../shell/CentredPanel.vue'
import { euro, pieces } from './money'

/** Up to four parts side by side; where they differ is set off. */
const props = defineProps<{ numbers: string[]; quantity: number; reels: boolean; choosable: boolean }>()
const emit = defineEmits<{ close: []; choose: [OrderingPart] }>()
const rows = shallowRef<OrderingRow[]>([])
const trouble = ref('')
onMounted(async () => {
  const asked: Query = { numbers: props.numbers, quantity: props.quantity, reels: props.reels }
  const a = await call<Answer>('POST', '/depot/search', asked).catch((e: Error) => ((trouble.value = e.message), null))
  rows.value = props.numbers.flatMap((n) => a?.rows.find((r) => r.number === n) ?? [])
})
const mm = (nm: number) => (nm ? format(nm, 'mm', 2) + ' mm' : '–')
interface Line {
  name: string
  texts: string[]
}
const lines = computed<Line[]>(() => {
  const names = [...new Set(rows.value.flatMap((p) => p.properties.map((x) => x.name)))]
  const of = (name: string, text: (p: OrderingRow) => string): Line => ({ name, texts: rows.value.map(text) })
  return [
    of('Maker', (p) => p.maker),
    ...names.map((n) => of(n[0].toUpperCase() + n.slice(1), (p) => p.properties.find((x) => x.name === n)?.text ?? '–')),
    of('Package', (p) => p.package),
    of('Body', (p) => `${mm(p.body.length)} × ${mm(p.body.width)} × ${mm(p.body.height)}`),
    of('Leads', (p) => `${p.body.pins}${p.body.pitch ? ` at ${mm(p.body.pitch)}` : ''}`),
    of('Made', (p) => p.status),
    of('In stock', (p) => pieces(p.stock)),
    of('More in', (p) => `${p.weeks} weeks`),
    of('Placement line', (p) => (p.placed ? 'has it' : '–')),
    of(`Each of ${pieces(props.quantity)}`, (p) => (p.cost ? euro(p.cost.each) : '–')),
    of('In all', (p) => (p.cost ? euro(p.cost.total) : '–')),
  ]
})
const differ = (l: Line) => new Set(l.texts).size > 1
</script>

<template>
  <CentredPanel label="Parts side by side" title="Side by side" :width="860" @close="emit('close')">
    <p v-if="trouble" role="alert">{{ trouble }}</p>
    <div v-else-if="rows.length" class="table">
      <v-table density="compact">
        <thead>
          <tr>
            <th />
            <th v-for="p in rows" :key="p.number" class="mono">{{ p.makerNumber }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in lines" :key="l.name" :class="{ differs: differ(l) }">
            <td class="quiet">{{ l.name }}</td>
            <td v-for="(t, i) in l.texts" :key="i" class="mono">{{ t }}</td>
          </tr>
          <tr v-if="choosable">
            <td />
            <td v-for="p in rows" :key="p.number">
              <v-btn size="small" variant="outlined" @click="emit('choose', p)">Choose</v-btn>
            </td>
          </tr>
        </tbody>
      </v-table>
    </div>
    <template #acts>
      <span class="quiet">Lines in which they differ are set off.</span>
      <span class="grow" />
      <v-btn variant="text" @click="emit('close')">Close</v-btn>
    </template>
  </CentredPanel>
</template>

<style scoped>
.table {
  overflow: auto;
}
.differs td {
  background: rgba(var(--v-theme-info), 0.12);
}
.grow {
  flex: 1;
}
</style>
