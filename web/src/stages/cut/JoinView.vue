<script setup lang="ts">
import { computed } from 'vue'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import NearRow from './NearRow.vue'
import RollRow from './RollRow.vue'
import SidePictures, { type Side } from './SidePictures.vue'
import TransitionPanel from './TransitionPanel.vue'
import { useJoins } from './useJoins'

const project = useProject()
const { player } = useScreen()
const { joins, nearest, place, previous, next } = useJoins()

const locked = computed(() => {
  const track = project.findClip(nearest.value?.after.id ?? '')?.track
  return track?.locked ?? false
})
const told = computed(() =>
  joins.value.length ? t('cut.joinView.of', { place: place.value, count: joins.value.length }) : '',
)
/** Both sides, without the transition over them. */
const sides = computed<Side[]>(() => {
  const join = nearest.value
  if (!join) return []
  const half = Math.round((join.after.transition?.length ?? 0) / 2 / frameTicks(project.rate))
  return [
    {
      frame: join.frame - 1,
      shown: join.frame - 1 - half,
      tag: t('cut.joinView.lastOf', { name: join.before.name }),
      title: t('cut.joinView.toTheLastFrame'),
    },
    {
      frame: join.frame,
      shown: join.frame + half,
      tag: t('cut.joinView.firstOf', { name: join.after.name }),
      title: t('cut.joinView.toTheFirstFrame'),
    },
  ]
})

const help = (by: number) =>
  t(
    'cut.joinView.movesTheJoin',
    { way: by < 0 ? t('words.earlier') : t('words.later') },
    Math.abs(by),
  )

async function roll(frames: number) {
  const join = nearest.value
  if (!join) return
  const by = frames * frameTicks(project.rate)
  await project.edit({ kind: 'roll', clip: join.after.id ?? '', by })
  const moved = joins.value.find((one) => one.after.id === join.after.id)
  if (moved) player.seek(moved.frame)
}
</script>

<template>
  <section class="joins tray-group" :aria-label="$t('cut.joinView.joinNearestThePlayhead')">
    <TrayItem :name="$t('cut.joinView.join')" :told="told">
      <NearRow
        :title="$t('cut.joinView.joinNearThePlayhead')"
        :told="told"
        :before-name="$t('cut.joinView.joinBefore')"
        :next-name="$t('cut.joinView.nextJoin')"
        :before="previous"
        :next="next"
      />
      <div v-if="!nearest" class="empty">
        <strong>{{ $t('cut.joinView.noJoinYet') }}</strong>
        <span>{{ $t('cut.joinView.whereTwoClipsMeetThe') }}</span>
      </div>
      <SidePictures v-else :sides="sides" />
    </TrayItem>
    <template v-if="nearest">
      <TrayItem :name="$t('cut.joinView.roll')">
        <RollRow
          :label="$t('cut.joinView.rollTheJoin')"
          :disabled="locked"
          :help="help"
          test="roll"
          @roll="roll"
        />
      </TrayItem>
      <TransitionPanel :key="nearest.after.id" :join="nearest" :locked="locked" />
    </template>
  </section>
</template>

<style scoped>
.joins {
  display: flex;
  flex-direction: column;
  gap: 8px;
  overflow-y: auto;
  scrollbar-width: thin;
}
</style>
