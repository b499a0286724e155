<script setup lang="ts">
import { computed } from 'vue'
import IconBackwards from '~icons/tabler/chevrons-left'
import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import IconHand from '~icons/tabler/hand-grab'
import IconForwards from '~icons/tabler/chevrons-right'
import IconPause from '~icons/tabler/player-pause-filled'
import IconPlay from '~icons/tabler/player-play-filled'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { shapeName } from '@/api/shapes'
import { clockOf } from '@/time'

defineProps<{ percent: number; zoom: number; moving: boolean }>()
defineEmits<{ closer: []; farther: []; fit: []; move: [] }>()
const project = useProject()
const { player } = useScreen()
const shape = computed(() => {
  const canvas = project.document?.canvas
  return canvas ? shapeName(canvas.width, canvas.height) : ''
})
/** The speed, while it plays other than as it is. */
const running = computed(() => {
  const { playing, speed } = player
  if (!playing.value || speed.value === 1) return ''
  return speed.value < 0 ? `back ${-speed.value} ×` : `${speed.value} ×`
})
</script>

<template>
  <div class="bar">
    <div class="clock">
      <div class="now" data-test="clock" :data-frame="player.frame.value">
        {{ clockOf(player.frame.value, project.rate) }}
      </div>
      <div class="tiny quiet">of {{ clockOf(project.frames, project.rate) }}</div>
    </div>
    <div class="middle">
      <button
        class="btn btn-bare shuttle"
        aria-label="Play backwards"
        title="Backwards; again: faster (X)"
        :disabled="!project.frames"
        data-test="shuttle-back"
        @click="player.shuttle(-1)"
      >
        <IconBackwards aria-hidden="true" />
      </button>
      <button
        class="btn btn-bare"
        aria-label="One frame back"
        title="One frame back (←)"
        @click="player.step(-1)"
      >
        <svg class="icon step" viewBox="0 0 24 24" aria-hidden="true">
          <path d="M14 5v14L4 12ZM19 5v14" />
        </svg>
      </button>
      <button
        class="play"
        :class="{ waiting: player.starting.value }"
        :aria-label="player.playing.value ? 'Pause' : 'Play'"
        :disabled="!project.frames"
        data-test="play"
        @click="player.toggle()"
      >
        <IconPause v-if="player.playing.value" aria-hidden="true" />
        <IconPlay v-else aria-hidden="true" />
      </button>
      <button
        class="btn btn-bare"
        aria-label="One frame on"
        title="One frame on (→)"
        @click="player.step(1)"
      >
        <svg class="icon step" viewBox="0 0 24 24" aria-hidden="true">
          <path d="M10 5v14l10-7ZM5 5v14" />
        </svg>
      </button>
      <button
        class="btn btn-bare shuttle"
        aria-label="Play faster"
        title="Forwards; again: faster (V)"
        :disabled="!project.frames"
        data-test="shuttle-on"
        @click="player.shuttle(1)"
      >
        <IconForwards aria-hidden="true" />
      </button>
    </div>
    <div class="tiny quiet shape">
      <span v-if="running" data-test="pace">{{ running }}</span>
      <BDropdown
        v-else
        :variant="null"
        no-caret
        size="sm"
        toggle-class="btn-bare look-closer"
        teleport-to="body"
        strategy="fixed"
        placement="top-end"
        data-test="look-closer"
      >
        <template #button-content>
          <span data-test="pace" title="Look closer (Ctrl and wheel)">
            {{ shape }} · {{ percent }} %
          </span>
        </template>
        <BDropdownItemButton data-test="closer" @click="$emit('closer')">
          Twice as close
        </BDropdownItemButton>
        <BDropdownItemButton :disabled="zoom === 1" @click="$emit('farther')">
          Half as close
        </BDropdownItemButton>
        <BDropdownItemButton :disabled="zoom === 1" data-test="fit" @click="$emit('fit')">
          All of it
        </BDropdownItemButton>
      </BDropdown>
      <button
        v-if="zoom > 1"
        class="btn btn-bare hand"
        :aria-pressed="moving"
        aria-label="Move the picture"
        title="A finger moves the picture, two zoom it"
        data-test="hand-tool"
        @click="$emit('move')"
      >
        <IconHand aria-hidden="true" />
      </button>
    </div>
  </div>
</template>

<style scoped>
.bar {
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  align-items: center;
  padding: 8px 14px;
}
.now {
  font-size: 17px;
  font-weight: 600;
  line-height: 1.2;
}
.middle {
  display: flex;
  align-items: center;
  gap: 4px;
}
.play {
  width: 54px;
  height: 54px;
  border: 0;
  border-radius: 27px 27px 6px 27px;
  background: var(--text);
  color: #17141a;
}
.play:disabled {
  background: var(--line);
  color: var(--quiet);
}
.play.waiting {
  animation: breathe 900ms ease-in-out infinite alternate;
}
@keyframes breathe {
  to {
    opacity: 0.6;
  }
}
.step {
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.shape {
  text-align: right;
}
.shuttle {
  min-width: 34px;
  padding: 0;
}
@media (max-width: 700px) {
  .middle {
    gap: 0;
  }
  .bar {
    padding: 4px 12px;
  }
  .play {
    width: 46px;
    height: 46px;
  }
}
.hand {
  min-width: 34px;
  padding: 0;
}
.hand[aria-pressed='true'] {
  background: var(--accent);
  color: var(--ink);
}
.shape :deep(.look-closer) {
  font-size: 12px;
  color: var(--quiet);
  padding: 0 4px;
}
</style>
