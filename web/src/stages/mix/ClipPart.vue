<script setup lang="ts">
/** How the clip in hand sounds, and how loud it is: brought to a peak or a loudness. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import SoundFields from '@/controls/SoundFields.vue'
import SwitchField from '@/controls/SwitchField.vue'
import type { Properties } from '@/inhand/useProperties'
import { useNotes } from '@/stores/notes'
import { useWaves } from '@/stores/waves'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import { shifted } from './shifted'
import TakesPart from './TakesPart.vue'
import { useAsking } from '@/stores/useAsking'

const props = defineProps<{ sound: Properties }>()
const notes = useNotes()
const waves = useWaves()
const { here, ask, busy } = useAsking()
const clip = computed(() => props.sound.clip.value)

const measured = ref<Schemas['ClipLoudness'] | null>(null)
watch(
  () => clip.value?.id,
  () => (measured.value = null),
)

async function measure(): Promise<Schemas['ClipLoudness'] | null> {
  const id = clip.value?.id
  if (!id) return null
  const { path, query } = here()
  measured.value = await ask(() =>
    need(
      client.GET('/api/projects/{id}/revisions/{revision}/clips/{clip}/loudness', {
        params: { path: { ...path, clip: id }, query },
      }),
    ),
  )
  return measured.value
}

/** Decibels of the highest peak, and LUFS, to which a clip is brought. */
const PEAK = -1
const SPEECH = -18

async function bring(what: 'peak' | 'whole', to: number) {
  const found = await measure()
  if (!found) return
  if (found[what] <= -70) return notes.told(t('mix.clipPart.itIsSilent'))
  const by = to - found[what]
  const gain = shifted(props.sound.prop('gain'), by, { to: true })
  props.sound.setWhole({ gain })
}
</script>

<template>
  <SoundFields>
    <TrayItem
      :name="$t('mix.clipPart.level')"
      :told="measured ? `${measured.whole.toFixed(1)} LUFS` : ''"
    >
      <div class="line level">
        <span class="name">{{ $t('mix.clipPart.level') }}</span>
        <BButton
          size="sm"
          variant="secondary"
          :disabled="busy"
          data-test="level-peak"
          @click="bring('peak', PEAK)"
        >
          {{ $t('mix.clipPart.peakTo', { to: PEAK }) }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          :disabled="busy"
          data-test="level-loud"
          @click="bring('whole', SPEECH)"
        >
          {{ $t('mix.clipPart.loudnessTo', { to: SPEECH }) }}
        </BButton>
        <span class="tiny quiet" role="status">
          <template v-if="busy">{{ $t('mix.loudness.listening') }}</template>
          <template v-else-if="measured">
            {{
              $t('mix.clipPart.measured', {
                whole: measured.whole.toFixed(1),
                peak: measured.peak.toFixed(1),
              })
            }}
          </template>
        </span>
      </div>
    </TrayItem>
    <TakesPart :name="clip?.name ?? ''" />
    <TrayItem
      :name="$t('mix.clipPart.waves')"
      :told="
        waves.look.decibels
          ? $t('mix.clipPart.decibels')
          : waves.look.apart
            ? $t('mix.clipPart.apart')
            : ''
      "
    >
      <div class="line level">
        <span class="name">{{ $t('mix.clipPart.waves') }}</span>
        <SwitchField v-model:on="waves.look.apart" data-test="waves-apart">
          {{ $t('mix.clipPart.apart') }}
        </SwitchField>
        <SwitchField v-model:on="waves.look.decibels" data-test="waves-decibels">
          {{ $t('mix.clipPart.decibels') }}
        </SwitchField>
      </div>
    </TrayItem>
  </SoundFields>
</template>

<style scoped>
.level {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 6px 0;
}
.name {
  min-width: 84px;
  color: var(--soft);
}
</style>
