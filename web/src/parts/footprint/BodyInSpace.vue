<script setup lang="ts">
import { computed, defineAsyncComponent, ref, shallowRef, watch } from 'vue'
import { latest } from '../../live/latest'
import type { Project } from '../../live/project'
import type { Footprint, NamedFootprint } from '../../live/wire.gen'
import FilePick from '../../shell/fields/FilePick.vue'
import { complain } from '../../shell/notices'
import { base64 } from '../../live/base64'

const FootprintSpace = defineAsyncComponent(() => import('../../space/FootprintSpace.vue'))

/** The body that stands on a footprint: what it is made of, seen when asked for, and a file instead. */
const props = defineProps<{ project: Project; footprint: Footprint }>()
const open = ref(false)
const look = shallowRef<NamedFootprint | null>(null)
const pick = ref<{ choose: () => void }>()
const see = latest(
  (name: string) => props.project.question('footNamed', { name }).catch((e) => (complain(e), null)),
  (answer) => (look.value = answer),
)
watch([open, () => props.footprint], () => open.value && void see(props.footprint.name))
const model = computed(() => props.footprint.model)
const words = computed(() => {
  if (model.value) return props.project.get('asset', model.value)?.name ?? 'a file'
  const n = props.footprint.solids?.length ?? 0
  return n ? 'made of its dimensions' : 'none yet'
})
async function give(f: File | undefined) {
  if (!f) return
  const done = await props.project
    .edit('giveModel', { footprint: props.footprint.id, name: f.name, data: await base64(f) })
    .catch(complain)
  if (done !== undefined) open.value = true
}
const drop = () => props.project.edit('setFootprint', { footprint: props.footprint.id, noModel: true }).catch(complain)
</script>

<template>
  <section aria-label="Body in space">
    <div class="line">
      <h4>Body in space</h4>
      <span class="quiet words">{{ words }}</span>
    </div>
    <div class="acts">
      <v-btn size="small" variant="outlined" :aria-expanded="open" @click="open = !open">{{
        open ? 'Hide it' : 'Show it'
      }}</v-btn>
      <v-btn size="small" variant="outlined" @click="pick?.choose()">{{ model ? 'Another file' : 'From a file' }}</v-btn>
      <v-btn v-if="model" size="small" variant="text" @click="drop">Take it away</v-btn>
    </div>
    <FootprintSpace v-if="open && look" class="space" :look="look" />
    <FilePick ref="pick" label="Body as binary glTF" accept=".glb" @files="([f]) => give(f)" />
  </section>
</template>

<style scoped>
.line {
  display: flex;
  align-items: baseline;
  gap: 8px;
  margin-bottom: 4px;
}
h4 {
  margin: 0;
}
.words {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.acts {
  display: flex;
  gap: 6px;
}
.space {
  height: 200px;
  margin-top: 8px;
}
</style>
