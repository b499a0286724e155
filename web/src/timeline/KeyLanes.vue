<script setup lang="ts">
/** The keys of the clip in hand, a lane for each property: tapped, gathered by a box, dragged. */
import { computed, ref } from 'vue'
import type { Clip, PicturedClip } from '@/api/types'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { keyShape } from '@/motion/easing'
import { nameOf } from '@/motion/names'
import { keyedProps } from '@/motion/props'
import { useScreen } from '@/player/inject'
import { useKeys } from '@/inhand/useKeys'
import { useMoving, type KeyName } from '@/stores/moving'
import { startOf, useProject } from '@/stores/project'
import { toPx, toTick } from '@/timeline/scale'
import { frameOf, frameTicks, lengthLabel } from '@/time'

const props = defineProps<{
  clip: Clip
  zoom: number
  headWidth: number
  locked: boolean
}>()
const project = useProject()
const moving = useMoving()
const keys = useKeys()
const { player } = useScreen()
const body = ref<HTMLElement | null>(null)

const LANE = 26
const lanes = computed(() =>
  keyedProps(props.clip).map(({ path, prop }) => ({
    path,
    name: nameOf(props.clip as PicturedClip, path),
    keys: prop.keys.map((key) => ({
      key,
      name: { clip: props.clip.id ?? '', path, at: key.at },
      px: toPx(startOf(props.clip) + key.at, props.zoom),
    })),
  })),
)

const dragBy = useDraft<number>(() => props.clip)
const box = ref<{ left: number; top: number; width: number; height: number } | null>(null)

const grip = useGrip<KeyName>({
  begin(name, { event }) {
    const more = event.shiftKey || event.ctrlKey || event.metaKey
    if (more || !moving.holds(name)) moving.take(name, more)
    moving.path = name.path
  },
  move({ dx }) {
    if (props.locked) return
    const frame = frameTicks(project.rate)
    dragBy.value = Math.round(toTick(dx, props.zoom) / frame) * frame
    player.tryOut(keys.shiftStep(dragBy.value))
  },
  drop: () => dragBy.value !== null && keys.shift(dragBy.value),
  tap: (_, name) => player.seek(frameOf(startOf(props.clip) + name.at, project.rate)),
  cancel() {
    dragBy.value = null
    player.tryOut(null)
  },
})

function press(event: KeyboardEvent, name: KeyName) {
  const across = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (event.key === 'Enter' || event.key === ' ') moving.take(name, event.shiftKey)
  else if (event.key === 'Delete' || event.key === 'Backspace') {
    if (!moving.holds(name)) moving.take(name)
    keys.remove()
  } else if (across) {
    if (!moving.holds(name)) moving.take(name)
    keys.shift(across * frameTicks(project.rate) * (event.shiftKey ? 10 : 1))
  } else return
  event.preventDefault()
  event.stopPropagation()
}

function spot(event: PointerEvent) {
  const at = body.value?.getBoundingClientRect()
  return { x: event.clientX - (at?.left ?? 0), y: event.clientY - (at?.top ?? 0) }
}

let corner = { x: 0, y: 0 }
const boxing = useGrip({
  begin(_, { event }) {
    if (event.pointerType === 'touch') return false
    corner = spot(event)
    return true
  },
  move({ event }) {
    const now = spot(event)
    box.value = {
      left: Math.min(corner.x, now.x),
      top: Math.min(corner.y, now.y),
      width: Math.abs(now.x - corner.x),
      height: Math.abs(now.y - corner.y),
    }
  },
  drop({ event }) {
    const found = box.value ? keysWithin(box.value) : []
    box.value = null
    moving.takeAll(event.shiftKey ? [...moving.keys, ...found] : found)
  },
  tap: () => moving.release(),
  cancel: () => (box.value = null),
})

function keysWithin(area: { left: number; top: number; width: number; height: number }) {
  return lanes.value.flatMap((lane, index) => {
    const middle = index * LANE + LANE / 2
    if (middle < area.top || middle > area.top + area.height) return []
    return lane.keys
      .filter(({ px }) => px >= area.left && px <= area.left + area.width)
      .map(({ name }) => name)
  })
}
</script>

<template>
  <div class="lanes" data-test="key-lanes-shown" @pointerdown.stop>
    <div class="heads" :style="{ width: `${headWidth}px` }">
      <button
        v-for="lane in lanes"
        :key="lane.path"
        class="name clip-text"
        :class="{ here: lane.path === moving.path }"
        :title="lane.name"
        :style="{ height: `${LANE}px` }"
        @click="moving.path = lane.path"
      >
        {{ lane.name }}
      </button>
      <span v-if="!lanes.length" class="name quiet">{{ $t('timeline.keyLanes.noKeysYet') }}</span>
    </div>
    <div
      ref="body"
      class="body"
      :style="{ height: `${Math.max(1, lanes.length) * LANE}px` }"
      @pointerdown="boxing.down($event)"
    >
      <div
        v-for="(lane, index) in lanes"
        :key="lane.path"
        class="lane-line"
        :style="{
          top: `${index * LANE}px`,
          height: `${LANE}px`,
          left: `${toPx(startOf(clip), zoom)}px`,
          width: `${toPx(clip.length, zoom)}px`,
        }"
      />
      <template v-for="(lane, index) in lanes" :key="lane.path">
        <button
          v-for="{ key, name, px } in lane.keys"
          :key="key.at"
          class="key"
          :class="{ taken: moving.holds(name) }"
          :style="{
            left: `${px + (moving.holds(name) ? toPx(dragBy ?? 0, zoom) : 0)}px`,
            top: `${index * LANE}px`,
            height: `${LANE}px`,
          }"
          :aria-label="
            $t('timeline.keyLanes.keyAt', { name: lane.name, length: lengthLabel(key.at) })
          "
          :aria-pressed="moving.holds(name)"
          data-test="lane-key"
          @pointerdown.stop="grip.down($event, name)"
          @keydown="press($event, name)"
        >
          <svg viewBox="-1 -1 16 22" aria-hidden="true"><path :d="keyShape(key.ease)" /></svg>
        </button>
      </template>
      <div
        v-if="box"
        class="box"
        :style="{
          left: `${box.left}px`,
          top: `${box.top}px`,
          width: `${box.width}px`,
          height: `${box.height}px`,
        }"
      />
    </div>
  </div>
</template>

<style scoped>
.lanes {
  display: flex;
  background: #15111a;
  border-bottom: 1px solid #241f29;
}
.heads {
  flex: none;
  position: sticky;
  left: 0;
  z-index: 6;
  background: #15111a;
  display: grid;
  margin-right: 12px;
}
.name {
  border: 0;
  background: none;
  color: var(--quiet);
  font-size: 12px;
  text-align: left;
  padding: 0 6px 0 16px;
}
.name.here {
  color: var(--text);
  box-shadow: inset 3px 0 0 var(--accent);
}
.body {
  position: relative;
  flex: 1;
}
.lane-line {
  position: absolute;
  border-bottom: 1px solid #2a2430;
  background: #8f4a6b1a;
}
.key {
  position: absolute;
  width: 24px;
  margin-left: -12px;
  padding: 0;
  border: 0;
  background: none;
  display: grid;
  place-items: center;
  touch-action: none;
}
.key svg {
  width: 11px;
  height: 16px;
}
.key path {
  fill: #fff;
  stroke: #17141a;
}
.taken path {
  fill: var(--accent);
}
.box {
  position: absolute;
  border: 1.5px dashed var(--text);
  border-radius: var(--fold);
  background: #f1ecf51a;
  pointer-events: none;
}
@media (pointer: coarse) {
  .key {
    width: 36px;
    margin-left: -18px;
  }
}
</style>
