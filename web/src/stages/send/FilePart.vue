<script setup lang="ts">
/** How the file of the destination in hand is made. */
import { BButton } from 'bootstrap-vue-next'
import { useSending } from '@/stores/sending'
import FileFields from './FileFields.vue'

const sending = useSending()
</script>

<template>
  <section
    v-if="sending.settings"
    class="fields tray-group"
    :aria-label="$t('send.sendBench.file')"
  >
    <p class="small soft head tray-keep">
      <span class="clip-text">
        <strong>{{ sending.destination?.title }}</strong> · {{ sending.destination?.help }}
      </span>
      <BButton
        v-if="sending.isChanged(sending.at)"
        variant="secondary"
        size="sm"
        data-test="as-it-wants"
        @click="sending.asItWants()"
      >
        {{ $t('send.filePart.asItWants') }}
      </BButton>
    </p>
    <FileFields :settings="sending.settings" />
  </section>
</template>

<style scoped>
.fields {
  display: flex;
  flex-direction: column;
  gap: 4px;
  overflow-y: auto;
  min-height: 0;
  scrollbar-width: thin;
}
.head {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 0;
  min-height: 36px;
}
.head .btn {
  flex: none;
}
.phone .head {
  order: 2;
}
</style>
