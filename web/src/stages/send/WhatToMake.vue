<script setup lang="ts">
/** What a film is to be: its format, size and quality. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import { useExports } from '@/stores/exports'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import { sizeAt } from './sizes'
import { lengthLabel } from '@/time'

const FORMATS = [
  { id: 'mp4', name: t('send.whatToMake.mp4'), told: t('send.whatToMake.h264AacPlaysAnywhere') },
  { id: 'webm', name: t('send.whatToMake.webm'), told: t('send.whatToMake.vp9OpusOpenSlower') },
  {
    id: 'hevc10',
    name: t('send.whatToMake.mp410Bit'),
    told: t('send.whatToMake.hevcAacFineGradients'),
  },
  {
    id: 'av1',
    name: t('send.whatToMake.webm10Bit'),
    told: t('send.whatToMake.av1OpusFineAndOpen'),
  },
] as const

const emit = defineEmits<{ begun: [] }>()
const films = useExports()
const project = useProject()

type Format = (typeof FORMATS)[number]['id']
const format = ref<Format>('mp4')
const quality = ref<'small' | 'good' | 'best'>('good')
const longSide = ref(0)
const busy = ref(false)

const canvas = computed(() => project.document?.canvas ?? { width: 1080, height: 1920 })
const full = computed(() => Math.max(canvas.value.width, canvas.value.height))
const sizes = computed(() => [
  {
    id: 0,
    help: `${canvas.value.width} × ${canvas.value.height}`,
    name: t('send.whatToMake.full'),
  },
  ...[1280, 960, 640]
    .filter((side) => side < full.value)
    .map((side) => {
      const { width, height } = sizeAt(canvas.value, side)
      const help = `${width} × ${height}`
      return {
        id: side,
        help,
        name: t('send.whatToMake.lines', { min: Math.min(width, height) }),
        test: `size-${side}`,
      }
    }),
])

const QUALITIES = [
  { id: 'small', name: t('send.whatToMake.small') },
  { id: 'good', name: t('send.whatToMake.good') },
  { id: 'best', name: t('send.whatToMake.best') },
] as const

async function start() {
  busy.value = true
  await films.start({
    format: format.value,
    quality: quality.value,
    long_side: longSide.value,
    first: 0,
    last: 0,
  })
  busy.value = false
  emit('begun')
}
</script>

<template>
  <section class="panel what tray-group" :aria-label="$t('send.whatToMake.whatToMake')">
    <h2>{{ $t('send.whatToMake.whatToMake') }}</h2>
    <TrayItem
      :name="$t('send.whatToMake.format')"
      :told="FORMATS.find((one) => one.id === format)?.name"
    >
      <div class="cards" role="radiogroup" :aria-label="$t('send.whatToMake.format')">
        <button
          v-for="one in FORMATS"
          :key="one.id"
          class="choice"
          role="radio"
          :aria-checked="format === one.id"
          :data-test="`format-${one.id}`"
          @click="format = one.id"
        >
          <span class="sheet-of" :style="{ aspectRatio: `${canvas.width} / ${canvas.height}` }" />
          <span class="words">
            <strong>{{ one.name }}</strong>
            <span class="tiny quiet">{{ one.told }}</span>
          </span>
        </button>
      </div>
    </TrayItem>
    <ChoiceRow
      :name="$t('words.size')"
      :choices="sizes"
      :taken="longSide"
      @take="longSide = $event"
    />
    <ChoiceRow
      :name="$t('send.whatToMake.quality')"
      :choices="QUALITIES"
      :taken="quality"
      @take="quality = $event"
    />
    <div class="line go tray-keep">
      <div>
        <div class="fw-semibold">{{ sizes.find((one) => one.id === longSide)?.help }}</div>
        <div class="small quiet">
          {{
            project.length
              ? $t('send.whatToMake.allOfTheTimeline', { length: lengthLabel(project.length) })
              : $t('send.whatToMake.theTimelineIsEmptyPlace')
          }}
        </div>
      </div>
      <BButton
        variant="primary"
        :disabled="busy || !project.length"
        data-test="export"
        @click="start"
      >
        {{ $t('send.whatToMake.makeTheFilm') }}
      </BButton>
    </div>
  </section>
</template>

<style scoped>
.what {
  display: flex;
  flex-direction: column;
  gap: 10px;
  overflow-y: auto;
}
.cards {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.choice {
  display: flex;
  gap: 12px;
  align-items: center;
  text-align: left;
  padding: 10px 12px;
  border: 2px solid transparent;
  border-radius: 12px 12px 3px 12px;
  background: var(--raised);
  color: var(--text);
}
@media (pointer: coarse) {
  .choice {
    min-height: var(--touch);
  }
}
.choice[aria-checked='true'] {
  border-color: var(--accent);
}
.sheet-of {
  height: 40px;
  max-width: 48px;
  flex: none;
  border-radius: 4px 4px 1px 4px;
  background: linear-gradient(#e8a98a, #8f5a6c);
}
.words {
  display: grid;
}
.line {
  display: flex;
  align-items: center;
  gap: 12px;
}
.go {
  justify-content: space-between;
  margin-top: auto;
}
.phone h2 {
  display: none;
}
.phone .cards {
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
}
.phone .choice {
  flex: none;
  padding: 6px 12px;
}
</style>
