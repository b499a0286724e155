<script setup lang="ts">
/** The marked parts of a take that were kept. */
import IconX from '~icons/tabler/x'
import type { Take } from '@/api/types'
import { useLibrary } from '@/stores/library'
import { lengthLabel } from '@/time'

const props = defineProps<{ take: Take }>()
const emit = defineEmits<{ seek: [tick: number] }>()
const library = useLibrary()

function use(index: number) {
  const part = props.take.ranges[index]
  if (!part) return
  library.change(props.take.id, { mark_in: part.mark_in, mark_out: part.mark_out })
  emit('seek', part.mark_in)
}

function drop(index: number) {
  library.change(props.take.id, { ranges: props.take.ranges.filter((_, at) => at !== index) })
}
</script>

<template>
  <div class="parts">
    <span v-for="(part, index) in take.ranges" :key="index" class="part">
      <button
        type="button"
        :title="$t('gather.takeParts.marksAgain', { name: part.name })"
        @click="use(index)"
      >
        {{ part.name }} · {{ lengthLabel(part.mark_out - part.mark_in) }}
      </button>
      <button
        type="button"
        :aria-label="$t('gather.takeParts.forget', { name: part.name })"
        @click="drop(index)"
      >
        <IconX aria-hidden="true" />
      </button>
    </span>
  </div>
</template>

<style scoped>
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  flex: 1 1 auto;
}
.part {
  display: inline-flex;
  align-items: center;
  border-radius: var(--fold);
  background: var(--raised);
}
.part button {
  min-height: var(--touch);
  padding: 0 8px;
  border: 0;
  background: none;
  color: var(--text);
  font-size: 13px;
}
</style>
