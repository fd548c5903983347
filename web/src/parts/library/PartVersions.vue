<script setup lang="ts">
import { shallowRef, watch } from 'vue'
import { call } from '../../live/http'
import { latest } from '../../live/latest'
import type { KeptPart } from '../../live/wire.gen'
import { complain } from '../../shell/notices'

/** All versions of a part in the library of the workspace. One that is withdrawn is offered no more; who drew with it keeps it. */
const props = defineProps<{ name: string; tick: number }>()
const emit = defineEmits<{ changed: [] }>()
const versions = shallowRef<KeptPart[]>([])
const look = latest(
  (name: string) =>
    call<KeptPart[]>('GET', '/library/versions?name=' + encodeURIComponent(name)).catch((e) => (complain(e), null)),
  (list) => list && (versions.value = list),
)
watch(() => [props.name, props.tick], () => void look(props.name), { immediate: true }) // prettier-ignore
async function withdraw(v: KeptPart) {
  try {
    versions.value = await call<KeptPart[]>('POST', '/library/withdraw', {
      name: v.name,
      version: v.version,
      back: !!v.withdrawn,
    })
    emit('changed')
  } catch (e) {
    complain(e)
  }
}
</script>

<template>
  <section v-if="versions.length" aria-label="Versions in the workspace">
    <h3>In the workspace</h3>
    <div v-for="v in versions.slice(0, 20)" :key="v.version" class="version" :class="{ off: v.withdrawn }">
      <span>
        Version <span class="mono">{{ v.version }}</span>
        <span class="quiet">
          · {{ v.made.slice(0, 10) }}{{ v.who ? `, ${v.who}` : '' }}{{ v.withdrawn ? ' · withdrawn' : '' }}</span
        >
        <span v-if="v.note" class="quiet note">{{ v.note }}</span>
      </span>
      <v-btn
        size="x-small"
        variant="text"
        :aria-label="`${v.withdrawn ? 'Bring back' : 'Withdraw'} version ${v.version}`"
        @click="withdraw(v)"
        >{{ v.withdrawn ? 'Bring back' : 'Withdraw' }}</v-btn
      >
    </div>
    <p v-if="versions.length > 20" class="quiet">… and {{ versions.length - 20 }} earlier ones</p>
  </section>
</template>

<style scoped>
.version {
  display: flex;
  justify-content: space-between;
  align-items: center;
  font-size: 12.5px;
}
.off > span:first-child {
  text-decoration: line-through;
}
.note {
  display: block;
  font-size: 11.5px;
}
</style>
