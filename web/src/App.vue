<script setup lang="ts">
import { useTheme } from 'vuetify'
import { watchEffect } from 'vue'
import { useTaste } from './shell/taste'
import KeysHelp from './shell/KeysHelp.vue'
import MenuHost from './shell/MenuHost.vue'
import Notices from './shell/Notices.vue'

const taste = useTaste()
const theme = useTheme()
watchEffect(() => theme.change(taste.frame))
</script>

<template>
  <v-app>
    <router-view v-slot="{ Component, route }">
      <component :is="Component" :key="String(route.params.id ?? '')" />
    </router-view>
    <Notices />
    <MenuHost />
    <KeysHelp />
  </v-app>
</template>
