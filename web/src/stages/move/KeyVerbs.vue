<script setup lang="ts">
/** What can be done with the keys in hand. */
import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import IconBroken from '~icons/tabler/unlink'
import IconCopy from '~icons/tabler/copy'
import IconDelete from '~icons/tabler/trash'
import IconEarlier from '~icons/tabler/chevron-left'
import IconLater from '~icons/tabler/chevron-right'
import IconLinked from '~icons/tabler/link'
import IconMore from '~icons/tabler/dots'
import { useClipboard } from '@/stores/clipboard'
import { useHand } from '@/stores/hand'
import { useMoving } from '@/stores/moving'
import { useKeys } from '@/inhand/useKeys'

defineProps<{
  /** Whether the property that is shown has keys at all. */
  hasKeys: boolean
}>()
defineEmits<{ all: [] }>()
const moving = useMoving()
const clipboard = useClipboard()
const hand = useHand()
const keys = useKeys()

const taken = computed(() => keys.count.value)
const told = computed(() =>
  taken.value ? `${taken.value} key${taken.value > 1 ? 's' : ''} in hand` : 'No key in hand',
)
const factor = ref(150)
const REPEATS = [
  { way: 'again', name: 'Again and again to the end' },
  { way: 'back', name: 'There and back to the end' },
  { way: 'on', name: 'On and on, from where it ended' },
] as const
</script>

<template>
  <div class="verbs">
    <span class="tiny quiet told" role="status" data-test="keys-told">{{ told }}</span>
    <button
      class="btn btn-bare"
      :disabled="!hasKeys"
      data-test="take-all-keys"
      @click="$emit('all')"
    >
      All
    </button>
    <button
      class="btn btn-bare"
      :disabled="!taken"
      aria-label="One frame earlier"
      title="One frame earlier"
      @click="keys.shift(-keys.frame.value)"
    >
      <IconEarlier aria-hidden="true" />
    </button>
    <button
      class="btn btn-bare"
      :disabled="!taken"
      aria-label="One frame later"
      title="One frame later"
      data-test="keys-later"
      @click="keys.shift(keys.frame.value)"
    >
      <IconLater aria-hidden="true" />
    </button>
    <button
      class="btn btn-bare"
      :aria-pressed="moving.linked"
      :title="moving.linked ? 'Both handles of a key stay in line' : 'Each handle goes its own way'"
      data-test="handles-linked"
      @click="moving.linked = !moving.linked"
    >
      <IconLinked v-if="moving.linked" aria-hidden="true" />
      <IconBroken v-else aria-hidden="true" />
      <span class="word">{{ moving.linked ? 'Linked' : 'Broken' }}</span>
    </button>
    <button
      class="btn btn-bare"
      :disabled="!taken"
      aria-label="Copy the keys"
      title="Copy the keys"
      data-test="copy-keys"
      @click="keys.copy()"
    >
      <IconCopy aria-hidden="true" />
    </button>
    <button
      class="btn btn-bare"
      :disabled="!taken"
      aria-label="Delete the keys"
      title="Delete the keys"
      data-test="remove-keys"
      @click="keys.remove()"
    >
      <IconDelete aria-hidden="true" />
    </button>
    <BDropdown
      size="sm"
      :variant="null"
      toggle-class="btn-bare"
      no-caret
      teleport-to="body"
      strategy="fixed"
      data-test="keys-more"
    >
      <template #button-content><IconMore aria-label="More for keys" /></template>
      <BDropdownItemButton data-test="take-every-key" @click="keys.takeEvery()">
        Take every key of what is in hand
      </BDropdownItemButton>
      <BDropdownItemButton
        :disabled="!clipboard.keys.length"
        data-test="paste-keys"
        @click="keys.paste()"
      >
        Paste keys at the playhead
      </BDropdownItemButton>
      <BDropdownItemButton
        :disabled="!clipboard.keys.length"
        data-test="paste-keys-relative"
        @click="keys.paste(true)"
      >
        Paste keys, going on from where it is
      </BDropdownItemButton>
      <BDropdownItemButton :disabled="taken < 2" data-test="mirror-keys" @click="keys.mirror()">
        There and back
      </BDropdownItemButton>
      <BDropdownItemButton
        v-for="one in REPEATS"
        :key="one.way"
        :disabled="taken < 2"
        :data-test="`repeat-keys-${one.way}`"
        @click="keys.repeat(one.way)"
      >
        {{ one.name }}
      </BDropdownItemButton>
      <BDropdownItemButton :disabled="taken < 2" data-test="reverse-keys" @click="keys.reverse()">
        Reverse
      </BDropdownItemButton>
      <li class="ask" @click.stop>
        <input v-model.number="factor" type="number" min="5" max="1000" aria-label="Percent" /> %
        <button
          class="btn btn-sm btn-secondary"
          :disabled="taken < 2 || !(factor > 0)"
          data-test="stretch-keys"
          @click="keys.stretch(factor / 100)"
        >
          Stretch
        </button>
      </li>
      <li class="ask" @click.stop>
        <input v-model.number="moving.later" type="number" aria-label="Frames later" /> frames
        <button
          class="btn btn-sm btn-secondary"
          :disabled="hand.ids.length < 2 || !moving.later"
          title="Each layer in hand begins so much after the one taken before it"
          data-test="later-keys"
          @click="keys.later(moving.later)"
        >
          Later along {{ hand.ids.length }} layers
        </button>
      </li>
    </BDropdown>
  </div>
</template>

<style scoped>
.verbs {
  display: flex;
  align-items: center;
  min-width: 0;
}
.verbs .btn {
  font-size: 13px;
  padding: 0 7px;
  gap: 4px;
  min-height: 34px;
}
.told {
  flex: 1;
  white-space: nowrap;
}
.ask {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 4px 16px;
}
.ask input {
  width: 64px;
}
@media (pointer: coarse) {
  .verbs .btn {
    min-height: var(--touch);
    min-width: var(--touch);
  }
}
.phone .verbs .word {
  display: none;
}
</style>
