import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import icons from 'unplugin-icons/vite'
import { defineConfig } from 'vitest/config'

const server = process.env.VELVET_KITE_SERVER ?? 'http://127.0.0.1:8000'

export default defineConfig({
  plugins: [vue(), icons({ compiler: 'vue3', defaultClass: 'icon' })],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  css: {
    preprocessorOptions: {
      scss: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
    },
  },
  server: { proxy: { '/api': server } },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  test: { environment: 'node', include: ['src/**/*.test.ts'] },
})
