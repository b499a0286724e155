<script setup lang="ts">
/** Whether a mask goes along with something that is followed in its video. */
import { computed } from 'vue'
import type { MaskOwner } from '@/inhand/maskOwner'
import { goneAlong } from '@/motion/along'
import { valueAt } from '@/motion/keys'
import ToolLine from '@/controls/ToolLine.vue'
import TrayItem from '@/tray/TrayItem.vue'
import LeaderSelect from './LeaderSelect.vue'
import { useAlong } from './useAlong'

const props = defineProps<{ owner: MaskOwner }>()
const { clip, trackers, tick, alongOfPart } = useAlong()
const mask = computed(() => props.owner.masks.value[props.owner.taken.value] ?? null)
const told = computed(() => trackers.value.find(({ id }) => id === mask.value?.tracker)?.name)

/** It stays where it is at the playhead, with whatever it goes along from now on. */
function go(tracker: string | null) {
  const now = mask.value
  if (!now) return
  const values: Record<string, unknown> = { tracker, since: tick.value }
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
      <LeaderSelect
        :label="$t('picture.maskAlong.goesAlong')"
        :none="$t(trackers.length ? 'picture.maskAlong.stays' : 'picture.maskAlong.none')"
        :taken="mask.tracker"
        :disabled="!trackers.length"
        data-test="mask-along"
        @take="go($event)"
      />
    </ToolLine>
  </TrayItem>
</template>
