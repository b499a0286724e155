import '@fontsource-variable/instrument-sans'
import '@fontsource-variable/bricolage-grotesque'
import './look/theme.scss'
import { createBootstrap } from 'bootstrap-vue-next/plugins/createBootstrap'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { reloadWhenStale } from './stale'

reloadWhenStale()

createApp(App).use(createPinia()).use(createBootstrap()).use(router).mount('#app')
