<script setup lang="ts">
/** A track of the timeline: its head, its clips as far as they are near, and the joins between them. */
import { faceMedia, hasMedia, isSounding, type Clip, type Marker, type Track } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useLibrary } from '@/stores/library'
import { useMixing } from '@/stores/mixing'
import { startOf, useProject } from '@/stores/project'
import JoinMark from '@/timeline/JoinMark.vue'
import { lateBy } from '@/timeline/sync'
import PlainClips from '@/timeline/PlainClips.vue'
import SoundLine from '@/timeline/SoundLine.vue'
import TimelineClip from '@/timeline/TimelineClip.vue'
import TrackHead from '@/timeline/TrackHead.vue'
import type { useDrags } from '@/timeline/useDrags'
import type { Crowd, Shown } from '@/timeline/crowds'
import { frameOf } from '@/time'

defineProps<{
  track: Track
  clips: Shown[]
  plain: Shown[]
  crowds: Crowd[]
  height: number
  headWidth: number
  zoom: number
  zooming: boolean
  nearFrom: number
  nearTo: number
  /** Where the name of a clip begins. */
  labelAt: (one: Shown) => number
  drags: ReturnType<typeof useDrags>
  /** Id of the clip that Tab comes to. */
  tabStop: string
}>()
const emit = defineEmits<{ mark: [marker: Marker] }>()
const project = useProject()
const library = useLibrary()
const hand = useHand()
const mixing = useMixing()
const { player } = useScreen()

function takeOf(clip: Clip) {
  return library.byMedia.get(faceMedia(clip))
}

function isMissing(clip: Clip): boolean {
  if (!library.loaded || !hasMedia(clip)) return false
  const take = takeOf(clip)
  return !take || take.state === 'refused' || !take.facts || take.missing
}

function chooseJoin(clip: Clip) {
  hand.take(clip.id ?? '')
  player.seek(frameOf(startOf(clip), project.rate))
}
</script>

<template>
  <div
    class="row-of"
    :class="[track.kind, { off: track.hidden || track.muted }]"
    role="row"
    :aria-label="track.name"
    :data-track="track.id"
    :style="{ height: `${height}px` }"
  >
    <div class="head-of" role="rowheader" :style="{ width: `${headWidth}px` }" @pointerdown.stop>
      <TrackHead :track="track" :height="height" />
    </div>
    <div class="lane" role="presentation">
      <div
        v-for="crowd in crowds"
        :key="`crowd-${crowd.left}`"
        class="crowd"
        role="presentation"
        data-crowd
        :title="$t('timeline.timelineRow.comeCloser', crowd.count)"
        :style="{
          transform: `translateX(${crowd.left}px)`,
          width: `${crowd.width}px`,
          height: `${height - 5}px`,
        }"
      >
        <span v-if="crowd.width > 160" class="label" aria-hidden="true">
          {{ $t('timeline.timelineRow.comeCloser', crowd.count) }}
        </span>
      </div>
      <PlainClips
        v-if="plain.length"
        :clips="plain"
        :take-of="takeOf"
        :height="height - 5"
        :px-per-second="zoom"
      />
      <TimelineClip
        v-for="one in clips"
        :key="one.clip.id"
        :clip="one.clip"
        :take="takeOf(one.clip)"
        :left="one.left"
        :width="one.width"
        :height="height - 5"
        :px-per-second="zoom"
        :moving="zooming"
        :near-from="nearFrom"
        :near-to="nearTo"
        :label-at="labelAt(one)"
        :in-hand="hand.ids.includes(one.clip.id ?? '')"
        :lifted="drags.draft.value?.id === one.clip.id && drags.draft.value?.track !== null"
        :locked="track.locked ?? false"
        :missing="isMissing(one.clip)"
        :late="lateBy(one.clip, project.tracks, project.rate)"
        :slip="drags.slipOf(one.clip.id)"
        :track="track.name"
        :tab-stop="one.clip.id === tabStop"
        @mark="emit('mark', $event)"
      />
      <template v-if="mixing.open && height > 30 && !drags.active.value">
        <template v-for="one in clips" :key="`line-${one.clip.id}`">
          <SoundLine
            v-if="isSounding(one.clip) && hand.ids.includes(one.clip.id ?? '')"
            :clip="one.clip"
            :height="height - 5"
            :zoom="zoom"
            :locked="track.locked ?? false"
          />
        </template>
      </template>
      <template v-for="one in clips" :key="`join-${one.clip.id}`">
        <JoinMark
          v-if="one.clip.transition && !drags.active.value"
          role="gridcell"
          :clip="one.clip"
          :transition="one.clip.transition"
          :zoom="zoom"
          :height="height - 5"
          @choose="chooseJoin(one.clip)"
        />
      </template>
    </div>
  </div>
</template>

<style scoped>
.row-of {
  display: flex;
  border-bottom: 1px solid #241f29;
}
.row-of.main {
  background: #1a161e;
}
.head-of {
  position: sticky;
  left: 0;
  z-index: 7;
  flex: none;
  background: #1a161e;
  border-right: 1px solid #241f29;
}
.lane {
  position: relative;
  flex: 1;
  margin-left: 12px;
}
.crowd {
  position: absolute;
  top: 2px;
  left: 0;
  border-radius: 8px 8px 2px 8px;
  background: repeating-linear-gradient(90deg, #17141a59 0 1px, transparent 1px 4px), var(--video);
  cursor: pointer;
  touch-action: pan-x pan-y;
}
.sound .crowd {
  background: repeating-linear-gradient(90deg, #17141a59 0 1px, transparent 1px 4px), var(--sound);
}
.crowd .label {
  position: sticky;
  left: 8px;
  display: inline-block;
  padding: 3px 8px;
  font-size: 12px;
  font-weight: 600;
  white-space: nowrap;
  text-shadow: 0 1px 3px #000;
  pointer-events: none;
}
.off .lane {
  opacity: 0.4;
}
</style>
