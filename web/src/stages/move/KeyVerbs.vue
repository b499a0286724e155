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
import { t } from '@/texts'

defineProps<{
  /** Whether the property that is shown has keys at all. */
  hasKeys: boolean
  /** How its two numbers move, if it has two. */
  ways: 'together' | 'apart' | null
}>()
defineEmits<{ all: []; ways: ['part_axes' | 'join_axes'] }>()
const moving = useMoving()
const clipboard = useClipboard()
const hand = useHand()
const keys = useKeys()

const taken = computed(() => keys.count.value)
const told = computed(() =>
  taken.value ? t('move.keyVerbs.keysInHand', taken.value) : t('move.keyVerbs.noKeyInHand'),
)
const factor = ref(150)
const REPEATS = [
  { way: 'again', name: t('move.keyVerbs.againAndAgainToThe') },
  { way: 'back', name: t('move.keyVerbs.thereAndBackToThe') },
  { way: 'on', name: t('move.keyVerbs.onAndOnFromWhere') },
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
      {{ $t('move.keyVerbs.all') }}
    </button>
    <button
      class="btn btn-bare"
      :disabled="!taken"
      :aria-label="$t('move.keyVerbs.oneFrameEarlier')"
      :title="$t('move.keyVerbs.oneFrameEarlier')"
      @click="keys.shift(-keys.frame.value)"
    >
      <IconEarlier aria-hidden="true" />
    </button>
    <button
      class="btn btn-bare"
      :disabled="!taken"
      :aria-label="$t('move.keyVerbs.oneFrameLater')"
      :title="$t('move.keyVerbs.oneFrameLater')"
      data-test="keys-later"
      @click="keys.shift(keys.frame.value)"
    >
      <IconLater aria-hidden="true" />
    </button>
    <button
      class="btn btn-bare"
      :aria-pressed="moving.linked"
      :title="
        moving.linked
          ? $t('move.keyVerbs.bothHandlesOfAKey')
          : $t('move.keyVerbs.eachHandleGoesItsOwn')
      "
      data-test="handles-linked"
      @click="moving.linked = !moving.linked"
    >
      <IconLinked v-if="moving.linked" aria-hidden="true" />
      <IconBroken v-else aria-hidden="true" />
      <span class="word">{{
        moving.linked ? $t('move.keyVerbs.linked') : $t('move.keyVerbs.broken')
      }}</span>
    </button>
    <button
      class="btn btn-bare"
      :disabled="!taken"
      :aria-label="$t('move.keyVerbs.copyTheKeys')"
      :title="$t('move.keyVerbs.copyTheKeys')"
      data-test="copy-keys"
      @click="keys.copy()"
    >
      <IconCopy aria-hidden="true" />
    </button>
    <button
      class="btn btn-bare"
      :disabled="!taken"
      :aria-label="$t('move.keyVerbs.deleteTheKeys')"
      :title="$t('move.keyVerbs.deleteTheKeys')"
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
      <template #button-content
        ><IconMore :aria-label="$t('move.keyVerbs.moreForKeys')"
      /></template>
      <BDropdownItemButton
        v-if="ways === 'together'"
        data-test="part-axes"
        @click="$emit('ways', 'part_axes')"
      >
        {{ $t('move.keyVerbs.acrossAndDownApart') }}
      </BDropdownItemButton>
      <BDropdownItemButton
        v-if="ways === 'apart'"
        data-test="join-axes"
        @click="$emit('ways', 'join_axes')"
      >
        {{ $t('move.keyVerbs.acrossAndDownTogether') }}
      </BDropdownItemButton>
      <BDropdownItemButton data-test="take-every-key" @click="keys.takeEvery()">
        {{ $t('move.keyVerbs.takeEveryKeyOfWhat') }}
      </BDropdownItemButton>
      <BDropdownItemButton
        :disabled="!clipboard.keys.length"
        data-test="paste-keys"
        @click="keys.paste()"
      >
        {{ $t('move.keyVerbs.pasteKeysAtThePlayhead') }}
      </BDropdownItemButton>
      <BDropdownItemButton
        :disabled="!clipboard.keys.length"
        data-test="paste-keys-relative"
        @click="keys.paste(true)"
      >
        {{ $t('move.keyVerbs.pasteKeysGoingOnFrom') }}
      </BDropdownItemButton>
      <BDropdownItemButton :disabled="taken < 2" data-test="mirror-keys" @click="keys.mirror()">
        {{ $t('move.keyVerbs.thereAndBack') }}
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
        {{ $t('move.keyVerbs.reverse') }}
      </BDropdownItemButton>
      <li class="ask" @click.stop>
        <input
          v-model.number="factor"
          type="number"
          min="5"
          max="1000"
          :aria-label="$t('move.keyVerbs.percent')"
        />
        %
        <button
          class="btn btn-sm btn-secondary"
          :disabled="taken < 2 || !(factor > 0)"
          data-test="stretch-keys"
          @click="keys.stretch(factor / 100)"
        >
          {{ $t('move.keyVerbs.stretch') }}
        </button>
      </li>
      <li class="ask" @click.stop>
        <input
          v-model.number="moving.later"
          type="number"
          :aria-label="$t('move.keyVerbs.framesLater')"
        />
        {{ $t('move.keyVerbs.frames') }}
        <button
          class="btn btn-sm btn-secondary"
          :disabled="hand.ids.length < 2 || !moving.later"
          :title="$t('move.keyVerbs.eachLayerInHandBegins')"
          data-test="later-keys"
          @click="keys.later(moving.later)"
        >
          {{ $t('move.keyVerbs.laterAlongLayers', hand.ids.length) }}
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
