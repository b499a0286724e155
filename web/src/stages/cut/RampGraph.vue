<script setup lang="ts">
/** The speed of a clip as a curve: speed over time, or source time over time; one function. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { PacedClip, Step } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import TimeZoom from '@/controls/TimeZoom.vue'
import { useScreen } from '@/player/inject'
import { startOf, useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameOf, frameTicks, lengthLabel, tickOf } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { lengthAfter, RAMPS, shapePoints, type Keep } from './pace'
import RampNumbers from './RampNumbers.vue'
import { useRampGrip, type Spot } from './useRampGrip'
import { useRampPoints } from './useRampPoints'
import { PAD, useRampScale, type RampView } from './useRampScale'

const props = defineProps<{ clip: PacedClip; keep: Keep; locked: boolean }>()
const emit = defineEmits<{ send: [step: Step] }>()
const project = useProject()
const { player } = useScreen()

const view = ref<RampView>('speed')
const VIEWS = [
  {
    id: 'speed',
    name: t('cut.rampGraph.speed'),
    help: t('cut.rampGraph.speedOverTime'),
    test: 'ramp-view-speed',
  },
  {
    id: 'source',
    name: t('cut.rampGraph.sourceTime'),
    help: t('cut.rampGraph.whichMomentOfTheSource'),
    test: 'ramp-view-source',
  },
] as const

const ramp = useRampPoints(props, () => frameTicks(project.rate), emitStep)
const { soft, points, chosen, point } = ramp
const svg = ref<SVGSVGElement | null>(null)
const scale = useRampScale(() => props.clip, points, soft, view, svg, goTo)
const { width, height, time, toX, y } = scale

const local = computed(() => tickOf(player.shown.value, project.rate) - startOf(props.clip))
const playhead = computed(() =>
  local.value >= 0 && local.value <= props.clip.length && scale.seen(local.value)
    ? toX(local.value)
    : null,
)
/** A tap beside the points moves the playhead there. */
function goTo(tick: number) {
  const inside = Math.min(Math.max(tick, 0), props.clip.length - 1)
  player.seek(frameOf(startOf(props.clip) + inside, project.rate))
}

/** In the source view the length stays: what is moved there is what is seen. */
const keeps = computed<Keep>(() => (view.value === 'source' ? 'length' : props.keep))
const told = computed(() => {
  const length = keeps.value === 'content' ? lengthAfter(props.clip, points.value) : null
  const after =
    keeps.value === 'content' && length === null
      ? t('cut.rampGraph.turnsRoundTheLengthStays')
      : lengthLabel(length ?? props.clip.length)
  return `${lengthLabel(props.clip.length)} → ${after}`
})

/** Points that bend are no places of their own in the source. */
const spots = computed<Spot[]>(() =>
  points.value.flatMap((one, index) =>
    scale.seen(one.at) && (view.value === 'speed' || !one.bends)
      ? [{ ...one, index, x: toX(one.at), y: y(one.at) }]
      : [],
  ),
)
const { handles, down, key } = useRampGrip(ramp, scale, view, spots, {
  locked: () => props.locked,
  trying(tried) {
    const frame = Math.max(frameOf(startOf(props.clip), project.rate), player.shown.value)
    if (tried) player.tryOut(ramp.stepOf(tried, keeps.value), frame)
    else player.tryOut(null)
  },
  set: (all) => emitStep(ramp.stepOf(all, keeps.value)),
  frame: () => frameTicks(project.rate),
})
function emitStep(step: Step) {
  player.endTrial()
  emit('send', step)
}
</script>

<template>
  <div class="tray-group ramp">
    <TrayItem :name="$t('cut.rampGraph.graph')">
      <div class="graph">
        <svg
          ref="svg"
          role="group"
          :aria-label="$t('cut.rampGraph.speedCurve')"
          data-test="ramp"
          @wheel="time.wheel"
        >
          <rect width="100%" height="100%" rx="8" class="ground" @pointerdown="time.down" />
          <g v-for="line in scale.lines.value" :key="line.speed">
            <line
              :x1="PAD"
              :x2="width - PAD"
              :y1="line.y"
              :y2="line.y"
              class="grid"
              :class="{ one: line.speed === 1 }"
            />
            <text :x="width - 2" :y="line.y + 3" class="scale">{{ line.speed }}</text>
          </g>
          <line
            v-if="playhead !== null"
            :x1="playhead"
            :x2="playhead"
            y1="0"
            :y2="height"
            class="now"
          />
          <polyline :points="scale.curve.value" class="curve" />
          <g v-for="one in spots" :key="one.index">
            <path
              class="knob"
              :class="{ chosen: one.index === chosen, bends: one.bends }"
              :d="`M${one.x} ${one.y - 8}l6 5-6 11-6-11z`"
            />
            <circle
              class="reach"
              :cx="one.x"
              :cy="one.y"
              r="16"
              tabindex="0"
              role="slider"
              :aria-label="
                $t('cut.rampGraph.speedOf', { index: one.index + 1, count: points.length })
              "
              :aria-valuenow="Number(one.speed.toFixed(2))"
              :aria-valuetext="
                $t('cut.rampGraph.timesAt', {
                  speed: one.speed.toFixed(2),
                  moment: lengthLabel(one.at),
                })
              "
              :data-test="`ramp-point-${one.index}`"
              @pointerdown.stop="down($event, { index: one.index, way: 0 })"
              @keydown="key($event, one.index)"
            />
          </g>
          <g v-for="one in handles" :key="one.way">
            <line class="arm" :x1="one.at.x" :y1="one.at.y" :x2="one.x" :y2="one.y" />
            <circle class="tip" :cx="one.x" :cy="one.y" r="4.5" />
            <circle
              class="reach"
              :cx="one.x"
              :cy="one.y"
              r="14"
              :data-test="`ramp-handle${one.way}`"
              @pointerdown.stop="down($event, { index: chosen, way: one.way })"
            />
          </g>
        </svg>
        <TimeZoom
          class="zoom"
          :time="time"
          :around="point?.at ?? (playhead === null ? undefined : local)"
        />
      </div>
    </TrayItem>
    <TrayItem
      :name="$t('cut.rampGraph.points')"
      :told="point ? `${Number(point.speed.toFixed(2))} ×` : ''"
    >
      <div class="line">
        <ChoiceGroup
          :label="$t('cut.rampGraph.view')"
          :choices="VIEWS"
          :taken="view"
          @take="view = $event"
        />
        <BButton
          variant="secondary"
          :disabled="locked"
          data-test="ramp-add"
          @click="ramp.add(local)"
          >{{ $t('cut.rampGraph.addAPoint') }}</BButton
        >
        <BButton
          variant="secondary"
          :disabled="locked || !ramp.canRemove.value"
          data-test="ramp-remove"
          @click="ramp.remove"
          >{{ $t('cut.rampGraph.removeIt') }}</BButton
        >
        <BButton
          variant="secondary"
          :disabled="locked"
          :aria-pressed="soft"
          :title="$t('cut.rampGraph.speedsEaseFromPointTo')"
          @click="emitStep(ramp.stepOf(ramp.inStep(points), keep, !soft))"
        >
          {{ soft ? $t('cut.rampGraph.soft') : $t('cut.rampGraph.straight') }}
        </BButton>
      </div>
      <RampNumbers
        v-if="point"
        :ramp="ramp"
        :view="view"
        :locked="locked"
        @set="(points, keep) => emitStep(ramp.stepOf(points, keep ?? keeps))"
      />
      <span class="small quiet" role="status">{{ told }}</span>
    </TrayItem>
    <TrayItem :name="$t('cut.rampGraph.readyRamps')">
      <div class="line">
        <BButton
          v-for="one in RAMPS"
          :key="one.id"
          variant="secondary"
          :disabled="locked"
          :data-test="`ramp-${one.id}`"
          @click="emitStep(ramp.stepOf(shapePoints(one.shape, clip.length)))"
        >
          {{ one.name }}
        </BButton>
      </div>
    </TrayItem>
  </div>
</template>

<style scoped>
.ramp {
  display: grid;
  gap: 6px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.line .btn {
  padding: 2px 10px;
}
.graph {
  position: relative;
  flex: 1;
  min-height: 0;
}
svg {
  display: block;
  width: 100%;
  height: 150px;
  touch-action: none;
}
.phone svg {
  height: 100%;
}
.zoom {
  position: absolute;
  left: 2px;
  top: 0;
}
.ground {
  fill: var(--rail);
}
.grid {
  stroke: #2e2834;
}
.grid.one {
  stroke: #5b5263;
}
.scale {
  fill: var(--quiet);
  font-size: 9px;
  text-anchor: end;
}
.now {
  stroke: var(--text);
  opacity: 0.5;
}
.curve {
  fill: none;
  stroke: #cdb8e6;
  stroke-width: 2.5;
  stroke-linejoin: round;
}
.knob {
  fill: #fff;
  stroke: #17141a;
  pointer-events: none;
}
.knob.chosen {
  fill: var(--accent);
}
.knob.bends {
  fill: #8f7ea3;
}
.arm {
  stroke: var(--accent);
  stroke-width: 1.5;
  pointer-events: none;
}
.tip {
  fill: var(--accent);
  pointer-events: none;
}
@media (pointer: coarse) {
  .reach {
    r: 22px;
  }
}
.reach {
  fill: transparent;
  cursor: grab;
}
</style>
