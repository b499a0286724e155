<script setup lang="ts">
/** Time, frames and playing of a take, beside its picture on a phone. */
import IconBackward from '~icons/tabler/player-track-prev'
import IconForward from '~icons/tabler/player-track-next'
import IconPause from '~icons/tabler/player-pause-filled'
import IconPlay from '~icons/tabler/player-play-filled'
import type { Source } from '@/player/source'
import type { Player } from '@/player/usePlayer'
import { clockOf } from '@/time'

defineProps<{ player: Player; source: Source | null; disabled: boolean }>()
</script>

<template>
  <div class="column">
    <div v-if="source" class="clock">
      <div class="now" data-test="take-clock">{{ clockOf(player.frame.value, source.rate) }}</div>
      <div class="tiny quiet">of {{ clockOf(source.frames, source.rate) }}</div>
    </div>
    <button
      class="btn btn-bare"
      aria-label="One frame back in the take"
      :disabled="disabled"
      @click="player.step(-1)"
    >
      <IconBackward aria-hidden="true" />
    </button>
    <button
      class="btn btn-bare"
      aria-label="One frame on in the take"
      :disabled="disabled"
      @click="player.step(1)"
    >
      <IconForward aria-hidden="true" />
    </button>
    <button
      class="play"
      :aria-label="player.playing.value ? 'Pause the take' : 'Play the take'"
      :disabled="disabled"
      data-test="play-take"
      @click="player.toggle()"
    >
      <IconPause v-if="player.playing.value" aria-hidden="true" />
      <IconPlay v-else aria-hidden="true" />
    </button>
  </div>
</template>

<style scoped>
.column {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: flex-end;
  gap: 4px;
  width: 74px;
  padding: 4px 0 8px;
}
.clock {
  text-align: center;
}
.now {
  font-size: 15px;
  font-weight: 600;
}
.btn {
  min-width: 48px;
  min-height: 48px;
}
.play {
  width: 54px;
  height: 54px;
  border: 0;
  border-radius: 27px 27px 6px 27px;
  background: var(--text);
  color: #17141a;
}
</style>
