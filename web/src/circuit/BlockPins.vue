<script setup lang="ts">
import { mdiDeleteOutline, mdiPlus } from '@mdi/js'
import { computed, reactive, ref } from 'vue'
import type { Project } from '../live/project'
import type { Commands, Kinds } from '../live/wire.gen'
import TextField from '../shell/fields/TextField.vue'
import { openMenuOf } from '../shell/menu'
import { complain } from '../shell/notices'
import { wayChoices } from './choices'

/** The pins of a block: names, directions, taking away, adding from outside, order. */
const props = defineProps<{ project: Project; block: Kinds['block'] }>()
const wayName = { in: 'in', out: 'out', both: 'both ways' } as Record<string, string>
const fresh = reactive({ name: '', way: 'in' as string })
const run = <K extends keyof Commands>(kind: K, fields: Commands[K]) => props.project.edit(kind, fields).catch(complain)
const pins = computed(() => {
  const from = (q: { side: number; pos: number }) => [q.side === 2 ? 0 : q.side === 0 ? 1 : q.side === 1 ? 2 : 3, -q.pos]
  return [...(props.block.pins ?? [])].sort((a, b) => from(a)[0] - from(b)[0] || from(a)[1] - from(b)[1])
})
const rename = (pin: string, to: string) =>
  to.trim() ? run('renamePin', { block: props.block.id, pin, to: to.trim() }) : Promise.resolve(undefined)
/** The first place that is free on the side where pins of a direction usually stand. */
function place(way: string) {
  const side = way === 'in' ? 2 : 0
  const taken = new Set((props.block.pins ?? []).filter((q) => q.side === side).map((q) => q.pos))
  for (let pos = Math.floor(props.block.size.y / 2.5e6) * 2.5e6 - 2.5e6; pos > 0; pos -= 2.5e6)
    if (!taken.has(pos)) return { side, pos }
  return { side: 3, pos: 2.5e6 }
}
const root = ref<HTMLElement>()
function menu(e: MouseEvent, pin: string) {
  const field = () => root.value!.querySelector<HTMLInputElement>(`input[aria-label="Name of the pin ${CSS.escape(pin)}"]`)
  openMenuOf(e, [
    { title: 'Change its name', run: () => field()?.select() },
    {
      title: 'Order the pins by name',
      run: () => run('orderPins', { block: props.block.id }),
      enabled: () => pins.value.length > 1,
    },
    null,
    { title: 'Remove the pin and its port', run: () => run('removePin', { block: props.block.id, pin }) },
  ])
}
async function add() {
  const name = fresh.name.trim()
  if (!name) return
  if (await run('addPin', { block: props.block.id, name, way: fresh.way, ...place(fresh.way) })) fresh.name = ''
}
</script>

<template>
  <div ref="root" class="pins">
    <div v-for="q in pins" :key="q.name" class="pin" @contextmenu="menu($event, q.name)">
      <TextField
        :label="wayName[q.way]"
        :value="q.name"
        mono
        tight
        :says="`Name of the pin ${q.name}`"
        @keep="rename(q.name, $event)"
      />
      <v-btn
        :icon="mdiDeleteOutline"
        size="x-small"
        :aria-label="`Remove the pin ${q.name}`"
        title="Remove the pin and its port"
        @click="run('removePin', { block: block.id, pin: q.name })"
      />
    </div>
    <div class="pin fresh">
      <v-text-field
        v-model="fresh.name"
        class="mono"
        placeholder="another pin"
        aria-label="Name of a new pin"
        hide-details
        @keydown.enter="add"
      />
      <v-select v-model="fresh.way" class="way" :items="wayChoices" aria-label="Direction of the new pin" hide-details />
      <v-btn :icon="mdiPlus" size="x-small" aria-label="Add the pin" @click="add" />
    </div>
  </div>
  <v-btn v-if="pins.length > 1" size="small" variant="outlined" @click="run('orderPins', { block: block.id })">
    Order the pins by name
  </v-btn>
  <p class="quiet">Drag a pin of the picked block along its side or round a corner; wires follow.</p>
</template>

<style scoped>
.pins {
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.pin {
  display: flex;
  gap: 6px;
  align-items: center;
}
.pin > :first-child {
  flex: 1;
  min-width: 0;
}
.pin :deep(.field-row) {
  grid-template-columns: 58px minmax(0, 1fr);
}
.way {
  flex: none;
  width: 104px;
}
</style>
