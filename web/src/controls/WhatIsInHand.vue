<script setup lang="ts">
/** The clip in hand: its picture, its name, several at once, putting it down. */
import { computed } from 'vue'
import IconSeveral from '~icons/tabler/copy-plus'
import IconX from '~icons/tabler/x'
import { tagColour } from '@/api/kinds'
import { faceMedia } from '@/api/types'
import { usePhone } from '@/look/phone'
import { useHand } from '@/stores/hand'
import { fileUrl, useLibrary } from '@/stores/library'
import { useInHandWords } from './useInHandWords'
import { useToldKeys } from './useToldKeys'

defineEmits<{ name: [] }>()
const { phone } = usePhone()
const { title, facts } = useInHandWords()
const told = useToldKeys()
const hand = useHand()
const library = useLibrary()

const picture = computed(() => {
  const clip = hand.one?.clip
  const take = clip && library.byMedia.get(faceMedia(clip))
  return take?.strip ? fileUrl(take, 'poster.jpg') : ''
})
</script>

<template>
  <div class="what">
    <img v-if="picture" :src="picture" alt="" class="picture" />
    <span v-else class="picture none" :class="hand.one?.clip.kind" />
    <div class="words">
      <button
        class="title fw-semibold clip-text"
        data-test="in-hand"
        :title="hand.one ? $t('controls.whatIsInHand.nameColourStartAndLength') : title"
        :disabled="!hand.one"
        @click="$emit('name')"
      >
        <span
          v-if="hand.one?.clip.tag"
          class="dot"
          :style="{ background: tagColour(hand.one.clip.tag) }"
        />{{ title }}
      </button>
      <div class="tiny quiet clip-text" :title="facts">{{ facts }}</div>
    </div>
    <button
      v-if="hand.found.length && (!phone || hand.several)"
      class="btn btn-bare let-go"
      :class="{ on: hand.several }"
      :aria-pressed="hand.several"
      :aria-label="$t('controls.whatIsInHand.takeSeveral')"
      :title="$t('controls.whatIsInHand.takeSeveralEachTapAdds')"
      :data-test="phone ? 'several-on' : 'several'"
      @click="hand.several = !hand.several"
    >
      <IconSeveral aria-hidden="true" />
    </button>
    <button
      v-if="hand.found.length"
      class="btn btn-bare let-go"
      :aria-label="$t('controls.whatIsInHand.putItDown')"
      :title="told($t('controls.whatIsInHand.putItDown'), 'esc')"
      @click="hand.release()"
    >
      <IconX aria-hidden="true" />
    </button>
  </div>
</template>

<style scoped>
.what {
  display: flex;
  align-items: center;
  gap: 10px;
  flex: 0 1 276px;
  min-width: 232px;
  padding-right: 8px;
  border-right: 1px solid var(--line);
}
.picture {
  width: 36px;
  height: 40px;
  object-fit: cover;
  border-radius: 8px 8px 2px 8px;
  outline: 2px solid var(--accent);
  flex: none;
}
.picture.none {
  outline-color: var(--line);
  background: var(--raised);
}
.picture.none.solid,
.picture.none.text,
.picture.none.shape,
.picture.none.adjustment,
.picture.none.sound {
  outline-color: var(--accent);
}
.picture.none.sound {
  background: var(--sound);
}
.picture.none.text {
  background: var(--text-clip);
}
.picture.none.shape {
  background: var(--shape);
}
.picture.none.adjustment {
  background: var(--adjustment);
}
.picture.none.solid {
  background: var(--solid);
}
.words {
  min-width: 0;
  flex: 1;
}
.let-go {
  min-width: 30px;
  padding: 0;
}
.let-go.on {
  background: var(--accent);
  color: var(--ink);
}
.title {
  display: block;
  width: 100%;
  border: 0;
  background: none;
  padding: 0;
  color: var(--text);
  text-align: left;
}
@media (pointer: coarse) {
  /* All that tells what is in hand can be tapped. */
  .title {
    padding: 11px 0;
    margin: -11px 0;
  }
  .title + div {
    pointer-events: none;
  }
  .let-go {
    min-width: var(--touch);
  }
}
.dot {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin-right: 6px;
  border-radius: 5px 5px 1px 5px;
}
.phone .what {
  flex: 0 1 auto;
  min-width: 0;
  width: auto;
  border: 0;
}
.phone .picture {
  height: 36px;
  width: 32px;
}
</style>
