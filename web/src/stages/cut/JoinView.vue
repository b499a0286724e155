<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconNext from '~icons/tabler/chevron-right'
import IconBefore from '~icons/tabler/chevron-left'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import TrayItem from '@/tray/TrayItem.vue'
import TransitionPanel from './TransitionPanel.vue'
import { useJoins } from './useJoins'
import { frameTicks } from '@/time'

const project = useProject()
const { player } = useScreen()
const { joins, nearest, place, previous, next } = useJoins()

const ROLLS = [-10, -1, 1, 10]
const locked = computed(() => {
  const track = project.findClip(nearest.value?.after.id ?? '')?.track
  return track?.locked ?? false
})

/** The last picture before the join and the first after it, without the transition over them. */
function picture(frame: number): string {
  const query = new URLSearchParams({ ...project.look, long_side: '480' })
  return `${project.source.base}/frames/${frame}?${query}`
}
const sides = computed(() => {
  const join = nearest.value
  if (!join) return null
  const half = (join.after.transition?.length ?? 0) / 2 / frameTicks(project.rate)
  return { last: join.frame - 1 - Math.round(half), first: join.frame + Math.round(half) }
})

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
    <TrayItem
      :name="$t('cut.joinView.join')"
      :told="joins.length ? $t('cut.joinView.of', { place, count: joins.length }) : ''"
    >
      <div class="line">
        <h2>{{ $t('cut.joinView.joinNearThePlayhead') }}</h2>
        <span class="ways">
          <button
            class="btn btn-bare"
            :aria-label="$t('cut.joinView.joinBefore')"
            :title="$t('cut.joinView.joinBefore')"
            :disabled="!previous"
            @click="previous && player.seek(previous.frame)"
          >
            <IconBefore aria-hidden="true" />
          </button>
          <span v-if="joins.length" class="small quiet">{{
            $t('cut.joinView.of', { place, count: joins.length })
          }}</span>
          <button
            class="btn btn-bare"
            :aria-label="$t('cut.joinView.nextJoin')"
            :title="$t('cut.joinView.nextJoin')"
            :disabled="!next"
            @click="next && player.seek(next.frame)"
          >
            <IconNext aria-hidden="true" />
          </button>
        </span>
      </div>
      <div v-if="!nearest || !sides" class="empty">
        <strong>{{ $t('cut.joinView.noJoinYet') }}</strong>
        <span>{{ $t('cut.joinView.whereTwoClipsMeetThe') }}</span>
      </div>
      <div v-else class="pair">
        <button
          class="side"
          :title="$t('cut.joinView.toTheLastFrame')"
          @click="player.seek(nearest.frame - 1)"
        >
          <img :src="picture(sides.last)" alt="" />
          <span class="tag clip-text">{{
            $t('cut.joinView.lastOf', { name: nearest.before.name })
          }}</span>
        </button>
        <button
          class="side"
          :title="$t('cut.joinView.toTheFirstFrame')"
          @click="player.seek(nearest.frame)"
        >
          <img :src="picture(sides.first)" alt="" />
          <span class="tag clip-text">{{
            $t('cut.joinView.firstOf', { name: nearest.after.name })
          }}</span>
        </button>
      </div>
    </TrayItem>
    <template v-if="nearest && sides">
      <TrayItem :name="$t('cut.joinView.roll')">
        <div class="rolls" role="group" :aria-label="$t('cut.joinView.rollTheJoin')">
          <span class="small quiet">{{ $t('cut.joinView.roll') }}</span>
          <BButton
            v-for="by in ROLLS"
            :key="by"
            variant="secondary"
            :disabled="locked"
            :title="
              $t(
                'cut.joinView.movesTheJoin',
                { way: by < 0 ? $t('words.earlier') : $t('words.later') },
                Math.abs(by),
              )
            "
            :data-test="`roll${by}`"
            @click="roll(by)"
          >
            {{ by > 0 ? '+' : '−' }}{{ Math.abs(by) }}
          </BButton>
        </div>
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
.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.ways {
  display: flex;
  align-items: center;
  gap: 2px;
  white-space: nowrap;
}
.pair {
  flex: 1 0 150px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.rolls {
  display: grid;
  grid-template-columns: auto repeat(4, 1fr);
  align-items: center;
  gap: 5px;
}
.rolls .btn {
  padding: 2px 0;
}
.side {
  position: relative;
  border: 0;
  padding: 0;
  background: var(--neutral);
  border-radius: 10px 10px 2px 10px;
  overflow: hidden;
  min-height: 0;
}
.side img {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.tag {
  position: absolute;
  left: 6px;
  top: 6px;
  max-width: calc(100% - 12px);
  background: #17141ad9;
  color: var(--text);
  font-size: 12px;
  font-weight: 600;
  padding: 2px 8px;
  border-radius: 8px 8px 2px 8px;
}
</style>
