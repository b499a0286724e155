<script setup lang="ts">
/** Offers a newer version of the page as soon as it is there; nothing is loaded unasked. */
import { useRegisterSW } from 'virtual:pwa-register/vue'

const { needRefresh, updateServiceWorker } = useRegisterSW({ immediate: false })
</script>

<template>
  <div v-if="needRefresh" class="fresh" role="status" data-test="fresh-version">
    <span>{{ $t('controls.freshVersion.thereIsANewerVersion') }}</span>
    <button class="btn btn-primary" @click="updateServiceWorker(true)">
      {{ $t('controls.freshVersion.loadIt') }}
    </button>
    <button class="btn btn-bare" @click="needRefresh = false">
      {{ $t('controls.freshVersion.later') }}
    </button>
  </div>
</template>

<style scoped>
.fresh {
  position: fixed;
  z-index: 1900;
  left: 50%;
  top: 52px;
  transform: translateX(-50%);
  width: max-content;
  max-width: calc(100vw - 16px);
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 8px 12px;
  background: var(--raised);
  border-radius: 12px 12px 3px 12px;
  box-shadow: 0 8px 24px #0008;
}
</style>
