<script setup lang="ts">
/** On a phone the verbs for what is in hand are the tools themselves. */
import { useDesk } from '@/controls/verbs/desk'

const { now, shown, act } = useDesk()
</script>

<template>
  <div class="verbs">
    <button
      v-for="verb in shown"
      :key="verb.id"
      type="button"
      class="btn btn-secondary"
      :class="{ danger: verb.danger }"
      :disabled="!verb.ready(now)"
      :title="verb.help"
      :data-test="`verb-${verb.id}`"
      @click="act(verb)"
    >
      <component :is="verb.icon" aria-hidden="true" /><span>{{ verb.label }}</span>
    </button>
  </div>
</template>

<style scoped>
.verbs {
  display: grid;
  grid-auto-flow: column;
  grid-template-rows: repeat(auto-fill, 50px);
  grid-auto-columns: 84px;
  gap: 6px;
  height: 100%;
  align-content: center;
  overflow-x: auto;
  scrollbar-width: none;
}
@container (height > 200px) {
  .verbs {
    grid: none;
    grid-auto-flow: row;
    grid-template-columns: repeat(auto-fill, minmax(84px, 1fr));
    grid-auto-rows: 54px;
    align-content: start;
    overflow: hidden auto;
  }
}
.btn {
  flex-direction: column;
  gap: 0;
  padding: 2px 4px;
  font-size: 12px;
  line-height: 1.1;
}
.btn svg {
  width: 19px;
  height: 19px;
}
.danger {
  color: #ff9d95;
}
</style>
