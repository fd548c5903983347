<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed } from 'vue'
import type { Answer, Facet, Query } from '../../live/wire.gen'
import BoundField from './BoundField.vue'

/** What the depot can be filtered by: the family, then its properties, each value with how many there would be. */
const props = defineProps<{ answer: Answer | null }>()
const query = defineModel<Query>({ required: true })
const chosen = (name: string) => query.value.is?.[name] ?? []
function choose(name: string, list: string[]) {
  const is = { ...query.value.is }
  if (list.length) is[name] = list
  else delete is[name]
  query.value = { ...query.value, is }
}
function bound(side: 'least' | 'most', name: string, v: number | null) {
  const to = { ...query.value[side] }
  if (v === null) delete to[name]
  else to[name] = v
  query.value = { ...query.value, [side]: to }
}
/** Another family has other properties. */
const family = (name: string | undefined) =>
  (query.value = { ...query.value, family: name, is: {}, least: {}, most: {}, sort: undefined, down: undefined })
/** What is chosen stands in the list even when nothing of it is left. */
const items = (f: Facet) => [
  ...f.values.map((v) => ({ title: v.text, count: v.count })),
  ...chosen(f.name).filter((t) => !f.values.some((v) => v.text === t)).map((t) => ({ title: t, count: 0 })), // prettier-ignore
]
const facets = computed(() => (props.answer?.facets ?? []).filter((f) => f.values.length > 1 || chosen(f.name).length))
const any = computed(
  () => Object.keys({ ...query.value.is, ...query.value.least, ...query.value.most }).length > 0 || !!query.value.words,
)
const capital = (s: string) => s[0].toUpperCase() + s.slice(1)
</script>

<template>
  <div class="filters" role="search" aria-label="Filters of the depot">
    <div v-if="query.family" class="family">
      <b>{{ capital(query.family) }}</b>
      <v-btn
        size="x-small"
        variant="text"
        :icon="mdiClose"
        aria-label="All families"
        title="All families"
        @click="family(undefined)"
      />
    </div>
    <v-btn
      v-if="any"
      size="x-small"
      variant="text"
      class="clear"
      @click="query = { ...query, is: {}, least: {}, most: {}, words: '' }"
    >
      Clear the filters
    </v-btn>
    <v-list v-if="!query.family && answer" density="compact" class="families" role="listbox" aria-label="Families">
      <v-list-item v-for="f in answer.families" :key="f.text" role="option" :aria-selected="false" @click="family(f.text)">
        <span class="line"
          ><span>{{ capital(f.text) }}</span
          ><span class="quiet mono">{{ f.count }}</span></span
        >
      </v-list-item>
    </v-list>
    <div v-for="f in facets" :key="f.name" class="facet">
      <span class="quiet cap" aria-hidden="true">{{ capital(f.name) }}</span>
      <v-autocomplete
        :model-value="chosen(f.name)"
        :items="items(f)"
        :aria-label="capital(f.name)"
        placeholder="any"
        persistent-placeholder
        item-value="title"
        multiple
        chips
        closable-chips
        clearable
        hide-details
        density="compact"
        :menu-props="{ maxHeight: 320 }"
        @update:model-value="(list: string[]) => choose(f.name, list)"
      >
        <template #item="{ props: p, item }">
          <v-list-item v-bind="p" density="compact">
            <template #append
              ><span class="quiet mono count">{{
                (item as unknown as { count: number; raw?: { count: number } }).raw?.count ??
                (item as unknown as { count: number }).count
              }}</span></template
            >
          </v-list-item>
        </template>
      </v-autocomplete>
      <div v-if="f.isNumber && f.values.length > 2" class="bounds">
        <BoundField
          :label="`${capital(f.name)}, at least`"
          short="from"
          :unit="f.unit ?? ''"
          :value="query.least?.[f.name] ?? null"
          @keep="bound('least', f.name, $event)"
        />
        <BoundField
          :label="`${capital(f.name)}, at most`"
          short="to"
          :unit="f.unit ?? ''"
          :value="query.most?.[f.name] ?? null"
          @keep="bound('most', f.name, $event)"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.filters {
  width: 218px;
  flex: none;
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding-right: 6px;
}
.family {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.clear {
  align-self: flex-start;
}
.families {
  padding: 0;
  flex: none;
}
.line {
  display: flex;
  justify-content: space-between;
  font-size: 12.5px;
}
.cap {
  display: block;
  font-size: 12px;
  margin-bottom: 2px;
}
.bounds {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px;
  margin-top: 4px;
}
.bounds :deep(.field-row),
.bounds :deep(.v-input) {
  width: 100%;
}
.facet :deep(.v-field),
.facet :deep(.v-label) {
  font-size: 12.5px;
}
.count {
  font-size: 11.5px;
}
</style>
