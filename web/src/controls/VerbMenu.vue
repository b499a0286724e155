<script setup lang="ts">
/** The verbs that have no button of their own. */
import { BDropdown, BDropdownHeader, BDropdownItemButton } from 'bootstrap-vue-next'
import IconSeveral from '~icons/tabler/copy-plus'
import IconMore from '~icons/tabler/dots'
import IconName from '~icons/tabler/tag'
import { usePhone } from '@/look/phone'
import { useHand } from '@/stores/hand'
import { keyLabel } from './keys'
import { WITH_CLIPS } from './ownKeys'
import { useInHandWords } from './useInHandWords'
import { useOwnKeys } from './useOwnKeys'
import { useDesk } from './verbs/desk'
import type { Verb } from './verbs/verb'

defineProps<{ verbs: readonly Verb[] }>()
defineEmits<{ name: [] }>()
const { now, act } = useDesk()
const { phone } = usePhone()
const { title, facts } = useInHandWords()
const own = useOwnKeys()
const hand = useHand()
</script>

<template>
  <BDropdown
    variant="secondary"
    no-caret
    teleport-to="body"
    strategy="fixed"
    menu-class="more-verbs"
    toggle-class="verb-more"
  >
    <template #button-content>
      <IconMore aria-hidden="true" /><span class="word">{{ $t('words.more') }}</span>
    </template>
    <template v-if="phone && hand.one">
      <BDropdownHeader>{{ title }} · {{ facts }}</BDropdownHeader>
      <BDropdownItemButton data-test="name-and-colour" @click="$emit('name')">
        <IconName class="icon" aria-hidden="true" /><span>{{
          $t('controls.verbMenu.nameAndColour')
        }}</span>
      </BDropdownItemButton>
    </template>
    <BDropdownItemButton v-if="phone" data-test="several" @click="hand.several = !hand.several">
      <IconSeveral class="icon" aria-hidden="true" />
      <span>{{
        hand.several ? $t('controls.verbMenu.takeOneAtATime') : $t('controls.verbMenu.takeSeveral')
      }}</span>
    </BDropdownItemButton>
    <BDropdownItemButton
      v-for="verb in verbs"
      :key="verb.id"
      :disabled="!verb.ready(now)"
      :title="verb.help"
      :data-test="`verb-${verb.id}`"
      @click="act(verb)"
    >
      <component :is="verb.icon" class="icon" aria-hidden="true" />
      <span>{{ verb.label }}</span>
      <kbd class="tiny quiet">{{ keyLabel(own.now(WITH_CLIPS, verb.key)) }}</kbd>
    </BDropdownItemButton>
  </BDropdown>
</template>
