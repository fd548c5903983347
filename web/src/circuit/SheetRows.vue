<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import type { Kinds } from '../live/wire.gen'
import { openMenuOf } from '../shell/menu'
import { complain } from '../shell/notices'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import TextField from '../shell/fields/TextField.vue'

/** The title block: what the project says, and what this sheet says otherwise. */
const props = defineProps<{ project: Project; sheet: number }>()
const settings = computed(() => (void props.project.docTick.value, props.project.settings))
const sheet = computed(() => (void props.project.docTick.value, props.project.get('sheet', props.sheet)))
const fields: [keyof Kinds['settings'] & string, string][] = [
  ['title', 'Title'],
  ['number', 'Document'],
  ['revision', 'Revision'],
  ['author', 'Author'],
  ['date', 'Date'],
]
const own = (f: string) => sheet.value?.fields?.[f] !== undefined
const value = (f: string) => sheet.value?.fields?.[f] ?? String((settings.value as unknown as Record<string, unknown>)[f] ?? '')
const keep = (f: string, text: string) =>
  (own(f)
    ? props.project.edit('setSheet', { sheet: props.sheet, fields: { [f]: text } })
    : props.project.edit('setSettings', { [f]: text })
  ).catch(complain)
/** Gives this sheet an entry of its own, or the project's back. */
const toggle = (f: string) =>
  props.project.edit('setSheet', { sheet: props.sheet, fields: { [f]: own(f) ? '' : value(f) || '–' } }).catch(complain)
const menu = (e: MouseEvent, f: string) =>
  openMenuOf(e, [{ title: own(f) ? 'Take the project’s again' : 'Give this sheet its own', run: () => void toggle(f) }])
const change = (o: { name?: string; size?: string }) =>
  props.project.edit('setSheet', { sheet: props.sheet, ...o }).catch(complain)
</script>

<template>
  <template v-if="settings && sheet">
    <h3>Sheet</h3>
    <TextField label="Name" :value="sheet.name" @keep="change({ name: $event })" />
    <ChoiceField
      label="Size"
      :value="sheet.size"
      :options="['A4', 'A3', 'A2', 'A1', 'Letter', 'B', 'C', 'D']"
      @keep="change({ size: $event })"
    />
    <h3>Title block</h3>
    <div v-for="[f, word] in fields" :key="f" class="entry" @contextmenu="menu($event, f)">
      <TextField :label="word" :value="value(f)" @keep="keep(f, $event)" />
      <v-btn
        class="own"
        size="small"
        variant="outlined"
        :active="own(f)"
        :aria-pressed="own(f)"
        :title="
          own(f)
            ? 'This sheet’s own. Click: take the project’s again.'
            : 'The project’s, on all sheets. Click: an entry of this sheet’s own.'
        "
        :aria-label="`${own(f) ? 'own' : 'all'}: ${word} is ${own(f) ? 'this sheet’s own' : 'the same on all sheets'}`"
        @click="toggle(f)"
      >
        {{ own(f) ? 'own' : 'all' }}
      </v-btn>
    </div>
  </template>
</template>

<style scoped>
.entry {
  display: flex;
  gap: 6px;
  align-items: center;
}
.entry > :first-child {
  flex: 1;
  min-width: 0;
}
.own {
  min-width: 40px;
  padding: 0;
}
</style>
