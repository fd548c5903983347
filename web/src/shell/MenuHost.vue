<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import { keyText } from './keys'
import { type Entry, menuOpen } from './menu'

/** The one menu of the program: opened by the right button, or its key, on canvases and lists. */
const list = ref<{ $el: HTMLElement }>()
let before: HTMLElement | null = null
watch(menuOpen, (m) => {
  if (!m) return
  before = document.activeElement as HTMLElement | null
  void nextTick(() => setTimeout(() => list.value?.$el.querySelector<HTMLElement>('.v-list-item')?.focus(), 20))
})
function close() {
  menuOpen.value = null
  before?.focus({ preventScroll: true })
}
function run(e: Entry) {
  close()
  void nextTick(e.run)
}
</script>

<template>
  <v-menu
    :model-value="!!menuOpen"
    :target="[menuOpen?.x ?? 0, menuOpen?.y ?? 0]"
    :offset="2"
    location="bottom start"
    :transition="false"
    @update:model-value="$event || close()"
  >
    <v-list ref="list" class="menu" role="menu" aria-label="What can be done here">
      <template v-for="(e, i) in menuOpen?.entries ?? []" :key="i">
        <v-divider v-if="e === null" />
        <v-list-item v-else role="menuitem" :title="e.title" @click="run(e)">
          <template v-if="e.keys" #append
            ><kbd>{{ keyText(e.keys.split(' / ')[0]) }}</kbd></template
          >
        </v-list-item>
      </template>
    </v-list>
  </v-menu>
</template>

<style scoped>
.menu {
  min-width: 210px;
}
.menu hr {
  margin: 4px 0;
}
.menu kbd {
  margin-left: 20px;
}
</style>
