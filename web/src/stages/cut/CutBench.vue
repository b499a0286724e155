<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { isPaced, isPictured, isSounding } from '@/api/types'
import BenchPair from '@/controls/BenchPair.vue'
import SoundFields from '@/controls/SoundFields.vue'
import { usePhone } from '@/look/phone'
import { useHand } from '@/stores/hand'
import { t } from '@/texts'
import EmptyAngles from './EmptyAngles.vue'
import JoinView from './JoinView.vue'
import LineUpPanel from './LineUpPanel.vue'
import PacePanel from './PacePanel.vue'
import PlacePanel from './PlacePanel.vue'
import ScreenPanel from './ScreenPanel.vue'
import SequencePanel from './SequencePanel.vue'
import SwitchPanel from './SwitchPanel.vue'
import SwitchView from './SwitchView.vue'
import VerbsPanel from './VerbsPanel.vue'

type Part = 'verbs' | 'switch' | 'line-up' | 'pictures' | 'pace' | 'place' | 'sound' | 'screen'

const hand = useHand()
const { phone } = usePhone()
const wanted = ref<Part>(phone.value ? 'verbs' : 'pace')

const clip = computed(() => hand.one?.clip ?? null)
const multicam = computed(() => (clip.value?.kind === 'multicam' ? clip.value : null))
const locked = computed(() => hand.one?.track.locked ?? false)
const parts = computed(() => {
  const one = clip.value
  const found: { id: Part; name: string; test: string }[] = []
  if (phone.value) found.push({ id: 'verbs', name: t('cut.cutBench.verbs'), test: 'part-verbs' })
  if (one?.kind === 'multicam') {
    // Recorders alone are not switched.
    if (one.tracks.some(({ kind }) => kind !== 'sound'))
      found.push({ id: 'switch', name: t('cut.cutBench.switch'), test: 'part-switch' })
    found.push({ id: 'line-up', name: t('cut.cutBench.lineUp'), test: 'part-line-up' })
  }
  if (one?.kind === 'sequence') {
    found.push({ id: 'pictures', name: t('cut.cutBench.pictures'), test: 'part-pictures' })
  }
  if (one && isPaced(one))
    found.push({ id: 'pace', name: t('cut.cutBench.pace'), test: 'part-pace' })
  if (one && isPictured(one))
    found.push({ id: 'place', name: t('cut.cutBench.place'), test: 'part-place' })
  if (one && isSounding(one))
    found.push({ id: 'sound', name: t('cut.cutBench.sound'), test: 'part-sound' })
  if (hand.found.some((held) => isPictured(held.clip))) {
    found.push({ id: 'screen', name: t('cut.cutBench.splitScreen'), test: 'part-screen' })
  }
  return found
})
// A multicam clip that comes in hand is there to be lined up, and once it was switched, for more.
watch(
  () => multicam.value?.id,
  (id) => {
    if (!id || wanted.value === 'line-up') return
    wanted.value = (multicam.value?.switches.length ?? 0) > 1 ? 'switch' : 'line-up'
  },
  { immediate: true },
)
/** The part that was last chosen, where the clip in hand has it. */
const part = computed(() =>
  parts.value.some((one) => one.id === wanted.value) ? wanted.value : (parts.value[0]?.id ?? null),
)
</script>

<template>
  <BenchPair
    :label="$t('cut.cutBench.whatIsInHand')"
    :left="multicam ? $t('cut.cutBench.mend') : $t('cut.cutBench.join')"
    :parts="parts"
    :part="part"
    :filled="Boolean(part)"
    @take="wanted = $event"
  >
    <template #left>
      <SwitchView v-if="multicam" class="panel" :clip="multicam" :locked="locked" />
      <JoinView v-else class="panel" />
    </template>
    <VerbsPanel v-if="part === 'verbs'" />
    <PacePanel
      v-else-if="part === 'pace' && clip && isPaced(clip)"
      :key="clip.id"
      :clip="clip"
      :locked="locked"
    />
    <EmptyAngles v-else-if="part === 'line-up' && !multicam?.tracks.length" />
    <SwitchPanel
      v-else-if="part === 'switch' && clip?.kind === 'multicam'"
      :key="clip.id"
      :clip="clip"
      :locked="locked"
    />
    <LineUpPanel
      v-else-if="part === 'line-up' && clip?.kind === 'multicam'"
      :key="clip.id"
      :clip="clip"
      :locked="locked"
    />
    <SequencePanel
      v-else-if="part === 'pictures' && clip?.kind === 'sequence'"
      :clip="clip"
      :locked="locked"
    />
    <PlacePanel
      v-else-if="part === 'place' && clip && isPictured(clip)"
      :clip="clip"
      :locked="locked"
    />
    <SoundFields v-else-if="part === 'sound' && clip && isSounding(clip)" />
    <ScreenPanel v-else />
    <template #empty>
      <strong>{{ $t('words.nothingInHand') }}</strong>
      <span>
        {{ $t('cut.cutBench.tapAClipOnThe') }}
      </span>
    </template>
  </BenchPair>
</template>
