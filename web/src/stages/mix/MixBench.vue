<script setup lang="ts">
/** Mix: the strips of tracks and film, and what is done to the sound of one of them, or of a clip. */
import { computed, onBeforeUnmount, watch } from 'vue'
import { isSounding } from '@/api/types'
import BenchPair from '@/controls/BenchPair.vue'
import { useHand } from '@/stores/hand'
import { useKit } from '@/stores/kit'
import { CLIP, FILM, useMixing, type MixPart } from '@/stores/mixing'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import BeatsPart from './BeatsPart.vue'
import ChainPart from './ChainPart.vue'
import ClipPart from './ClipPart.vue'
import LoudnessPart from './LoudnessPart.vue'
import PausesPart from './PausesPart.vue'
import StripPart from './StripPart.vue'
import StripRow from './StripRow.vue'
import UnderPart from './UnderPart.vue'
import { useClipChain } from './useClipChain'
import { useLoudness } from './useLoudness'
import { useStrip } from './useStrip'

const kit = useKit()
const notes = useNotes()
const hand = useHand()
const mixing = useMixing()
const project = useProject()
const clip = useClipChain()
const strip = useStrip(() => mixing.owner)
// Measured from the first on, so that it is there when its part is opened.
useLoudness()

mixing.open = true
onBeforeUnmount(() => (mixing.open = false))
kit.open().catch((error: unknown) => notes.problem(error))

const OF_A_CLIP: MixPart[] = ['clip', 'chain', 'pauses', 'beats']
const held = computed(() => hand.found.find((one) => isSounding(one.clip))?.clip ?? null)

// What is taken in hand on the timeline is what one works on; a strip is taken by its name.
watch(
  () => held.value?.id,
  (id) => {
    if (id) {
      mixing.owner = CLIP
      if (!OF_A_CLIP.includes(mixing.part)) mixing.part = 'clip'
    } else if (mixing.owner === CLIP) {
      mixing.owner = FILM
      mixing.part = 'loudness'
    }
  },
  { immediate: true },
)
// A track that is gone leaves the film.
watch(
  () => [mixing.owner, project.tracks] as const,
  ([owner, tracks]) => {
    if (owner === CLIP || owner === FILM || tracks.some((track) => track.id === owner)) return
    mixing.owner = FILM
    mixing.part = 'loudness'
  },
)

const NAMES: Record<MixPart, string> = {
  clip: t('mix.mixBench.clip'),
  strip: t('mix.mixBench.strip'),
  chain: t('mix.chainPart.chain'),
  under: t('mix.underPart.under'),
  pauses: t('mix.pausesPart.pauses'),
  beats: t('mix.beatsPart.beats'),
  loudness: t('mix.loudness.loudness'),
}
const offered = computed<MixPart[]>(() => {
  if (mixing.owner === CLIP) return OF_A_CLIP
  return mixing.owner === FILM ? ['loudness', 'strip', 'chain'] : ['strip', 'chain', 'under']
})
const parts = computed(() =>
  offered.value.map((id) => ({ id, name: NAMES[id], test: `mix-part-${id}` })),
)
const part = computed<MixPart>(() =>
  offered.value.includes(mixing.part) ? mixing.part : (offered.value[0] ?? 'loudness'),
)
const whose = computed(() => {
  if (mixing.owner === CLIP) return held.value?.name || t('mix.mixBench.theClip')
  return mixing.owner === FILM ? t('mix.stripRow.film') : (strip.track.value?.name ?? '')
})
</script>

<template>
  <BenchPair
    :label="$t('mix.mixBench.soundOf', { whose })"
    :left="$t('mix.stripRow.strips')"
    left-first
    :parts="parts"
    :part="part"
    filled
    @take="mixing.part = $event"
  >
    <template #left><StripRow /></template>
    <template #tools>
      <span class="tiny whose" data-test="mix-whose">{{
        $t('mix.mixBench.soundOf', { whose })
      }}</span>
      <span class="grow" />
    </template>
    <ClipPart v-if="part === 'clip'" :sound="clip.sound" />
    <ChainPart
      v-else-if="part === 'chain'"
      :key="mixing.owner"
      :chain="mixing.owner === CLIP ? clip.chain : strip.chain"
      :whose="whose"
    />
    <BeatsPart v-else-if="part === 'beats'" :sound="clip.sound" />
    <PausesPart v-else-if="part === 'pauses'" :sound="clip.sound" />
    <UnderPart v-else-if="part === 'under'" :of="mixing.owner" />
    <LoudnessPart v-else-if="part === 'loudness'" />
    <StripPart v-else :of="mixing.owner" />
  </BenchPair>
</template>

<style scoped>
.whose {
  color: var(--soft);
  font-weight: 600;
  padding-left: 6px;
}
</style>
