<script setup lang="ts">
import { BProgress, BProgressBar } from 'bootstrap-vue-next'
import IconAgain from '~icons/tabler/refresh'
import IconX from '~icons/tabler/x'
import { useUploads } from '@/stores/uploads'
import { bytesLabel } from '@/time'

const uploads = useUploads()
</script>

<template>
  <ul v-if="uploads.files.length" class="tray" :aria-label="$t('gather.importTray.arriving')">
    <li v-for="file in uploads.files" :key="file.id" class="file">
      <div class="line">
        <span class="clip-text fw-semibold">{{ file.name }}</span>
        <span class="tiny quiet nowrap">
          <template v-if="file.state === 'sending'">
            {{
              $t('gather.importTray.sentOf', {
                sent: bytesLabel(file.sent),
                size: bytesLabel(file.size),
              })
            }}
          </template>
          <template v-else-if="file.state === 'waiting'">{{
            $t('gather.importTray.waits')
          }}</template>
          <template v-else>{{ $t('gather.importTray.notBroughtIn') }}</template>
        </span>
        <button
          v-if="file.state === 'failed'"
          class="btn btn-bare"
          :aria-label="$t('gather.importTray.tryAgain', { name: file.name })"
          @click="uploads.again(file.id)"
        >
          <IconAgain aria-hidden="true" />
        </button>
        <button
          class="btn btn-bare"
          :aria-label="
            file.state === 'failed'
              ? $t('words.close')
              : $t('gather.importTray.cancel', { name: file.name })
          "
          @click="uploads.cancel(file.id)"
        >
          <IconX aria-hidden="true" />
        </button>
      </div>
      <p v-if="file.problem" class="small soft m-0" role="alert">{{ file.problem }}</p>
      <BProgress v-else :max="file.size">
        <BProgressBar
          :value="file.sent"
          variant="primary"
          :aria-label="$t('gather.importTray.oneArriving', { name: file.name })"
        />
      </BProgress>
    </li>
  </ul>
</template>

<style scoped>
.tray {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
  max-height: 132px;
  overflow-y: auto;
  flex: none;
}
.file {
  background: var(--raised);
  border-radius: 10px 10px 2px 10px;
  padding: 2px 6px 10px 12px;
}
.line {
  display: flex;
  align-items: center;
  gap: 8px;
}
.line > :first-child {
  flex: 1;
}
.nowrap {
  white-space: nowrap;
}
</style>
