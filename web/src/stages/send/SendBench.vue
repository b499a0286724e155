<script setup lang="ts">
/** Send: what is to be made, and what was. */
import { ref } from 'vue'
import { usePhone } from '@/look/phone'
import { t } from '@/texts'
import ToolTray from '@/tray/ToolTray.vue'
import FilmList from './FilmList.vue'
import WhatToMake from './WhatToMake.vue'

const PARTS = [
  { id: 'what', name: t('send.sendBench.whatToMake'), test: 'send-what' },
  { id: 'films', name: t('send.sendBench.films'), test: 'send-films' },
] as const

const { phone } = usePhone()
const part = ref<'what' | 'films'>('what')
</script>

<template>
  <ToolTray
    v-if="phone"
    :label="$t('send.sendBench.send')"
    :parts="PARTS"
    :part="part"
    @take="part = $event"
  >
    <WhatToMake v-if="part === 'what'" @begun="part = 'films'" />
    <FilmList v-else />
  </ToolTray>
  <div v-else class="send">
    <WhatToMake />
    <FilmList />
  </div>
</template>

<style scoped>
.send {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 12px;
  padding: 12px 14px;
  min-height: 0;
}
</style>
