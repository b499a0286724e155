<script setup lang="ts">
/** The angles of a multicam clip: how they lie in time, by what, how surely; nudged and checked. */
import { BButton } from 'bootstrap-vue-next'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { MulticamClip } from '@/api/types'
import AngleBadge from '@/controls/AngleBadge.vue'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import { jobText } from '@/jobs/job'
import { anglesOf } from '@/motion/angles'
import { innerTick } from '@/motion/inside'
import { useScreen } from '@/player/inject'
import { useAngles } from '@/stores/angles'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameTicks, tickOf } from '@/time'
import { TICKS_PER_SECOND } from '@/api/types'
import TrayItem from '@/tray/TrayItem.vue'
import AngleLane from './AngleLane.vue'
import AnglePart from './AnglePart.vue'
import ClapRow from './ClapRow.vue'
import ClockRow from './ClockRow.vue'
import { filesOf, linedOf, type Lined } from './files'
import { useLining, WAY_NAMES, type Way } from './useLining'

const props = defineProps<{ clip: MulticamClip; locked: boolean }>()
const project = useProject()
const store = useAngles()
const { player } = useScreen()
const { job, busy, ways, start, cancel } = useLining(() => props.clip)

/** The angle that is worked on, and the one that the others are held against. */
const taken = ref(Math.min(1, props.clip.tracks.length - 1))
const first = ref(0)
const zoom = ref<'all' | 'near' | 'close'>('all')
const ZOOMS = [
  { id: 'all', name: t('cut.lineUp.all') },
  { id: 'near', name: t('cut.lineUp.near') },
  { id: 'close', name: t('cut.lineUp.close') },
] as const
const SECONDS = { all: 0, near: 20, close: 2 }
const NUDGES = [-10, -1, 1, 10]

const angles = computed(() => anglesOf(props.clip))
const files = computed(() => filesOf(props.clip))
const found = computed(() => store.found[props.clip.scene ?? ''] ?? [])
const at = computed(() => innerTick(props.clip, tickOf(player.frame.value, project.rate)))
const span = computed(() => {
  const seconds = SECONDS[zoom.value]
  if (seconds) {
    const half = (seconds / 2) * TICKS_PER_SECOND
    return { from: at.value - half, to: at.value + half }
  }
  const ends = files.value.map((file) => file.at + file.length)
  return { from: Math.min(0, ...files.value.map((file) => file.at)), to: Math.max(1, ...ends) }
})
const rows = computed(() =>
  angles.value.map((angle) => {
    const mine = files.value.filter((file) => file.angle === angle.index)
    const lined = mine.map((file) => linedOf(file, files.value, found.value))
    return { ...angle, files: mine, lined: lined.length === 1 ? lined[0] : worst(lined) }
  }),
)
const worst = (all: (Lined | null)[]) =>
  all.reduce((one, other) => (!other || (one && one.confidence < other.confidence) ? one : other))

function sureness(lined: Lined | null | undefined): string {
  if (!lined) return ''
  if (!lined.way) return t('cut.lineUp.noMatch')
  if (lined.way === 'first') return t('cut.lineUp.stays')
  if (lined.off || lined.way === 'hand') return t('cut.lineUp.byHand')
  const percent = Math.round(lined.confidence * 100)
  return t('cut.lineUp.sure', { way: WAY_NAMES[lined.way as Way], percent })
}

const nudge = (by: number, angle = taken.value) =>
  by && project.edit({ kind: 'nudge_angle', clip: props.clip.id ?? '', angle, by })
const nudgeFrames = (frames: number) => nudge(frames * frameTicks(project.rate))
const signed = (by: number) => `${by > 0 ? '+' : '−'}${Math.abs(by)}`
/** Less than a frame, for what is heard. */
const FINE = [
  { unit: 'ms', ticks: TICKS_PER_SECOND / 1000, name: (n: string) => t('cut.lineUp.byMs', { n }) },
  {
    unit: 'sample',
    ticks: TICKS_PER_SECOND / 48_000,
    name: (n: string) => t('cut.lineUp.bySamples', { n }),
  },
]
const FINE_NUDGES = FINE.flatMap((one) => [-1, 1].map((by) => ({ ...one, by })))

const checking = computed({
  get: () => store.pair !== null,
  set: (on) => (store.pair = on ? pairOf() : null),
})
/** The angle in hand, and the one that it is held against. */
function pairOf(): [number, number] {
  const other = taken.value === first.value ? (first.value ? 0 : 1) : first.value
  return [other, taken.value]
}
watch([taken, first], () => {
  if (store.pair) store.pair = pairOf()
})
watch(
  () => props.clip.tracks.length,
  (count) => {
    taken.value = Math.min(taken.value, count - 1)
    first.value = Math.min(first.value, count - 1)
  },
)
onMounted(() => (store.bench = 'line-up'))
onBeforeUnmount(() => {
  store.bench = ''
  store.pair = null
})
</script>

<template>
  <fieldset class="lining" :disabled="locked">
    <TrayItem :name="$t('cut.lineUp.lineUp')">
      <div class="line">
        <BButton
          v-if="!busy"
          variant="primary"
          :disabled="angles.length < 2"
          data-test="line-up"
          @click="start(first)"
        >
          {{ $t('cut.lineUp.lineUp') }}
        </BButton>
        <template v-else-if="job">
          <span class="small" role="status"
            >{{ $t('cut.lineUp.listening') }} {{ jobText(job) }}</span
          >
          <BButton variant="secondary" @click="cancel">{{ $t('words.cancel') }}</BButton>
        </template>
        <BButton
          variant="secondary"
          :aria-pressed="checking"
          :disabled="angles.length < 2"
          :title="$t('cut.lineUp.checkHelp')"
          data-test="check-angles"
          @click="checking = !checking"
        >
          {{ $t('cut.lineUp.check') }}
        </BButton>
        <span v-if="checking" class="tiny quiet">{{ $t('cut.lineUp.leftAndRight') }}</span>
      </div>
    </TrayItem>
    <TrayItem :name="$t('cut.lineUp.angles')" :told="String(angles.length)">
      <ol class="rows several" :aria-label="$t('cut.lineUp.angles')">
        <li v-for="row in rows" :key="row.index" :class="{ taken: row.index === taken }">
          <button
            type="button"
            class="who"
            :aria-pressed="row.index === taken"
            :data-test="`row-${row.index}`"
            @click="taken = row.index"
          >
            <AngleBadge :index="row.index" :tag="row.tag" />
            <span class="clip-text">{{ row.name }}</span>
            <span
              v-if="row.lined"
              class="sure tiny"
              :class="{ amiss: !row.lined.way || row.lined.confidence < 0.5 }"
              :data-test="`sure-${row.index}`"
              >{{ sureness(row.lined) }}</span
            >
          </button>
          <AngleLane
            :label="$t('cut.lineUp.lane', { name: row.name })"
            :files="row.files"
            v-bind="span"
            :at="at"
            :locked="locked"
            @move="nudge($event, row.index)"
          />
        </li>
      </ol>
    </TrayItem>
    <TrayItem :name="$t('cut.lineUp.nudge')" :told="angles[taken]?.name">
      <div class="nudges" role="group" :aria-label="$t('cut.lineUp.nudge')">
        <span class="small quiet clip-text">{{ angles[taken]?.name }}</span>
        <BButton
          v-for="by in NUDGES"
          :key="by"
          variant="secondary"
          :aria-label="$t('cut.lineUp.byFrames', { n: by }, Math.abs(by))"
          :data-test="`nudge-angle${by}`"
          @click="nudgeFrames(by)"
        >
          {{ $t('cut.lineUp.frames', { n: signed(by) }) }}
        </BButton>
        <BButton
          v-for="{ unit, by, ticks, name } in FINE_NUDGES"
          :key="`${unit}${by}`"
          variant="secondary"
          :aria-label="$t('cut.lineUp.nudgeBy', { what: name(signed(by)) })"
          :data-test="`nudge-${unit}${by}`"
          @click="nudge(by * ticks)"
        >
          {{ name(signed(by)) }}
        </BButton>
      </div>
    </TrayItem>
    <ClapRow
      :clip="clip"
      :angle="taken"
      :first="first"
      :at="at"
      :names="angles.map((angle) => angle.name)"
      @nudge="nudge($event)"
    />
    <ClockRow :clip="clip" :found="found" />
    <ChoiceRow :name="$t('cut.lineUp.seen')" :choices="ZOOMS" :taken="zoom" @take="zoom = $event" />
    <AnglePart
      :clip="clip"
      :angle="taken"
      :first="first"
      :way="ways[taken] ?? 'auto'"
      @way="ways = { ...ways, [taken]: $event }"
      @first="first = $event"
      @take="taken = $event"
    />
  </fieldset>
</template>

<style scoped>
.lining {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.rows {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
  overflow-y: auto;
  scrollbar-width: thin;
}
li {
  display: grid;
  grid-template-columns: minmax(120px, 0.7fr) minmax(0, 1fr);
  gap: 6px;
  align-items: center;
  border-radius: var(--fold);
}
.taken {
  background: var(--raised);
}
.who {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 6px;
  min-height: var(--touch);
  border: 0;
  background: none;
  color: var(--text);
  text-align: start;
  min-width: 0;
}
.sure {
  flex-basis: 100%;
  color: var(--soft);
}
.sure.amiss {
  color: #e0a63a;
  font-weight: 600;
}
.nudges {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  align-items: center;
  gap: 4px;
}
.nudges > .clip-text {
  grid-column: 1 / -1;
}
.phone .nudges > .clip-text {
  display: none;
}
.nudges .btn {
  padding: 2px 7px;
  white-space: nowrap;
}
</style>
