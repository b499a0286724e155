<script setup lang="ts">
import { computed } from 'vue'
import IconX from '~icons/tabler/x'
import IconAlert from '~icons/tabler/alert-triangle'
import { useNotes } from '@/stores/notes'

const notes = useNotes()
const style = computed(() => {
  const { place } = notes
  if (!place) return {}
  return {
    left: `${place.left + place.width / 2}px`,
    bottom: `${window.innerHeight - place.bottom + 8}px`,
    maxWidth: `${Math.min(460, place.width - 16)}px`,
  }
})
</script>

<template>
  <div
    class="notes"
    :class="{ placed: notes.place }"
    :style="style"
    role="status"
    aria-live="polite"
  >
    <div v-for="note in notes.notes" :key="note.id" class="note" :class="note.kind">
      <IconAlert v-if="note.kind === 'problem'" aria-hidden="true" />
      <div class="words">
        <div class="fw-semibold">{{ note.message }}</div>
        <div v-if="note.detail" class="small soft">{{ note.detail }}</div>
      </div>
      <button
        v-if="note.kind === 'problem'"
        class="btn btn-bare"
        :aria-label="$t('controls.noteList.closeThisMessage')"
        @click="notes.drop(note.id)"
      >
        <IconX aria-hidden="true" />
      </button>
    </div>
  </div>
</template>

<style scoped>
.notes {
  position: fixed;
  left: 50%;
  top: 50px;
  transform: translateX(-50%);
  display: grid;
  gap: 8px;
  z-index: 2000;
  justify-items: center;
  width: max-content;
  max-width: min(460px, calc(100vw - 24px));
  pointer-events: none;
}
.notes.placed {
  top: auto;
}
.note {
  display: flex;
  align-items: center;
  gap: 10px;
  background: #38313f;
  border-radius: 12px 12px 3px 12px;
  padding: 6px 14px;
  box-shadow: 0 8px 24px #0008;
}
.note.problem {
  pointer-events: auto;
  border-left: 4px solid #e5534b;
}
.words {
  flex: 1;
  padding: 4px 0;
}
</style>
