<script setup lang="ts">
/** Whether a mask goes along with something that is followed in its video. */
import { computed } from 'vue'
import type { MaskOwner } from '@/inhand/maskOwner'
import { goneAlong } from '@/motion/along'
import { valueAt } from '@/motion/keys'
import ChoiceSelect from '@/controls/ChoiceSelect.vue'
import ToolLine from '@/controls/ToolLine.vue'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import { useAlong } from './useAlong'
import { leadersOf } from './useTracked'

const props = defineProps<{ owner: MaskOwner }>()
const { clip, trackers, tick, alongOfPart } = useAlong()
const mask = computed(() => props.owner.masks.value[props.owner.taken.value] ?? null)
const none = computed(() =>
  trackers.value.length ? t('picture.maskAlong.stays') : t('picture.maskAlong.none'),
)
const told = computed(() => trackers.value.find(({ id }) => id === mask.value?.tracker)?.name)

/** It stays where it is at the playhead, with whatever it goes along from now on. */
function go(tracker: string) {
  const now = mask.value
  if (!now) return
  const values: Record<string, unknown> = { tracker: tracker || null, since: tick.value }
  const along = alongOfPart(now)
  const still = typeof now.turn === 'number' && Array.isArray(now.centre)
  if (along && still && now.kind !== 'path' && now.kind !== 'brush') {
    const at = <T,>(value: unknown) => valueAt(value, props.owner.local.value) as T
    const kept = { centre: at<[number, number]>(now.centre), turn: at<number>(now.turn) }
    Object.assign(values, goneAlong(kept, along))
  }
  props.owner.send(props.owner.step(values, props.owner.taken.value))
}
</script>

<template>
  <TrayItem v-if="clip && mask" :name="$t('picture.maskAlong.goesAlong')" :told="told">
    <ToolLine :name="$t('picture.maskAlong.goesAlong')">
      <ChoiceSelect
        :label="$t('picture.maskAlong.goesAlong')"
        :choices="leadersOf(trackers, none)"
        :taken="mask.tracker ?? ''"
        :disabled="!trackers.length"
        data-test="mask-along"
        @take="go($event)"
      />
    </ToolLine>
  </TrayItem>
</template>
