<script setup lang="ts">
/** One caption: when, what, how fast it has to be read. */
import { computed, ref, watch } from 'vue'
import type { TextClip } from '@/api/types'
import { useProject } from '@/stores/project'
import { clockOf, frameOf } from '@/time'
import { EASY, firstWords, HASTY, pace } from './captions'

const props = defineProps<{ caption: TextClip; taken: boolean; now: boolean }>()
const emit = defineEmits<{ take: []; release: []; say: [text: string]; cursor: [at: number] }>()
const project = useProject()

const said = computed(() => firstWords(props.caption))
const text = ref(said.value)
watch(said, (now) => (text.value = now))
const clock = (tick: number) => clockOf(frameOf(tick, project.rate), project.rate)
const start = computed(() => props.caption.start ?? 0)
const speed = computed(() => pace(props.caption))

function keep() {
  const typed = text.value.trim()
  if (typed && typed !== said.value) emit('say', typed)
  else text.value = said.value
}
const tellCursor = (event: Event) =>
  emit('cursor', (event.target as HTMLTextAreaElement).selectionStart)
</script>

<template>
  <li class="caption" :class="{ taken, now }" data-test="caption">
    <button
      type="button"
      class="when tiny"
      :aria-pressed="taken"
      :aria-label="$t('send.captionRow.show', { at: clock(start) })"
      @click="taken ? $emit('release') : $emit('take')"
    >
      <span>{{ clock(start) }}</span>
      <span class="quiet">{{ clock(start + caption.length) }}</span>
    </button>
    <textarea
      v-model="text"
      class="text"
      rows="2"
      :aria-label="$t('send.captionRow.text', { at: clock(start) })"
      @focus="$emit('take')"
      @change="keep"
      @keyup="tellCursor"
      @click="tellCursor"
      @keydown.esc.stop="text = said"
    />
    <span
      class="tiny pace"
      :class="{ easy: speed <= EASY, hasty: speed > HASTY }"
      :title="$t('send.captionRow.paceHelp')"
    >
      {{ $t('send.captionRow.pace', { n: Math.round(speed) }) }}
      <template v-if="speed > HASTY"><br />{{ $t('send.captionRow.tooFast') }}</template>
    </span>
  </li>
</template>

<style scoped>
.caption {
  display: flex;
  align-items: stretch;
  gap: 8px;
  padding: 4px 8px;
  border: 2px solid transparent;
  border-radius: 10px 10px 3px 10px;
  background: var(--raised);
}
.now {
  background: #453c4e;
}
.taken {
  border-color: var(--accent);
}
.when {
  display: grid;
  align-content: center;
  flex: none;
  min-width: 58px;
  min-height: var(--touch);
  border: 0;
  background: none;
  color: var(--text);
  text-align: left;
}
.text {
  flex: 1;
  min-width: 0;
  resize: none;
  border: 0;
  border-bottom: 1px dashed var(--line);
  background: none;
  color: var(--text);
  line-height: 1.3;
}
.pace {
  flex: none;
  align-self: center;
  min-width: 44px;
  text-align: right;
  color: #f2c14e;
}
.pace.easy {
  color: var(--soft);
}
.pace.hasty {
  color: var(--accent);
  font-weight: 600;
}
</style>
