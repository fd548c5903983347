<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import type { Kinds } from '../live/wire.gen'
import WholeField from '../shell/fields/WholeField.vue'
import TextField from '../shell/fields/TextField.vue'
import { complain } from '../shell/notices'
import { withClass, withCopy } from './ownHouse'

/** What a house of the project's own is called, and its classes; what they are limited to stands in the table. */
const props = defineProps<{ project: Project; house: Kinds['house']; name: string }>()
const emit = defineEmits<{ seen: [name: string] }>()
const shown = computed(() => props.house.classes.find((c) => c.name === props.name))
const dearest = 1_000_000 // in hundredths: as much as a class may cost

/** Keeps the house as it is now, with the class of a name seen. */
async function put(h: Kinds['house'], seen = props.name) {
  if ((await props.project.edit('putHouse', { house: h }).catch(complain)) !== undefined && seen !== props.name)
    emit('seen', seen)
}
const rename = (name: string) =>
  put(
    withClass(props.house, props.name, (c) => ({ ...c, name })),
    name,
  )
function add() {
  const [house, name] = withCopy(props.house, props.name)
  return put(house, name)
}
function remove() {
  const classes = props.house.classes.filter((c) => c.name !== props.name)
  return put({ ...props.house, classes }, classes[0].name)
}
const drop = () => props.project.edit('dropHouse', { id: props.house.id }).catch(complain)
</script>

<template>
  <div v-if="shown" class="own" role="group" aria-label="A house of this project">
    <TextField label="House" :value="house.name" @keep="(name) => put({ ...house, name })" />
    <TextField label="Class" :value="shown.name" @keep="rename" />
    <WholeField
      hundredths
      label="Price"
      unit="×"
      :most="dearest"
      :value="shown.price"
      @keep="(price) => put(withClass(house, name, (c) => ({ ...c, price })))"
    />
    <div class="acts">
      <v-btn size="small" variant="text" @click="add">Add a class</v-btn>
      <v-btn size="small" variant="text" :disabled="house.classes.length < 2" @click="remove">Take the class out</v-btn>
      <v-btn size="small" variant="text" @click="drop">Drop the house</v-btn>
    </div>
  </div>
</template>

<style scoped>
.own {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 4px 22px;
  margin-bottom: 6px;
}
.own :deep(.field-row) {
  grid-template-columns: auto minmax(92px, 1fr);
}
.acts {
  grid-column: 1 / -1;
  margin-left: -10px;
}
</style>
