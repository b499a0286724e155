<script setup lang="ts">
/** Whether a mask goes along with something that is followed in its video. */
import { computed } from 'vue'
import type { MaskOwner } from '@/inhand/maskOwner'
import { goneAlong } from '@/motion/along'
import { valueAt } from '@/motion/keys'
import TrayItem from '@/tray/TrayItem.vue'
import { useAlong } from './useAlong'

const props = defineProps<{ owner: MaskOwner }>()
const { clip, trackers, tick, alongOfPart } = useAlong()
const mask = computed(() => props.owner.masks.value[props.owner.taken.value] ?? null)
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
    <label class="line">
      <span class="name">{{ $t('picture.maskAlong.goesAlong') }}</span>
      <select
        class="form-select form-select-sm"
        :value="mask.tracker ?? ''"
        :disabled="!trackers.length"
        data-test="mask-along"
        @change="go(($event.target as HTMLSelectElement).value)"
      >
        <option value="">
          {{ trackers.length ? $t('picture.maskAlong.stays') : $t('picture.maskAlong.none') }}
        </option>
        <option v-for="one in trackers" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
    </label>
  </TrayItem>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 6px 12px;
  min-height: var(--touch);
}
.name {
  min-width: 74px;
  color: var(--soft);
}
.form-select {
  flex: 1;
  min-width: 0;
  min-height: var(--touch);
}
</style>
