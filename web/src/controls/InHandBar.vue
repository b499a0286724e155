<script setup lang="ts">
import { BButton, BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconPlus from '~icons/tabler/plus'
import IconX from '~icons/tabler/x'
import { hasMedia } from '@/api/types'
import type { Situation, Verb } from '@/controls/verbs'
import { VERBS } from '@/controls/verbs'
import { KIND_NAMES } from '@/timeline/kinds'
import { fileUrl, useLibrary } from '@/stores/library'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { lengthLabel } from '@/time'

const props = defineProps<{ now: Situation }>()
const emit = defineEmits<{ verb: [verb: Verb] }>()
const hand = useHand()
const library = useLibrary()
const project = useProject()

const verbs = computed(() => VERBS.filter((verb) => verb.shown(props.now)))
const safe = computed(() => verbs.value.filter((verb) => !verb.danger))
const dangerous = computed(() => verbs.value.filter((verb) => verb.danger))

const picture = computed(() => {
  const clip = hand.one?.clip
  if (!clip || !hasMedia(clip)) return ''
  const take = library.byMedia.get(clip.media)
  return take?.strip ? fileUrl(take, 'poster.jpg') : ''
})
const title = computed(() => {
  if (!hand.found.length) return 'Nothing in hand'
  const clip = hand.one?.clip
  return clip ? clip.name || KIND_NAMES[clip.kind] : `${hand.found.length} clips in hand`
})
const facts = computed(() => {
  if (!hand.found.length) return 'Tap a clip to take it'
  if (!hand.one) return 'Verbs act on all of them'
  const { clip, track } = hand.one
  return `${KIND_NAMES[clip.kind]} · ${track.name} · ${lengthLabel(clip.length)}`
})
</script>

<template>
  <section class="bar" aria-label="In hand">
    <div class="what">
      <img v-if="picture" :src="picture" alt="" class="picture" />
      <span v-else class="picture none" :class="hand.one?.clip.kind" />
      <div class="words">
        <div class="fw-semibold clip-text" data-test="in-hand">{{ title }}</div>
        <div class="tiny quiet clip-text" :title="facts">{{ facts }}</div>
      </div>
      <button
        v-if="hand.found.length"
        class="btn btn-bare let-go"
        aria-label="Put it down"
        title="Put it down (Esc)"
        @click="hand.release()"
      >
        <IconX aria-hidden="true" />
      </button>
    </div>
    <div class="verbs">
      <BButton
        v-for="verb in safe"
        :key="verb.id"
        variant="secondary"
        :disabled="!verb.ready(now)"
        :title="verb.help"
        :data-test="`verb-${verb.id}`"
        @click="emit('verb', verb)"
      >
        <component :is="verb.icon" aria-hidden="true" />
        <span class="word">{{ verb.label }}</span>
      </BButton>
      <BDropdown v-if="!hand.found.length" variant="secondary" no-caret>
        <template #button-content>
          <IconPlus aria-hidden="true" /><span class="word">Track</span>
        </template>
        <BDropdownItemButton @click="project.edit({ kind: 'add_track', track: 'picture' })">
          Track for pictures
        </BDropdownItemButton>
        <BDropdownItemButton @click="project.edit({ kind: 'add_track', track: 'sound' })">
          Track for sound
        </BDropdownItemButton>
      </BDropdown>
    </div>
    <span class="spacer" />
    <div class="verbs">
      <BButton
        v-for="verb in dangerous"
        :key="verb.id"
        variant="secondary"
        :title="verb.help"
        :data-test="`verb-${verb.id}`"
        @click="emit('verb', verb)"
      >
        <component :is="verb.icon" aria-hidden="true" />
        <span class="word">{{ verb.label }}</span>
      </BButton>
    </div>
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
.what {
  display: flex;
  align-items: center;
  gap: 10px;
  flex: 0 0 auto;
  width: 212px;
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
.picture.none.sound {
  outline-color: var(--accent);
}
.picture.none.sound {
  background: var(--sound);
}
.picture.none.solid {
  background: var(--solid);
}
.words {
  min-width: 0;
  flex: 1;
}
.let-go {
  min-width: 28px;
  padding: 0;
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
  min-width: 50px;
  min-height: 46px;
  padding: 2px 5px;
}
.word {
  font-size: 12px;
  font-weight: 500;
  line-height: 1.2;
  white-space: nowrap;
}
.spacer {
  flex: 1;
}
@media (max-width: 700px) {
  .what {
    width: 158px;
  }
}
</style>
