import '@fontsource/barlow/400.css'
import '@fontsource/barlow/500.css'
import '@fontsource/barlow/600.css'
import '@fontsource/jetbrains-mono/400.css'
import 'vuetify/styles/core'
import './shell/base.css'
import './shell/look.css'
import './shell/stage.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import { createRouter, createWebHistory } from 'vue-router'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'
import App from './App.vue'
import { watchHeldKeys } from './shell/keyHold'
import { watchTyping } from './shell/keys'
import { defaults } from './shell/look'
import { themes } from './shell/tokens'

watchHeldKeys()
watchTyping()

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content
const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: () => import('./projects/ProjectsPage.vue') },
    { path: '/project/:id/:stage', component: () => import('./stages/ProjectPage.vue') },
    { path: '/project/:id', redirect: (to) => `/project/${String(to.params.id)}/circuit` },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})
// who only looks at a project looks at it in all its stages
router.beforeEach((to, from) =>
  from.query.look && from.params.id === to.params.id && !to.query.look
    ? { ...to, query: { ...to.query, look: from.query.look } }
    : true,
)
const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: { defaultTheme: 'dark', themes, cspNonce: nonce },
  defaults,
})
createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app')
