<script setup lang="ts">
/** The layers that go along with what is tracked: taken on and let go by a tap. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import { KIND_NAMES } from '@/api/kinds'
import { isPictured, type VideoClip } from '@/api/types'
import ToolLine from '@/controls/ToolLine.vue'
import type { Layer } from '@/inhand/useLayer'
import { useScreen } from '@/player/inject'
import { endOf, startOf, useProject } from '@/stores/project'
import { tickOf } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import type { Tracker } from '@/picture/useTracked'

const props = defineProps<{ layer: Layer; clip: VideoClip; tracker: Tracker }>()
const project = useProject()
const { player } = useScreen()
const at = computed(() => tickOf(player.shown.value, project.rate))

/** Layers that are there at the playhead, and those that follow already. */
const layers = computed(() =>
  project.tracks.flatMap((track) =>
    track.kind === 'sound'
      ? []
      : track.clips.flatMap((one) => {
          if (!isPictured(one) || one.id === props.clip.id) return []
          const follow = one.moves?.follow
          const follows = follow?.clip === props.clip.id && follow?.tracker === props.tracker.id
          const here = startOf(one) <= at.value && at.value < endOf(one)
          if (!here && !follows) return []
          const name = one.name || KIND_NAMES[one.kind]
          return [{ id: one.id ?? '', name, follows, locked: track.locked }]
        }),
  ),
)

const tap = (id: string, follows: boolean) =>
  project.edit({
    kind: 'follow',
    clips: [id],
    leader: follows ? null : (props.clip.id ?? ''),
    tracker: follows ? null : (props.tracker.id ?? ''),
    inherits: ['position', 'turn', 'size'],
    at: at.value,
  })
</script>

<template>
  <TrayItem
    :name="$t('layer.followersPart.goAlong')"
    :told="String(layers.filter(({ follows }) => follows).length)"
  >
    <ToolLine :name="$t('layer.followersPart.goAlong')" :label="$t('layer.followersPart.goAlong')">
      <BButton
        v-for="one in layers"
        :key="one.id"
        size="sm"
        variant="secondary"
        :aria-pressed="one.follows"
        :disabled="one.locked"
        :title="$t('layer.followersPart.help')"
        data-test="goes-along"
        @click="tap(one.id, one.follows)"
      >
        {{ one.name }}
      </BButton>
      <span v-if="!layers.length" class="tiny quiet">{{ $t('layer.followersPart.none') }}</span>
    </ToolLine>
  </TrayItem>
</template>
