import '@fontsource-variable/instrument-sans'
import '@fontsource-variable/bricolage-grotesque'
import './look/theme.scss'
import { createBootstrap } from 'bootstrap-vue-next/plugins/createBootstrap'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { reloadWhenStale } from './stale'
import { i18n, language } from './texts'

// A dialog begins in the field that says so, else in itself.
const FIRST_FOCUS = { BModal: { focus: '[data-first]' } }

reloadWhenStale()
document.documentElement.lang = language

createApp(App)
  .use(i18n)
  .use(createPinia())
  .use(createBootstrap({ components: FIRST_FOCUS }))
  .use(router)
  .mount('#app')
