<script setup lang="ts">
import { computed } from 'vue'
import { isPictured, isSounding, TICKS_PER_SECOND, type Step } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ValueField from '@/controls/ValueField.vue'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import JoinView from './JoinView.vue'
import { frameTicks } from '@/time'

const project = useProject()
const hand = useHand()
const { player } = useScreen()

const clip = computed(() => hand.one?.clip ?? null)
const pictured = computed(() => (clip.value && isPictured(clip.value) ? clip.value : null))
const sounding = computed(() => (clip.value && isSounding(clip.value) ? clip.value : null))
const locked = computed(() => hand.one?.track.locked ?? false)
const canvas = computed(() => project.document?.canvas ?? { width: 1080, height: 1920 })
const KEYED = 'moves by keys'

function plain(value: unknown): number | null {
  return typeof value === 'number' ? value : null
}

const position = computed(() => {
  const value = pictured.value?.place.position
  return Array.isArray(value) ? value : null
})
const size = computed(() => {
  const value = pictured.value?.place.size
  return Array.isArray(value) ? value : null
})

function step(values: Record<string, unknown>): Step {
  return { kind: 'adjust', clips: [clip.value?.id ?? ''], values }
}

function set(values: Record<string, unknown>) {
  player.endTrial()
  project.edit(step(values))
}

function trying(values: Record<string, unknown>) {
  player.tryOut(step(values))
}

function sized(percent: number): Record<string, unknown> {
  const [across, down] = size.value ?? [1, 1]
  const factor = percent / 100 / (across || 1)
  return { 'place/size': [percent / 100, down * factor] }
}

const FITS = [
  { id: 'whole', name: 'Whole' },
  { id: 'fill', name: 'Fill' },
  { id: 'own', name: 'Own pixels' },
] as const

function seconds(ticks: number): number {
  return ticks / TICKS_PER_SECOND
}

function fade(which: 'fade_in' | 'fade_out', value: number) {
  const step = frameTicks(project.rate)
  const most = clip.value?.length ?? 0
  const ticks = Math.round((Math.max(0, value) * TICKS_PER_SECOND) / step) * step
  set({ [which]: Math.min(ticks, most) })
}
</script>

<template>
  <div class="cut">
    <JoinView class="panel join" />
    <section v-if="clip" class="panel values" aria-label="The clip in hand">
      <fieldset v-if="pictured" :disabled="locked">
        <div class="line">
          <h2>Place</h2>
          <ChoiceGroup
            label="Fit"
            :choices="FITS"
            :taken="pictured.place.fit"
            @take="set({ 'place/fit': $event })"
          />
        </div>
        <ValueField
          label="Across"
          :value="position?.[0] ?? 0"
          :low="-canvas.width"
          :high="canvas.width"
          :step="1"
          unit="px"
          :reset="0"
          :note="position ? '' : KEYED"
          @trying="trying({ 'place/position': [$event, position?.[1] ?? 0] })"
          @set="set({ 'place/position': [$event, position?.[1] ?? 0] })"
        />
        <ValueField
          label="Down"
          :value="position?.[1] ?? 0"
          :low="-canvas.height"
          :high="canvas.height"
          :step="1"
          unit="px"
          :reset="0"
          :note="position ? '' : KEYED"
          @trying="trying({ 'place/position': [position?.[0] ?? 0, $event] })"
          @set="set({ 'place/position': [position?.[0] ?? 0, $event] })"
        />
        <ValueField
          label="Size"
          :value="(size?.[0] ?? 1) * 100"
          :low="5"
          :high="300"
          :step="1"
          unit="%"
          :reset="100"
          :note="size ? '' : KEYED"
          @trying="trying(sized($event))"
          @set="set(sized($event))"
        />
        <ValueField
          label="Turn"
          :value="plain(pictured.place.turn) ?? 0"
          :low="-180"
          :high="180"
          :step="0.5"
          :digits="1"
          unit="°"
          :reset="0"
          :note="plain(pictured.place.turn) === null ? KEYED : ''"
          @trying="trying({ 'place/turn': $event })"
          @set="set({ 'place/turn': $event })"
        />
        <ValueField
          label="Opacity"
          :value="(plain(pictured.opacity) ?? 1) * 100"
          :low="0"
          :high="100"
          :step="1"
          unit="%"
          :reset="100"
          :note="plain(pictured.opacity) === null ? KEYED : ''"
          @trying="trying({ opacity: $event / 100 })"
          @set="set({ opacity: Math.min(1, Math.max(0, $event / 100)) })"
        />
      </fieldset>
      <fieldset v-if="sounding" :disabled="locked">
        <div class="line">
          <h2>Sound</h2>
          <span v-if="sounding.muted" class="small quiet">muted</span>
        </div>
        <ValueField
          label="Gain"
          :value="plain(sounding.gain) ?? 0"
          :low="-60"
          :high="12"
          :step="0.5"
          :digits="1"
          unit="dB"
          :reset="0"
          :note="plain(sounding.gain) === null ? KEYED : ''"
          @set="set({ gain: Math.min(24, Math.max(-60, $event)) })"
        />
        <ValueField
          label="Fade in"
          :value="seconds(sounding.fade_in)"
          :low="0"
          :high="Math.min(5, seconds(clip.length))"
          :step="0.1"
          :digits="2"
          unit="s"
          :reset="0"
          @set="fade('fade_in', $event)"
        />
        <ValueField
          label="Fade out"
          :value="seconds(sounding.fade_out)"
          :low="0"
          :high="Math.min(5, seconds(clip.length))"
          :step="0.1"
          :digits="2"
          unit="s"
          :reset="0"
          @set="fade('fade_out', $event)"
        />
      </fieldset>
    </section>
    <section v-else class="panel empty">
      <strong>{{ hand.found.length ? 'Several clips in hand' : 'Nothing in hand' }}</strong>
      <span>
        {{
          hand.found.length
            ? 'The verbs below act on all of them. Take one in hand to set its place and sound.'
            : 'Tap a clip on the timeline. Its place, opacity and sound are set here; on the picture you move it with your fingers.'
        }}
      </span>
    </section>
  </div>
</template>

<style scoped>
.cut {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
  gap: 12px;
  padding: 12px 14px;
  min-height: 0;
}
.values {
  overflow-y: auto;
  scrollbar-width: thin;
}
fieldset + fieldset {
  margin-top: 10px;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: var(--touch);
  gap: 8px;
}
.values :deep(.field) {
  min-height: 34px;
}
@media (max-width: 759px) {
  .cut {
    grid-template-columns: 1fr;
    grid-auto-rows: max-content;
    overflow-y: auto;
    padding-top: 20px;
  }
  .join {
    order: 2;
    min-height: 260px;
  }
  .values {
    overflow: visible;
  }
}
</style>
