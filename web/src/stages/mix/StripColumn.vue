<script setup lang="ts">
/** One strip: whose it is, its gain and level, heard or not, alone or not. */
import { computed } from 'vue'
import IconChain from '~icons/tabler/plug-connected'
import IconUnder from '~icons/tabler/arrow-autofit-down'
import type { FilmStrip } from '@/api/types'
import { gainLabel } from '@/controls/faders'
import { usePhone } from '@/look/phone'
import { useProject } from '@/stores/project'
import GainFader from './GainFader.vue'
import StripMeter from './StripMeter.vue'
import type { Level } from './useLevels'
import { useStrip } from './useStrip'

const props = defineProps<{ of: string; name: string; taken: boolean; level: Level | undefined }>()
defineEmits<{ take: [] }>()
const project = useProject()
const { phone } = usePhone()
/** The same in every language. */
const DECIBELS = 'dB'
const strip = useStrip(() => props.of)

const gain = computed(() => strip.now('gain', 0))
const working = computed(() => strip.chain.inserts.value.filter((one) => one.on !== false).length)
const under = computed(() => {
  const found = strip.track.value?.strip?.under
  return Boolean(found?.tracks?.length)
})
const ceiling = computed(() =>
  strip.film.value ? ((strip.strip.value as FilmStrip | null)?.ceiling ?? 0) : 0,
)

function type(event: Event) {
  const field = event.target as HTMLInputElement
  const typed = Number(field.value.replace(',', '.').replace('−', '-'))
  if (field.value.trim() && Number.isFinite(typed) && typed !== gain.value) {
    strip.set('gain', Math.max(-60, Math.min(24, typed)))
  } else field.value = gainLabel(gain.value)
}

function set(change: { muted?: boolean; solo?: boolean }) {
  project.edit({ kind: 'set_track', track: props.of, ...change })
}
</script>

<template>
  <section
    class="strip"
    :class="{ taken, quiet: strip.track.value?.muted }"
    :data-test="`strip-${of}`"
  >
    <button
      class="name"
      :aria-pressed="taken"
      :title="name"
      data-test="strip-name"
      @click="$emit('take')"
    >
      <span class="clip-text">{{ name }}</span>
      <span class="signs">
        <span v-if="phone" class="told">{{ gainLabel(gain) }}</span>
        <span v-if="working" :title="$t('mix.stripColumn.inserts', working)">
          <IconChain aria-hidden="true" />{{ working }}
        </span>
        <IconUnder v-if="under" :aria-label="$t('mix.stripColumn.stepsBack')" />
      </span>
    </button>
    <div class="way">
      <GainFader
        :label="$t('mix.stripColumn.gainOf', { name })"
        :value="gain"
        :keyed="strip.keyed('gain') !== 'none'"
        @set="strip.set('gain', $event)"
      />
      <StripMeter :level="level" :ceiling="ceiling" :name="name" />
    </div>
    <label v-if="!phone" class="exact">
      <input
        :key="gain"
        inputmode="decimal"
        :aria-label="$t('mix.stripColumn.exactGain', { name })"
        :value="gainLabel(gain)"
        @change="type"
        @keydown.enter="($event.target as HTMLInputElement).blur()"
        @focus="($event.target as HTMLInputElement).select()"
      />
      <span class="tiny quiet">{{ DECIBELS }}</span>
    </label>
    <div v-if="strip.track.value" class="switches">
      <button
        type="button"
        class="switch"
        role="switch"
        :aria-checked="strip.track.value.muted ?? false"
        :aria-label="$t('mix.stripColumn.muteNamed', { name })"
        data-test="strip-mute"
        @click="set({ muted: !strip.track.value.muted })"
      >
        {{ $t('mix.stripColumn.mute') }}
      </button>
      <button
        type="button"
        class="switch"
        role="switch"
        :aria-checked="strip.track.value.solo ?? false"
        :aria-label="$t('mix.stripColumn.soloNamed', { name })"
        data-test="strip-solo"
        @click="set({ solo: !strip.track.value.solo })"
      >
        {{ $t('mix.stripColumn.solo') }}
      </button>
    </div>
    <div v-else class="switches"><slot /></div>
  </section>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto auto;
  justify-items: center;
  gap: 4px;
  flex: 0 0 auto;
  width: 98px;
  padding: 6px 4px;
  border-radius: var(--fold);
  background: var(--raised);
  min-height: 0;
}
.strip.taken {
  box-shadow: inset 0 0 0 2px var(--accent);
}
.strip.quiet .way {
  opacity: 0.45;
}
.name {
  display: grid;
  justify-items: center;
  width: 100%;
  min-height: 44px;
  border: 0;
  padding: 2px 0;
  background: none;
  color: var(--text);
  font-weight: 600;
  font-size: 13px;
}
.name .clip-text {
  max-width: 100%;
}
.signs {
  display: flex;
  gap: 6px;
  min-height: 16px;
  color: var(--quiet);
  font-size: 12px;
  font-weight: 500;
}
.way {
  display: flex;
  justify-content: center;
  gap: 2px;
  min-height: 0;
  height: 100%;
}
.exact {
  display: flex;
  align-items: baseline;
  justify-content: center;
  gap: 4px;
}
.exact input {
  width: 50px;
  min-height: 30px;
  border: 0;
  border-bottom: 1px dashed var(--line);
  background: none;
  color: var(--text);
  font-weight: 600;
  text-align: center;
  font-variant-numeric: tabular-nums;
}
.told {
  color: var(--text);
  font-weight: 600;
}
.phone .strip {
  grid-template-rows: auto minmax(0, 1fr) auto;
  width: 100px;
  gap: 0;
  padding: 0 4px 2px;
}
.phone .name {
  min-height: 44px;
  padding: 0;
}
.switches {
  display: flex;
  gap: 4px;
  min-height: calc(var(--touch) - 6px);
}
.switch {
  border: 0;
  min-width: 42px;
  min-height: calc(var(--touch) - 6px);
  padding: 0 3px;
  border-radius: 8px 8px 2px 8px;
  background: var(--panel);
  color: var(--soft);
  font-size: 12px;
  font-weight: 600;
}
.switch[aria-checked='true'] {
  background: #d9b8ff;
  color: #24142f;
}
@media (pointer: coarse) {
  .switch {
    min-width: 44px;
    min-height: 44px;
  }
}
</style>
