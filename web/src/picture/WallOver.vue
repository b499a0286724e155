<script setup lang="ts">
/** The angles of a multicam clip beside each other: each is tapped to be shown, the live one framed. */
import { computed } from 'vue'
import AngleBadge from '@/controls/AngleBadge.vue'
import { anglesOf } from '@/motion/angles'
import { useScreen } from '@/player/inject'
import { useAngles } from '@/stores/angles'

defineProps<{ width: number; height: number }>()
const angles = useAngles()
const { player } = useScreen()

const cells = computed(() => {
  const all = angles.clip ? anglesOf(angles.clip) : []
  return angles.shown.flatMap((index) => all[index] ?? [])
})
const switching = computed(() => angles.bench === 'switch')
const live = computed(() => (switching.value ? angles.liveAt(player.shown.value) : -1))
</script>

<template>
  <div
    class="wall"
    role="group"
    :aria-label="$t('picture.wallOver.angles')"
    :style="{
      gridTemplate: `repeat(${angles.grid.rows}, 1fr) / repeat(${angles.grid.beside + angles.grid.columns}, 1fr)`,
    }"
  >
    <div
      v-if="angles.grid.beside"
      class="cell"
      :style="{ gridArea: `1 / 1 / -1 / span ${angles.grid.beside}` }"
      data-test="wall-film"
    >
      <span class="told film">{{ $t('picture.wallOver.film') }}</span>
    </div>
    <component
      :is="switching ? 'button' : 'div'"
      v-for="(angle, place) in cells"
      :key="angle.index"
      :type="switching ? 'button' : undefined"
      class="cell"
      :class="{ live: angle.index === live }"
      :aria-pressed="switching ? angle.index === live : undefined"
      :aria-label="switching ? $t('picture.wallOver.show', { name: angle.name }) : undefined"
      :data-test="`wall-${angle.index}`"
      @click="switching && angles.tap(angle.index)"
    >
      <span class="told"
        ><AngleBadge :index="angle.index" :tag="angle.tag" /><span class="clip-text">{{
          angle.name
        }}</span
        ><span v-if="!switching" class="side">{{
          place ? $t('picture.wallOver.right') : $t('picture.wallOver.left')
        }}</span></span
      >
    </component>
  </div>
</template>

<style scoped>
.wall {
  position: absolute;
  inset: 0;
  display: grid;
}
.cell {
  position: relative;
  border: 0;
  padding: 0;
  min-width: 0;
  background: none;
  box-shadow: inset 0 0 0 1px #0008;
  touch-action: manipulation;
}
.live {
  box-shadow:
    inset 0 0 0 4px var(--accent),
    inset 0 0 0 6px #17141a;
}
.told {
  position: absolute;
  left: 7px;
  bottom: 7px;
  max-width: calc(100% - 14px);
  display: flex;
  align-items: center;
  gap: 5px;
  padding-right: 7px;
  overflow: hidden;
  border-radius: 8px 8px 2px 8px;
  background: #17141ad9;
  color: var(--text);
  font-size: 12px;
}
.film {
  padding-left: 7px;
}
.side {
  color: var(--soft);
}
</style>
