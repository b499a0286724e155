<script setup lang="ts">
/** What is to be followed, before it is: laid over, or told by spots; or where it is put right. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ToolLine from '@/controls/ToolLine.vue'
import { useTracking, type Change } from '@/stores/tracking'
import { t } from '@/texts'
import { LEAST_LEANING, LEAST_SPOTS, MOST_SPOTS, type Following } from './useFollowing'

const props = defineProps<{ following: Following }>()
const store = useTracking()
const way = props.following.way

const WAYS = [
  { id: 'both', name: t('layer.followPart.both') },
  { id: 'on', name: t('layer.followPart.onwards'), test: 'follow-on' },
  { id: 'back', name: t('layer.followPart.back'), test: 'follow-back' },
] as const
/** Heights of the picture from one spot that is added by the button to the next. */
const BESIDE = 0.06
/** What four spots or more may tell. */
const TELLS: { id: Change; name: string; test: string }[] = [
  { id: 'turns', name: t('layer.followPart.tellsTurns'), test: 'spots-turn' },
  { id: 'leans', name: t('layer.followPart.tellsLeans'), test: 'spots-lean' },
]
const fresh = computed(() => store.draft?.of === '')
const spots = computed(() => store.draft?.spots)
const toDo = computed(() => {
  if (!fresh.value) return t('layer.followPart.putRightHelp')
  return spots.value ? t('layer.followPart.tapPoints') : t('layer.followPart.layItOver')
})
</script>

<template>
  <ToolLine>
    <span class="tiny">{{ toDo }}</span>
    <BButton
      variant="primary"
      data-test="follow-it"
      :disabled="spots && spots.length < LEAST_SPOTS"
      @click="fresh ? following.follow() : following.putRight()"
    >
      {{ fresh ? $t('layer.followPart.followIt') : $t('layer.followPart.putRight') }}
    </BButton>
    <BButton variant="secondary" @click="store.draft = null">{{ $t('words.cancel') }}</BButton>
  </ToolLine>
  <ToolLine v-if="fresh">
    <template v-if="spots">
      <BButton
        size="sm"
        variant="secondary"
        :disabled="!spots.length"
        data-test="last-spot-back"
        @click="following.laySpots(spots.slice(0, -1))"
      >
        {{ $t('layer.followPart.lastBack') }}
      </BButton>
      <BButton
        size="sm"
        variant="secondary"
        :disabled="spots.length >= MOST_SPOTS"
        data-test="add-spot"
        @click="following.laySpots([...spots, [BESIDE * spots.length, 0]])"
      >
        {{ $t('layer.followPart.addPoint') }}
      </BButton>
      <ChoiceGroup
        v-if="spots.length >= LEAST_LEANING"
        :label="$t('layer.followPart.tells')"
        :choices="TELLS"
        :taken="store.draft?.change ?? 'turns'"
        @take="following.laySpots(spots, $event)"
      />
    </template>
    <ChoiceGroup
      :label="$t('layer.followPart.way')"
      :choices="WAYS"
      :taken="way"
      @take="way = $event"
    />
  </ToolLine>
</template>
