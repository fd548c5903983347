<script setup lang="ts">
import { format } from '../../live/units'
import type { BodyView, LandMade, Range } from '../../live/wire.gen'
import { useTaste } from '../../shell/taste'
import BodyDrawing from './BodyDrawing.vue'

/** The fillets of solder between the leads and their lands. */
defineProps<{ result: LandMade['result']; sections: BodyView[] }>()
const taste = useTaste()
const say = (nm: number) => format(nm, taste.unit, 4)
const span = (r: Range) => (r.min === r.max ? say(r.min) : `${say(r.min)} .. ${say(r.max)}`)
</script>

<template>
  <p v-if="!sections.length" class="quiet">Leads through the board have no fillets on their lands to be computed.</p>
  <template v-for="(j, i) in result?.joints ?? []" :key="j.words + i">
    <v-table density="compact" class="numbers">
      <tbody>
        <tr v-for="(k, n) in ['outer', 'inner', 'side'] as const" :key="k">
          <td>{{ j.words }}, {{ { outer: 'outer fillet (toe)', inner: 'inner fillet (heel)', side: 'side fillet' }[k] }}</td>
          <td class="mono right" :class="{ short: j[k].min < j.goal[n] - 1000 }">{{ span(j[k]) }}</td>
        </tr>
      </tbody>
    </v-table>
  </template>
  <div v-for="v in sections" :key="v.name" class="section"><BodyDrawing :view="v" small /></div>
</template>

<style scoped src="./numbers.css"></style>
<style scoped>
.short {
  color: rgb(var(--v-theme-error));
}
.section {
  height: 150px;
  flex: none;
  display: grid;
}
</style>
