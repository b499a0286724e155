<script setup lang="ts">
/** The voice of a mouth, and below it what the mouth does: tapped to go there, borders are dragged. */
import { useElementBounding } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { TICKS_PER_SECOND } from '@/api/types'
import TimeZoom from '@/controls/TimeZoom.vue'
import { useGrip } from '@/controls/useGrip'
import { useTimeWindow } from '@/controls/useTimeWindow'
import { usePhone } from '@/look/phone'
import { digitOf } from '@/motion/angles'
import type { Posed } from '@/motion/mouth'
import { poseTint } from '@/look/poses'

const props = defineProps<{
  rows: readonly Posed[]
  poses: readonly string[]
  /** Ticks of the mouth's own time: both ends, and where the playhead stands. */
  low: number
  high: number
  at: number
  /** Where pictures of its voice are asked for. */
  voice: string
  step: number
  locked: boolean
}>()
const emit = defineEmits<{ seek: [own: number]; roll: [at: number, by: number] }>()

/** Ticks that one picture of the voice shows, and its pixels. */
const TILE = 4 * TICKS_PER_SECOND
const TILE_WIDTH = 640
/** Ticks that are seen at first. */
const NEAR = 5 * TICKS_PER_SECOND

const { phone } = usePhone()
const lane = ref<HTMLElement | null>(null)
const { left, width } = useElementBounding(lane)
const room = () => ({ left: left.value, width: Math.max(1, width.value) })
const time = useTimeWindow(
  () => ({ low: props.low, high: Math.max(props.high, props.low + 1) }),
  room,
  (x) => emit('seek', tickAt(x)),
)
const shown = computed(() => time.shown.value)
const px = (tick: number) =>
  ((tick - shown.value.low) / (shown.value.high - shown.value.low)) * room().width
const perPixel = computed(() => (shown.value.high - shown.value.low) / room().width)
const tickAt = (x: number) => shown.value.low + (x - left.value) * perPixel.value

watch(
  () => [props.low, props.high],
  () => {
    if (props.high - props.low > NEAR) {
      time.zoom((props.high - props.low) / NEAR / time.close.value)
      time.follow(props.at)
    }
  },
  { immediate: true },
)
watch(
  () => props.at,
  (at) => {
    const { low, high } = shown.value
    const near = (high - low) * 0.05
    if (at < low + near || at > high - near) time.follow(at)
  },
)

const tiles = computed(() => {
  const { low, high } = shown.value
  const first = Math.max(0, Math.floor(low / TILE))
  const count = Math.ceil(high / TILE) - first
  return Array.from({ length: Math.min(count, 40) }, (_, n) => {
    const from = (first + n) * TILE
    const query = `low=${from}&high=${from + TILE}&width=${TILE_WIDTH}`
    return {
      from,
      source: `${props.voice}${props.voice.includes('?') ? '&' : '?'}${query}`,
      left: px(from),
      width: px(from + TILE) - px(from),
    }
  })
})

/** The border that is dragged, and by how many ticks. */
const pulled = ref<{ at: number; by: number } | null>(null)
const onFrames = (ticks: number) => Math.round(ticks / props.step) * props.step
const grip = useGrip<number>({
  move: ({ dx }, at) => (pulled.value = { at, by: onFrames(dx * perPixel.value) }),
  drop({ dx }, at) {
    pulled.value = null
    const by = onFrames(dx * perPixel.value)
    if (by) emit('roll', at, by)
  },
  cancel: () => (pulled.value = null),
})
const moved = (at: number) => (pulled.value?.at === at ? at + pulled.value.by : at)
const blocks = computed(() =>
  props.rows
    .filter(({ from, to }) => from < shown.value.high && to > shown.value.low)
    .map((one, index, all) => {
      const from = one.at >= 0 ? moved(one.from) : one.from
      const next = all[index + 1]
      const to = next ? moved(next.from) : one.to
      return { ...one, left: px(from), width: Math.max(0, px(to) - px(from)) }
    }),
)
/** Only borders that a finger can tell apart are dragged. */
const borders = computed(() => blocks.value.filter((one) => one.at >= 0 && one.width >= 10))
/** By its name where there is room, else by its digit. */
const named = (one: { pose: string; width: number }) =>
  one.width > 46 ? one.pose : digitOf(props.poses.indexOf(one.pose))
const words = (one: Posed) => (one.sure === null ? '' : `${Math.round(one.sure * 100)} %`)
</script>

<template>
  <div class="mouth-lane">
    <div
      ref="lane"
      class="lane"
      role="slider"
      tabindex="0"
      :aria-label="$t('move.mouthLane.voice')"
      :aria-valuemin="low"
      :aria-valuemax="high"
      :aria-valuenow="Math.round(at)"
      data-test="mouth-lane"
      @pointerdown="time.down($event, undefined)"
      @wheel="time.wheel"
      @keydown.left.prevent.stop="emit('seek', at - step)"
      @keydown.right.prevent.stop="emit('seek', at + step)"
    >
      <div class="voice">
        <img
          v-for="tile in tiles"
          :key="tile.from"
          :src="tile.source"
          alt=""
          draggable="false"
          :style="{ left: `${tile.left}px`, width: `${tile.width}px` }"
        />
      </div>
      <div class="row" role="list" :aria-label="$t('move.mouthLane.poses')">
        <span
          v-for="one in blocks"
          :key="one.at"
          class="pose"
          :class="{ unsure: one.sure !== null && one.sure < 0.5 }"
          role="listitem"
          :data-pose="one.pose"
          :title="[one.pose, words(one)].filter(Boolean).join(' · ')"
          :style="{
            left: `${one.left}px`,
            width: `${one.width}px`,
            background: poseTint(poses, one.pose),
          }"
        >
          <template v-if="one.width > 10">{{ named(one) }}</template>
          <i v-if="one.byHand && one.width > 8" class="hand" />
        </span>
        <template v-if="!locked">
          <i
            v-for="one in borders"
            :key="one.at"
            class="border-grip"
            :style="{ left: `${one.left}px` }"
            :data-test="`border-${one.at}`"
            @pointerdown.stop="grip.down($event, one.at)"
          />
        </template>
      </div>
      <i class="now" :style="{ left: `${px(at)}px` }" />
    </div>
    <TimeZoom v-if="!phone" :time="time" :around="at" />
  </div>
</template>

<style scoped>
.mouth-lane {
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
}
.lane {
  position: relative;
  flex: 1;
  min-width: 0;
  height: 104px;
  overflow: hidden;
  border-radius: 8px 8px 2px 8px;
  background: var(--rail);
  touch-action: none;
  cursor: pointer;
}
.voice {
  position: absolute;
  inset: 0 0 36px;
  overflow: hidden;
}
.voice img {
  position: absolute;
  top: 0;
  height: 100%;
  max-width: none;
}
.phone .mouth-lane {
  flex: none;
}
.phone .lane {
  height: 56px;
}
.phone .voice {
  bottom: 26px;
}
.phone .row {
  height: 26px;
}
.phone .pose {
  padding-top: 5px;
}
.row {
  position: absolute;
  inset: auto 0 0;
  height: 36px;
  margin: 0;
}
.pose {
  position: absolute;
  top: 2px;
  bottom: 0;
  overflow: hidden;
  padding: 8px 3px 0;
  border-left: 1px solid #17141b;
  border-radius: 5px 5px 2px 5px;
  color: #17141b;
  font-size: 0.76rem;
  font-weight: 600;
  line-height: 1.2;
  white-space: nowrap;
}
.pose.unsure {
  background-image: repeating-linear-gradient(-45deg, #0000 0 5px, #0006 5px 8px);
}
.hand {
  position: absolute;
  left: 4px;
  bottom: 3px;
  width: 6px;
  height: 6px;
  border-radius: 50%;
  background: #17141b;
}
.border-grip {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 24px;
  margin-left: -12px;
  cursor: ew-resize;
  touch-action: none;
}
.now {
  position: absolute;
  inset: 0 auto 0 0;
  width: 2px;
  margin-left: -1px;
  background: var(--accent);
  pointer-events: none;
}
</style>
