<script setup lang="ts">
/** The strips of all tracks that may sound, from the lowest to the highest, and of the film. */
import { computed } from 'vue'
import { isSounding } from '@/api/types'
import { FILM, useMixing } from '@/stores/mixing'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import StripColumn from './StripColumn.vue'
import { useLevels } from './useLevels'

const project = useProject()
const mixing = useMixing()
const { now } = useLevels()

const strips = computed(() =>
  project.tracks
    .filter((track) => track.kind === 'sound' || (track.clips ?? []).some(isSounding))
    .map((track) => ({ id: track.id ?? '', name: track.name || t('mix.stripRow.track') })),
)

function take(owner: string) {
  mixing.owner = owner
}
</script>

<template>
  <section class="panel strips tray-keep" :aria-label="$t('mix.stripRow.strips')">
    <div class="tracks">
      <StripColumn
        v-for="one in strips"
        :key="one.id"
        :of="one.id"
        :name="one.name"
        :taken="mixing.owner === one.id"
        :level="now[one.id]"
        @take="take(one.id)"
      />
    </div>
    <StripColumn
      :of="FILM"
      :name="$t('mix.stripRow.film')"
      :taken="mixing.owner === FILM"
      :level="now[FILM]"
      @take="take(FILM)"
    />
  </section>
</template>

<style scoped>
.strips {
  display: flex;
  gap: 8px;
  padding: 10px;
  min-height: 0;
  min-width: 0;
  flex: 1;
}
.tracks {
  display: flex;
  flex: 1;
  gap: 8px;
  min-width: 0;
  min-height: 0;
  overflow-x: auto;
  scrollbar-width: thin;
}
.phone .strips {
  padding: 0;
  gap: 6px;
  background: none;
  height: 100%;
}
.phone .tracks {
  gap: 6px;
  scrollbar-width: none;
}
</style>
