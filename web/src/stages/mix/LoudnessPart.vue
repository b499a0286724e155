<script setup lang="ts">
/** The loudness of the film: over time, as a whole, and as it is meant to be. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { FilmStrip, Step } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ControlFields from '@/controls/ControlFields.vue'
import { useKit } from '@/stores/kit'
import { FILM, useMixing } from '@/stores/mixing'
import { useNotes } from '@/stores/notes'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import { gainLabel } from '@/controls/faders'
import LoudnessLine from './LoudnessLine.vue'
import { shifted } from './shifted'
import { useLoudness } from './useLoudness'
import { useStrip } from './useStrip'

const kit = useKit()
const mixing = useMixing()
const notes = useNotes()
const strip = useStrip(FILM)
const { found, done, measuring, tried } = useLoudness()

/** Units, the same in every language. */
const [LUFS, DBTP, LU] = ['LUFS', 'dBTP', 'LU']

const film = computed(() => strip.strip.value as FilmStrip | null)
const purposes = computed(() => [
  ...(kit.sound?.purposes ?? []).map(({ name, title }) => ({
    id: name,
    name: title,
    test: `purpose-${name}`,
  })),
  { id: 'own', name: t('mix.loudness.own') },
])
const purpose = computed(() => film.value?.purpose ?? '')
const target = computed(() => film.value?.target ?? -16)
const WINDOWS = [
  { id: 'momentary', name: t('mix.loudness.momentary'), help: t('mix.loudness.of400ms') },
  { id: 'short', name: t('mix.loudness.short'), help: t('mix.loudness.of3s') },
] as const
const told = (value: number | undefined) =>
  value === undefined || value <= -70 ? '–' : value.toFixed(1).replace('-', '−')

function choose(name: string) {
  const one = kit.sound?.purposes.find((known) => known.name === name)
  strip.setWhole({ purpose: name, ...(one && { target: one.target, ceiling: one.ceiling }) })
}

/** LU within which it is as it should be, and how often its gain is tried. */
const NEAR = 0.1
const TRIES = 6
const working = ref(false)

/** The gain, and how loud it is then, with which the film comes as near to its target as it can. */
async function fitting(): Promise<{ gain: unknown; loudness: number; peak: number } | null> {
  const ceiling = film.value?.ceiling ?? 0
  let gain: unknown = film.value?.gain ?? 0
  for (let tries = 0; tries < TRIES; tries += 1) {
    const step = { kind: 'set_strip', track: null, values: { gain, ceiling } } as Step
    const now = await tried([step])
    if (!now || now.whole <= -70) return null
    const off = target.value - now.whole
    if (Math.abs(off) <= NEAR || tries === TRIES - 1) {
      return { gain, loudness: now.whole, peak: now.peak }
    }
    gain = shifted(gain, off)
  }
  return null
}

async function makeItSo() {
  working.value = true
  try {
    const best = await fitting()
    if (!best) return notes.told(t('mix.loudness.nothingHeard'))
    await strip.setWhole({ gain: best.gain })
    const gain = typeof best.gain === 'number' ? gainLabel(best.gain) : ''
    const told = { gain, whole: best.loudness.toFixed(1), peak: best.peak.toFixed(1) }
    const near = Math.abs(target.value - best.loudness) <= 0.3
    const say = near ? t('mix.loudness.isSo', told) : t('mix.loudness.asNearAsItCan', told)
    notes.told(say)
  } catch (error) {
    notes.problem(error)
  } finally {
    working.value = false
  }
}
</script>

<template>
  <fieldset class="loudness">
    <TrayItem :name="$t('mix.loudness.loudness')" :told="found ? told(found.whole) : ''">
      <div class="head line">
        <dl class="numbers" data-test="loudness-numbers">
          <div class="main">
            <dt>{{ $t('mix.loudness.whole') }}</dt>
            <dd data-test="loudness-whole">
              {{ told(found?.whole) }} <small>{{ LUFS }}</small>
            </dd>
          </div>
          <div>
            <dt>{{ $t('mix.loudness.peak') }}</dt>
            <dd>
              {{ told(found?.peak) }} <small>{{ DBTP }}</small>
            </dd>
          </div>
          <div>
            <dt>{{ $t('mix.loudness.spread') }}</dt>
            <dd>
              {{ found ? found.spread.toFixed(1) : '–' }} <small>{{ LU }}</small>
            </dd>
          </div>
        </dl>
        <ChoiceGroup
          :label="$t('mix.loudness.overTime')"
          :choices="WINDOWS"
          :taken="mixing.line"
          @take="mixing.line = $event"
        />
      </div>
      <LoudnessLine :values="found ? found[mixing.line] : []" :target="purpose ? target : null" />
      <div class="progress-line" role="status">
        <span v-if="measuring" class="tiny quiet">
          {{ $t('mix.loudness.measuring', { share: Math.round(done * 100) }) }}
        </span>
      </div>
    </TrayItem>
    <TrayItem :name="$t('mix.loudness.shownWhere')" :told="purpose ? `${told(target)} LUFS` : ''">
      <div class="line aim">
        <span class="name">{{ $t('mix.loudness.shownWhere') }}</span>
        <ChoiceGroup
          :label="$t('mix.loudness.shownWhere')"
          :choices="purposes"
          :taken="purpose"
          @take="choose"
        />
      </div>
      <div class="line">
        <BButton
          :variant="purpose ? 'primary' : 'secondary'"
          size="sm"
          :disabled="working || !purpose"
          data-test="make-it-so"
          @click="makeItSo"
        >
          {{ working ? $t('mix.loudness.listening') : $t('mix.loudness.makeItSo') }}
        </BButton>
        <span class="tiny quiet">
          {{
            purpose
              ? $t('mix.loudness.setsGain', { target: told(target), ceiling: told(film?.ceiling) })
              : $t('mix.loudness.chooseFirst')
          }}
        </span>
      </div>
    </TrayItem>
    <ControlFields
      v-if="film"
      :controls="(kit.sound?.film ?? []).filter((one) => one.name !== 'purpose')"
      :values="film as unknown as Record<string, unknown>"
      :local="0"
      @set="strip.setWhole({ ...$event, ...('target' in $event && { purpose: 'own' }) })"
    />
  </fieldset>
</template>

<style scoped>
.loudness {
  display: grid;
  gap: 4px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  justify-content: space-between;
  gap: 6px 12px;
  padding: 4px 0 6px;
}
.numbers {
  display: flex;
  gap: 16px;
  margin: 0;
}
.numbers div {
  display: grid;
}
.phone .numbers {
  gap: 10px;
}
.phone .head :deep(.choices button) {
  padding: 4px 7px;
}
dt {
  font-size: 12px;
  font-weight: 500;
  color: var(--quiet);
}
dd {
  margin: 0;
  font-weight: 600;
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}
.main dd {
  font-size: 17px;
}
small {
  color: var(--quiet);
  font-size: 12px;
}
.progress-line {
  min-height: 18px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
}
.name {
  color: var(--soft);
}
</style>
