<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import type { Project } from '../live/project'
import type { Difference } from '../live/wire.gen'
import { complain, say } from '../shell/notices'
import type { BoardEditor } from './editor'
import PlacePictures from './PlacePictures.vue'

/** What carrying the circuit to the board would change; each can be declined. */
const props = defineProps<{ project: Project; editor: BoardEditor }>()
const emit = defineEmits<{ close: []; carried: [] }>()
const list = ref<Difference[] | null>(null)
const declined = ref(new Set<string>())
/** The one whose places are shown. */
const shown = ref('')
const lit = computed(() => list.value?.find((d) => d.key === shown.value) ?? list.value?.find((d) => d.part || d.on))
const words: Record<string, string> = {
  add: 'New',
  remove: 'Gone',
  change: 'Changed',
  rename: 'Net renamed',
  nets: 'Nets',
  none: 'Cannot go',
}
const able = computed(() => (list.value ?? []).filter((d) => d.kind !== 'none'))
const taken = computed(() => able.value.filter((d) => !declined.value.has(d.key)))

async function load() {
  try {
    list.value = (await props.project.question('differences', {})) ?? []
  } catch (e) {
    complain(e)
  }
}
onMounted(load)
watch(() => props.project.derivedTick.value, load)
function toggle(key: string) {
  const next = new Set(declined.value)
  if (!next.delete(key)) next.add(key)
  declined.value = next
}
async function carry() {
  try {
    const n = taken.value.length
    await props.project.edit('carry', { keys: taken.value.map((d) => d.key) })
    say(`${n} ${n === 1 ? 'change' : 'changes'} carried to the board.`)
    emit('carried')
  } catch (e) {
    complain(e)
  }
}
</script>

<template>
  <div class="float carry" role="dialog" aria-label="Carry to board">
    <h3>Carry to board</h3>
    <p v-if="!list" class="quiet">Comparing circuit and board …</p>
    <p v-else-if="!list.length">The board is up to date with the circuit.</p>
    <template v-else>
      <p class="quiet">In these the board differs from the circuit. What you untick stays as it is.</p>
      <div class="list">
        <div
          v-for="d in list"
          :key="d.key"
          class="line"
          :class="[d.kind, { lit: d === lit }]"
          @focusin="shown = d.key"
          @mouseenter="shown = d.key"
        >
          <v-checkbox
            :model-value="d.kind !== 'none' && !declined.has(d.key)"
            :disabled="d.kind === 'none'"
            :aria-label="d.text"
            @update:model-value="toggle(d.key)"
          />
          <span class="kind">{{ words[d.kind] }}</span>
          <span>{{ d.text }}</span>
        </div>
      </div>
      <PlacePictures v-if="lit && (lit.part || lit.on)" :editor="editor" :difference="lit" />
    </template>
    <div class="buttons">
      <v-btn @click="emit('close')">{{ list?.length ? 'Not now' : 'Close' }}</v-btn>
      <v-btn v-if="taken.length" color="primary" variant="flat" @click="carry"
        >Carry {{ taken.length }} {{ taken.length === 1 ? 'change' : 'changes' }}</v-btn
      >
    </div>
  </div>
</template>

<style scoped>
.carry {
  position: absolute;
  left: 50%;
  top: 60px;
  transform: translateX(-50%);
  width: 560px;
  max-height: calc(100% - 180px);
  z-index: 6;
  padding: 16px 18px;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
h3 {
  font-size: 16px;
  font-weight: 600;
}
.list {
  overflow-y: auto;
  min-height: 60px;
}
.line {
  display: grid;
  grid-template-columns: 26px 84px 1fr;
  gap: 6px;
  padding: 1px 2px;
  align-items: center;
  border-top: 1px solid rgba(var(--v-border-color), 0.18);
}
.lit {
  background: rgba(var(--v-theme-on-surface), 0.07);
}
.kind {
  font-size: 12px;
  font-weight: 600;
  color: rgb(var(--v-theme-secondary));
}
.none .kind,
.remove .kind {
  color: rgb(var(--v-theme-error));
}
.buttons {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
