<script setup lang="ts">
/** The clock of what is shown, and playing, stepping and shuttling it. */
import { computed } from 'vue'
import IconBackwards from '~icons/tabler/chevrons-left'
import IconForwards from '~icons/tabler/chevrons-right'
import IconPause from '~icons/tabler/player-pause-filled'
import IconPlay from '~icons/tabler/player-play-filled'
import type { FrameRate } from '@/api/types'
import { useToldKeys } from '@/controls/useToldKeys'
import type { Player } from '@/player/usePlayer'
import { useViewing } from '@/stores/viewing'
import { t } from '@/texts'
import { momentOf } from '@/time'

const props = defineProps<{
  player: Player
  frames: number
  rate: FrameRate
  /** Stands as a column beside the picture. */
  upright?: boolean
}>()
const told = useToldKeys()
const viewing = useViewing()
const momentAt = (frame: number) => momentOf(frame, props.rate, viewing.clock)
/** The speed, while it plays other than as it is. */
const running = computed(() => {
  const { playing, speed } = props.player
  if (!playing.value || speed.value === 1) return ''
  return speed.value < 0
    ? t('picture.transportBar.back', { what: -speed.value })
    : `${speed.value} ×`
})
</script>

<template>
  <div class="bar" :class="{ upright }">
    <button
      class="clock"
      :class="viewing.clock"
      :title="$t('picture.transportBar.timeTimecodeOrFramesTap')"
      data-test="clock"
      :data-frame="player.frame.value"
      @click="viewing.nextClock()"
    >
      <span class="now">{{ momentAt(player.frame.value) }}</span>
      <span class="tiny quiet">{{
        $t('picture.transportBar.of', { moment: momentAt(frames) })
      }}</span>
    </button>
    <div class="middle">
      <button
        class="btn btn-bare shuttle"
        :aria-label="$t('picture.transportBar.playBackwards')"
        :title="told($t('picture.transportBar.backwardsAgainFaster'), 'x')"
        :disabled="!frames"
        data-test="shuttle-back"
        @click="player.shuttle(-1)"
      >
        <IconBackwards aria-hidden="true" />
      </button>
      <button
        class="btn btn-bare"
        :aria-label="$t('picture.transportBar.oneFrameBack')"
        :title="told($t('picture.transportBar.oneFrameBack'), 'arrowleft')"
        data-test="step-back"
        @click="player.step(-1)"
      >
        <svg class="icon step" viewBox="0 0 24 24" aria-hidden="true">
          <path d="M14 5v14L4 12ZM19 5v14" />
        </svg>
      </button>
      <button
        class="play"
        :class="{ waiting: player.starting.value }"
        :aria-label="
          player.playing.value ? $t('picture.transportBar.pause') : $t('picture.transportBar.play')
        "
        :disabled="!frames"
        data-test="play"
        @click="player.toggle()"
      >
        <IconPause v-if="player.playing.value" aria-hidden="true" />
        <IconPlay v-else aria-hidden="true" />
      </button>
      <button
        class="btn btn-bare"
        :aria-label="$t('picture.transportBar.oneFrameOn')"
        :title="told($t('picture.transportBar.oneFrameOn'), 'arrowright')"
        data-test="step-forward"
        @click="player.step(1)"
      >
        <svg class="icon step" viewBox="0 0 24 24" aria-hidden="true">
          <path d="M10 5v14l10-7ZM5 5v14" />
        </svg>
      </button>
      <button
        class="btn btn-bare shuttle"
        :aria-label="$t('picture.transportBar.playFaster')"
        :title="told($t('picture.transportBar.forwardsAgainFaster'), 'v')"
        :disabled="!frames"
        data-test="shuttle-on"
        @click="player.shuttle(1)"
      >
        <IconForwards aria-hidden="true" />
      </button>
    </div>
    <div v-if="running || !upright" class="tiny quiet shape">
      <span v-if="running" data-test="pace">{{ running }}</span>
      <slot v-else />
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
.clock {
  border: 0;
  padding: 0;
  background: none;
  color: inherit;
  text-align: left;
  min-height: var(--touch);
}
.clock span {
  display: block;
}
.now {
  font-size: 17px;
  font-weight: 600;
  line-height: 1.2;
}
.timecode .now {
  font-size: 14px;
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
@container picture (max-width: 383px) {
  .bar {
    grid-template-columns: auto 1fr auto;
    padding: 8px;
  }
  .middle {
    justify-content: center;
    gap: 2px;
  }
}
@container picture (max-width: 335px) {
  .shuttle {
    display: none;
  }
}
/* A thumb reaches it: in the row below the picture, or in the column beside it. */
.phone .bar {
  grid-area: bar;
  display: flex;
  gap: 2px;
  padding: 0 8px;
}
.phone .play {
  width: 48px;
  height: 48px;
}
.phone .shape {
  order: -1;
}
.phone .bar:not(.upright) .shuttle {
  display: none;
}
.phone .upright,
.phone .upright .middle {
  flex-direction: column;
}
.phone .upright {
  justify-content: flex-end;
  padding: 4px 0;
  min-height: 0;
}
.phone .upright .shape {
  margin-bottom: auto;
  text-align: center;
}
.phone .upright .clock {
  text-align: center;
}
.phone .upright .now {
  font-size: 15px;
}
.phone .upright .timecode span {
  font-size: 11px;
}
.phone .upright .middle .btn {
  min-width: 48px;
  min-height: 44px;
}
.phone .play {
  order: 1;
}
.phone .upright .play {
  width: 54px;
  height: 54px;
}
@media (max-height: 720px) and (max-aspect-ratio: 1/1) {
  .phone .upright .middle {
    display: grid;
    grid-template-columns: 44px 44px;
    gap: 0;
    justify-items: center;
  }
  .phone .upright .middle .btn {
    min-width: 44px;
  }
  .phone .upright .play {
    grid-column: 1 / 3;
  }
}
</style>
