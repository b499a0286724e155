<script setup lang="ts">
/** Clips that share the canvas in cells. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import { isPictured, type Cell, type PicturedClip, type Step } from '@/api/types'
import ValueField from '@/controls/ValueField.vue'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { rowAndColumn } from '@/picture/cells'
import { t } from '@/texts'
import { frameOf } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { boxes, cellsOf, LAYOUTS, type Layout } from './layouts'

const project = useProject()
const hand = useHand()
const { player } = useScreen()

const pictured = computed(() => hand.found.filter(({ clip }) => isPictured(clip)))
const clip = computed(() => {
  const clips = pictured.value.map((held) => held.clip as PicturedClip)
  return clips.find((one) => one.cell) ?? clips[0]
})
const cell = computed<Cell | null>(() => clip.value?.cell ?? null)
/** In hand besides, but not in this split screen. */
const others = computed(() =>
  pictured.value.filter(({ clip }) => (clip as PicturedClip).cell?.screen !== cell.value?.screen),
)
const offered = computed(() =>
  LAYOUTS.filter(
    (one) => cellsOf(one) >= Math.max(2, members.value.length || pictured.value.length),
  ),
)

/** All clips of this split screen, by cell. */
const members = computed(() => {
  const screen = cell.value?.screen
  if (!screen) return []
  return project.tracks
    .flatMap((track) => track.clips)
    .filter((one): one is PicturedClip => isPictured(one) && one.cell?.screen === screen)
})
const spots = computed(() => {
  const now = cell.value
  if (!now) return []
  return boxes(now.rows, now.upright ?? false, now).map((box, place) => ({
    box,
    place,
    clip: members.value.find((one) => one.cell?.place === place),
  }))
})

const MEASURES = [
  { name: 'gap', label: t('cut.screenPanel.gap'), low: 0, high: 120, unit: 'px', reset: 12 },
  { name: 'margin', label: t('cut.screenPanel.margin'), low: 0, high: 200, unit: 'px', reset: 0 },
  { name: 'radius', label: t('cut.screenPanel.corners'), low: 0, high: 300, unit: 'px', reset: 0 },
  { name: 'slant', label: t('cut.screenPanel.slant'), low: -45, high: 45, unit: '°', reset: 0 },
] as const

/** The cell's width and height in percent, where it has another beside or below it. */
const shares = computed(() => {
  const [now, box] = [cell.value, spots.value[cell.value?.place ?? 0]?.box]
  if (!now || !box) return []
  const inRow = now.rows[rowAndColumn(now.rows, now.place).row] ?? 1
  const [across, down] = now.upright ? [now.rows.length, inRow] : [inRow, now.rows.length]
  const rows: { way: Way; label: string; value: number; among: number }[] = [
    { way: 'across', label: t('words.width'), value: box.width * 100, among: across },
    { way: 'down', label: t('words.height'), value: box.height * 100, among: down },
  ]
  return rows.filter(({ among }) => among > 1)
})
type Way = 'across' | 'down'
const sizeStep = (way: Way, percent: number): Step => ({
  kind: 'size_cell',
  screen: cell.value?.screen ?? '',
  place: cell.value?.place ?? 0,
  way,
  percent,
})
function size(way: Way, percent: number) {
  player.endTrial()
  project.edit(sizeStep(way, percent))
}

function step(values: Record<string, unknown>): Step {
  return { kind: 'set_screen', screen: cell.value?.screen ?? '', ...values }
}

function set(values: Record<string, unknown>) {
  player.endTrial()
  project.edit(step(values))
}

function choose(one: Layout) {
  if (cell.value) set({ rows: one.rows, upright: one.upright })
  else {
    const clips = pictured.value.map((held) => held.clip.id ?? '')
    const begin = Math.min(...pictured.value.map((held) => held.clip.start ?? 0))
    const step = { kind: 'split_screen', clips, rows: one.rows, upright: one.upright } as const
    project.edit(step).then((done) => done && player.seek(frameOf(begin, project.rate)))
  }
}

function join() {
  const clips = others.value.map((held) => held.clip.id ?? '')
  project.edit({ kind: 'join_screen', screen: cell.value?.screen ?? '', clips })
}

function press(spot: { place: number; clip?: PicturedClip }) {
  const id = clip.value?.id
  if (!id || cell.value?.place === spot.place) return
  project.edit({ kind: 'to_cell', clip: id, place: spot.place })
}
</script>

<template>
  <div class="screen tray-group">
    <div v-if="!clip" class="empty">
      <strong>{{ $t('cut.screenPanel.splitScreen') }}</strong>
      <span>{{ $t('cut.screenPanel.takeFromTwoToNine') }}</span>
    </div>
    <template v-else>
      <TrayItem :name="$t('cut.screenPanel.layout')">
        <p v-if="!cell && pictured.length < 2" class="small quiet mb-0">
          {{ $t('cut.screenPanel.takeMoreClipsInHand') }}
        </p>
        <div class="layouts" role="group" :aria-label="$t('cut.screenPanel.layouts')">
          <button
            v-for="one in offered"
            :key="one.id"
            type="button"
            :title="one.name"
            :aria-label="one.name"
            :aria-pressed="
              cell !== null &&
              cell.rows.join('-') === one.rows.join('-') &&
              (cell.upright ?? false) === one.upright
            "
            :disabled="!cell && pictured.length < 2"
            :data-test="`layout-${one.id}`"
            @click="choose(one)"
          >
            <svg viewBox="0 0 27 36" aria-hidden="true">
              <rect
                v-for="(box, index) in boxes(one.rows, one.upright)"
                :key="index"
                :x="1.5 + box.x * 24"
                :y="1.5 + box.y * 33"
                :width="box.width * 24 - 1"
                :height="box.height * 33 - 1"
                rx="2"
              />
            </svg>
          </button>
        </div>
      </TrayItem>
      <template v-if="cell">
        <ValueField
          v-for="one in MEASURES"
          :key="one.name"
          :label="one.label"
          :value="Number(cell[one.name] ?? one.reset)"
          :low="one.low"
          :high="one.high"
          :step="1"
          :unit="one.unit"
          :reset="one.reset"
          @trying="player.tryOut(step({ [one.name]: $event }))"
          @set="set({ [one.name]: $event })"
        />
        <ValueField
          v-for="one in shares"
          :key="one.way"
          :label="one.label"
          :value="Number(one.value.toFixed(2))"
          :low="5"
          :high="95"
          :step="1"
          :digits="1"
          unit="%"
          :reset="100 / one.among"
          @trying="player.tryOut(sizeStep(one.way, $event))"
          @set="size(one.way, $event)"
        />
        <TrayItem v-if="others.length" :name="$t('cut.screenPanel.join')">
          <BButton variant="primary" data-test="join-screen" @click="join">
            {{ $t('cut.screenPanel.putIntoIt', others.length) }}
          </BButton>
        </TrayItem>
        <TrayItem :name="$t('cut.screenPanel.cells')">
          <p class="small quiet mb-0">{{ $t('cut.screenPanel.tapAnotherCellTheTwo') }}</p>
          <div class="cells">
            <button
              v-for="spot in spots"
              :key="spot.place"
              type="button"
              class="cell clip-text"
              :class="{ mine: spot.place === cell.place }"
              :style="{
                left: `${spot.box.x * 100}%`,
                top: `${spot.box.y * 100}%`,
                width: `calc(${spot.box.width * 100}% - 4px)`,
                height: `calc(${spot.box.height * 100}% - 4px)`,
              }"
              :data-test="`cell-${spot.place}`"
              @click="press(spot)"
            >
              {{ spot.clip?.name || $t('cut.screenPanel.empty') }}
            </button>
          </div>
          <BButton
            variant="secondary"
            @click="
              project.edit({ kind: 'leave_screen', clips: members.map((one) => one.id ?? '') })
            "
          >
            {{ $t('cut.screenPanel.endTheSplitScreen') }}
          </BButton>
        </TrayItem>
      </template>
    </template>
  </div>
</template>

<style scoped>
.screen {
  display: grid;
  gap: 8px;
}
.layouts {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.layouts button {
  width: 40px;
  height: 48px;
  padding: 4px;
  border: 2px solid transparent;
  border-radius: var(--fold);
  background: var(--raised);
}
.layouts button[aria-pressed='true'] {
  border-color: var(--accent);
}
.layouts button:disabled {
  opacity: 0.45;
}
rect {
  fill: #cdc4d6;
}
.cells {
  position: relative;
  height: 150px;
}
.cell {
  position: absolute;
  border: 0;
  border-radius: var(--fold);
  background: var(--raised);
  color: var(--soft);
  font-size: 12px;
  font-weight: 600;
}
.cell.mine {
  outline: 2px solid var(--accent);
  color: var(--text);
}
</style>
