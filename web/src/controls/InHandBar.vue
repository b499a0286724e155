<script setup lang="ts">
import {
  BButton,
  BDropdown,
  BDropdownHeader,
  BDropdownItemButton,
  BModal,
} from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import IconKeyBefore from '~icons/tabler/chevron-left'
import IconKeyNext from '~icons/tabler/chevron-right'
import IconMore from '~icons/tabler/dots'
import IconName from '~icons/tabler/tag'
import IconPlus from '~icons/tabler/plus'
import IconSeveral from '~icons/tabler/copy-plus'
import IconX from '~icons/tabler/x'
import { faceMedia, type Tag } from '@/api/types'
import { keyLabel } from '@/controls/keys'
import TagPicker from '@/controls/TagPicker.vue'
import { WITH_CLIPS } from '@/controls/ownKeys'
import { useOwnKeys } from '@/controls/useOwnKeys'
import { useToldKeys } from '@/controls/useToldKeys'
import { useDesk } from '@/controls/verbs/desk'
import { useLayer } from '@/inhand/useLayer'
import { usePhone } from '@/look/phone'
import { KIND_NAMES, tagColour } from '@/api/kinds'
import { fileUrl, useLibrary } from '@/stores/library'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { lengthLabel } from '@/time'

const { now, shown, act } = useDesk()
const { phone } = usePhone()
const own = useOwnKeys()
const told = useToldKeys()
const layer = useLayer()
const hand = useHand()
const library = useLibrary()
const project = useProject()

/** On a phone all of them stand in one menu. */
const inMenu = computed(() => shown.value.filter((verb) => verb.more || phone.value))
const safe = computed(() =>
  shown.value.filter((verb) => !verb.danger && !inMenu.value.includes(verb)),
)
const dangerous = computed(() =>
  shown.value.filter((verb) => verb.danger && !inMenu.value.includes(verb)),
)

const picture = computed(() => {
  const clip = hand.one?.clip
  const take = clip && library.byMedia.get(faceMedia(clip))
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

const naming = ref(false)
const name = ref('')
const tag = ref<Tag>('')

function askName() {
  const clip = hand.one?.clip
  if (!clip) return
  name.value = clip.name ?? ''
  tag.value = clip.tag ?? ''
  naming.value = true
}

function setName() {
  const clip = hand.one?.clip
  if (!clip) return
  const values = { name: name.value.trim(), tag: tag.value }
  project.edit({ kind: 'adjust', clips: [clip.id ?? ''], values })
}
</script>

<template>
  <section class="bar" aria-label="In hand">
    <div class="what">
      <img v-if="picture" :src="picture" alt="" class="picture" />
      <span v-else class="picture none" :class="hand.one?.clip.kind" />
      <div class="words">
        <button
          class="title fw-semibold clip-text"
          data-test="in-hand"
          :title="hand.one ? 'Name and colour' : title"
          :disabled="!hand.one"
          @click="askName"
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
        aria-label="Take several"
        title="Take several: each tap adds a clip"
        :data-test="phone ? 'several-on' : 'several'"
        @click="hand.several = !hand.several"
      >
        <IconSeveral aria-hidden="true" />
      </button>
      <button
        v-if="hand.found.length"
        class="btn btn-bare let-go"
        aria-label="Put it down"
        :title="told('Put it down', 'esc')"
        @click="hand.release()"
      >
        <IconX aria-hidden="true" />
      </button>
    </div>
    <span v-if="phone" class="spacer" />
    <template v-if="phone && layer.hasKeys.value">
      <button
        class="btn btn-bare jump"
        aria-label="To the key before"
        data-test="key-before"
        @click="layer.jump(-1)"
      >
        <IconKeyBefore aria-hidden="true" />
      </button>
      <svg class="sign" viewBox="0 0 14 20" aria-hidden="true"><path d="M7 1l6 6-6 12L1 7z" /></svg>
      <button
        class="btn btn-bare jump"
        aria-label="To the next key"
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
      <BDropdown
        v-if="inMenu.length"
        variant="secondary"
        no-caret
        teleport-to="body"
        strategy="fixed"
        menu-class="more-verbs"
        toggle-class="verb-more"
      >
        <template #button-content>
          <IconMore aria-hidden="true" /><span class="word">More</span>
        </template>
        <template v-if="phone && hand.one">
          <BDropdownHeader>{{ title }} · {{ facts }}</BDropdownHeader>
          <BDropdownItemButton data-test="name-and-colour" @click="askName">
            <IconName class="icon" aria-hidden="true" /><span>Name and colour</span>
          </BDropdownItemButton>
        </template>
        <BDropdownItemButton v-if="phone" data-test="several" @click="hand.several = !hand.several">
          <IconSeveral class="icon" aria-hidden="true" />
          <span>{{ hand.several ? 'Take one at a time' : 'Take several' }}</span>
        </BDropdownItemButton>
        <BDropdownItemButton
          v-for="verb in inMenu"
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
      <BDropdown
        v-if="!hand.found.length"
        variant="secondary"
        no-caret
        teleport-to="body"
        strategy="fixed"
      >
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
    <BModal
      v-model="naming"
      title="Name and colour"
      ok-title="Set"
      cancel-title="Cancel"
      cancel-variant="secondary"
      @ok="setName"
    >
      <label class="form-label" for="clip-name">Name</label>
      <input id="clip-name" v-model="name" data-first class="form-control mb-3" maxlength="200" />
      <TagPicker v-model="tag" />
    </BModal>
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
  width: 232px;
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
.phone .verbs :deep(.btn) {
  min-height: 44px;
  min-width: 44px;
}
.phone .word {
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
