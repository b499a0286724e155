<script setup lang="ts">
/** The thing that is followed, on the picture. */
import { computed } from 'vue'
import type { VideoClip } from '@/api/types'
import TrackHandles from '@/picture/TrackHandles.vue'
import { useLayering } from '@/stores/layering'
import { useTracking } from '@/stores/tracking'
import FacesCheck from './FacesCheck.vue'
import { useFollowing } from './useFollowing'

const props = defineProps<{ clip: VideoClip; width: number; height: number }>()
const layering = useLayering()
const store = useTracking()
const { tracker, now, tick, lay } = useFollowing(() => props.clip)

const shown = computed(() => {
  const draft = store.draft
  if (draft && (!draft.of || draft.at === tick.value)) {
    return { ...draft, fresh: !draft.of, lost: draft.at !== tick.value }
  }
  if (!now.value || !tracker.value) return null
  const { quad, sure } = now.value
  return { quad, change: tracker.value.change, fresh: false, lost: !sure }
})
</script>

<template>
  <FacesCheck v-if="layering.check" :clip="clip" :width="width" :height="height" />
  <TrackHandles
    v-else-if="shown"
    :width="width"
    :height="height"
    :quad="shown.quad"
    :change="shown.change"
    :fresh="shown.fresh"
    :lost="shown.lost"
    @set="lay"
  />
</template>
