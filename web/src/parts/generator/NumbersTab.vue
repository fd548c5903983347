<script setup lang="ts">
import { mdiRestore } from '@mdi/js'
import { format } from '../../live/units'
import type { Entry, LandMade } from '../../live/wire.gen'
import LengthField from '../../shell/fields/LengthField.vue'
import WholeField from '../../shell/fields/WholeField.vue'
import { useTaste } from '../../shell/taste'

/** What was computed, and what is given instead. */
defineProps<{ result: LandMade['result'] }>()
const emit = defineEmits<{ instead: [Entry, number | null] }>()
const taste = useTaste()
const say = (nm: number) => format(nm, taste.unit, 4)
</script>

<template>
  <v-table v-if="result" density="compact" class="numbers">
    <thead>
      <tr>
        <th></th>
        <th>computed</th>
        <th>instead</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="e in result.table" :key="e.key" :class="{ over: e.override !== undefined && e.override !== null }">
        <td>{{ e.words }}</td>
        <td class="mono right">{{ e.plain ? e.computed : say(e.computed) }}</td>
        <td class="instead">
          <WholeField v-if="e.plain" bare tight :label="e.words" :value="e.override ?? null" @keep="emit('instead', e, $event)" />
          <LengthField v-else bare :label="e.words" :value="e.override ?? null" empty="·" @keep="emit('instead', e, $event)" />
        </td>
        <td>
          <v-btn
            v-if="e.override !== undefined && e.override !== null"
            :icon="mdiRestore"
            size="x-small"
            variant="text"
            :aria-label="`Back to the computed ${e.words}`"
            @click="emit('instead', e, null)"
          />
        </td>
      </tr>
    </tbody>
  </v-table>
  <p v-for="n in result?.notes ?? []" :key="n" class="quiet note">{{ n }}</p>
</template>

<style scoped src="./numbers.css"></style>
<style scoped>
.instead {
  width: 84px;
}
tr.over td:first-child {
  color: rgb(var(--v-theme-primary));
}
.note {
  font-size: 12px;
}
</style>
