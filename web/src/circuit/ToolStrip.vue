<script setup lang="ts">
import { computed } from 'vue'
import type { CircuitEditor } from './editor'
import { nearSupplies } from './supplies'
import { tints, type DrawForm } from './tools'

/** The options of the tool in hand. */
const props = defineProps<{ editor: CircuitEditor }>()
const emit = defineEmits<{ done: [] }>()
const s = computed(() => props.editor.state)
const sheets = computed(() => {
  void props.editor.project.docTick.value
  return props.editor.project
    .all('sheet')
    .filter((x) => x.id !== props.editor.sheet)
    .sort((a, b) => a.order - b.order)
})
const supplies = [
  ['ground', 'Ground', 'GND'],
  ['earth', 'Earth', 'PE'],
  ['chassis', 'Chassis', 'CHASSIS'],
  ['bar', 'Bar', '+5V'],
  ['arrow', 'Arrow', '+3V3'],
  ['ring', 'Ring', 'VIN'],
]
function shape(id: string, name: string) {
  const st = props.editor.state
  const usual = supplies.map((x) => x[2])
  st.supplyShape = id
  if (usual.includes(st.supplyName)) st.supplyName = name
  emit('done')
}
const copies = computed(() => props.editor.copies.state)
/** Names of labels and ports of this sheet, and of all supplies, offered while one types. */
const names = computed(() => {
  void props.editor.project.docTick.value
  const out = new Set<string>()
  for (const { kind, object } of props.editor.project.standing(props.editor.state.sheet))
    if (kind === 'label' || kind === 'port') out.add((object as { name: string }).name)
  return [...out, ...supplyNames.value].sort()
})
const supplyNames = computed(() => {
  void props.editor.project.docTick.value
  return [...new Set(props.editor.project.all('supply').map((x) => x.name))].sort()
})
const forms: [DrawForm, string][] = [
  ['line', 'Line'],
  ['arrow', 'Arrow'],
  ['rectangle', 'Rectangle'],
  ['ellipse', 'Ellipse'],
  ['timing', 'Timing diagram'],
  ['picture', 'Picture'],
]
const tintName: Record<string, string> = { sky: 'Sky', moss: 'Moss', rose: 'Rose', sand: 'Sand', lilac: 'Lilac', none: 'Plain' }
</script>

<template>
  <label v-if="s.tool === 'label'" class="opt"
    >Net
    <input
      v-model="s.labelName"
      class="mono"
      data-test="label-text"
      aria-label="Name of the net"
      placeholder="SENSE or D[7:0]"
      list="names-in-use"
      @keydown.enter="emit('done')"
      @keydown.esc.stop="(emit('done'), editor.back())"
  /></label>
  <template v-else-if="s.tool === 'paste'">
    <span>{{ copies.count }} {{ copies.count === 1 ? 'copy' : 'copies' }} in the hand</span>
    <template v-if="copies.names.length">
      <span class="quiet" data-test="paste-names"
        >{{ copies.names.length }} {{ copies.names.length === 1 ? 'name is' : 'names are' }} borne here already:
        {{ copies.names.slice(0, 4).join(', ') }}{{ copies.names.length > 4 ? ' …' : '' }}</span
      >
      <button
        class="choice"
        :class="{ on: !copies.numberOn }"
        :aria-pressed="!copies.numberOn"
        data-test="paste-join"
        @click="(editor.copies.numberOn(false), emit('done'))"
      >
        Join them
      </button>
      <button
        class="choice"
        :class="{ on: copies.numberOn }"
        :aria-pressed="copies.numberOn"
        data-test="paste-on"
        @click="(editor.copies.numberOn(true), emit('done'))"
      >
        Number on
      </button>
    </template>
  </template>
  <template v-else-if="s.tool === 'port'">
    <label class="opt"
      >Name
      <input
        v-model="s.portName"
        class="mono"
        data-test="port-text"
        aria-label="Name of the port"
        list="names-in-use"
        @keydown.enter="emit('done')"
        @keydown.esc.stop="(emit('done'), editor.back())"
    /></label>
    <button
      v-for="[id, word] in [
        ['in', 'In'],
        ['out', 'Out'],
        ['both', 'Both ways'],
      ]"
      :key="id"
      class="choice"
      :class="{ on: s.portWay === id }"
      :aria-pressed="s.portWay === id"
      :data-test="'port-' + id"
      @click="((s.portWay = id as 'in'), emit('done'))"
    >
      {{ word }}
    </button>
  </template>
  <template v-else-if="s.tool === 'supply'">
    <button
      v-for="[key, name] in nearSupplies"
      :key="name"
      class="choice mono"
      :class="{ on: s.supplyName === name }"
      :aria-pressed="s.supplyName === name"
      :data-test="'near-' + name"
      @click="(editor.hand.supply(name), emit('done'))"
    >
      {{ name }} <kbd>{{ key }}</kbd>
    </button>
    <label class="opt"
      >Name
      <input
        :value="s.supplyName"
        class="mono"
        data-test="supply-text"
        aria-label="Name of the supply"
        list="supplies-in-use"
        @input="editor.hand.supply(($event.target as HTMLInputElement).value)"
        @keydown.enter="emit('done')"
        @keydown.esc.stop="(emit('done'), editor.back())"
    /></label>
    <button
      v-for="[id, word, name] in supplies"
      :key="id"
      class="choice"
      :class="{ on: s.supplyShape === id }"
      :aria-pressed="s.supplyShape === id"
      :data-test="'supply-' + id"
      @click="shape(id, name)"
    >
      {{ word }}
    </button>
    <label class="opt"><input v-model="s.supplyFeeds" type="checkbox" data-test="supply-feeds" /> comes in here</label>
  </template>
  <template v-else-if="s.tool === 'wire' || s.tool === 'bundle'">
    <button
      class="choice"
      :class="{ on: !s.freeAngle }"
      :aria-pressed="!s.freeAngle"
      @click="((s.freeAngle = false), emit('done'))"
    >
      Right angles
    </button>
    <button
      class="choice"
      :class="{ on: s.freeAngle }"
      :aria-pressed="s.freeAngle"
      data-test="free-angle"
      @click="((s.freeAngle = true), emit('done'))"
    >
      Any angle
    </button>
    <span class="quiet">{{
      s.tool === 'bundle' ? 'Name it with a label like D[7:0] or SCL, SDA' : 'Ends on a pin, a wire or nothing'
    }}</span>
  </template>
  <template v-else-if="s.tool === 'tap'">
    <button class="choice" :class="{ on: !s.tapAll }" :aria-pressed="!s.tapAll" @click="((s.tapAll = false), emit('done'))">
      Next member
    </button>
    <button
      class="choice"
      :class="{ on: s.tapAll }"
      :aria-pressed="s.tapAll"
      data-test="tap-all"
      @click="((s.tapAll = true), emit('done'))"
    >
      All at once
    </button>
    <label class="opt"
      >or
      <input
        v-model="s.member"
        class="mono"
        data-test="tap-text"
        aria-label="Member to take"
        placeholder="D3"
        @keydown.enter="emit('done')"
        @keydown.esc.stop="(emit('done'), editor.back())"
    /></label>
  </template>
  <template v-else-if="s.tool === 'block'">
    <label class="opt"
      >Stands for
      <select v-model.number="s.blockOf" aria-label="Sheet the block stands for" data-test="block-of">
        <option :value="0">a new sheet</option>
        <option v-for="x in sheets" :key="x.id" :value="x.id">{{ x.name }}</option>
      </select></label
    >
  </template>
  <template v-else-if="s.tool === 'cluster' || s.tool === 'note'">
    <button
      v-for="t in tints"
      :key="t"
      class="choice"
      :class="{ on: (s.tool === 'cluster' ? s.clusterTint : s.noteTint) === t }"
      :aria-pressed="(s.tool === 'cluster' ? s.clusterTint : s.noteTint) === t"
      @click="(s.tool === 'cluster' ? (s.clusterTint = t) : (s.noteTint = t), emit('done'))"
    >
      <i class="swatch" :style="{ background: editor.colours['tab-' + t] || editor.colours.paper }" />{{ tintName[t] }}
    </button>
  </template>
  <template v-else-if="s.tool === 'draw'">
    <button
      v-for="[id, word] in forms"
      :key="id"
      class="choice"
      :class="{ on: s.drawForm === id }"
      :aria-pressed="s.drawForm === id"
      :data-test="'draw-' + id"
      @click="((s.drawForm = id), emit('done'))"
    >
      {{ word }}
    </button>
    <label v-if="!['timing', 'picture'].includes(s.drawForm)" class="opt"
      >Tint
      <select v-model="s.drawTint" aria-label="Tint">
        <option v-for="t in tints" :key="t" :value="t">{{ tintName[t] }}</option>
      </select></label
    >
  </template>
  <datalist id="names-in-use"><option v-for="n in names" :key="n" :value="n" /></datalist>
  <datalist id="supplies-in-use"><option v-for="n in supplyNames" :key="n" :value="n" /></datalist>
  <template v-if="s.tool === 'part' && editor.part">
    <span>{{ editor.part.part?.name }}</span><span class="quiet">{{ editor.part.part?.footprint }}</span>
    <span class="quiet">on a wire it goes into the wire</span>
  </template>
</template>

<style scoped>
.swatch {
  display: inline-block;
  width: 11px;
  height: 11px;
  margin-right: 6px;
  border-radius: 3px;
  border: 1px solid rgba(var(--v-border-color), 0.5);
  vertical-align: -1px;
}
.opt input[type='checkbox'] {
  width: auto;
}
.opt select {
  padding: 3px 8px;
  border-radius: 6px;
  border: 1px solid rgba(var(--v-border-color), 0.5);
  background: transparent;
  color: inherit;
  background: rgb(var(--v-theme-surface));
}
</style>
