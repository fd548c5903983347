<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { allCommands, helpOpen } from './commands'
import { keyText } from './keys'

const groups = computed(() => {
  const out = new Map<string, { title: string; keys: string }[]>()
  if (helpOpen.value)
    for (const c of allCommands()) {
      if (!c.keys || !(c.there?.() ?? true)) continue
      if (!out.has(c.group)) out.set(c.group, [])
      out.get(c.group)!.push({ title: c.title, keys: c.keys })
    }
  return [...out]
})
const route = useRoute()
const title = computed(() => (route.params.id ? 'Keys of this stage' : 'Keys of the list of projects'))
/** Whether there is a drawing, in which the pointer works. */
const drawing = computed(() => helpOpen.value && !!document.querySelector('[role=application]'))
</script>

<template>
  <v-dialog v-model="helpOpen" width="760" :aria-label="title">
    <div class="float help" tabindex="0">
      <h2>{{ title }}</h2>
      <div class="groups">
        <section v-for="[group, list] in groups" :key="group">
          <h3>{{ group }}</h3>
          <div v-for="c in list" :key="c.title" class="row">
            <span>{{ c.title }}</span>
            <span
              ><kbd v-for="k in c.keys.split(' / ')" :key="k">{{ keyText(k) }}</kbd></span
            >
          </div>
        </section>
        <section v-if="drawing">
          <h3>Pointer</h3>
          <div class="row"><span>Pick; with Shift add or take out</span><kbd>click</kbd></div>
          <div class="row"><span>What lies beneath</span><kbd>Alt click</kbd></div>
          <div class="row"><span>Pick what is inside</span><kbd>drag right</kbd></div>
          <div class="row"><span>Pick what is touched</span><kbd>drag left</kbd></div>
          <div class="row"><span>Move the paper</span><kbd>middle drag</kbd></div>
          <div class="row"><span>Nearer, further</span><kbd>wheel</kbd></div>
        </section>
      </div>
    </div>
  </v-dialog>
</template>

<style scoped>
.help {
  padding: 18px 22px;
  max-height: 80vh;
  overflow: auto;
}
h2 {
  font-size: 17px;
  font-weight: 600;
}
h3 {
  font-size: 13px;
  font-weight: 600;
  margin: 12px 0 4px;
  color: rgb(var(--v-theme-primary));
}
.groups {
  columns: 2;
  column-gap: 32px;
}
section {
  break-inside: avoid;
}
.row {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 2px 0;
}
kbd {
  margin-left: 4px;
  white-space: nowrap;
}
</style>
