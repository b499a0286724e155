<script setup lang="ts">
/** A mouth that talks: made, posed by taps or by a voice, mended. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import { isPictured } from '@/api/types'
import ToolLine from '@/controls/ToolLine.vue'
import type { Layer } from '@/inhand/useLayer'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { tickOf } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import MouthBench from './MouthBench.vue'

const props = defineProps<{ layer: Layer }>()
const hand = useHand()
const project = useProject()
const { player } = useScreen()

const mouth = computed(() =>
  props.layer.clip.value?.kind === 'mouth' ? props.layer.clip.value : null,
)
const pictures = computed(() =>
  hand.found.filter(({ clip }) => isPictured(clip)).map(({ clip }) => clip.id ?? ''),
)
const draw = () =>
  hand.bring({ kind: 'add_layer', layer: 'mouth', at: tickOf(player.frame.value, project.rate) })
const make = () => hand.bring({ kind: 'make_mouth', clips: pictures.value })
</script>

<template>
  <MouthBench v-if="mouth" :clip="mouth" :locked="layer.locked.value" />
  <fieldset v-else class="begin" :disabled="layer.locked.value">
    <TrayItem :name="$t('move.mouthPart.make')">
      <p class="mb-0">{{ $t('move.mouthPart.what') }}</p>
      <ToolLine>
        <BButton variant="primary" size="sm" data-test="draw-mouth" @click="draw">
          {{ $t('move.mouthPart.draw') }}
        </BButton>
        <BButton variant="secondary" size="sm" data-test="make-mouth" @click="make">
          {{ $t('move.mouthPart.of', { n: pictures.length }, pictures.length) }}
        </BButton>
      </ToolLine>
      <p class="tiny quiet mb-0">{{ $t('move.mouthPart.help') }}</p>
    </TrayItem>
  </fieldset>
</template>

<style scoped>
.begin {
  display: grid;
  gap: 8px;
  min-width: 0;
}
</style>
