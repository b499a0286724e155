<script setup lang="ts">
/** The groups that are open, and the ways back. */
import { computed } from 'vue'
import IconBack from '~icons/tabler/arrow-back-up'
import { useScreen } from '@/player/inject'
import { findGroup } from '@/stores/groups'
import { t } from '@/texts'
import { useInside } from '@/timeline/useInside'
import { useProject } from '@/stores/project'

const project = useProject()
const { player } = useScreen()
const path = computed(() =>
  project.opened.map(
    (id) => findGroup(project.document?.tracks ?? [], id)?.name || t('timeline.groupPath.group'),
  ),
)
const { leaveTo } = useInside(player)
</script>

<template>
  <nav class="path" :aria-label="$t('timeline.groupPath.openGroups')">
    <button class="btn btn-bare" data-test="leave-group" @click="leaveTo(path.length - 1)">
      <IconBack aria-hidden="true" />{{ $t('words.back') }}
    </button>
    <button class="crumb" @click="leaveTo(0)">{{ project.name }}</button>
    <template v-for="(name, index) in path" :key="index">
      <span aria-hidden="true" class="quiet">{{ $t('timeline.groupPath.in') }}</span>
      <button class="crumb" :aria-current="index === path.length - 1" @click="leaveTo(index + 1)">
        {{ name }}
      </button>
    </template>
  </nav>
</template>

<style scoped>
.path {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 3px 8px 0;
  overflow-x: auto;
  white-space: nowrap;
}
.crumb {
  border: 0;
  border-radius: var(--fold);
  background: none;
  color: var(--soft);
  min-height: 32px;
  padding: 0 8px;
}
.crumb[aria-current='true'] {
  background: var(--group);
  color: #fff;
  font-weight: 600;
}
</style>
