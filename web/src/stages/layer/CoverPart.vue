<script setup lang="ts">
/** A cover over what is tracked. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { VideoClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { coverOver } from '@/motion/covers'
import type { Moment } from '@/motion/tracks'
import { frameOfMask } from '@/picture/masks'
import { usePlacing } from '@/picture/usePlacing'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { tickOf } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import type { Tracker } from '@/picture/useTracked'

const props = defineProps<{ clip: VideoClip; tracker: Tracker; now: Moment | null }>()
const project = useProject()
const { player } = useScreen()
const placing = usePlacing(player, ref(1))

const HOWS = [
  { id: 'mosaic', name: t('layer.coverPart.mosaic') },
  { id: 'soft_blur', name: t('layer.coverPart.blur') },
  { id: 'plain', name: t('layer.coverPart.plain') },
] as const
const how = ref<(typeof HOWS)[number]['id']>('mosaic')
const SHAPES = [
  { id: 'ellipse', name: t('layer.coverPart.round') },
  { id: 'rectangle', name: t('layer.coverPart.square') },
] as const
const shape = ref<(typeof SHAPES)[number]['id']>('ellipse')

/** How it lies on the canvas at the playhead. */
const lies = computed(() => {
  const [size, corners] = [placing.size.value, placing.corners.value]
  if (!size || !corners || !props.now) return null
  const frame = frameOfMask(corners, size.width / size.height, 1)
  const spots = props.now.quad.map(([x, y]) => frame.to({ x, y }))
  return coverOver(spots, placing.canvas.value, shape.value)
})

function cover() {
  if (!lies.value) return
  project.edit({
    kind: 'cover_tracked',
    clip: props.clip.id ?? '',
    tracker: props.tracker.id ?? '',
    how: how.value,
    shape: shape.value,
    at: tickOf(player.shown.value, project.rate),
    ...lies.value,
  })
}
</script>

<template>
  <TrayItem :name="$t('layer.coverPart.cover')">
    <div class="line">
      <span class="name">{{ $t('layer.coverPart.cover') }}</span>
      <ChoiceGroup
        :label="$t('layer.coverPart.how')"
        :choices="HOWS"
        :taken="how"
        @take="how = $event"
      />
      <BButton
        variant="primary"
        :disabled="!lies"
        :title="$t('layer.coverPart.help')"
        data-test="cover-it"
        @click="cover"
      >
        {{ $t('layer.coverPart.coverIt') }}
      </BButton>
    </div>
    <div class="line">
      <span class="name">{{ $t('layer.coverPart.form') }}</span>
      <ChoiceGroup
        :label="$t('layer.coverPart.form')"
        :choices="SHAPES"
        :taken="shape"
        @take="shape = $event"
      />
    </div>
  </TrayItem>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
  min-height: var(--touch);
}
.name {
  min-width: 74px;
  color: var(--soft);
}
</style>
