<script setup lang="ts">
/** What is marked on a frame of a video, found in all of them: asked for, told, where it is unsure. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { VideoClip } from '@/api/types'
import ToolLine from '@/controls/ToolLine.vue'
import type { Layer } from '@/inhand/useLayer'
import { jobText } from '@/jobs/job'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import PlaceSteps from './PlaceSteps.vue'
import { useThrough } from './useThrough'

const props = defineProps<{ layer: Layer; clip: VideoClip }>()
const { through, asked, job, stale, marked, doubts, find, cancel } = useThrough(
  props.layer,
  () => props.clip,
)

const told = computed(() => {
  if (!through.value) return t('layer.cutoutThrough.onlyHere')
  if (stale.value === 'anew') return t('layer.cutoutThrough.stale')
  if (stale.value) return t('layer.cutoutThrough.short')
  const all = doubts.value.length
  return all ? t('layer.cutoutThrough.doubts', { n: all }, all) : t('layer.cutoutThrough.found')
})

/** Places that one steps to: doubts, or, without any, the frames that are marked. */
const unsure = computed(() => !stale.value && doubts.value.length > 0)
const stops = computed(() => (unsure.value ? doubts.value : marked.value))
</script>

<template>
  <TrayItem :name="$t('layer.cutoutThrough.through')" :told="told">
    <ToolLine v-if="asked || job">
      <span class="small" role="status">{{ job ? jobText(job) : '…' }}</span>
      <BButton size="sm" variant="secondary" data-test="cut-cancel" @click="cancel">
        {{ $t('words.cancel') }}
      </BButton>
    </ToolLine>
    <ToolLine v-else :label="$t('layer.cutoutThrough.through')">
      <BButton
        size="sm"
        :variant="through && !stale ? 'secondary' : 'primary'"
        data-test="cut-through"
        :disabled="Boolean(through) && !stale"
        @click="find"
      >
        {{ through ? $t('layer.cutoutThrough.findAgain') : $t('layer.cutoutThrough.find') }}
      </BButton>
      <span class="tiny" role="status" :class="{ amiss: unsure || stale }" data-test="cut-told">
        {{ told }}
      </span>
      <PlaceSteps
        v-if="stops.length > 1 || unsure"
        :clip="clip.id ?? ''"
        :places="stops"
        :before="
          unsure ? $t('layer.cutoutThrough.doubtBefore') : $t('layer.cutoutThrough.markBefore')
        "
        :next="unsure ? $t('layer.cutoutThrough.doubtNext') : $t('layer.cutoutThrough.markNext')"
        :name="unsure ? $t('layer.cutoutThrough.unsure') : undefined"
        test="cut"
      />
    </ToolLine>
    <p v-if="unsure" class="tiny quiet mb-0">{{ $t('layer.cutoutThrough.help') }}</p>
  </TrayItem>
</template>

<style scoped>
.amiss {
  color: #f0b64a;
}
</style>
