<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../../live/project'
import type { OrderingRow } from '../../live/wire.gen'
import { format } from '../../live/units'
import { orderField } from '../assign/rows'
import { euro, pieces } from './money'

/** All that the depot says of a part: what it is, what it measures, how it is sold. */
const props = defineProps<{ project: Project; row: OrderingRow; designators: string[]; compared: boolean }>()
const emit = defineEmits<{ choose: []; compare: [] }>()
/** The parts of the circuit that it was chosen for. */
const uses = computed(() => {
  void props.project.docTick.value
  return [...new Set(props.project.all('part').filter((p) => p.fields?.[orderField] === props.row.number).map((p) => p.designator))] // prettier-ignore
})
const mm = (nm: number) => (nm ? format(nm, 'mm', 2) : '–')
const ladder = computed(() => {
  const froms = [...new Set(props.row.offers.flatMap((o) => o.breaks.map((b) => b.from)))].sort((a, b) => a - b)
  return froms.map((from) => ({ from, prices: props.row.offers.map((o) => o.breaks.find((b) => b.from === from)?.price) }))
})
const stock = computed(() =>
  props.row.stock ? `${pieces(props.row.stock)} in stock` : `none in stock, more in ${props.row.weeks} weeks`,
)
</script>

<template>
  <h3 class="mono">{{ row.makerNumber }}</h3>
  <p>{{ row.text }}</p>
  <p class="quiet">
    {{ row.maker }} · <span class="mono">{{ row.number }}</span>
  </p>
  <p v-if="row.status !== 'made'" class="warn">
    {{ row.status === 'ended' ? 'Not made any more' : 'The maker takes last orders' }}
  </p>
  <div class="acts">
    <v-btn v-if="designators.length" size="small" color="primary" variant="flat" @click="emit('choose')">
      {{ designators.length === 1 ? `Choose for ${designators[0]}` : `Choose for ${designators.length} parts` }}
    </v-btn>
    <v-btn size="small" variant="outlined" @click="emit('compare')">{{ compared ? 'Compared' : 'Compare' }}</v-btn>
  </div>
  <p v-if="!designators.length" class="quiet">To choose it, pick parts of the circuit under Assign and take them to the depot.</p>
  <p v-if="uses.length" class="quiet">
    Chosen for <span class="mono">{{ uses.slice(0, 8).join(' ') }}</span>{{
      uses.length > 8 ? ` and ${uses.length - 8} more` : ''
    }}
  </p>
  <v-table density="compact" class="facts">
    <tbody>
      <tr v-for="p in row.properties" :key="p.name">
        <td>{{ p.name }}</td>
        <td class="mono">{{ p.text }}</td>
      </tr>
      <tr>
        <td>package</td>
        <td>{{ row.package }}</td>
      </tr>
      <tr>
        <td>body</td>
        <td class="mono">{{ mm(row.body.length) }} × {{ mm(row.body.width) }} × {{ mm(row.body.height) }} mm</td>
      </tr>
      <tr>
        <td>leads</td>
        <td class="mono">{{ row.body.pins }}{{ row.body.pitch ? ` at ${mm(row.body.pitch)} mm` : '' }}</td>
      </tr>
      <tr>
        <td>mounted</td>
        <td>{{ row.body.through ? 'through the board' : 'on the surface' }}</td>
      </tr>
      <tr>
        <td>placement line</td>
        <td>{{ row.placed ? 'has it on its machines' : 'does not have it' }}</td>
      </tr>
    </tbody>
  </v-table>
  <p :class="row.stock ? '' : 'warn'">{{ stock }}</p>
  <v-table v-if="row.offers.length" density="compact" class="facts">
    <thead>
      <tr>
        <th class="right">From</th>
        <th v-for="o in row.offers" :key="o.packaging" class="right">{{ o.packaging }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="l in ladder" :key="l.from">
        <td class="mono right">{{ pieces(l.from) }}</td>
        <td v-for="(p, i) in l.prices" :key="i" class="mono right">{{ p === undefined ? '' : euro(p) }}</td>
      </tr>
    </tbody>
  </v-table>
  <p v-else class="quiet">It is not sold at present.</p>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 6px;
}
.facts td:first-child:not(.mono) {
  width: 112px;
}
.right {
  text-align: right !important;
}
.warn {
  color: rgb(var(--v-theme-warning));
}
p {
  margin: 0;
}
</style>
