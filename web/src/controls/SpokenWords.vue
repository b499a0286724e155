<script setup lang="ts">
/** Words that are said, and in which language. */
import { useKit } from '@/stores/kit'

defineProps<{ test: string }>()
const words = defineModel<string>('words', { required: true })
const language = defineModel<string>('language', { required: true })
const kit = useKit()
</script>

<template>
  <textarea
    v-model="words"
    class="form-control"
    rows="4"
    maxlength="6000"
    :data-test="`${test}-words`"
    :aria-label="$t('controls.spokenWords.words')"
    :placeholder="$t('controls.spokenWords.placeholder')"
  />
  <label class="row-of">
    <span>{{ $t('controls.spokenWords.language') }}</span>
    <select v-model="language" class="form-select" :data-test="`${test}-language`">
      <option v-for="one in kit.move?.languages ?? []" :key="one.name" :value="one.name">
        {{ one.help }}
      </option>
    </select>
  </label>
</template>

<style scoped>
.row-of {
  display: grid;
  grid-template-columns: 90px 1fr;
  align-items: center;
  gap: 8px;
}
</style>
