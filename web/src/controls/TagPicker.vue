<script setup lang="ts">
/** A colour by name. */
import type { Tag } from '@/api/types'
import { TAGS } from '@/api/kinds'

const tag = defineModel<Tag>({ required: true })
</script>

<template>
  <div class="tags" role="group" :aria-label="$t('words.colour')">
    <button
      v-for="one in TAGS"
      :key="one.id"
      type="button"
      :aria-pressed="tag === one.id"
      :title="one.name"
      @click="tag = one.id"
    >
      <span class="dot" :class="{ none: !one.id }" :style="{ background: one.colour }" />{{
        one.name
      }}
    </button>
  </div>
</template>

<style scoped>
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
button {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: var(--touch);
  padding: 2px 10px;
  border: 2px solid transparent;
  border-radius: var(--fold);
  background: var(--raised);
  color: var(--soft);
  font-size: 13px;
}
button[aria-pressed='true'] {
  border-color: var(--text);
  color: var(--text);
}
.dot {
  width: 12px;
  height: 12px;
  border-radius: 6px 6px 2px 6px;
}
.dot.none {
  border: 1px dashed var(--quiet);
}
</style>
