<script setup lang="ts">
/** The thing that is followed, on the picture. */
import { computed } from 'vue'
import type { VideoClip } from '@/api/types'
import SpotsSurface from '@/picture/SpotsSurface.vue'
import TrackHandles from '@/picture/TrackHandles.vue'
import { useLayering } from '@/stores/layering'
import { useTracking } from '@/stores/tracking'
import FacesCheck from './FacesCheck.vue'
import { MOST_SPOTS, useFollowing } from './useFollowing'

const props = defineProps<{ clip: VideoClip; width: number; height: number }>()
const layering = useLayering()
const store = useTracking()
const { tracker, now, tick, lay, laySpots } = useFollowing(() => props.clip)

const shown = computed(() => {
  const draft = store.draft
  if (draft && (!draft.of || draft.at === tick.value)) {
    const within = draft.of ? tracker.value?.spots : []
    return { ...draft, within, fresh: !draft.of, lost: draft.at !== tick.value }
  }
  if (!now.value || !tracker.value) return null
  const { quad, sure } = now.value
  const { change, spots } = tracker.value
  return { quad, change, fresh: false, lost: !sure, within: spots }
})
</script>

<template>
  <FacesCheck v-if="layering.check" :clip="clip" :width="width" :height="height" />
  <SpotsSurface
    v-else-if="store.draft?.spots"
    :width="width"
    :height="height"
    :spots="store.draft.spots"
    :most="MOST_SPOTS"
    @set="laySpots"
  />
  <TrackHandles
    v-else-if="shown"
    :width="width"
    :height="height"
    :quad="shown.quad"
    :change="shown.change"
    :fresh="shown.fresh"
    :lost="shown.lost"
    :within="shown.within"
    @set="lay"
  />
</template>
