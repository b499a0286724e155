<script setup lang="ts">
import { BDropdown, BDropdownItem, BDropdownItemButton } from 'bootstrap-vue-next'
import IconDots from '~icons/tabler/dots'
import KiteMark from '@/controls/KiteMark.vue'
import { STAGES } from '@/stages'

defineProps<{ stage: string; projectId: string }>()
defineEmits<{ keys: []; flip: [] }>()
</script>

<template>
  <nav class="rail" :aria-label="$t('views.stageRail.stages')">
    <RouterLink
      to="/"
      class="home"
      :aria-label="$t('views.stageRail.allProjects')"
      :title="$t('views.stageRail.allProjects')"
    >
      <KiteMark />
    </RouterLink>
    <RouterLink
      v-for="one in STAGES"
      :key="one.id"
      :to="{ name: 'studio', params: { id: projectId, stage: one.id } }"
      class="stage"
      :class="{ here: one.id === stage }"
      :aria-current="one.id === stage ? 'page' : undefined"
      :data-test="`stage-${one.id}`"
    >
      <component :is="one.icon" class="icon" aria-hidden="true" />
      <span>{{ one.name }}</span>
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
      <template #button-content><IconDots :aria-label="$t('words.more')" /></template>
      <BDropdownItemButton @click="$emit('keys')">{{
        $t('views.stageRail.keys')
      }}</BDropdownItemButton>
      <BDropdownItemButton @click="$emit('flip')">{{
        $t('views.stageRail.pictureOnTheOtherSide')
      }}</BDropdownItemButton>
      <BDropdownItem to="/">{{ $t('views.stageRail.allProjects') }}</BDropdownItem>
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
.phone .rail {
  flex-direction: row;
  padding-bottom: env(safe-area-inset-bottom);
}
.phone .home,
.phone .more,
.phone .spacer {
  display: none;
}
.phone .stage {
  flex: 1;
  height: 54px;
  min-width: 0;
  gap: 2px;
  border-left: 0;
  border-top: 3px solid transparent;
  padding: 0;
}
.phone .here {
  border-top-color: var(--accent);
  background: linear-gradient(#3a2442, #261a2e);
}
@media (max-height: 720px) {
  .phone .stage {
    height: 46px;
  }
  .phone .stage .icon {
    width: 19px;
    height: 19px;
  }
}
.phone.lying .rail {
  flex-direction: column;
  padding: 0 0 0 env(safe-area-inset-left);
}
.phone.lying .stage {
  height: auto;
  border-top: 0;
  border-left: 3px solid transparent;
}
.phone.lying .here {
  border-left-color: var(--accent);
}
</style>
