<script setup lang="ts">
/** Move: where the layer in hand is, and how that changes over time. */
import { computed, onBeforeUnmount, watch } from 'vue'
import IconBefore from '~icons/tabler/chevron-left'
import IconNext from '~icons/tabler/chevron-right'
import type { Clip } from '@/api/types'
import BenchPair from '@/controls/BenchPair.vue'
import SoundFields from '@/controls/SoundFields.vue'
import { useScreen } from '@/player/inject'
import { useLayer } from '@/inhand/useLayer'
import { useProperties } from '@/inhand/useProperties'
import { useKit } from '@/stores/kit'
import { useMoving } from '@/stores/moving'
import { useNotes } from '@/stores/notes'
import { t } from '@/texts'
import KeysPart from './KeysPart.vue'
import MouthPart from './MouthPart.vue'
import MoveTools from './MoveTools.vue'
import PathPart from './PathPart.vue'
import PlacePanel from './PlacePanel.vue'
import ReadyPart from './ReadyPart.vue'
import WarpPart from './WarpPart.vue'

const kit = useKit()
const notes = useNotes()
const moving = useMoving()
const layer = useLayer()
/** Of whatever is in hand: a sound has keys, though no place. */
const held = useProperties((clip): clip is Clip => Boolean(clip))
const heard = computed(() => !layer.clip.value && Boolean(held.clip.value))
const { player } = useScreen()

kit.open().catch((error: unknown) => notes.problem(error))

const ALL = [
  { id: 'keys', name: t('move.moveBench.keys'), test: 'move-part-keys' },
  { id: 'ready', name: t('move.moveBench.inAndOut'), test: 'move-part-ready' },
  { id: 'warp', name: t('move.moveBench.warp'), test: 'move-part-warp' },
  { id: 'path', name: t('move.moveBench.path'), test: 'move-part-path' },
  { id: 'mouth', name: t('move.moveBench.mouth'), test: 'move-part-mouth' },
] as const
const parts = computed(() => (heard.value ? ALL.slice(0, 1) : ALL))
const part = computed(() => (heard.value ? 'keys' : moving.part))

const skinOf = computed(() => (moving.onion ? (layer.clip.value?.id ?? '') : ''))
watch(skinOf, (onion) => player.ask(onion ? { onion } : {}), { immediate: true })
watch(
  () => moving.asked,
  (asked) => {
    if (!held.clip.value || !asked) return
    if (asked.what !== 'key') held.jump(asked.what === 'next' ? 1 : -1)
    else if (!held.locked.value) held.toggleKey(heard.value ? 'gain' : moving.path, 0)
  },
)
watch([() => held.clip.value?.id, () => moving.part], () => moving.leave())
onBeforeUnmount(() => {
  moving.leave()
  player.ask({})
})
</script>

<template>
  <BenchPair
    :label="$t('move.moveBench.howItMoves')"
    :left="heard ? $t('move.moveBench.sound') : $t('move.moveBench.place')"
    narrow
    :parts="parts"
    :part="part"
    :filled="Boolean(held.clip.value)"
    @take="moving.part = $event"
  >
    <template #left>
      <SoundFields v-if="heard" />
      <PlacePanel v-else :layer="layer" />
    </template>
    <template #tools>
      <button
        class="btn btn-bare"
        :disabled="!held.hasKeys.value"
        data-test="key-before"
        @click="held.jump(-1)"
      >
        <IconBefore aria-hidden="true" /> {{ $t('move.moveBench.key') }}
      </button>
      <button
        class="btn btn-bare"
        :disabled="!held.hasKeys.value"
        data-test="key-next"
        @click="held.jump(1)"
      >
        {{ $t('move.moveBench.key') }} <IconNext aria-hidden="true" />
      </button>
      <span v-if="!held.over.value" class="tiny quiet">{{
        $t('move.moveBench.notAtThePlayhead')
      }}</span>
      <span class="grow" />
      <MoveTools />
    </template>
    <KeysPart v-if="part === 'keys'" :layer="held" />
    <ReadyPart v-else-if="part === 'ready'" :layer="layer" />
    <WarpPart v-else-if="part === 'warp'" :layer="layer" />
    <PathPart v-else-if="part === 'path'" :layer="layer" />
    <MouthPart v-else :layer="layer" />
    <template #empty>
      <strong>{{ $t('words.nothingInHand') }}</strong>
      <span>
        {{ $t('move.moveBench.tapALayerOnThe') }}
      </span>
    </template>
  </BenchPair>
</template>
