<script setup lang="ts">
import { BButton, BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import IconKeyBefore from '~icons/tabler/chevron-left'
import IconKeyNext from '~icons/tabler/chevron-right'
import IconPlus from '~icons/tabler/plus'
import { useLayer } from '@/inhand/useLayer'
import { usePhone } from '@/look/phone'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import ClipDialog from './ClipDialog.vue'
import VerbMenu from './VerbMenu.vue'
import WhatIsInHand from './WhatIsInHand.vue'
import { useDesk } from './verbs/desk'

const { now, shown, act } = useDesk()
const { phone } = usePhone()
const layer = useLayer()
const hand = useHand()
const project = useProject()

/** On a phone all of them stand in one menu. */
const inMenu = computed(() => shown.value.filter((verb) => verb.more || phone.value))
const safe = computed(() =>
  shown.value.filter((verb) => !verb.danger && !inMenu.value.includes(verb)),
)
const dangerous = computed(() =>
  shown.value.filter((verb) => verb.danger && !inMenu.value.includes(verb)),
)

const naming = ref(false)
</script>

<template>
  <section class="bar" :aria-label="$t('controls.inHandBar.inHand')">
    <WhatIsInHand @name="naming = true" />
    <span v-if="phone" class="spacer" />
    <template v-if="phone && layer.hasKeys.value">
      <button
        class="btn btn-bare jump"
        :aria-label="$t('words.toTheKeyBefore')"
        data-test="key-before"
        @click="layer.jump(-1)"
      >
        <IconKeyBefore aria-hidden="true" />
      </button>
      <svg class="sign" viewBox="0 0 14 20" aria-hidden="true"><path d="M7 1l6 6-6 12L1 7z" /></svg>
      <button
        class="btn btn-bare jump"
        :aria-label="$t('words.toTheNextKey')"
        data-test="key-next"
        @click="layer.jump(1)"
      >
        <IconKeyNext aria-hidden="true" />
      </button>
    </template>
    <div class="verbs">
      <BButton
        v-for="verb in safe"
        :key="verb.id"
        variant="secondary"
        :disabled="!verb.ready(now)"
        :title="verb.help"
        :data-test="`verb-${verb.id}`"
        @click="act(verb)"
      >
        <component :is="verb.icon" aria-hidden="true" />
        <span class="word">{{ verb.label }}</span>
      </BButton>
      <VerbMenu v-if="inMenu.length" :verbs="inMenu" @name="naming = true" />
      <BDropdown
        v-if="!hand.found.length"
        variant="secondary"
        no-caret
        teleport-to="body"
        strategy="fixed"
      >
        <template #button-content>
          <IconPlus aria-hidden="true" /><span class="word">{{
            $t('controls.inHandBar.track')
          }}</span>
        </template>
        <BDropdownItemButton @click="project.edit({ kind: 'add_track', track: 'picture' })">
          {{ $t('controls.inHandBar.trackForPictures') }}
        </BDropdownItemButton>
        <BDropdownItemButton @click="project.edit({ kind: 'add_track', track: 'sound' })">
          {{ $t('controls.inHandBar.trackForSound') }}
        </BDropdownItemButton>
      </BDropdown>
    </div>
    <span v-if="!phone" class="spacer" />
    <div v-if="dangerous.length" class="verbs">
      <BButton
        v-for="verb in dangerous"
        :key="verb.id"
        variant="secondary"
        :title="verb.help"
        :data-test="`verb-${verb.id}`"
        @click="act(verb)"
      >
        <component :is="verb.icon" aria-hidden="true" />
        <span class="word">{{ verb.label }}</span>
      </BButton>
    </div>
    <ClipDialog v-model="naming" />
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 8px;
  background: var(--panel);
  border-top: 1px solid var(--line);
  border-bottom: 1px solid var(--line);
  padding: 6px 12px;
  overflow-x: auto;
  scrollbar-width: none;
}
.verbs {
  display: flex;
  gap: 4px;
  flex: none;
}
.verbs .btn,
.verbs :deep(.btn) {
  flex-direction: column;
  gap: 1px;
  min-width: 46px;
  min-height: 46px;
  padding: 2px 3px;
}
.verbs :deep(.word) {
  font-size: 12px;
  font-weight: 500;
  line-height: 1.2;
  white-space: nowrap;
}
.spacer {
  flex: 1;
}
.sign {
  width: 9px;
  height: 14px;
  fill: var(--mark);
  flex: none;
}
.jump {
  padding: 0;
}
.phone .bar {
  padding: 2px 8px 2px 12px;
  gap: 2px;
  border-bottom: 0;
}
.phone .verbs :deep(.btn) {
  min-height: 44px;
  min-width: 44px;
}
.phone .verbs :deep(.word) {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
@media (max-height: 720px) {
  .phone .standing:not(.open) > .bar {
    padding: 2px;
    border: 0;
    background: #110e14;
  }
  .phone .standing:not(.open) > .bar > :not(.verbs, .jump) {
    display: none;
  }
}
</style>
