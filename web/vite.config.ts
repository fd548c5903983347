import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'
import vuetify from 'vite-plugin-vuetify'

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true })],
  html: { cspNonce: 'NONCE' },
  build: { outDir: '../server/web', emptyOutDir: true, chunkSizeWarningLimit: 1500, assetsInlineLimit: 0, modulePreload: { polyfill: false } },
  server: { proxy: { '/api': { target: 'http://127.0.0.1:8411', ws: true } } },
  test: { environment: 'node', include: ['src/**/*.test.ts'] },
})
