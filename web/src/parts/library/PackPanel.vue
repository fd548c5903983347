<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'
import { call } from '../../live/http'
import { person } from '../../live/person'
import type { PackPart, PackSeen } from '../../live/wire.gen'
import CentredPanel from '../../shell/CentredPanel.vue'
import { say } from '../../shell/notices'

/** What a pack of parts holds, shown before it is kept in the library of the workspace. */
const props = defineProps<{ file: File }>()
const emit = defineEmits<{ close: []; kept: [] }>()
const seen = shallowRef<PackSeen | null>(null)
const trouble = ref('')
const busy = ref(true)
const most = 200
async function send(keep: boolean) {
  busy.value = true
  trouble.value = ''
  try {
    const q = keep ? `?keep=1&who=${encodeURIComponent(person.name)}` : ''
    const r = await call<PackSeen>('POST', '/library/pack' + q, props.file)
    if (!keep) seen.value = r
    else {
      say(`${count(taken.value)} of the pack ${taken.value === 1 ? 'is' : 'are'} in the workspace’s library.`)
      emit('kept')
    }
  } catch (e) {
    trouble.value = (e as Error).message
  } finally {
    busy.value = false
  }
}
onMounted(() => send(false))
const count = (n: number) => (n === 1 ? '1 part' : `${n} parts`)
const taken = computed(() => seen.value?.parts.filter((p) => p.state !== 'same').length ?? 0)
const state = (p: PackPart) =>
  p.state === 'new' ? 'new' : p.state === 'same' ? `as version ${p.version}` : `becomes version ${p.version}`
</script>

<template>
  <CentredPanel label="Parts of a pack" :title="seen?.title || file.name" :width="820" @close="emit('close')">
    <v-progress-linear v-if="busy" indeterminate aria-label="Reading the pack" />
    <p v-if="trouble" class="error" role="alert">{{ trouble }}</p>
    <template v-if="seen">
      <p class="quiet">{{ count(seen.parts.length) }}. Nothing is kept yet; projects that use an earlier version stay with it.</p>
      <div class="table">
        <v-table density="compact">
          <thead>
            <tr>
              <th>Part</th>
              <th class="right">Pins</th>
              <th>Footprint</th>
              <th>In the workspace</th>
              <th>Findings</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="p in seen.parts.slice(0, most)" :key="p.row.name" :data-state="p.state">
              <td>
                {{ p.row.name }}
                <span v-if="p.row.description" class="quiet small">{{ p.row.description }}</span>
              </td>
              <td class="mono right">{{ p.row.pins }}</td>
              <td class="mono">{{ p.row.footprint }}</td>
              <td>
                {{ state(p) }}
                <span v-for="c in p.changes.slice(0, 3)" :key="c" class="quiet small">{{ c }}</span>
                <span v-if="p.changes.length > 3" class="quiet small">… and {{ p.changes.length - 3 }} more</span>
              </td>
              <td>
                <span v-if="!p.findings.length" class="quiet">none</span>
                <span v-for="f in p.findings.slice(0, 3)" :key="f.text" class="small">{{ f.text }}</span>
                <span v-if="p.findings.length > 3" class="quiet small">… and {{ p.findings.length - 3 }} more</span>
              </td>
            </tr>
          </tbody>
        </v-table>
        <p v-if="seen.parts.length > most" class="quiet">… and {{ seen.parts.length - most }} parts more</p>
      </div>
    </template>
    <template #acts>
      <v-btn v-if="seen" color="primary" variant="flat" :disabled="busy || !taken" @click="send(true)">
        {{ taken ? `Keep ${count(taken)} in the workspace` : 'The workspace has all of them' }}
      </v-btn>
      <v-btn variant="text" @click="emit('close')">Close</v-btn>
    </template>
  </CentredPanel>
</template>

<style scoped>
.table {
  overflow: auto;
}
.right {
  text-align: right;
}
.small {
  display: block;
  font-size: 11.5px;
}
.error {
  color: rgb(var(--v-theme-error));
}
</style>
