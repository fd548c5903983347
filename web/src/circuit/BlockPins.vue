<script setup lang="ts">
import { mdiDeleteOutline, mdiPlus } from '@mdi/js'
import { computed, reactive } from 'vue'
import type { Project } from '../live/project'
import type { Commands, Kinds } from '../live/wire.gen'
import { complain } from '../shell/notices'

/** The pins of a block: names, directions, taking away, adding from outside, order. */
const props = defineProps<{ project: Project; block: Kinds['block'] }>()
const ways = ['in', 'out', 'both'] as const
const wayName = { in: 'in', out: 'out', both: 'both ways' } as Record<string, string>
const fresh = reactive({ name: '', way: 'in' as string })
const run = <K extends keyof Commands>(kind: K, fields: Commands[K]) => props.project.edit(kind, fields).catch(complain)
const pins = computed(() => {
  const from = (q: { side: number; pos: number }) => [q.side === 2 ? 0 : q.side === 0 ? 1 : q.side === 1 ? 2 : 3, -q.pos]
  return [...(props.block.pins ?? [])].sort((a, b) => from(a)[0] - from(b)[0] || from(a)[1] - from(b)[1])
})
const rename = (pin: string, e: Event) => {
  const input = e.target as HTMLInputElement
  const to = input.value.trim()
  if (to && to !== pin) void run('renamePin', { block: props.block.id, pin, to }).then((done) => done ?? (input.value = pin))
  else input.value = pin
}
/** The first place that is free on the side where pins of a direction usually stand. */
function place(way: string) {
  const side = way === 'in' ? 2 : 0
  const taken = new Set((props.block.pins ?? []).filter((q) => q.side === side).map((q) => q.pos))
  for (let pos = Math.floor(props.block.size.y / 2.5e6) * 2.5e6 - 2.5e6; pos > 0; pos -= 2.5e6)
    if (!taken.has(pos)) return { side, pos }
  return { side: 3, pos: 2.5e6 }
}
async function add() {
  const name = fresh.name.trim()
  if (!name) return
  if (await run('addPin', { block: props.block.id, name, way: fresh.way, ...place(fresh.way) })) fresh.name = ''
}
</script>

<template>
  <table class="pins">
    <tbody>
      <tr v-for="q in pins" :key="q.name">
        <td>
          <input
            class="mono"
            :value="q.name"
            :aria-label="`Name of the pin ${q.name}`"
            :data-pin="q.name"
            @keydown.enter="($event.target as HTMLElement).blur()"
            @keydown.esc.stop="($event.target as HTMLInputElement).value = q.name"
            @blur="rename(q.name, $event)"
          />
        </td>
        <td class="quiet">{{ wayName[q.way] }}</td>
        <td>
          <v-btn
            :icon="mdiDeleteOutline"
            size="x-small"
            :aria-label="`Remove the pin ${q.name}`"
            title="Remove the pin and its port"
            @click="run('removePin', { block: block.id, pin: q.name })"
          />
        </td>
      </tr>
      <tr>
        <td>
          <input
            v-model="fresh.name"
            class="mono"
            placeholder="another pin"
            aria-label="Name of a new pin"
            data-test="pin-name"
            @keydown.enter="add"
          />
        </td>
        <td>
          <select v-model="fresh.way" aria-label="Direction of the new pin">
            <option v-for="w in ways" :key="w" :value="w">{{ wayName[w] }}</option>
          </select>
        </td>
        <td><v-btn :icon="mdiPlus" size="x-small" aria-label="Add the pin" data-test="pin-add" @click="add" /></td>
      </tr>
    </tbody>
  </table>
  <button v-if="pins.length > 1" class="plain" data-test="pin-order" @click="run('orderPins', { block: block.id })">
    Order the pins by name
  </button>
  <p class="quiet">Drag a pin of the picked block along its side or round a corner; wires follow.</p>
</template>

<style scoped>
.pins input,
.pins select {
  width: 100%;
  min-width: 0;
  padding: 2px 6px;
  border-radius: 6px;
  border: 1px solid rgba(var(--v-border-color), 0.4);
  background: rgb(var(--v-theme-surface));
  color: inherit;
  font-size: 12px;
}
.pins td:first-child {
  width: 60%;
}
</style>
