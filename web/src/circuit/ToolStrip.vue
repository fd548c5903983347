<script setup lang="ts">
import { computed, ref } from 'vue'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import HandName from '../shell/fields/HandName.vue'
import OneOf from '../shell/fields/OneOf.vue'
import { formChoices, forms, shapes, tintChoices, wayChoices } from './choices'
import type { CircuitEditor } from './editor'
import { nearSupplies } from './supplies'

/** The options of the tool in hand. */
const props = defineProps<{ editor: CircuitEditor }>()
const emit = defineEmits<{ done: [] }>()
const s = computed(() => props.editor.state)
const field = ref<InstanceType<typeof HandName>>()
defineExpose({ select: () => field.value?.select() })

/** Sets an option, and gives the keyboard back to the drawing. */
function set<K extends keyof CircuitEditor['state']>(k: K, v: CircuitEditor['state'][K]) {
  const state: CircuitEditor['state'] = props.editor.state
  state[k] = v
  emit('done')
}
function back() {
  emit('done')
  props.editor.back()
}
const sheets = computed(() => {
  void props.editor.project.docTick.value
  return [
    { value: 0, title: 'a new sheet' },
    ...props.editor.project
      .all('sheet')
      .filter((x) => x.id !== props.editor.sheet)
      .sort((a, b) => a.order - b.order)
      .map((x) => ({ value: x.id, title: x.name })),
  ]
})
function shape(id: string) {
  const st = props.editor.state
  st.supplyShape = id
  if (shapes.some((x) => x.usual === st.supplyName)) st.supplyName = shapes.find((x) => x.value === id)!.usual
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
const tints = computed(() => tintChoices(props.editor.colours))
const near = nearSupplies.map(([keys, value]) => ({ value, title: value, keys }))
</script>

<template>
  <HandName
    v-if="s.tool === 'label'"
    ref="field"
    label="Net"
    :value="s.labelName"
    :names="names"
    empty="SENSE or D[7:0]"
    @type="s.labelName = $event"
    @done="emit('done')"
    @back="back"
  />
  <template v-else-if="s.tool === 'paste'">
    <span>{{ copies.count }} {{ copies.count === 1 ? 'copy' : 'copies' }} in the hand</span>
    <template v-if="copies.names.length">
      <span class="quiet"
        >{{ copies.names.length }} {{ copies.names.length === 1 ? 'name is' : 'names are' }} borne here already:
        {{ copies.names.slice(0, 4).join(', ') }}{{ copies.names.length > 4 ? ' …' : '' }}</span
      >
      <OneOf
        label="Names that are borne already"
        :value="copies.numberOn"
        :options="[
          { value: false, title: 'Join them' },
          { value: true, title: 'Number on' },
        ]"
        @keep="(editor.copies.numberOn($event), emit('done'))"
      />
    </template>
  </template>
  <template v-else-if="s.tool === 'port'">
    <HandName
      ref="field"
      label="Name"
      :value="s.portName"
      :names="names"
      @type="s.portName = $event"
      @done="emit('done')"
      @back="back"
    />
    <OneOf label="Direction" :value="s.portWay as string" :options="wayChoices" @keep="set('portWay', $event as 'in')" />
  </template>
  <template v-else-if="s.tool === 'supply'">
    <OneOf label="Usual supplies" mono :value="s.supplyName" :options="near" @keep="(editor.hand.supply($event), emit('done'))" />
    <HandName
      label="Name"
      :value="s.supplyName"
      :names="supplyNames"
      @type="editor.hand.supply($event)"
      @done="emit('done')"
      @back="back"
    />
    <OneOf label="Shape" :value="s.supplyShape" :options="shapes" @keep="shape" />
    <v-checkbox v-model="s.supplyFeeds" label="comes in here" hide-details />
  </template>
  <template v-else-if="s.tool === 'wire' || s.tool === 'bundle'">
    <OneOf
      label="Angles"
      :value="s.freeAngle"
      :options="[
        { value: false, title: 'Right angles' },
        { value: true, title: 'Any angle' },
      ]"
      @keep="set('freeAngle', $event)"
    />
    <span class="quiet">{{
      s.tool === 'bundle' ? 'Name it with a label like D[7:0] or SCL, SDA' : 'Ends on a pin, a wire or nothing'
    }}</span>
  </template>
  <template v-else-if="s.tool === 'tap'">
    <OneOf
      label="Members"
      :value="s.tapAll"
      :options="[
        { value: false, title: 'Next member' },
        { value: true, title: 'All at once' },
      ]"
      @keep="set('tapAll', $event)"
    />
    <HandName label="or" :value="s.member" :names="[]" empty="D3" @type="s.member = $event" @done="emit('done')" @back="back" />
  </template>
  <ChoiceField
    v-else-if="s.tool === 'block'"
    label="Stands for"
    tight
    :value="s.blockOf"
    :options="sheets"
    @keep="set('blockOf', $event)"
  />
  <OneOf
    v-else-if="s.tool === 'cluster'"
    label="Tint"
    :value="s.clusterTint"
    :options="tints"
    @keep="set('clusterTint', $event)"
  />
  <OneOf v-else-if="s.tool === 'note'" label="Tint" :value="s.noteTint" :options="tints" @keep="set('noteTint', $event)" />
  <template v-else-if="s.tool === 'draw'">
    <OneOf label="Form" :value="s.drawForm" :options="forms" @keep="set('drawForm', $event)" />
    <ChoiceField
      v-if="formChoices.some((f) => f.value === s.drawForm)"
      label="Tint"
      tight
      :value="s.drawTint"
      :options="tints"
      @keep="set('drawTint', $event)"
    />
  </template>
  <template v-if="s.tool === 'part' && editor.part">
    <span>{{ editor.part.part?.name }}</span><span class="quiet">{{ editor.part.part?.footprint }}</span>
    <span class="quiet">on a wire it goes into the wire</span>
  </template>
</template>
