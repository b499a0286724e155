<script setup lang="ts">
import type { Component } from 'vue'
import { BDropdown, BDropdownItem, BDropdownItemButton } from 'bootstrap-vue-next'
import IconCut from '~icons/tabler/separator-vertical'
import IconDots from '~icons/tabler/dots'
import IconGather from '~icons/tabler/photo-plus'
import IconGrade from '~icons/tabler/circle-half-2'
import IconLayer from '~icons/tabler/stack-front'
import IconMove from '~icons/tabler/vector-spline'
import IconSend from '~icons/tabler/rocket'
import KiteMark from '@/controls/KiteMark.vue'
import { STAGES, type Stage } from '@/router'

defineProps<{ stage: Stage; projectId: string }>()
defineEmits<{ keys: []; flip: [] }>()

const LOOKS: Record<Stage, { name: string; icon: Component }> = {
  gather: { name: 'Gather', icon: IconGather },
  cut: { name: 'Cut', icon: IconCut },
  grade: { name: 'Grade', icon: IconGrade },
  layer: { name: 'Layer', icon: IconLayer },
  move: { name: 'Move', icon: IconMove },
  send: { name: 'Send', icon: IconSend },
}
</script>

<template>
  <nav class="rail" aria-label="Stages">
    <RouterLink to="/" class="home" aria-label="All projects" title="All projects">
      <KiteMark />
    </RouterLink>
    <RouterLink
      v-for="one in STAGES"
      :key="one"
      :to="{ name: 'studio', params: { id: projectId, stage: one } }"
      class="stage"
      :class="{ here: one === stage }"
      :aria-current="one === stage ? 'page' : undefined"
      :data-test="`stage-${one}`"
    >
      <component :is="LOOKS[one].icon" aria-hidden="true" />
      <span>{{ LOOKS[one].name }}</span>
    </RouterLink>
    <span class="spacer" />
    <BDropdown
      class="more"
      :variant="null"
      no-caret
      toggle-class="btn-bare"
      teleport-to="body"
      strategy="fixed"
      placement="right-end"
    >
      <template #button-content><IconDots aria-label="More" /></template>
      <BDropdownItemButton @click="$emit('keys')">Keys</BDropdownItemButton>
      <BDropdownItemButton @click="$emit('flip')">Picture on the other side</BDropdownItemButton>
      <BDropdownItem to="/">All projects</BDropdownItem>
    </BDropdown>
  </nav>
</template>

<style scoped>
.rail {
  background: var(--rail);
  display: flex;
  flex-direction: column;
  align-items: stretch;
}
.home {
  display: grid;
  place-items: center;
  height: 60px;
}
.stage {
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 4px;
  height: 72px;
  color: var(--quiet);
  text-decoration: none;
  font-size: 12px;
  font-weight: 600;
  border-left: 4px solid transparent;
  padding-right: 4px;
}
.stage:hover {
  color: var(--text);
}
.here {
  color: var(--text);
  border-left-color: var(--accent);
  background: linear-gradient(90deg, #3a2442, #261a2e);
  clip-path: polygon(0 0, 100% 0, 100% calc(100% - 14px), calc(100% - 14px) 100%, 0 100%);
}
.icon {
  width: 22px;
  height: 22px;
}
.spacer {
  flex: 1;
}
.more {
  align-self: center;
  margin-bottom: 8px;
}
@media (max-width: 759px) {
  .rail {
    flex-direction: row;
    padding-bottom: env(safe-area-inset-bottom);
  }
  .home,
  .more,
  .spacer {
    display: none;
  }
  .stage {
    flex: 1;
    height: 56px;
    border-left: 0;
    border-top: 3px solid transparent;
    padding: 0;
  }
  .here {
    border-top-color: var(--accent);
    background: linear-gradient(#3a2442, #261a2e);
  }
}
</style>
