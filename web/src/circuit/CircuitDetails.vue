<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import type { Kinds, Part } from '../live/wire.gen'
import { complain } from '../shell/notices'
import TextRow from '../shell/TextRow.vue'
import type { CircuitEditor } from './editor'

const props = defineProps<{ project: Project; editor: CircuitEditor }>()
const picked = computed(() => {
  void props.project.docTick.value
  return [...props.editor.selection].map((id) => props.project.find(id)).filter((b) => !!b)
})
const parts = computed(() => picked.value.filter((b) => b.kind === 'part').map((b) => b.object as Part))
const one = computed(() => (picked.value.length === 1 ? picked.value[0] : undefined))
const shared = (f: 'value' | 'footprint' | 'library') => {
  const all = new Set(parts.value.map((p) => p[f]))
  return all.size === 1 ? [...all][0] : null
}
const footprints = computed(() => {
  void props.project.docTick.value
  return ['', ...props.project.all('footprint').map((f) => f.name).sort()] // prettier-ignore
})
async function setAll(fields: { value?: string; footprint?: string; designator?: string }) {
  try {
    for (const p of parts.value) await props.project.edit('setPart', { id: p.id, ...fields })
  } catch (e) {
    complain(e)
  }
}
const rename = (name: string) => props.project.edit('renameLabel', { id: one.value!.object!.id, name }).catch(complain)
const pins = computed(() => {
  void props.project.derivedTick.value
  const p = parts.value[0]
  return one.value && p
    ? (props.project.symbolOf(p.library)?.pins ?? []).map((q) => ({
        number: q.number,
        name: q.name,
        net: props.project.netAtPin(p.id, q.number) ?? '',
      }))
    : []
})
const net = computed(() => {
  void props.project.derivedTick.value
  return one.value ? props.project.netOf(one.value.object!.id) : undefined
})
const settings = computed(() => {
  void props.project.docTick.value
  return props.project.settings
})
const sheet = computed(() => {
  void props.project.docTick.value
  return props.project.get('sheet', props.editor.sheet)
})
const setting = (f: Partial<Kinds['settings']>) => props.project.edit('setSettings', f).catch(complain)
</script>

<template>
  <template v-if="parts.length && parts.length === picked.length">
    <h3>{{ parts.length === 1 ? parts[0].library : `${parts.length} parts` }}</h3>
    <TextRow
      v-if="parts.length === 1"
      label="Designator"
      :value="parts[0].designator"
      mono
      name="designator"
      @keep="setAll({ designator: $event })"
    />
    <TextRow
      label="Value"
      :value="shared('value') ?? ''"
      :mixed="shared('value') === null"
      mono
      name="value"
      @keep="setAll({ value: $event })"
    />
    <TextRow
      label="Footprint"
      :value="shared('footprint') ?? ''"
      :options="footprints"
      name="footprint"
      @keep="setAll({ footprint: $event })"
    />
    <table v-if="pins.length">
      <tbody>
        <tr v-for="q in pins" :key="q.number">
          <td class="mono">{{ q.number }}</td>
          <td>{{ q.name }}</td>
          <td class="mono net">
            <button @click="((editor.project.lit.value = q.net), editor.redraw())">{{ q.net }}</button>
          </td>
        </tr>
      </tbody>
    </table>
  </template>
  <template v-else-if="one && (one.kind === 'label' || one.kind === 'supply')">
    <h3>{{ one.kind === 'label' ? 'Net label' : 'Supply' }}</h3>
    <TextRow label="Name" :value="(one.object as Kinds['label']).name" mono name="label-name" @keep="rename" />
  </template>
  <template v-else-if="one && one.kind === 'wire'">
    <h3>Wire</h3>
    <p>
      Net <span class="mono">{{ net }}</span>
    </p>
  </template>
  <template v-else-if="picked.length">
    <h3>{{ picked.length }} things picked</h3>
    <p class="quiet">{{ parts.length }} parts among them</p>
  </template>
  <template v-else-if="settings && sheet">
    <h3>Title block</h3>
    <TextRow label="Title" :value="settings.title" @keep="setting({ title: $event })" />
    <TextRow label="Document" :value="settings.number" @keep="setting({ number: $event })" />
    <TextRow label="Revision" :value="settings.revision" @keep="setting({ revision: $event })" />
    <TextRow label="Author" :value="settings.author" @keep="setting({ author: $event })" />
    <TextRow label="Date" :value="settings.date" @keep="setting({ date: $event })" />
    <TextRow
      label="Sheet"
      :value="sheet.name"
      @keep="project.edit('setSheet', { sheet: sheet!.id, name: $event }).catch(complain)"
    />
    <TextRow
      label="Size"
      :value="sheet.size"
      :options="['A4', 'A3']"
      @keep="project.edit('setSheet', { sheet: sheet!.id, size: $event }).catch(complain)"
    />
  </template>
</template>

<style scoped>
.net button {
  border: 0;
  background: none;
  color: rgb(var(--v-theme-secondary));
  font: inherit;
  cursor: pointer;
}
</style>
