<script setup lang="ts">
/** A whole clip held steady by what is followed in it. */
import { computed } from 'vue'
import type { VideoClip } from '@/api/types'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import SwitchField from '@/controls/SwitchField.vue'
import type { Layer } from '@/inhand/useLayer'
import type { Tracker } from '@/picture/useTracked'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'

const props = defineProps<{ layer: Layer; clip: VideoClip; tracker: Tracker; tick: number }>()
const steady = computed(() => props.clip.steady ?? null)
const holds = computed(() => steady.value?.tracker === props.tracker.id)

const TAKES = [
  { id: 'place', name: t('layer.steadyPart.place'), takes: ['position'] },
  { id: 'turn', name: t('layer.steadyPart.turn'), takes: ['position', 'turn'] },
  { id: 'all', name: t('layer.steadyPart.all'), takes: ['position', 'turn', 'size'] },
] as const
const taken = computed(
  () => TAKES.find(({ takes }) => takes.length === steady.value?.takes?.length)?.id ?? 'all',
)

const closer = computed(() => steady.value?.closer !== false)

/** It stands as it is at the playhead. */
const hold = (on: boolean) =>
  props.layer.setWhole({ steady: on ? { tracker: props.tracker.id, since: props.tick } : null })
const set = (values: object) => props.layer.setWhole({ steady: { ...steady.value, ...values } })
</script>

<template>
  <TrayItem
    :name="$t('layer.steadyPart.steady')"
    :told="holds ? $t('words.isOn') : $t('words.isOff')"
  >
    <SwitchField :on="holds" data-test="steady" @update:on="hold">
      {{ $t('layer.steadyPart.hold') }}
    </SwitchField>
    <p class="tiny quiet mb-0">{{ $t('layer.steadyPart.help') }}</p>
  </TrayItem>
  <template v-if="holds">
    <ChoiceRow
      :name="$t('layer.steadyPart.what')"
      :choices="TAKES"
      :taken="taken"
      @take="set({ takes: TAKES.find(({ id }) => id === $event)?.takes })"
    />
    <TrayItem
      :name="$t('layer.steadyPart.closer')"
      :told="closer ? $t('words.isOn') : $t('words.isOff')"
    >
      <SwitchField :on="closer" data-test="steady-closer" @update:on="set({ closer: $event })">
        {{ $t('layer.steadyPart.closerHelp') }}
      </SwitchField>
    </TrayItem>
  </template>
</template>
