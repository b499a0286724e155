import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import icons from 'unplugin-icons/vite'
import { VitePWA } from 'vite-plugin-pwa'
import { defineConfig } from 'vitest/config'

const server = process.env.VELVET_KITE_SERVER ?? 'http://127.0.0.1:8000'

const icon = (size: number, purpose: 'any' | 'maskable') => ({
  src: `/icon-${purpose}-${size}.png`,
  sizes: `${size}x${size}`,
  type: 'image/png',
  purpose,
})
/** How it stands on the device once it is installed, and what it can be given. */
const MANIFEST = {
  name: 'Velvet Kite',
  short_name: 'Velvet Kite',
  description: 'Short videos, from the first take to the finished film',
  id: '/',
  start_url: '/',
  display: 'standalone' as const,
  background_color: '#17141a',
  theme_color: '#17141a',
  icons: [icon(192, 'any'), icon(512, 'any'), icon(512, 'maskable')],
  share_target: {
    action: '/share',
    method: 'POST' as const,
    enctype: 'multipart/form-data',
    params: {
      files: [{ name: 'files', accept: ['video/*', 'image/*', 'audio/*'] }],
    },
  },
}

export default defineConfig({
  plugins: [
    vue(),
    icons({ compiler: 'vue3', defaultClass: 'icon' }),
    VitePWA({
      registerType: 'prompt',
      injectRegister: null,
      strategies: 'injectManifest',
      srcDir: 'src/worker',
      filename: 'sw.ts',
      injectManifest: {
        globPatterns: ['**/*.{js,css,html,woff2,svg,png}'],
        globIgnores: ['**/sw.js'],
      },
      manifest: MANIFEST,
    }),
  ],
  define: {
    __VUE_I18N_FULL_INSTALL__: true,
    __VUE_I18N_LEGACY_API__: false,
    __INTLIFY_PROD_DEVTOOLS__: false,
  },
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  css: {
    preprocessorOptions: {
      scss: {
        quietDeps: true,
        silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'],
      },
    },
  },
  server: { proxy: { '/api': server } },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  // How long a test takes says nothing on a busy machine.
  test: { environment: 'node', include: ['src/**/*.test.ts'], testTimeout: 60_000 },
})
